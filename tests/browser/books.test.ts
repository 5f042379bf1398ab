/** Practice books and worksheets. */
import { bookJobs } from '../jobs/books';
import { inBrowser } from '../tools';

inBrowser(bookJobs);
