/** Takes. */
import { takeJobs } from '../jobs/takes';
import { inBrowser } from '../tools';

inBrowser(takeJobs);
