/** The player's settings, changed at once and taken back one by one. */
import { afterEach, expect, it, vi } from 'vitest';
import { DEFAULT_SETTINGS } from '$lib/api/default-settings';
import { settings } from './settings.svelte';

afterEach(() => {
  settings.start(DEFAULT_SETTINGS);
  vi.unstubAllGlobals();
});

it('changes hold at once, are sent, and are taken back from the last one on', async () => {
  const sent: unknown[] = [];
  const page = { documentElement: { dataset: {} as Record<string, string> } };
  vi.stubGlobal('document', page);
  vi.stubGlobal('fetch', (path: string, { body }: { body: string }) => {
    // Files share their process: what a log of another one still sends is not meant.
    if (path.includes('settings')) sent.push(JSON.parse(body));
    return Promise.resolve(new Response('{}'));
  });
  settings.start(DEFAULT_SETTINGS);
  settings.change({ frets: 24 });
  settings.change({ capo: 2, leftHanded: true, theme: 'stage' });
  expect(page.documentElement.dataset['theme']).toBe('stage');
  expect([settings.instrument.frets, settings.instrument.capo, settings.now.leftHanded]).toEqual([
    24,
    2,
    true
  ]);
  settings.undo();
  expect([settings.now.frets, settings.now.capo, settings.now.leftHanded]).toEqual([24, 0, false]);
  settings.undo();
  expect(settings.now).toEqual(DEFAULT_SETTINGS);
  expect(settings.canUndo).toBe(false);
  await vi.waitFor(() => expect(Object.assign({}, ...sent)).toMatchObject({ frets: 22, capo: 0 }));
});
