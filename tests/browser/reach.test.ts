/** Within everybody’s reach: touch, screens, addresses, a server that is away. */
import { reachJobs } from '../jobs/reach';
import { inBrowser } from '../tools';

inBrowser(reachJobs);
