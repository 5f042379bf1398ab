/** The shell, the same on every page. */
import { shellJobs } from '../jobs/shell';
import { inKeepingBrowser } from '../tools';

inKeepingBrowser(shellJobs);
