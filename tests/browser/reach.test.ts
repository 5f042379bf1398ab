/** Within everybody’s reach: touch, screens, the neck. */
import { reachJobs } from '../jobs/reach';
import { neckJobs } from '../jobs/neck';
import { inBrowser } from '../tools';

inBrowser(reachJobs, neckJobs);
