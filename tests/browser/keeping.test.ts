/** What is kept, and what is printed. */
import { keepingJobs } from '../jobs/keeping';
import { bookJobs } from '../jobs/books';
import { inKeepingBrowser } from '../tools';

inKeepingBrowser(keepingJobs, bookJobs);
