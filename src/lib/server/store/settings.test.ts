import { describe, expect, it } from 'vitest';
import { DEFAULT_SETTINGS } from '../../api/default-settings';
import { READING } from '../../api/reading';
import { settingsSchema } from '../../api/settings';
import { openDatabase } from './database';
import { readSettings, writeSettings } from './settings';

describe('the reading that the player was told of', () => {
  it('is today’s in a songbook that begins now', async () => {
    const db = await openDatabase(':memory:');
    expect(await readSettings(db)).toEqual(DEFAULT_SETTINGS);
    await writeSettings(db, { theme: 'stage' });
    expect((await readSettings(db)).reading).toBe(READING);
  });

  it('is the first one in a songbook of before, until it has been told', async () => {
    const db = await openDatabase(':memory:');
    const { reading: _, ...before } = DEFAULT_SETTINGS;
    const row = { name: 'player', value: JSON.stringify({ ...before, theme: 'stage' }) };
    await db.insertInto('setting').values(row).execute();
    expect(await readSettings(db)).toMatchObject({ reading: 1, theme: 'stage' });
    // Another setting that is changed meanwhile tells nobody anything.
    await writeSettings(db, { labels: 'name' });
    expect((await readSettings(db)).reading).toBe(1);
    await writeSettings(db, { reading: READING });
    expect((await readSettings(db)).reading).toBe(READING);
  });
});

it('the settings of a player who has changed none are those of the schema', () => {
  expect(settingsSchema.parse({})).toEqual(DEFAULT_SETTINGS);
});
