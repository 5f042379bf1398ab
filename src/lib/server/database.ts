/** The SQLite file: opened once, migrated in numbered steps, refused untouched when newer or damaged. */
import Sqlite from 'better-sqlite3';
import { copyFileSync, existsSync, mkdirSync, statSync } from 'node:fs';
import { dirname } from 'node:path';
import { Kysely, SqliteDialect, sql, type Generated } from 'kysely';
import { migrations } from './migrations';

export interface Tables {
  chart: {
    id: string;
    /** The chart text, ChordPro. */
    source: string;
    /** Counts every save; an edit names the one it was based on. */
    version: number;
    /** What the songbook lists, read from the source at each save. */
    title: string;
    summary: string;
    created_at: number;
    updated_at: number;
    practised_at: number | null;
    deleted_at: number | null;
  };
  plan: { chart_id: string; data: string };
  /** Append-only: what every save stored. */
  chart_revision: {
    id: Generated<number>;
    chart_id: string;
    version: number;
    source: string;
    plan: string;
    saved_at: number;
  };
  setting: { name: string; value: string };
}

export type Database = Kysely<Tables>;

/** Why a file was refused, as a sentence; the file has not been touched. */
export class RefusedDatabase extends Error {}

/** Opens (and makes, where there is none) the database at a path. */
export async function openDatabase(path: string): Promise<Database> {
  const isNew = path === ':memory:' || !existsSync(path) || statSync(path).size === 0;
  if (path !== ':memory:') makeFolder(path);
  const version = isNew ? 0 : readVersion(path);
  if (version > migrations.length) {
    throw new RefusedDatabase(
      `The songbook ${path} was made by a newer Corvel (format ${version}, this one reads ${migrations.length}). It was left untouched; update Corvel to open it.`
    );
  }
  if (!isNew && version < migrations.length) backUp(path, version);
  const file = openFile(path);
  file.pragma('journal_mode = WAL');
  file.pragma('synchronous = FULL');
  file.pragma('foreign_keys = ON');
  file.pragma('busy_timeout = 5000');
  const db = new Kysely<Tables>({ dialect: new SqliteDialect({ database: file }) });
  for (let step = version; step < migrations.length; step++) {
    await db.transaction().execute(async (trx) => {
      await migrations[step]!(trx);
      await sql.raw(`PRAGMA user_version = ${step + 1}`).execute(trx);
    });
  }
  return db;
}

function makeFolder(path: string): void {
  try {
    mkdirSync(dirname(path), { recursive: true });
  } catch (cause) {
    throw new RefusedDatabase(`The folder for ${path} cannot be made (${reasonOf(cause)}).`, { cause });
  }
}

function openFile(path: string): Sqlite.Database {
  try {
    return new Sqlite(path);
  } catch (cause) {
    throw new RefusedDatabase(
      `The songbook ${path} cannot be opened (${reasonOf(cause)}); check that the folder can be written to, or set CORVEL_DB.`,
      { cause }
    );
  }
}

function reasonOf(cause: unknown): string {
  return cause instanceof Error ? ((cause as NodeJS.ErrnoException).code ?? cause.message) : String(cause);
}

/** The format number of an existing file, read without changing it. */
function readVersion(path: string): number {
  const damaged = (cause?: unknown) =>
    new RefusedDatabase(
      `The songbook ${path} is damaged or is not a Corvel songbook. It was left untouched; move it away or set CORVEL_DB to another file.`,
      { cause }
    );
  try {
    const file = new Sqlite(path, { readonly: true });
    try {
      if (file.pragma('quick_check', { simple: true }) !== 'ok') throw damaged();
      const version = Number(file.pragma('user_version', { simple: true }));
      const tables = file.prepare("select count(*) as n from sqlite_master where name = 'chart'").get();
      if ((tables as { n: number }).n === 0) throw damaged();
      return version;
    } finally {
      file.close();
    }
  } catch (cause) {
    throw cause instanceof RefusedDatabase ? cause : damaged(cause);
  }
}

/** A copy of the file as it is before a migration changes it. */
function backUp(path: string, version: number): void {
  const file = new Sqlite(path);
  file.pragma('wal_checkpoint(TRUNCATE)');
  file.close();
  copyFileSync(path, `${path}.format-${version}.bak`);
}

let opened: Promise<Database> | undefined;

/** The application's database, at CORVEL_DB or data/corvel.db. */
export function database(): Promise<Database> {
  opened ??= openDatabase(process.env.CORVEL_DB || 'data/corvel.db');
  return opened;
}
