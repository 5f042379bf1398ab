/** Lines that are found. */
import { lineJobs } from '../jobs/lines';
import { inBrowser } from '../tools';

inBrowser(lineJobs);
