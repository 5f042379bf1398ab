/** The stand: what plays, and what is practised. */
import { beforeAll } from 'vitest';
import { rehearseJobs } from '../jobs/rehearse';
import { standJobs } from '../jobs/stand';
import { practiceJobs } from '../jobs/practice';
import { inBrowser } from '../tools';

inBrowser((tools) => beforeAll(() => tools().page.music('driven')), standJobs, rehearseJobs, practiceJobs);
