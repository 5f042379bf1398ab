/** The SQLite file: opened once, migrated in numbered steps, refused untouched when newer or damaged. */
import { nth } from '../../core/base/list';
import Sqlite from 'better-sqlite3';
import { accessSync, constants, copyFileSync, existsSync, mkdirSync, statSync } from 'node:fs';
import { dirname } from 'node:path';
import { CompiledQuery, Kysely, SqliteDialect, SqliteDriver, sql, type DatabaseConnection } from 'kysely';
import { migrations } from './migrations';
import { COLUMNS, type Tables } from './tables';
import { PlayerError } from '../../api/errors';
import { failureOf } from '../web/failure';

export type Database = Kysely<Tables>;

/** Why a file was refused, as a sentence; the file has not been touched. */
export class RefusedDatabase extends Error {}

/** Transactions take the file for writing at their start, so that none fails half-way because another was first. */
class ImmediateDriver extends SqliteDriver {
  constructor(readonly file: Sqlite.Database) {
    super({ database: file });
  }
  override async beginTransaction(connection: DatabaseConnection): Promise<void> {
    await connection.executeQuery(CompiledQuery.raw('begin immediate'));
  }
  /** A full disk has ended the transaction already; undoing it once more would hide why. */
  override async rollbackTransaction(connection: DatabaseConnection): Promise<void> {
    if (this.file.inTransaction) await super.rollbackTransaction(connection);
  }
}

class ImmediateDialect extends SqliteDialect {
  constructor(readonly file: Sqlite.Database) {
    super({ database: file });
  }
  override createDriver(): SqliteDriver {
    return new ImmediateDriver(this.file);
  }
}

/** The file behind an opened database, to be closed in order. */
const files = new WeakMap<Database, Sqlite.Database>();

/** Where the file of a database lies: what belongs to it lies beside it. */
export function pathOf(db: Database): string {
  return files.get(db)?.name ?? 'data/corvel.db';
}

/** Does work in one transaction, or in the one that is under way: all of it, or nothing. */
export function atOnce<T>(db: Database, work: (trx: Database) => Promise<T>): Promise<T> {
  if (db.isTransaction) return work(db);
  return db.transaction().execute((trx) => {
    const file = files.get(db);
    if (file) files.set(trx, file);
    return work(trx);
  });
}

/** The file itself, for what the query builder has no word for. */
export const fileOf = (db: Database): Sqlite.Database | undefined => files.get(db);

/** Milliseconds that a write waits for another program to let go of the file. */
const BUSY_TIMEOUT = 5000;

/** Opens (and makes, where there is none) the database at a path. */
export async function openDatabase(path: string): Promise<Database> {
  const isMemory = path === ':memory:';
  const isNew = isMemory || refusing(path, () => !existsSync(path) || statSync(path).size === 0);
  if (!isMemory) makeFolder(path);
  const version = isNew ? 0 : refusing(path, () => readVersion(path));
  if (!isNew && version < migrations.length) refusing(path, () => backUp(path, version));
  const file = refusing(path, () => openFile(path));
  const db: Database = new Kysely<Tables>({ dialect: new ImmediateDialect(file) });
  files.set(db, file);
  try {
    for (let step = version; step < migrations.length; step++) {
      await db.transaction().execute(async (trx) => {
        await nth(migrations, step)(trx);
        await sql.raw(`PRAGMA user_version = ${step + 1}`).execute(trx);
      });
    }
    refusing(path, () => checkColumns(path, file));
  } catch (cause) {
    file.close();
    throw refusalOf(path, cause);
  }
  return db;
}

/** Does a step of opening; whatever stands in its way becomes a refusal that says which kind of trouble it is. */
function refusing<T>(path: string, work: () => T): T {
  try {
    return work();
  } catch (cause) {
    throw refusalOf(path, cause);
  }
}

function refusalOf(path: string, cause: unknown): RefusedDatabase {
  if (cause instanceof RefusedDatabase) return cause;
  const failure = failureOf(cause);
  const says = failure
    ? `${failure.says}. ${failure.advice}`
    : `cannot be opened (${cause instanceof Error ? cause.message : String(cause)}).`;
  return new RefusedDatabase(`The songbook ${path} ${says}`, { cause });
}

