/** What is kept, however large, and whatever goes wrong. */
import { keepingJobs } from '../jobs/keeping';
import { inBrowser } from '../tools';

inBrowser(keepingJobs);
