/**
 * Sounds that come with rows: they lie beside their places until the rows are in, and are announced in the same transaction. What was
 * announced is put in its place, at once or at the next start; what was not is let go. So a kill at any moment leaves all of it or nothing.
 */
import { existsSync, readdirSync, renameSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { z } from 'zod';
import type { Database } from '../store/database';
import { readColumn } from '../store/songbook';
import { hasSound, isTakeId, placeForSound, soundFolder } from './sounds';

/** The row that names what has been announced. */
const ROW = 'arriving';
const HALF = '.half';
const announced = z.array(z.string());

/** Where a sound lies that has not arrived yet. */
export const halfOf = (db: Database, take: string): string => `${placeForSound(db, take)}${HALF}`;

/** Announces sounds, in the transaction in which their rows come. */
export async function announceArrival(trx: Database, takes: readonly string[]): Promise<void> {
  const value = JSON.stringify(takes);
  await trx
    .insertInto('setting')
    .values({ name: ROW, value })
    .onConflict((conflict) => conflict.column('name').doUpdateSet({ value }))
    .execute();
}

/** Puts announced sounds in their places, lets go of all that is half there, and says of takes without a sound that they have none. */
export async function finishArrival(db: Database): Promise<void> {
  const row = await db.selectFrom('setting').select('value').where('name', '=', ROW).executeTakeFirst();
  if (row) {
    for (const take of readColumn(announced, row.value) ?? []) {
      if (isTakeId(take) && existsSync(halfOf(db, take)))
        renameSync(halfOf(db, take), placeForSound(db, take));
    }
    const takes = await db.selectFrom('take').select('id').where('bytes', '>', 0).execute();
    for (const { id } of takes) {
      if (!isTakeId(id) || !hasSound(db, id))
        await db.updateTable('take').set({ bytes: 0 }).where('id', '=', id).execute();
    }
    await db.deleteFrom('setting').where('name', '=', ROW).execute();
  }
  sweepHalves(soundFolder(db));
}

/** Removes what was written half into a folder, or beside it. */
export function sweepHalves(folder: string): void {
  if (!existsSync(folder)) return;
  try {
    for (const name of readdirSync(folder))
      if (name.endsWith(HALF)) rmSync(join(folder, name), { recursive: true, force: true });
  } catch (thrown) {
    // A folder that is none holds nothing; whoever wants something of it is told then.
    if ((thrown as NodeJS.ErrnoException).code !== 'ENOTDIR') throw thrown;
  }
}
