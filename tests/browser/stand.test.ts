/** The stand: what plays, and what is practised. */
import { rehearseJobs } from '../jobs/rehearse';
import { practiceJobs } from '../jobs/practice';
import { inBrowser } from '../tools';

inBrowser(rehearseJobs, practiceJobs);
