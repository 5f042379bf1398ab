/** The first job of the program: the songbook is opened, brought into today's format, and tidied. */
import { closeFile, openDatabase } from './database';
import { songbookPath } from './database-path';
import { seedDemo } from './demo';
import { sweepTakes } from './takes/takes';
import { json, type Answer } from './threads/job';

/** Throws `RefusedDatabase` where the file cannot be worked with. */
export async function start(): Promise<Answer> {
  const db = await openDatabase(songbookPath());
  try {
    if (process.env.CORVEL_DEMO === '1') await seedDemo(db);
    await sweepTakes(db, Date.now());
  } finally {
    closeFile(db);
  }
  return json({});
}
