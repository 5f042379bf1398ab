import { basename, dirname, join } from 'node:path';

/** The folder for files of work that is under way, beside the songbook; it is emptied at every start. */
export const workFolder = (path: string): string => join(dirname(path), `.corvel-work-${basename(path)}`);
