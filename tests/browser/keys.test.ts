/** Keys. */
import { keyJobs } from '../jobs/keys';
import { inBrowser } from '../tools';

inBrowser(keyJobs);
