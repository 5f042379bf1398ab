/** The player's settings: one row, read through Zod, unreadable parts by their defaults. */
import { DEFAULT_SETTINGS } from '../../api/default-settings';
import { settingsChange, type Settings, type SettingsChange } from '../../api/settings';
import { atOnce, type Database } from './database';

const ROW = 'player';

export async function readSettings(db: Database): Promise<Settings> {
  const row = await db.selectFrom('setting').select('value').where('name', '=', ROW).executeTakeFirst();
  if (!row) return DEFAULT_SETTINGS;
  const stored = jsonObject(row.value);
  const readable = Object.entries(settingsChange.shape).flatMap(([name, schema]) => {
    const { success, data } = schema.safeParse(stored[name]);
    return success && data !== undefined ? [[name, data]] : [];
  });
  // Settings of a time before readings were counted know the first one.
  return { ...DEFAULT_SETTINGS, reading: 1, ...Object.fromEntries(readable) };
}

function jsonObject(text: string): Readonly<Record<string, unknown>> {
  try {
    const value: unknown = JSON.parse(text);
    return value && typeof value === 'object' ? (value as Record<string, unknown>) : {};
  } catch {
    return {};
  }
}

/** Takes over the settings that are named; all others stay as they are, whichever window changed them. */
export async function writeSettings(db: Database, change: SettingsChange): Promise<Settings> {
  return atOnce(db, async (trx) => {
    const settings = { ...(await readSettings(trx)), ...change };
    const value = JSON.stringify(settings);
    await trx
      .insertInto('setting')
      .values({ name: ROW, value })
      .onConflict((conflict) => conflict.column('name').doUpdateSet({ value }))
      .execute();
    return settings;
  });
}
