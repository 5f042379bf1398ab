/** The stand. */
import { rehearseJobs } from '../jobs/rehearse';
import { inBrowser } from '../tools';

inBrowser(rehearseJobs);
