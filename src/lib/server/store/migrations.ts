/**
 * Numbered steps of the file's format; the n-th leads to format n + 1. A step that has been released is never
 * changed, a new one is added.
 */
import type { Kysely } from 'kysely';
import { folded, searchText } from './search';

// A migration knows only the tables as they were at its time, not today's types.
// oxlint-disable-next-line typescript/no-explicit-any
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
  },
  async function practice(db) {
    await db.schema
      .createTable('practice_item')
      .addColumn('id', 'text', (c) => c.primaryKey())
      .addColumn('chart_id', 'text', (c) => c.references('chart.id'))
      .addColumn('place', 'integer', (c) => c.notNull())
      .addColumn('version', 'integer', (c) => c.notNull())
      .addColumn('data', 'text', (c) => c.notNull())
      .addColumn('created_at', 'integer', (c) => c.notNull())
      .addColumn('updated_at', 'integer', (c) => c.notNull())
      .addColumn('deleted_at', 'integer')
      .execute();
    // Without references: what was played stays told when what it was played for is gone.
    await db.schema
      .createTable('practice_log')
      .addColumn('seq', 'integer', (c) => c.primaryKey().autoIncrement())
      .addColumn('id', 'text', (c) => c.notNull().unique())
      .addColumn('item_id', 'text')
      .addColumn('chart_id', 'text')
      .addColumn('kind', 'text', (c) => c.notNull())
      .addColumn('started_at', 'integer', (c) => c.notNull())
      .addColumn('day', 'text', (c) => c.notNull())
      .addColumn('seconds', 'integer', (c) => c.notNull())
      .addColumn('rounds', 'integer', (c) => c.notNull())
      .addColumn('tempo', 'real')
      .addColumn('clean', 'integer')
      .addColumn('key', 'text')
      .addColumn('area', 'integer')
      .addColumn('data', 'text', (c) => c.notNull())
      .addColumn('revision', 'integer', (c) => c.notNull())
      .addColumn('version', 'integer', (c) => c.notNull())
      .addColumn('updated_at', 'integer', (c) => c.notNull())
      .addColumn('deleted_at', 'integer')
      .execute();
    await db.schema
      .createIndex('log_by_chart')
      .on('practice_log')
      .columns(['chart_id', 'deleted_at', 'started_at'])
      .execute();
    await db.schema.createIndex('log_by_day').on('practice_log').columns(['day', 'deleted_at']).execute();
    await db.schema
      .createTable('card')
      .addColumn('id', 'text', (c) => c.primaryKey())
      .addColumn('data', 'text', (c) => c.notNull())
      .addColumn('memory', 'text', (c) => c.notNull())
      .addColumn('due', 'integer', (c) => c.notNull())
      .addColumn('day', 'text', (c) => c.notNull())
      .execute();
    await db.schema
      .createTable('card_review')
      .addColumn('seq', 'integer', (c) => c.primaryKey().autoIncrement())
      .addColumn('id', 'text', (c) => c.notNull().unique())
      .addColumn('card_id', 'text', (c) => c.notNull().references('card.id'))
      .addColumn('at', 'integer', (c) => c.notNull())
      .addColumn('day', 'text', (c) => c.notNull())
      .addColumn('seconds', 'real', (c) => c.notNull())
      .addColumn('grade', 'text', (c) => c.notNull())
      .execute();
    await db.schema.createIndex('review_by_card').on('card_review').columns(['card_id']).execute();
    await db.schema
      .createTable('set_list')
      .addColumn('id', 'text', (c) => c.primaryKey())
      .addColumn('name', 'text', (c) => c.notNull())
      .addColumn('version', 'integer', (c) => c.notNull())
      .addColumn('data', 'text', (c) => c.notNull())
      .addColumn('created_at', 'integer', (c) => c.notNull())
      .addColumn('updated_at', 'integer', (c) => c.notNull())
      .addColumn('deleted_at', 'integer')
      .execute();
    // When a chart was last practised is read from the log.
    await db.schema.alterTable('chart').dropColumn('practised_at').execute();
  },
  // Takes.
  async (db) => {
    await db.schema
      .createTable('take')
      .addColumn('id', 'text', (c) => c.primaryKey())
      .addColumn('chart_id', 'text', (c) => c.notNull().references('chart.id'))
      .addColumn('name', 'text', (c) => c.notNull())
      .addColumn('version', 'integer', (c) => c.notNull())
      .addColumn('way', 'text', (c) => c.notNull())
      .addColumn('played_at', 'integer', (c) => c.notNull())
      .addColumn('day', 'text', (c) => c.notNull())
      .addColumn('seconds', 'real', (c) => c.notNull())
      .addColumn('bytes', 'integer', (c) => c.notNull())
      .addColumn('tempo', 'real', (c) => c.notNull())
      .addColumn('loved', 'integer', (c) => c.notNull())
      .addColumn('summary', 'text', (c) => c.notNull())
      .addColumn('data', 'text', (c) => c.notNull())
      .addColumn('created_at', 'integer', (c) => c.notNull())
      .addColumn('updated_at', 'integer', (c) => c.notNull())
      .addColumn('deleted_at', 'integer')
      .execute();
    await db.schema
      .createIndex('take_by_chart')
      .on('take')
      .columns(['chart_id', 'deleted_at', 'played_at'])
      .execute();
  },
  async function solos(db) {
    // Which version a line was written over was not told before.
    await db.schema.alterTable('line').addColumn('chart_version', 'integer').execute();
    await db.schema
      .createTable('solo')
      .addColumn('id', 'text', (c) => c.primaryKey())
      .addColumn('chart_id', 'text', (c) => c.notNull().references('chart.id'))
      .addColumn('name', 'text', (c) => c.notNull())
      .addColumn('version', 'integer', (c) => c.notNull())
      .addColumn('chart_version', 'integer')
      .addColumn('data', 'text', (c) => c.notNull())
      .addColumn('created_at', 'integer', (c) => c.notNull())
      .addColumn('updated_at', 'integer', (c) => c.notNull())
      .addColumn('deleted_at', 'integer')
      .execute();
    await db.schema.createIndex('solo_by_chart').on('solo').columns(['chart_id', 'deleted_at']).execute();
  },
  // Notes of a take tell how loud they are, and how their pitch moves: nothing to move, but an older Corvel would lose it.
  async function expression() {}
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
