/** The first job of the program: the songbook is opened, brought into today's format, and tidied. */
import { rmSync } from 'node:fs';
import { folderOf } from './copies';
import { closeFile, openDatabase } from './database';
import { songbookPath } from './database-path';
import { seedDemo } from '../demo/demo';
import { finishArrival, sweepHalves } from '../takes/arrival';
import { sweepTakes } from '../takes/takes';
import { lacksWholeForms } from '../practice/items';
import { hasOldSummaries } from './songbook';
import { json, type Answer } from '../threads/job';
import { workFolder } from '../files/work-folder';

/** Tells whether something is left that can be made once the program is there. Throws `RefusedDatabase` where the file cannot be worked with. */
export async function start(): Promise<Answer> {
  const db = await openDatabase(songbookPath());
  try {
    if (process.env.CORVEL_DEMO === '1') await seedDemo(db);
    await finishArrival(db);
    sweepHalves(folderOf(db));
    rmSync(workFolder(songbookPath()), { recursive: true, force: true });
    await sweepTakes(db, Date.now());
    return json({ isBehind: (await hasOldSummaries(db)) || (await lacksWholeForms(db)) });
  } finally {
    closeFile(db);
  }
}
