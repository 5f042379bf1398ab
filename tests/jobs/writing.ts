/** Jobs on written lines: by keys, by touch, on staff and tab; licks kept, found, put in; files out and in; paper. */
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Key } from 'selenium-webdriver';
import { describe, expect, it } from 'vitest';
import { DEFAULT_SETTINGS } from '../../src/lib/api/default-settings';
import type { ChartList } from '../../src/lib/api/songbook';
import { AT_FIVE } from '../plan';
import type { Tools } from './neck';

const TUNE = `{title: Writing job}
{key: Fm}
{tempo: 200}
{start_of_grid}
| Fm7 | Bbm7 | Gm7b5 C7b9 | Fm7 |
| Gm7b5 | C7b9 | Fm6 | % |
{end_of_grid}`;

interface Note {
  readonly start: number;
  readonly length: number;
  readonly midi: number;
  readonly place?: { readonly string: number; readonly fret: number };
}
interface KeptLines {
  readonly lines: readonly { readonly name: string; readonly data: { readonly notes: readonly Note[] } }[];
}

export function writingJobs(tools: () => Tools): void {
  const page = () => tools().page;
  const browser = () => tools().browser;
  const server = () => tools().server;

  async function open(settings: object = { lineAs: 'score' }): Promise<string> {
    await page().settings({ ...DEFAULT_SETTINGS, ...settings });
    const { body } = await server().call<{ id: string }>('POST', 'songbook', { source: TUNE, plan: AT_FIVE });
    // What is being written is kept for the tab: it is told anew.
    await page().load(`/charts/${body.id}?view=lines`);
    await page().until(async () => (await page().all('[data-line]')).length === 1, 'the line');
    await page().until(
      async () => (await page().all('[aria-busy="true"]')).length === 0,
      'the line to stand'
    );
    return body.id;
  }
  const blur = () => browser().executeScript('document.activeElement.blur()');
  const count = async () => Number((await page().attributes('[data-line]', 'data-notes'))[0]);
  const counted = (notes: number) => page().until(async () => (await count()) === notes, `${notes} notes`);
  async function pen(): Promise<void> {
    await page().press('n');
    await page().clickNamed('empty');
    await counted(0);
    await blur();
  }
  async function kept(chart: string): Promise<KeptLines['lines']> {
    await page().clickNamed('Keep');
    await page().until(async () => (await page().texts('button')).includes('kept'), 'the line to be kept');
    return (await server().call<KeptLines>('GET', `songbook/${chart}/lines`)).body.lines;
  }
  const said = ({ start, length, place, midi: _, note: _note, ...how }: Note & { note?: string }) =>
    `${place!.string}:${place!.fret}@${start / 960}+${length / 960}${Object.keys(how).join('')}`;

  describe('a line is written', () => {
    it('by keys alone: frets, lengths, triplets, techniques, double stops; undone, kept, there again', async () => {
      const chart = await open();
      await pen();
      const [left, right, up, down] = [Key.ARROW_LEFT, Key.ARROW_RIGHT, Key.ARROW_UP, Key.ARROW_DOWN];
      // Eighths on the second and first string, a quarter with vibrato on the tenth fret.
      await page().press('8', right, up, '6', right, 'q', '1', '0', 'v', right);
      // Triplets, the second hammered.
      await page().press('e', 't', '4', right, '6', '-', right, '8', right, 't');
      // A bend, and a double stop below it.
      await page().press('q', '8', 'b', 'b', down, '8');
      await counted(8);
      await page().press(right, '3', Key.BACK_SPACE);
      await counted(8);
      await page().chord(Key.CONTROL, 'z');
      await counted(9);
      await page().chord(Key.CONTROL, 'y');
      await counted(8);
      await page().press(left, left);
      const [line] = await kept(chart);
      expect(line!.data.notes.map(said)).toEqual([
        '2:8@0+0.5',
        '1:6@0.5+0.5',
        '1:10@1+1vibrato',
        `1:4@2+${320 / 960}`,
        `1:6@${(1920 + 320) / 960}+${320 / 960}slur`,
        `1:8@${(1920 + 640) / 960}+${320 / 960}`,
        '2:8@3+1',
        '1:8@3+1bend'
      ]);
      await page().open(`/charts/${chart}?view=lines`);
      await counted(8);
      await page().until(
        async () => (await page().all('[data-score] [data-system]')).length > 0,
        'the score'
      );
      // Degrees stand below, until they are not wanted.
      const written = async () => (await page().texts('[data-system="0"] text')).includes('9');
      await page().until(written, 'the degrees');
      await page().within('[aria-label="More for the line"][aria-haspopup]', () =>
        page().clickNamed('degrees below the tab')
      );
      await page().until(async () => !(await written()), 'no degrees');
      // On the staff a note a piece, on the tab a fret a note.
      await page().until(async () => (await page().all('.engraved .vf-stavenote')).length > 8, 'the notes');
      expect((await page().texts('.engraved .vf-tabnote')).join(' ')).toContain('10');
    });

    it('passage by passage: selected, copied, put in, repeated, moved, joined', async () => {
      await open();
      await pen();
      await page().press('8', Key.ARROW_RIGHT, '6', Key.ARROW_RIGHT);
      await page().press(Key.HOME);
      await page().chord(Key.CONTROL, 'a');
      await page().until(async () => (await page().all('[data-selected]')).length > 0, 'the selection');
      await page().chord(Key.CONTROL, 'c');
      await page().press(Key.ARROW_RIGHT);
      await page().chord(Key.CONTROL, 'v');
      await counted(4);
      await page().press('d');
      await page().until(async () => (await count()) > 4, 'the bar once more');
      const before = await count();
      await page().press('x');
      await page().until(async () => (await count()) >= before, 'a note split');
      await page().press(Key.ESCAPE);
      await page().until(async () => (await page().all('[data-pad]')).length === 0, 'the pen put away');
    });

    it('and is there after a reload though it was not kept', async () => {
      const chart = await open();
      await pen();
      await page().press('5', Key.ARROW_RIGHT, '7', Key.ARROW_RIGHT);
      await counted(2);
      await page().load(`/charts/${chart}?view=lines`);
      await counted(2);
      expect(await page().texts('[data-select="Line"]')).toEqual(['not kept yet']);
    });

    it('by touch alone on a phone: taps on the neck, the pad, a note dragged in time and pitch', async () => {
      const chart = await open({ lineAs: 'time' });
      const { finger } = page();
      await finger.on(390, 844, async () => {
        await finger.tap('[data-write]');
        await page().until(async () => (await page().all('[data-pad]')).length === 1, 'the pad');
        await page().clickNamed('empty');
        await counted(0);
        // The third string lies 28 + 2 × 35 pixels below the drawing's top.
        await finger.tap('[aria-label="The line on the neck"] svg', { at: { x: 150, y: 98 } });
        await counted(1);
        await finger.tap('[aria-label="The line on the neck"] svg', { at: { x: 180, y: 98 } });
        await counted(2);
        expect(
          await browser().executeScript('return document.documentElement.scrollWidth <= innerWidth')
        ).toBe(true);
        const before = await page().attributes('[data-note]', 'data-note');
        const from = await finger.over('[data-note]', { n: 1 });
        await finger.swipe(from, { x: from.x, y: from.y - 70 }, { isLifted: false });
        await page().until(async () => (await page().all('[data-dragged]')).length === 1, 'the drag');
        await finger.up();
        await page().until(
          async () => (await page().attributes('[data-note]', 'data-note')).join() !== before.join(),
          'the note to be moved'
        );
        const after = await page().attributes('[data-note]', 'data-note');
        expect(Number(after.at(-1))).toBeGreaterThan(Number(before.at(-1)));
        expect((await kept(chart))[0]!.data.notes).toHaveLength(2);
      });
    });

    it('as the melody, which is kept in the chart', async () => {
      await open();
      await page().pick('Line', 'melody');
      await counted(0);
      await blur();
      await page().press('n', 'h', '6', Key.ARROW_RIGHT, '4', Key.ARROW_RIGHT, '3');
      await counted(3);
      await page().clickNamed('Keep');
      await page().saved();
      const id = /charts\/([^?]+)/.exec(await browser().getCurrentUrl())![1]!;
      const { body } = await server().call<{ source: string }>('GET', `songbook/${id}`);
      expect(body.source).toContain('{melody: F4:2 Eb4:2 | D4:2}');
    });
  });

  describe('licks', () => {
    it('are kept from a line, found in the book, heard and put into another chart with its seam', async () => {
      await open();
      await page().clickNamed('licks');
      const licks = async () => Number((await page().attributes('[data-licks]', 'data-licks'))[0]);
      await page().until(async () => (await licks()) > 0, 'the book');
      const before = await licks();
      await page().clickNamed('one bar');
      await page().until(async () => (await licks()) === before + 1, 'the lick to be kept');
      const { body } = await server().call<{ licks: { id: string; name: string }[] }>('GET', 'licks');
      const [own] = body.licks;
      // It fits where it comes from.
      await page().until(
        async () => (await page().attributes('[data-fit]', 'data-fit')).includes(own!.name),
        'where it fits'
      );
      await pen();
      const fit = await page().find(`[data-fit="${own!.name}"]`);
      await browser().executeScript('arguments[0].scrollIntoView({ block: "center" })', fit);
      await browser().executeScript(
        `[...arguments[0].querySelectorAll('button')].find((b) => b.textContent.includes('insert')).click()`,
        fit
      );
      await page().until(async () => (await count()) > 0, 'the lick in the line');

      await page().open('/licks');
      await page().until(async () => (await page().all('[data-lick]')).length > 0, 'the book');
      await page().replaceText(await page().find('input[type="search"]'), own!.name.slice(0, 12));
      await page().until(
        async () => (await page().attributes('[data-lick]', 'data-lick')).includes(own!.name),
        'the lick to be found'
      );
      await page().clickNamed(`Delete ${own!.name}`);
      await page().until(
        async () => !(await page().attributes('[data-lick]', 'data-lick')).includes(own!.name),
        'it to be gone'
      );
      await (await page().find('[data-sonner-toast] [data-button]')).click();
      await page().until(
        async () => (await page().attributes('[data-lick]', 'data-lick')).includes(own!.name),
        'it to be back'
      );
    });

    it('lie in every key and area of the neck at a press, and are kept by key or by chord', async () => {
      await page().load('/licks');
      const card = '[data-lick="Priming the pump"]';
      const field = await page().find('input[type="search"]');
      await page().replaceText(field, 'Priming the pump');
      await page().until(async () => (await page().all('[data-lick]')).length === 1, 'the lick');
      const at = async (name: string) => (await page().attributes(card, name))[0];
      const press = async (named: string) => {
        const button = await page().find(`${card} button[data-hint^="${named}"]`);
        await button.click();
      };
      const frets = () => page().texts(`${card} [data-fret]`);
      expect(await at('data-in')).toBe('Eb');
      const kept = await frets();

      const keys = new Set([await at('data-in')]);
      for (let n = 0; n < 11; n++) {
        await press('In the next key');
        await page().until(async () => !keys.has(await at('data-in')), 'another key');
        keys.add(await at('data-in'));
      }
      await press('In the next key');
      await page().until(async () => (await at('data-in')) === 'Eb', 'the first key again');
      expect(await frets()).toEqual(kept);

      const areas = new Set<string>();
      for (let n = 0; n < 6; n++) {
        await press('In the next of the five areas');
        const area = await at('data-area');
        if (!area) break;
        areas.add(area);
      }
      expect(areas.size).toBeGreaterThanOrEqual(3);
      await page().until(async () => (await frets()).join() === kept.join(), 'where it was kept');

      await press('Kept by its chords');
      await page().until(
        async () => (await page().all(`${card} button[data-hint^="Kept by its key"]`)).length === 1,
        'by key'
      );
      await page().load('/licks');
      await page().replaceText(await page().find('input[type="search"]'), 'Priming the pump');
      await page().find(`${card} button[data-hint^="Kept by its key"]`);
    });

    it('stand six in one look', async () => {
      await page().load('/licks');
      await page().until(async () => (await page().all('[data-strip]')).length >= 6, 'the licks');
      const bottoms = await browser().executeScript<number[]>(
        'return [...document.querySelectorAll("[data-lick]")].slice(0, 6).map((e) => e.getBoundingClientRect().bottom)'
      );
      expect(Math.max(...bottoms)).toBeLessThan(800);
    });
  });

  describe('files', () => {
    const folder = mkdtempSync(join(tmpdir(), 'corvel-files-'));
    async function fileOf(format: string): Promise<string> {
      const notes = [
        { at: 0, beats: 1, string: 3, fret: 5 },
        { at: 1, beats: 0.5, string: 3, fret: 6, slur: true },
        { at: 1.5, beats: 2.5, string: 2, fret: 6 }
      ];
      const response = await fetch(`${server().url}/api/v1/export`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ chart: TUNE, line: { name: 'From afar', notes }, format })
      });
      expect(response.status).toBe(200);
      expect(response.headers.get('content-disposition')).toContain('Writing job');
      const path = join(folder, `line.${format}`);
      writeFileSync(path, Buffer.from(await response.arrayBuffer()));
      return path;
    }

    it.each(['musicxml', 'midi', 'tab', 'csv'])('of %s bring their lines into a chart', async (format) => {
      const path = await fileOf(format);
      const chart = await open();
      await (await page().find('[data-import]')).sendKeys(path);
      await counted(3);
      await page().until(async () => (await page().texts('button')).includes('kept'), 'the line to be kept');
      const { lines } = (await server().call<KeptLines>('GET', `songbook/${chart}/lines`)).body;
      expect(lines.map(({ name }) => name)).toEqual(['From afar']);
      expect(lines[0]!.data.notes.map(({ midi }) => midi)).toEqual([60, 61, 65]);
      expect(lines[0]!.data.notes.every(({ place }) => place)).toBe(true);
    });

    it('of a whole chart are saved from its menu, and come in beside it with plan, lines and drills', async () => {
      const chart = await open();
      const notes = [{ start: 0, length: 480, midi: 60, note: 'C' }];
      const line = { id: crypto.randomUUID(), name: 'Handed on', data: { notes, over: [] } };
      expect((await server().call('POST', `songbook/${chart}/lines`, line)).status).toBe(200);
      await browser().executeScript(
        `URL.createObjectURL = (blob) => { blob.text().then((text) => (window.saved = text)); return '#'; };`
      );
      await page().clickNamed('More');
      await page().clickNamed('Save as one file');
      const saved = () => browser().executeScript<string | null>('return window.saved ?? null');
      await page().until(async () => (await saved()) !== null, 'the file');
      const text = (await saved())!;
      expect(JSON.parse(text)).toMatchObject({
        corvel: 'chart',
        version: 3,
        plan: AT_FIVE,
        takes: [],
        log: []
      });
      const [whole, torn] = [join(folder, 'given.corvel.json'), join(folder, 'torn.corvel.json')];
      writeFileSync(whole, text);
      writeFileSync(torn, text.slice(0, text.length >> 1));
      await page().open('/');
      await (await page().find('[data-import]')).sendKeys(`${whole}\n${torn}`);
      await page().until(async () => (await page().all('[data-file]')).length === 2, 'a look at both');
      expect((await page().texts('[data-file="given.corvel.json"]')).join()).toContain('1 line');
      expect((await page().texts('[data-file="torn.corvel.json"] .text-warn')).join()).toContain(
        'no chart that Corvel saved'
      );
      const charts = async () =>
        (await server().call<ChartList>('GET', 'songbook?limit=200&sort=changed')).body.charts;
      const before = new Set((await charts()).map(({ id }) => id));
      await page().clickNamed('Import 1 chart');
      await page().until(
        async () => (await page().all('[data-file][data-taken]')).length === 1,
        'it to be taken'
      );
      const [taken] = (await charts()).filter(({ id }) => !before.has(id));
      const { lines } = (await server().call<KeptLines>('GET', `songbook/${taken!.id}/lines`)).body;
      expect(lines.map(({ name }) => name)).toEqual(['Handed on']);
      expect(
        (await server().call<{ plan: unknown }>('GET', `songbook/${taken!.id}`)).body.plan
      ).toMatchObject(AT_FIVE);
    });

    it('of a table of charts bring each of its rows, looked at before it is taken', async () => {
      const path = join(folder, 'season.csv');
      writeFileSync(
        path,
        'Title;Key;Tags;Chords\nRow One;Gb;season;| Abm7 | Db7 | Gbmaj7 | % |\nRow Two;;;no music at all\nRow Three;Bm;season;Bm7 | Em7 | F#7b9 | Bm7'
      );
      await page().open('/');
      await (await page().find('[data-import]')).sendKeys(path);
      await page().until(async () => (await page().all('[data-file]')).length === 3, 'a look at each row');
      expect((await page().texts('[data-file] .text-warn')).join()).toContain(
        'Row 3, “Row Two”, has no chord in it.'
      );
      await page().clickNamed('Import 2 charts');
      await page().until(
        async () => (await page().all('[data-file][data-taken]')).length === 2,
        'both taken'
      );
      const { body } = await server().call<ChartList>('GET', 'songbook?tag=season&sort=title');
      expect(body.charts.map(({ title, key, bars }) => `${title} ${key} ${bars}`)).toEqual([
        'Row One Gb 4',
        'Row Three Bm 4'
      ]);
    });

    it('come many at once: each looked at before any is stored, only those that are wanted taken, with undo', async () => {
      const files = {
        'Night Watch.txt': 'Key: Bbm\nBbm7 | Ebm7 | F7b9 | Bbm7\nfor the crew',
        'loop.cho': '{title: Anchor Loop}\n{key: E}\n| E | B | C#m | A |',
        'letter.txt': 'dear friend, no chord here',
        'Unwanted.txt': 'Key: C\nC | F | G7 | C'
      };
      const paths = Object.entries(files).map(([name, text]) => {
        const path = join(folder, name);
        writeFileSync(path, text);
        return path;
      });
      const titles = async () =>
        (await server().call<ChartList>('GET', 'songbook?limit=200&sort=changed')).body.charts.map(
          ({ title }) => title
        );
      const before = await titles();
      await page().open('/');
      await (await page().find('[data-import]')).sendKeys(paths.join('\n'));
      await page().until(async () => (await page().all('[data-file]')).length === 4, 'a look at each');
      expect(await page().texts('[data-file="letter.txt"] .text-warn')).toEqual(['There is no chord in it.']);
      expect((await page().texts('[data-file="Night Watch.txt"]')).join()).toContain('4 bars in B♭ minor');
      expect(await titles()).toEqual(before);
      await (await page().find('[data-file="Unwanted.txt"] input')).click();
      await page().clickNamed('Import 2 charts');
      await page().until(
        async () => (await page().all('[data-file][data-taken]')).length === 2,
        'them to be taken'
      );
      expect((await titles()).filter((title) => !before.includes(title)).sort()).toEqual([
        'Anchor Loop',
        'Night Watch'
      ]);
      await page().press(Key.ESCAPE);
      await page().until(
        async () => (await page().all('[data-sonner-toast] [data-button]')).length > 0,
        'the undo'
      );
      await (await page().find('[data-sonner-toast] [data-button]')).click();
      await page().until(async () => (await titles()).length === before.length, 'them to go');
    });

    it('are a new chart in the songbook, and one that is none is told', async () => {
      const path = await fileOf('musicxml');
      const bad = join(folder, 'bad.mid');
      writeFileSync(bad, 'MThd is all there is');
      await page().open('/');
      await (await page().find('[data-import]')).sendKeys(bad);
      await page().until(
        async () => (await page().texts('[data-sonner-toast]')).join().includes('MIDI file'),
        'what is wrong with it'
      );
      await (await page().find('[data-import]')).sendKeys(path);
      await page().until(
        async () => (await page().texts('[data-imported]')).join().includes('1 line'),
        'what is in it'
      );
      await page().clickNamed('Open it with a plan');
      await page().until(async () => (await browser().getCurrentUrl()).includes('/charts/'), 'the chart');
      const id = /charts\/([^?]+)/.exec(await browser().getCurrentUrl())![1]!;
      await page().until(
        async () => (await server().call<KeptLines>('GET', `songbook/${id}/lines`)).body.lines.length === 1,
        'its line'
      );
    });
  });

  describe('paper', () => {
    async function sheet(command: string): Promise<string> {
      await browser().executeScript(`window.print = () => window.dispatchEvent(new Event('beforeprint'))`);
      await blur();
      await page().chord(Key.CONTROL, 'k');
      const input = await page().find('[data-command-input]');
      await input.sendKeys(command);
      await page().until(
        async () => (await page().texts('[data-command-item][data-selected]')).join().includes(command),
        command
      );
      await input.sendKeys(Key.ENTER);
      await page().until(async () => (await page().all('[data-sheet]')).length === 1, 'the sheet');
      const text = await browser().executeScript<string>(
        'return document.querySelector("[data-sheet]").textContent'
      );
      return text;
    }
    const done = () => browser().executeScript(`window.dispatchEvent(new Event('afterprint'))`);

    it('has a sheet for one key: chords, choices, hands, targets, lines with tab, room for notes', async () => {
      await open();
      await kept(/charts\/([^?]+)/.exec(await browser().getCurrentUrl())![1]!);
      const text = await sheet('a sheet for this key');
      for (const wanted of ['F minor', 'land on', 'position', 'Notes', 'V7/i'.slice(0, 2)])
        expect(text).toContain(wanted);
      expect((await page().all('[data-sheet] .engraved svg')).length).toBeGreaterThan(1);
      expect((await page().all('[data-sheet] hr')).length).toBeGreaterThan(3);
      await done();
    });

    it('has blank necks and blank tab', async () => {
      await open();
      expect(await sheet('blank necks')).toContain('scale');
      expect((await page().all('[data-sheet] svg')).length).toBe(7);
      await done();
      await sheet('blank staff and tab');
      expect((await page().all('[data-sheet] svg')).length).toBe(7);
      await done();
    });
  });
}
