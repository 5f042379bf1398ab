/**
 * Copies of the songbook: one by itself on every day on which something is written, of what was there before; ten are kept. One is brought back
 * whole, inside a transaction, after a copy of what it replaces. Sounds of takes lie beside the songbook and are not in them.
 */
import Sqlite from 'better-sqlite3';
import { existsSync, mkdirSync, mkdtempSync, readdirSync, renameSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Copy } from '../../api/copies';
import type { LeftOut } from '../../api/archive';
import { fail } from '../../api/errors';
import { fileOf, pathOf, type Database } from './database';
import { admit } from '../files/door';
import { replaceAll } from '../files/merge';

/** Copies made by themselves that are kept. */
const KEPT = 10;
/** `2026-03-14.db` is made by itself; `2026-03-14 before 2026-03-12.db` before another is brought back; `2026-03-14 by hand.db` by the player. */
const NAME = /^(\d{4}-\d{2}-\d{2})(?: .+)?\.db$/;
/** Made before something came in. */
const BEFORE = /^\d{4}-\d{2}-\d{2} before .+\.db$/;
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
  thin(db, OF_A_DAY);
}

/** Lets go of the oldest copies of a kind. */
function thin(db: Database, kind: RegExp): void {
  for (const old of names(db)
    .filter((one) => kind.test(one))
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
export async function restoreCopy(
  db: Database,
  name: string,
  now: Date
): Promise<{ readonly before: string; readonly left: readonly LeftOut[] }> {
  if (!NAME.test(name) || !existsSync(join(folderOf(db), name)))
    fail(404, { code: 'no-copy', message: 'This copy is not there any more.' });
  const folder = mkdtempSync(join(tmpdir(), 'corvel-copy-'));
  try {
    const { path, left } = await admit(join(folderOf(db), name), folder, {
      code: 'damaged-copy',
      message: 'This copy cannot be read; nothing was changed. Take another one.'
    });
    const before = await copyBefore(db, name.slice(0, 10), now);
    await replaceAll(db, path);
    return { before, left };
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

/** A copy of what something else is about to change; its name is the way back. */
export async function copyBefore(db: Database, what: string, now: Date): Promise<string> {
  const time = now.toISOString().slice(11, 19).replaceAll(':', '');
  const name = `${dayOf(now)} before ${what} at ${time}.db`;
  await write(db, name);
  thin(db, BEFORE);
  return name;
}

/** Written beside its place first: what has its name is whole. */
async function write(db: Database, name: string): Promise<void> {
  const folder = folderOf(db);
  mkdirSync(folder, { recursive: true });
  const half = join(folder, `${name}.half`);
  await writeFileOf(db, half);
  renameSync(half, join(folder, name));
}

/** The songbook as it is now, whole, as a file elsewhere. */
export async function writeFileOf(db: Database, path: string): Promise<void> {
  await fileOf(db)?.backup(path);
  // One file by itself: looked into later it makes no others beside it.
  const copy = new Sqlite(path);
  copy.pragma('journal_mode = delete');
  copy.close();
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
