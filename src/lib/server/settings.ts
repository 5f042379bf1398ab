/** The player's settings: one row, read through Zod, unreadable parts by their defaults. */
import { DEFAULT_SETTINGS, settingsSchema, type Settings } from '../api/settings';
import type { Database } from './database';

const ROW = 'player';

export async function readSettings(db: Database): Promise<Settings> {
  const row = await db.selectFrom('setting').select('value').where('name', '=', ROW).executeTakeFirst();
  if (!row) return DEFAULT_SETTINGS;
  try {
    return settingsSchema.parse(JSON.parse(row.value));
  } catch {
    return DEFAULT_SETTINGS;
  }
}

export async function writeSettings(db: Database, settings: Settings): Promise<Settings> {
  const value = JSON.stringify(settings);
  await db
    .insertInto('setting')
    .values({ name: ROW, value })
    .onConflict((conflict) => conflict.column('name').doUpdateSet({ value }))
    .execute();
  return settings;
}
