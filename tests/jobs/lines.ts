/** Jobs on lines: found level by level, judged, mended, heard, moved, kept; the chart edited under them; the server away. */
import Sqlite from 'better-sqlite3';
import { Key } from 'selenium-webdriver';
import { describe, expect, it } from 'vitest';
import { DEFAULT_SETTINGS } from '../../src/lib/api/default-settings';
import type { Tools } from './neck';
import { AT_FIVE } from '../plan';

const TUNE = `{title: Line job}
{key: Cm}
{tempo: 200}
{start_of_grid}
| Cm7 | Fm7 | Dm7b5 | G7b9 |
| Cm7 | Abmaj7 | Dm7b5 G7b9 | Cm6 |
{end_of_grid}`;

interface LinesAnswer {
  lines: { notes: { at: number; midi: number }[] }[];
}

export function lineJobs(tools: () => Tools): void {
  const page = () => tools().page;
  const browser = () => tools().browser;
  const server = () => tools().server;

  async function open(source = TUNE): Promise<string> {
    await page().settings(DEFAULT_SETTINGS);
    const { body } = await server().call<{ id: string }>('POST', 'songbook', { source, plan: AT_FIVE });
    await page().open(`/charts/${body.id}`);
    await page().press('i');
    await shown();
    return body.id;
  }
  const shown = () =>
    page().until(
      async () =>
        (await page().all('[data-line]')).length === 1 &&
        (await page().all('[aria-busy="true"]')).length === 0,
      'the line'
    );
  const attribute = async (name: string) => (await page().attributes('[data-line]', name))[0];
  const count = async () => Number(await attribute('data-notes'));
  const notes = () => page().attributes('[data-note]', 'data-note');
  const verdicts = () => page().attributes('[data-outline-strip] [data-verdict]', 'data-verdict');
  const isKept = () =>
    page().until(async () => (await page().texts('button')).includes('kept'), 'the line to be kept');
  /** The panels of the row of tools. */
  const FINDING = '[aria-label="How it is found"][aria-haspopup]';
  const PLAYING = '[data-hint="What is looped, tempo, key"]';
  const MORE = '[aria-label="More for the line"][aria-haspopup]';
  async function level(id: string): Promise<void> {
    await page().pick('Kind of line', id);
    await page().until(async () => (await attribute('data-level')) === id, id);
    await shown();
  }
  const blur = () => browser().executeScript('document.activeElement.blur()');

  describe('lines', () => {
    it('grow level by level over the same targets, as the route has them', async () => {
      await open();
      const route = async (id: string) => {
        const body = { chart: TUNE, level: id, position: 5, loop: true };
        return (await server().call<LinesAnswer>('POST', 'lines', body)).body.lines[0]!.notes;
      };
      const counts: number[] = [];
      for (const id of ['skeleton', 'led in', 'arpeggio', 'without a stop']) {
        await level(id);
        const wanted = await route(id);
        await page().until(async () => (await count()) === wanted.length, `the notes of ${id}`);
        expect(await notes()).toEqual(
          wanted.slice(0, (await notes()).length).map(({ midi }) => String(midi))
        );
        counts.push(wanted.length);
      }
      expect(counts).toEqual([...new Set(counts)].sort((a, b) => a - b));
    });

    it('open as phrases in the style of the chart: others, denser ones, another style; kept with all that the hand does', async () => {
      const chart = await open();
      expect(await attribute('data-level')).toBe('phrases');
      const line = async () => (await notes()).join();
      const first = await line();
      await page().clickNamed('New phrases');
      await page().until(async () => (await line()) !== first, 'other phrases');
      const second = await line();
      await page().within(FINDING, () => page().pick('How dense the phrases are', 'dense'));
      await page().until(async () => (await line()) !== second, 'denser phrases');
      await shown();
      const third = await line();
      await page().within(FINDING, () => page().pick('Style of the music', 'rock'));
      await page().until(async () => (await line()) !== third, 'phrases of rock');
      await shown();
      await page().saved();
      const { body } = await server().call<{ source: string }>('GET', `songbook/${chart}`);
      expect(body.source).toContain('{style: rock}');
      const wanted = await count();
      await page().clickNamed('Keep');
      await isKept();
      const kept = await server().call<{ lines: { data: { notes: Record<string, unknown>[] } }[] }>(
        'GET',
        `songbook/${chart}/lines`
      );
      const own = kept.body.lines[0]!.data.notes;
      expect(own).toHaveLength(wanted);
      expect(
        own.some((note) => ['bend', 'slide', 'slur', 'vibrato', 'ghost'].some((how) => how in note))
      ).toBe(true);
      await page().load(`/charts/${chart}?view=lines`);
      await shown();
      expect(await count()).toBe(wanted);
    });

    it('are judged, mended, undone; kept over a reload, renamed, deleted and brought back', async () => {
      await open();
      await level('without a stop');
      const at = (await verdicts()).findIndex((verdict) => verdict === 'not' || verdict === 'partly');
      await (await page().find(`[data-heard="${at}"]`)).click();
      const before = await notes();
      const mend = await page().find('[data-mend]');
      const reaches = await mend.getAttribute('data-mend');
      await page().clickNamed('fix it');
      await page().until(async () => (await notes()).join() !== before.join(), 'the mended line');
      if (reaches === 'clear')
        await page().until(async () => (await verdicts())[at] === 'clear', 'it to be clear');
      const after = await notes();
      await blur();
      await page().chord(Key.CONTROL, 'z');
      await page().until(async () => (await notes()).join() === before.join(), 'the line before');
      await page().chord(Key.CONTROL, 'y');
      await page().until(async () => (await notes()).join() === after.join(), 'the mended line again');

      await page().clickNamed('Keep');
      await isKept();
      await page().within(MORE, async () => {
        await page().replaceText(await page().find('[aria-label="Name of the line"]'), 'Round the pier');
        await page().press(Key.ENTER);
      });
      await page().until(
        async () =>
          (await page().attributes('[data-select="Line"]', 'aria-label'))[0]?.includes('Round the pier') ===
          true,
        'the new name'
      );
      const { pathname } = new URL(await browser().getCurrentUrl());
      await page().open(`${pathname}?view=lines`);
      await shown();
      expect(await notes()).toEqual(after);
      expect(await page().texts('[data-select="Line"]')).toEqual(['Round the pier']);

      await page().within(MORE, () => page().clickNamed('Delete this line'));
      await page().until(
        async () => (await page().texts('[data-select="Line"]'))[0] === 'not kept yet',
        'it to be gone'
      );
      await (await page().find('[data-sonner-toast] [data-button]')).click();
      await page().until(
        async () => (await page().texts('[data-select="Line"]'))[0] === 'Round the pier',
        'it to be back'
      );
    });

    it('play with the band, a seam round and round, in another key as well', async () => {
      await open();
      await page().within(PLAYING, () => page().pick('What is looped', 'seam'));
      await blur();
      await page().press(' ');
      await page().until(
        async () =>
          Number(await attribute('data-sound-level')) > 0.01 &&
          (await page().all('[data-playhead]')).length === 1,
        'sound'
      );
      await page().until(async () => (await page().all('[data-note][data-lit]')).length >= 1, 'a lit note');
      // Two bars and round again: the third is never come to.
      const reached: number[] = [];
      await page().until(async () => {
        const beat = Number(await attribute('data-at'));
        reached.push(beat);
        return reached.length > 4 && beat < reached.at(-2)! - 4;
      }, 'the loop to come round');
      expect(Math.max(...reached)).toBeLessThan(8.01);
      await page().press(' ');
      await page().until(async () => (await page().all('[data-playhead]')).length === 0, 'silence');
      // The neck goes back to the selected change when the band has stopped.
      await page().settled();
      const own = (await notes()).map(Number);
      await page().within(PLAYING, () => page().pick('Key', '2'));
      await page().until(async () => (await page().texts('[data-reading] h2'))[0]!.includes('D'), 'D minor');
      await page().settled();
      const moved = (await notes()).map(Number);
      const up = moved[0]! - own[0]!;
      expect(((up % 12) + 12) % 12).toBe(2);
      expect(moved.map((midi, i) => midi - own[i]!)).toEqual(own.map(() => up));
    });

    it('go round the keys, one a round', async () => {
      await open('{title: Round}\n{key: C}\n{tempo: 240}\n| Dm7 | G7 |');
      const first = (await notes()).map(Number);
      await page().within(PLAYING, () => page().pick('Key', 'all'));
      await blur();
      await page().press(' ');
      // In fourths: after C comes F.
      await page().until(
        async () => (await page().texts('[data-reading] h2'))[0]!.startsWith('Gm'),
        'the next key'
      );
      const moved = (await notes()).map(Number);
      expect((((moved[0]! - first[0]!) % 12) + 12) % 12).toBe(5);
      await page().press(' ');
    });

    it('are moved up the neck in one action, and back', async () => {
      await open();
      const own = await notes();
      await page().within(MORE, () => page().pick('Move the line', 'position 9'));
      await page().until(
        async () => (await page().attributes('[data-place]', 'data-place')).length > 0,
        'the neck'
      );
      const frets = (await page().attributes('[data-place]', 'data-place')).map((place) =>
        Number(place!.split(':')[1])
      );
      expect(Math.min(...frets)).toBeGreaterThanOrEqual(8);
      expect(Math.max(...frets)).toBeLessThanOrEqual(13);
      expect((await notes()).map((midi) => Number(midi) % 12)).toEqual(own.map((midi) => Number(midi) % 12));
      await page().clickNamed('Undo');
      await page().until(async () => (await notes()).join() === own.join(), 'where it was');
    });

    it('carry a motif through the tune and lie on three strings', async () => {
      await open();
      await level('arpeggio');
      const starts = () =>
        browser().executeScript<number[]>(
          'return [...document.querySelectorAll("[data-note] rect")].map((e) => Math.round(e.getAttribute("x")))'
        );
      await page().within(MORE, () => page().pick('Repeat a motif', 'led 1'));
      const bar = await browser().executeScript<number>(
        'const [a, b] = [...document.querySelectorAll("[data-heard]")].map((e) => parseFloat(e.style.left)); return b - a;'
      );
      // The rhythm of the first bar again in each that is drawn.
      await page().until(async () => {
        const all = await starts();
        const first = all.filter((x) => x < bar - 2);
        return all
          .filter((x) => x >= bar - 2 && x < 4 * bar - 2)
          .every((x) =>
            first.some((one) => Math.abs(((x - one) % bar) + bar) % bar < 2 || bar - ((x - one) % bar) < 2)
          );
      }, 'the rhythm carried on');
      await level('skeleton');
      const before = await notes();
      await page().within(MORE, () => page().pick('Move the line', 'strings 4 5 6'));
      await page().until(async () => {
        const strings = (await page().attributes('[data-place]', 'data-place')).map((place) =>
          Number(place!.split(':')[0])
        );
        return strings.length > 0 && strings.every((string) => string >= 4);
      }, 'the line on three strings');
      expect(await notes()).toEqual(before);
    });

    it('are marked where the chords are edited under them, and moved to the new ones', async () => {
      const id = await open('{title: Edited}\n{key: C}\n| Dm7 | G7 | Cmaj7 | Cmaj7 |');
      await page().clickNamed('Keep');
      await isKept();
      const { body } = await server().call<{ version: number; plan: object }>('GET', `songbook/${id}`);
      const source = '{title: Edited}\n{key: C}\n| Dm7b5 | G7b9 | Cm7 | Cm7 |';
      await server().call('PUT', `songbook/${id}`, { base: body.version, source, plan: body.plan });
      await page().open(`/charts/${id}?view=lines`);
      await shown();
      await page().find('[data-over-others]');
      const own = (await notes()).map(Number);
      await page().clickNamed('adapt it to the new chords');
      await page().until(
        async () => (await page().all('[data-over-others]')).length === 0,
        'the line to be moved'
      );
      const moved = (await notes()).map(Number);
      // E over Cmaj7 becomes the E flat of Cm7, and nothing goes further than that.
      expect(moved).not.toEqual(own);
      for (const [i, midi] of moved.entries()) expect(Math.abs(midi - own[i]!)).toBeLessThanOrEqual(2);
    });

    it('lose nothing while the server is away, and say so; a damaged one is kept and named', async () => {
      const id = await open();
      await server().stop();
      await page().clickNamed('Keep');
      await page().until(
        async () => (await page().texts('[role="alert"]')).join().includes('the line is still here'),
        'a sentence'
      );
      expect(await count()).toBeGreaterThan(10);
      await server().start();
      await page().clickNamed('Keep');
      await isKept();
      const file = new Sqlite(server().database);
      file.prepare("update line set data = '{' where chart_id = ?").run(id);
      file.close();
      await page().open(`/charts/${id}?view=lines`);
      await shown();
      await page().until(async () => (await page().all('[data-select="Line"]')).length === 1, 'the list');
      const [line] = (await server().call<{ lines: { id: string }[] }>('GET', `songbook/${id}/lines`)).body
        .lines;
      await page().pick('Line', line!.id);
      await page().until(
        async () => (await page().texts('[role="alert"]')).join().includes('cannot be read'),
        'the damage'
      );
    });

    it('are read by touch and by keys: a change is tapped, walked to, its notes told', async () => {
      await open();
      await page().finger.on(1280, 800, async () => {
        await page().finger.tap('[data-heard="2"]');
        await page().until(
          async () => (await page().texts('[data-reading] h2'))[0]!.includes('bar 3'),
          'bar 3'
        );
      });
      await blur();
      await page().press(Key.ARROW_RIGHT);
      await page().until(
        async () => (await page().texts('[data-reading] h2'))[0]!.includes('bar 4'),
        'bar 4'
      );
      expect((await page().texts('[data-reading] tbody tr')).length).toBeGreaterThan(3);
    });
  });
}
