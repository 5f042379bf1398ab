/** Lines that are written, licks, files, paper. */
import { writingJobs } from '../jobs/writing';
import { inBrowser } from '../tools';

inBrowser(writingJobs);
