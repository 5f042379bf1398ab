/** The desk: a newcomer, the drawing, choices, the songbook, keys, targets, what is written. */
import { firstJobs } from '../jobs/first';
import { keyJobs } from '../jobs/keys';
import { targetJobs } from '../jobs/targets';
import { writingJobs } from '../jobs/writing';
import { inBrowser } from '../tools';

inBrowser(firstJobs, keyJobs, targetJobs, writingJobs);
