/** For everybody: axe, controls as large as a finger, paper. */
import { accessJobs } from '../jobs/access';
import { inBrowser } from '../tools';

inBrowser(accessJobs);
