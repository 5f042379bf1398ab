/** What the tests of the server share. */
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { closeFile, openDatabase, type Database } from './store/database';
import { seedDemo } from './demo/demo';
import { replaceAll } from './files/merge';

let seeded: Promise<string> | undefined;

/** The demo songbook as a file, played and practised once for all tests of a process. */
function demoFile(): Promise<string> {
  return (seeded ??= (async () => {
    const path = join(mkdtempSync(join(tmpdir(), 'corvel-demo-')), 'songbook.db');
    const db = await openDatabase(path);
    await seedDemo(db);
    closeFile(db);
    return path;
  })());
}

/** Fills an empty songbook with the demo, row by row as it was seeded. */
export async function fillWithDemo(db: Database): Promise<void> {
  await replaceAll(db, await demoFile());
}
