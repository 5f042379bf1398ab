/** The desk: a newcomer, the drawing, editing, choices, the songbook. */
import { firstJobs } from '../jobs/first';
import { inBrowser } from '../tools';

inBrowser(firstJobs);
