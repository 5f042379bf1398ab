/**
 * Numbered steps of the file's format; the n-th leads to format n + 1. A step that has been released is never
 * changed, a new one is added.
 */
import type { Kysely } from 'kysely';
import { folded, searchText } from './search';

// A migration knows only the tables as they were at its time, not today's types.
// eslint-disable-next-line @typescript-eslint/no-explicit-any
type AnyDatabase = Kysely<any>;

export const migrations: readonly ((db: AnyDatabase) => Promise<void>)[] = [
  async function songbook(db) {
    await db.schema
      .createTable('chart')
      .addColumn('id', 'text', (c) => c.primaryKey())
      .addColumn('source', 'text', (c) => c.notNull())
      .addColumn('version', 'integer', (c) => c.notNull())
      .addColumn('title', 'text', (c) => c.notNull())
      .addColumn('summary', 'text', (c) => c.notNull())
      .addColumn('created_at', 'integer', (c) => c.notNull())
      .addColumn('updated_at', 'integer', (c) => c.notNull())
      .addColumn('practised_at', 'integer')
      .addColumn('deleted_at', 'integer')
      .execute();
    await db.schema.createIndex('chart_by_title').on('chart').columns(['deleted_at', 'title']).execute();
    await db.schema
      .createTable('plan')
      .addColumn('chart_id', 'text', (c) => c.primaryKey().references('chart.id'))
      .addColumn('data', 'text', (c) => c.notNull())
      .execute();
    await db.schema
      .createTable('chart_revision')
      .addColumn('id', 'integer', (c) => c.primaryKey().autoIncrement())
      .addColumn('chart_id', 'text', (c) => c.notNull().references('chart.id'))
      .addColumn('version', 'integer', (c) => c.notNull())
      .addColumn('source', 'text', (c) => c.notNull())
      .addColumn('plan', 'text', (c) => c.notNull())
      .addColumn('saved_at', 'integer', (c) => c.notNull())
      .execute();
    await db.schema
      .createIndex('revision_by_chart')
      .on('chart_revision')
      .columns(['chart_id', 'version'])
      .execute();
    await db.schema
      .createTable('setting')
      .addColumn('name', 'text', (c) => c.primaryKey())
      .addColumn('value', 'text', (c) => c.notNull())
      .execute();
  },
  async function search(db) {
    await db.schema
      .alterTable('chart')
      .addColumn('search', 'text', (c) => c.notNull().defaultTo(''))
      .execute();
    const charts = await db.selectFrom('chart').select(['id', 'title', 'summary']).execute();
    for (const { id, title, summary } of charts) {
      await db
        .updateTable('chart')
        .set({ search: searchOf(title, summary) })
        .where('id', '=', id)
        .execute();
    }
  },
  async function lines(db) {
    await db.schema
      .createTable('line')
      .addColumn('id', 'text', (c) => c.primaryKey())
      .addColumn('chart_id', 'text', (c) => c.notNull().references('chart.id'))
      .addColumn('name', 'text', (c) => c.notNull())
      .addColumn('version', 'integer', (c) => c.notNull())
      .addColumn('data', 'text', (c) => c.notNull())
      .addColumn('created_at', 'integer', (c) => c.notNull())
      .addColumn('updated_at', 'integer', (c) => c.notNull())
      .addColumn('deleted_at', 'integer')
      .execute();
    await db.schema.createIndex('line_by_chart').on('line').columns(['chart_id', 'deleted_at']).execute();
  },
  async function licks(db) {
    await db.schema
      .createTable('lick')
      .addColumn('id', 'text', (c) => c.primaryKey())
      .addColumn('name', 'text', (c) => c.notNull())
      .addColumn('version', 'integer', (c) => c.notNull())
      .addColumn('data', 'text', (c) => c.notNull())
      .addColumn('created_at', 'integer', (c) => c.notNull())
      .addColumn('updated_at', 'integer', (c) => c.notNull())
      .addColumn('deleted_at', 'integer')
      .execute();
  }
];

/** Damaged summaries are found by their title. */
function searchOf(title: string, summary: string): string {
  try {
    const { key, feel, opening } = JSON.parse(summary);
    return searchText(title, { key: String(key), feel: feel && String(feel), opening: opening.map(String) });
  } catch {
    return folded(title);
  }
}
