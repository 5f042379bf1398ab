/** The shell, the same on every page. */
import { shellJobs } from '../jobs/shell';
import { inBrowser } from '../tools';

inBrowser(shellJobs);