function makeFolder(path: string): void {
  try {
    mkdirSync(dirname(path), { recursive: true });
  } catch (cause) {
    const reason = (cause as NodeJS.ErrnoException).code ?? String(cause);
    throw new RefusedDatabase(`The folder for ${path} cannot be made (${reason}).`, { cause });
  }
}

function openFile(path: string): Sqlite.Database {
  const file = new Sqlite(path, { timeout: BUSY_TIMEOUT });
  file.pragma('journal_mode = WAL');
  file.pragma('synchronous = FULL');
  file.pragma('foreign_keys = ON');
  return file;
}

/** The format number of an existing file, read without changing it. */
function readVersion(path: string): number {
  const damaged = () =>
    new RefusedDatabase(
      `The songbook ${path} is damaged or is not a Corvel songbook. It was left untouched; move it away or set CORVEL_DB to another file.`
    );
  // Read as a plain file first: a folder, or a file that may not be read, is told as that.
  accessSync(path, constants.R_OK);
  const file = new Sqlite(path, { readonly: true, timeout: BUSY_TIMEOUT });
  try {
    if (file.pragma('quick_check', { simple: true }) !== 'ok') throw damaged();
    const version = Number(file.pragma('user_version', { simple: true }));
    if (version > migrations.length) {
      throw new RefusedDatabase(
        `The songbook ${path} was made by a newer Corvel (format ${version}, this one reads ${migrations.length}). It was left untouched; update Corvel to open it.`
      );
    }
    if (version < 1 || columnsOf(file, 'chart').length === 0) throw damaged();
    return version;
  } finally {
    file.close();
  }
}

function columnsOf(file: Sqlite.Database, table: string): string[] {
  return (file.pragma(`table_info(${table})`) as { name: string }[]).map(({ name }) => name);
}

/** A file whose tables lack something would fail at the first save; it is told at the start. */
function checkColumns(path: string, file: Sqlite.Database): void {
  for (const [table, columns] of Object.entries(COLUMNS)) {
    const there = columnsOf(file, table);
    const missing = columns.find((column) => !there.includes(column));
    if (missing === undefined) continue;
    throw new RefusedDatabase(
      `The songbook ${path} lacks the column ${missing} of its table ${table}; something else has changed it. Restore a backup, or set CORVEL_DB to another file.`
    );
  }
}

/** A copy of the file as it is before a migration changes it. */
function backUp(path: string, version: number): void {
  const file = new Sqlite(path, { timeout: BUSY_TIMEOUT });
  file.pragma('wal_checkpoint(TRUNCATE)');
  file.close();
  copyFileSync(path, `${path}.format-${version}.bak`);
}

/** One more connection to a songbook that `openDatabase` has looked at and brought into today's format. */
export async function joinDatabase(path: string): Promise<Database> {
  const file = refusing(path, () => openFile(path));
  const db: Database = new Kysely<Tables>({ dialect: new ImmediateDialect(file) });
  files.set(db, file);
  checkPlace(db);
  return db;
}

/** The file that a connection was opened on, as the system counts files. */
const inodes = new WeakMap<Database, bigint>();

/**
 * Throws where the songbook does not lie in its place any more: it was moved, deleted or replaced while it is open, and what is written
 * would go where nobody looks for it.
 */
export function checkPlace(db: Database): void {
  const file = files.get(db);
  if (!file || file.memory) return;
  const now = statSync(file.name, { bigint: true, throwIfNoEntry: false })?.ino;
  const known = inodes.get(db);
  if (now !== undefined && (known === undefined || known === now)) {
    inodes.set(db, now);
    return;
  }
  throw new PlayerError(503, {
    code: 'file-moved',
    message: `The songbook ${file.name} was moved or replaced while Corvel runs, so this was not saved for certain. Put it back, or start Corvel anew.`
  });
}

/** Writes what stands in the log into the file itself and closes it: one whole file is left. */
export function closeFile(db: Database): void {
  const file = files.get(db);
  if (!file?.open) return;
  try {
    file.pragma('wal_checkpoint(TRUNCATE)');
  } catch {
    // A file that may not be written to keeps its log beside it; nothing in it is lost.
  }
  file.close();
}
