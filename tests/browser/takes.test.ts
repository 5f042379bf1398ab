/** Takes: what is played to Corvel, and what it listens to. */
import { takeJobs } from '../jobs/takes';
import { listeningJobs } from '../jobs/listening';
import { lineJobs } from '../jobs/lines';
import { inBrowser } from '../tools';

inBrowser(takeJobs, listeningJobs, lineJobs);
