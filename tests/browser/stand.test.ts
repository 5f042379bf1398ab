/** The stand: what plays, and what is practised. */
import { rehearseJobs } from '../jobs/rehearse';
import { standJobs } from '../jobs/stand';
import { practiceJobs } from '../jobs/practice';
import { inBrowser } from '../tools';

inBrowser(standJobs, rehearseJobs, practiceJobs);
