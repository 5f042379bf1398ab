/**
 * Copies of the songbook: one by itself on every day on which something is written, of what was there before; ten are kept. One is brought back
 * whole, inside a transaction, after a copy of what it replaces. Sounds of takes lie beside the songbook and are not in them.
 */
import Sqlite from 'better-sqlite3';
import {
  existsSync,
  mkdirSync,
  mkdtempSync,
  copyFileSync,
  readdirSync,
  renameSync,
  rmSync,
  statSync
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { sql } from 'kysely';
import type { Copy } from '../api/copies';
import { fail } from '../api/errors';
import { closeFile, fileOf, openDatabase, pathOf, RefusedDatabase, type Database } from './database';
import { COLUMNS } from './tables';

/** Copies made by themselves that are kept. */
const KEPT = 10;
/** `2026-03-14.db` is made by itself; `2026-03-14 before 2026-03-12.db` before another is brought back; `2026-03-14 by hand.db` by the player. */
const NAME = /^(\d{4}-\d{2}-\d{2})(?: .+)?\.db$/;
const OF_A_DAY = /^\d{4}-\d{2}-\d{2}\.db$/;

export const folderOf = (db: Database): string => `${pathOf(db)}.copies`;

/** Days on which a copy was made by this program, so that a write does not look at the disk. */
const made = new WeakMap<Database, string>();

/** The copy of a day, made once, before that day's first change. */
export async function copyOfDay(db: Database, now: Date): Promise<void> {
  const day = dayOf(now);
  if (made.get(db) === day || pathOf(db) === ':memory:') return;
  made.set(db, day);
  const name = `${day}.db`;
  if (existsSync(join(folderOf(db), name))) return;
  // A copy that could not be written is tried again at the next change.
  await write(db, name).catch((thrown: unknown) => {
    made.delete(db);
    throw thrown;
  });
  for (const old of names(db)
    .filter((one) => OF_A_DAY.test(one))
    .slice(KEPT))
    rmSync(join(folderOf(db), old), { force: true });
}

/** A copy that the player asks for; the same day's is written over. */
export async function copyNow(db: Database, now: Date): Promise<Copy> {
  const name = `${dayOf(now)} by hand.db`;
  await write(db, name);
  return copyOf(db, name);
}

/** The copies there are, the newest first. */
export const listCopies = (db: Database): Copy[] =>
  names(db)
    .map((name) => copyOf(db, name))
    .sort((a, b) => b.madeAt - a.madeAt || (a.name < b.name ? 1 : -1));

/**
 * Brings a copy back: everything that is kept is as it was then. What is there now is copied first. One of an older format is migrated on
 * the way, in a file of its own; it stays as it is.
 */
export async function bringBackCopy(
  db: Database,
  name: string,
  now: Date
): Promise<{ readonly before: string }> {
  if (!NAME.test(name) || !existsSync(join(folderOf(db), name)))
    fail(404, { code: 'no-copy', message: 'This copy is not there any more.' });
  const source = await readable(join(folderOf(db), name));
  try {
    const time = now.toISOString().slice(11, 19).replaceAll(':', '');
    const before = `${dayOf(now)} before ${name.slice(0, 10)} at ${time}.db`;
    await write(db, before);
    await replaceAll(db, source);
    return { before };
  } finally {
    rmSync(join(source, '..'), { recursive: true, force: true });
  }
}

/** Every table filled from another file, or none of them. */
async function replaceAll(db: Database, source: string): Promise<void> {
  await db.connection().execute(async (one) => {
    await sql`attach ${source} as copy`.execute(one);
    try {
      await one.transaction().execute(async (trx) => {
        // Rows refer to one another; they are whole again at the end.
        await sql`pragma defer_foreign_keys = on`.execute(trx);
        for (const [table, columns] of Object.entries(COLUMNS)) {
          const list = sql.join(columns.map((column) => sql.ref(column)));
          await sql`delete from ${sql.table(`main.${table}`)}`.execute(trx);
          await sql`insert into ${sql.table(`main.${table}`)} (${list}) select ${list} from ${sql.table(`copy.${table}`)}`.execute(
            trx
          );
        }
      });
    } finally {
      await sql`detach copy`.execute(one);
    }
  });
}

/** A copy in a folder of its own, in today's format. */
async function readable(path: string): Promise<string> {
  const own = join(mkdtempSync(join(tmpdir(), 'corvel-copy-')), 'copy.db');
  copyFileSync(path, own);
  try {
    closeFile(await openDatabase(own));
    return own;
  } catch (thrown) {
    rmSync(join(own, '..'), { recursive: true, force: true });
    if (thrown instanceof RefusedDatabase)
      return fail(409, {
        code: 'damaged-copy',
        message: 'This copy cannot be read; nothing was changed. Take another one.'
      });
    throw thrown;
  }
}

/** Written beside its place first: what has its name is whole. */
async function write(db: Database, name: string): Promise<void> {
  const folder = folderOf(db);
  mkdirSync(folder, { recursive: true });
  const half = join(folder, `${name}.half`);
  await fileOf(db)?.backup(half);
  // One file by itself: looked into later it makes no others beside it.
  const copy = new Sqlite(half);
  copy.pragma('journal_mode = delete');
  copy.close();
  renameSync(half, join(folder, name));
}

function names(db: Database): string[] {
  const folder = folderOf(db);
  if (!existsSync(folder)) return [];
  return readdirSync(folder)
    .filter((name) => NAME.test(name))
    .sort((a, b) => (a < b ? 1 : -1));
}

function copyOf(db: Database, name: string): Copy {
  const path = join(folderOf(db), name);
  const { size, mtimeMs } = statSync(path);
  return {
    name,
    day: name.slice(0, 10),
    bytes: size,
    madeAt: Math.round(mtimeMs),
    charts: chartsIn(path),
    isByItself: OF_A_DAY.test(name)
  };
}

/** Charts in a copy; null where it cannot be read. */
function chartsIn(path: string): number | null {
  try {
    const file = new Sqlite(path, { readonly: true });
    try {
      return (
        file.prepare('select count(*) as count from chart where deleted_at is null').get() as {
          count: number;
        }
      ).count;
    } finally {
      file.close();
    }
  } catch {
    return null;
  }
}

/** The day where the server stands. */
function dayOf(now: Date): string {
  const two = (part: number) => String(part).padStart(2, '0');
  return `${now.getFullYear()}-${two(now.getMonth() + 1)}-${two(now.getDate())}`;
}
