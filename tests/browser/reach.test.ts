/** Within everybody’s reach: touch, screens, print, what is kept. */
import { reachJobs } from '../jobs/reach';
import { neckJobs } from '../jobs/neck';
import { bookJobs } from '../jobs/books';
import { keepingJobs } from '../jobs/keeping';
import { accessJobs } from '../jobs/access';
import { inBrowser } from '../tools';

inBrowser(reachJobs, neckJobs, bookJobs, keepingJobs, accessJobs);
