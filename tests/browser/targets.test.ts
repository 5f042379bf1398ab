/** The target path. */
import { targetJobs } from '../jobs/targets';
import { inBrowser } from '../tools';

inBrowser(targetJobs);
