/** Within everybody’s reach: touch, screens, the neck, phrases. */
import { reachJobs } from '../jobs/reach';
import { neckJobs } from '../jobs/neck';
import { phraseJobs } from '../jobs/phrases';
import { inBrowser } from '../tools';

inBrowser(reachJobs, neckJobs, phraseJobs);
