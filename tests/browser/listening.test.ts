/** Listening while it is played. */
import { listeningJobs } from '../jobs/listening';
import { inBrowser } from '../tools';

inBrowser(listeningJobs);
