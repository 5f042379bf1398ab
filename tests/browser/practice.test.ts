/** Practice. */
import { practiceJobs } from '../jobs/practice';
import { inBrowser } from '../tools';

inBrowser(practiceJobs);
