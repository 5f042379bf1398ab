/** Charts written on their bars. */
import { barJobs } from '../jobs/bars';
import { inBrowser } from '../tools';

inBrowser(barJobs);
