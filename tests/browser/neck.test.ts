/** The neck. */
import { neckJobs } from '../jobs/neck';
import { inBrowser } from '../tools';

inBrowser(neckJobs);
