/** Jobs on the neck: areas, position map, painting, laying over, grips, the whole neck, another guitar, pictures. */
import { Key, type WebDriver } from 'selenium-webdriver';
import { describe, expect, it } from 'vitest';
import { DEFAULT_SETTINGS } from '../../src/lib/api/default-settings';
import type { Page } from '../page';
import type { Server } from '../server';
import { AT_FIVE } from '../plan';

export interface Tools {
  readonly page: Page;
  readonly browser: WebDriver;
  readonly server: Server;
}

const LOOP = '{title: Neck job}\n{key: Ab}\n| Fm7 | Bbm7 | Eb7 | Abmaj7 |';

interface MapAnswer {
  rows: {
    position: number;
    areas: { change: number; title: string; anchor: number; cells: { string: number; fret: number }[] }[];
  }[];
}

export function neckJobs(tools: () => Tools): void {
  const page = () => tools().page;
  const browser = () => tools().browser;

  async function open(settings: object = {}): Promise<string> {
    const { server } = tools();
    await page().settings({ ...DEFAULT_SETTINGS, ...settings });
    const { body } = await server.call<{ id: string }>('POST', 'songbook', { source: LOOP, plan: AT_FIVE });
    await page().open(`/charts/${body.id}`);
    return body.id;
  }

  const plan = async (id: string) => {
    const { body } = await tools().server.call<{
      plan: { position: number; decisions: { change: number; position?: number }[] };
    }>('GET', `songbook/${id}`);
    return body.plan;
  };

  /** The cells of the map that hold the hand, as "row:column". */
  const hands = () => page().attributes('[data-map-cell][data-hand]', 'data-map-cell');

  describe('the neck', () => {
    it('shows the melody typed beside the bars in every octave, and lands on it', async () => {
      const id = await open();
      await page().press('e');
      const field = await page().find('#melody');
      await page().replaceText(field, 'Ab4:4 | r:1 F4:3 | G4:4 | C5:2 x');
      await page().press(Key.TAB);
      await page().until(
        async () => (await page().texts('#melody-says'))[0]!.includes('Bar 4: “x” is no note'),
        'what is wrong with it'
      );
      await page().replaceText(await page().find('#melody'), 'Ab4:4 | r:1 F4:3 | G4:4 | C5:4');
      await page().press(Key.TAB);
      await page().until(
        async () => (await page().all('[data-melody-note]')).length === 4,
        'the bars in Threads'
      );
      await page().clickNamed('Close');
      await page().press('y');
      // Every A flat of the neck, in the first bar.
      await page().until(
        async () => (await page().all('[data-melody]')).length > 0,
        'the melody on the neck'
      );
      const places = (await page().attributes('[data-melody]', 'data-melody')).sort();
      const open6 = [64, 59, 55, 50, 45, 40];
      const flats = open6.flatMap((midi, i) =>
        Array.from({ length: 23 }, (_, fret) => fret)
          .filter((fret) => (midi + fret) % 12 === 8)
          .map((fret) => `${i + 1}:${fret}`)
      );
      expect(places).toEqual(flats.sort());
      await page().clickNamed('land on the melody');
      await page().until(
        async () => (await page().attributes('[data-change="0"] [data-target]', 'data-degree'))[0] === 'b3',
        'the melody as the target'
      );
      await page().saved();
      const { body } = await tools().server.call<{ source: string }>('GET', `songbook/${id}`);
      expect(body.source).toContain('{melody: Ab4:4 | r:1 F4:3 | G4:4 | C5:4}');
    });

    it('lays chords that are fingered behind a capo in their open shapes', async () => {
      await open({ capo: 2, capoChords: 'fingered' });
      // F minor seventh of a written F, a tone higher where it sounds: fret 3 of string 6 behind a capo at 2.
      await page().press('w');
      await page().find('[data-cell="6:3"]');
      const degree = (await page().attributes('[data-cell="6:3"]', 'data-degree'))[0];
      expect(degree).toBe('1');
      expect((await page().texts('header'))[0]).toContain('capo 2, sounds in B♭');
      await open();
    });

    it('shows the map that the route answers, and sits the whole plan in a row', async () => {
      const id = await open({ organise: 'minor-boxes' });
      await page().pick('Approach', 'chord-pentatonic');
      await page().press('m');
      await page().find('[data-map]');
      const { body } = await tools().server.call<MapAnswer>('POST', 'position-map', { chart: LOOP });
      for (const [r, row] of body.rows.entries()) {
        for (const { change, title, anchor, cells } of row.areas) {
          const label = (await page().attributes(`[data-map-cell="${r}:${change}"]`, 'aria-label'))[0]!;
          expect(label).toContain(`${title}, fret ${anchor}:`);
          expect(label.split(';')).toHaveLength(cells.length);
        }
      }
      await (await page().find('[data-map-row="8"]')).click();
      await page().until(
        async () => (await hands()).every((cell) => cell!.startsWith('3:')),
        'the fourth row'
      );
      await page().saved();
      expect(await plan(id)).toMatchObject({ position: 8, decisions: [] });
    });

    it('paints a diagonal with the pointer, takes it back, and paints with keys', async () => {
      const id = await open({ organise: 'minor-boxes' });
      await page().press('m');
      const cell = (at: string) => page().find(`[data-map-cell="${at}"]`);
      const stroke = browser()
        .actions()
        .move({ origin: await cell('0:0') })
        .press();
      for (const at of ['1:1', '2:2', '3:3']) stroke.move({ origin: await cell(at) });
      await stroke.release().perform();
      await page().until(
        async () => (await hands()).join() === '0:0,1:1,2:2,3:3'.split(',').sort().join(),
        'a diagonal'
      );
      await page().saved();
      expect((await plan(id)).decisions).toEqual([
        { change: 0, position: 1 },
        { change: 1, position: 4 },
        { change: 2, position: 6 },
        { change: 3, position: 8 }
      ]);
      // One stroke is one step back.
      await page().chord(Key.CONTROL, 'z');
      await page().until(
        async () => new Set((await hands()).map((at) => at![0])).size === 1,
        'one row again'
      );

      await browser().executeScript('document.querySelector(\'[data-map-cell="2:1"]\').focus()');
      await page().press(Key.ARROW_RIGHT, Key.ENTER);
      await page().until(async () => (await hands()).includes('2:2'), 'one cell painted');
      await page().saved();
      expect((await plan(id)).decisions).toEqual([{ change: 2, position: 6 }]);
      // The path keeps to the hand of each change.
      await page().press('m');
      await page().press(Key.HOME, Key.ARROW_RIGHT, Key.ARROW_RIGHT);
      await page().until(async () => (await page().position()) === 6, 'the hand of the third change');
    });

    it('has the strip follow one step at once, and a hand that runs along the neck when it rests', async () => {
      await open();
      const said = await browser().executeAsyncScript<string[]>(
        `const done = arguments[0];
         const hand = () => document.querySelector('[role="slider"]').getAttribute('aria-valuenow');
         const strip = () => /fret (\\d+)/.exec(document.querySelector('[aria-label="Hands"] button').innerText)[1];
         const up = async () => {
           document.body.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowUp', bubbles: true }));
           await new Promise((drawn) => setTimeout(drawn));
           return strip() - hand();
         };
         const rest = (since) => {
           if (strip() === hand() || performance.now() - since > 5000) done([...said, strip() - hand()]);
           else setTimeout(() => rest(since), 20);
         };
         const said = [];
         setTimeout(async () => {
           for (let i = 0; i < 3; i++) said.push(await up());
           rest(performance.now());
         }, 400);`
      );
      expect(said).toEqual([0, -1, -2, 0]);
    });

    it('has the choices follow a run of steps at its end, and at once where a pointer comes to take one', async () => {
      await open({ approaches: ['modes'] });
      const said = await browser().executeAsyncScript<string[]>(
        `const done = arguments[0];
         const list = document.querySelector('[aria-label="Choices"] .overflow-y-auto');
         const drawn = () => new Promise((then) => setTimeout(then));
         const choice = () => document.querySelector('[data-approach="modes"]').dataset.choice;
         const right = async () => {
           document.body.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowRight', bubbles: true }));
           await drawn();
           return choice();
         };
         setTimeout(async () => {
           const said = [choice(), await right(), await right()];
           list.dispatchEvent(new PointerEvent('pointerenter'));
           await drawn();
           done([...said, choice()]);
         }, 400);`
      );
      expect(said.map((name) => name.split(' ')[0])).toEqual(['F', 'Bb', 'Bb', 'Eb']);
    });

    it('lays a cell over the one before it', async () => {
      await open({ organise: 'minor-boxes' });
      await page().pick('Approach', 'chord-pentatonic');
      await page().press('m');
      await page().find('[data-map]');
      await browser().executeScript('document.querySelector(\'[data-map-cell="2:1"]\').focus()');
      await page().press('o');
      await page().find('[role="dialog"] [data-share]');
      const shares = await page().attributes('[role="dialog"] [data-share]', 'data-share');
      const places = await page().attributes('[role="dialog"] [data-share]', 'data-cell');
      const { body } = await tools().server.call<MapAnswer>('POST', 'position-map', { chart: LOOP });
      const [first, second] = body.rows[2]!.areas.map(
        ({ cells }) => new Set(cells.map(({ string, fret }) => `${string}:${fret}`))
      );
      for (const [i, place] of places.entries()) {
        const share = first!.has(place!) ? (second!.has(place!) ? 'both' : 'first') : 'second';
        expect(shares[i], place!).toBe(share);
      }
      expect(new Set(places).size).toBe(new Set([...first!, ...second!]).size);
      await page().press(Key.ESCAPE);
    });

    it('goes by the areas of another system, and remembers it', async () => {
      const id = await open();
      await page().pick('Approach', 'chord-pentatonic');
      await page().pick('Neck system', 'forms');
      await page().until(
        async () =>
          (await page().texts('[aria-label="Hands"] button')).every((text) => /[CAGED] form/.test(text)),
        'chord forms'
      );
      const notes = () => page().attributes('[aria-label="Neck"] [data-note]', 'data-note');
      const before = new Set(await notes());
      await page().pick('Neck system', 'major-boxes');
      await page().until(
        async () => (await page().texts('[role="slider"]'))[0]!.includes('box'),
        'a numbered box'
      );
      expect(new Set(await notes())).toEqual(before);
      const position = await page().position();
      await page().press(Key.ARROW_UP);
      await page().until(async () => (await page().position()) > position, 'the next box');
      await page().open(`/charts/${id}`);
      await page().until(
        async () => (await page().texts('[role="slider"]'))[0]!.includes('box'),
        'the system that was chosen'
      );
    });

    it('joins the whole neck and finds a degree in every octave', async () => {
      await open({ organise: 'minor-boxes' });
      await page().pick('Approach', 'chord-pentatonic');
      await page().press('w');
      await page().until(async () => (await page().all('[data-area]')).length >= 7, 'the areas');
      expect((await page().texts('[data-area]')).slice(0, 3)).toEqual(['box 1', 'box 2', 'box 3']);
      await page().press('f');
      await page().until(async () => (await page().all('[data-found]')).length > 0, 'the target degree');
      // Every A flat of the neck: the ♭3 of F minor seventh.
      await page().press('h', 'f');
      const found = async () => (await page().attributes('[data-found]', 'data-found')).sort();
      await page().pick('Degree to find everywhere', 'b3');
      const all = [64, 59, 55, 50, 45, 40].flatMap((open, i) =>
        Array.from({ length: 23 }, (_, fret) => fret)
          .filter((fret) => (open + fret) % 12 === 8)
          .map((fret) => `${i + 1}:${fret}`)
      );
      await page().until(async () => (await found()).join() === all.sort().join(), 'every third');
    });

    it('walks from grip to grip as the route does, and tells where the neck runs out', async () => {
      await open();
      await page().press('g');
      await page().find('[data-grip-path] [aria-current]');
      const summary = async () => (await page().texts('[data-grip-summary]'))[0]!;
      await page().until(async () => (await summary()).startsWith('4 grips'), 'a path of four');
      await page().clickNamed('6 5 4');
      await page().clickNamed('up the neck');
      const { server } = tools();
      const { body } = await server.call<{ id: string }>('POST', 'songbook', {
        source: LOOP + '\n| C | D | E | F# | G# | A# | C | D | E | F# |'
      });
      await page().open(`/charts/${body.id}`);
      await page().press('g');
      await page().clickNamed('up the neck');
      await page().until(async () => (await summary()).includes('runs out at'), 'the end of the neck');
      await page().clickNamed('nearest');
      await page().until(async () => (await summary()).startsWith('14 grips'), 'all of them');
      // Picking another grip under the hand bends the path through it.
      const before = await summary();
      const other = await page().find('[data-under-hand] button[aria-pressed="false"]');
      await other.click();
      await page().until(
        async () => (await page().attributes('[data-under-hand] button', 'aria-pressed')).includes('true'),
        'the grip that was picked'
      );
      expect(await summary()).toMatch(/^\d+ grips/);
      expect(before).toMatch(/^14 grips/);
      // Grip, arpeggio and scale at one spot, each to be left out.
      const layers = async () => new Set(await page().attributes('[data-layer]', 'data-layer'));
      expect(await layers()).toEqual(new Set(['grip', 'arpeggio', 'scale']));
      await page().clickNamed('scale');
      await page().until(async () => !(await layers()).has('scale'), 'no scale');
    });

    it('turns round for the left hand', async () => {
      await open();
      const xs = () =>
        browser().executeScript<number[]>(
          `return [...document.querySelectorAll('[aria-label="Neck"] [data-cell] circle')].map((c) => Number(c.getAttribute('cx')))`
        );
      const right = await xs();
      await open({ leftHanded: true });
      const left = await xs();
      const width = await browser().executeScript<number>(
        `return Number(document.querySelector('[aria-label="Neck"] svg[role="group"]').getAttribute('width'))`
      );
      expect(left.length).toBe(right.length);
      expect(left.map((x) => Math.round(width - x))).toEqual(right.map((x) => Math.round(x)));
      await page().press('m');
      await page().find('[data-map]');
    });

    it('takes another guitar: tuning of one’s own, frets, capo, span', async () => {
      await open();
      await page().clickNamed('More');
      await page().clickNamed('Your guitar');
      await page().pick('Tuning', 'own');
      const strings = await page().find('#strings');
      await page().replaceText(strings, 'B1 E2 H2');
      await page().until(
        async () => (await page().texts('#strings-hint'))[0]!.includes('no tuning yet'),
        'the refusal'
      );
      await page().replaceText(strings, 'C2 G2 C3 G3 C4 E4');
      await page().pick('Capo', '2');
      await page().press(Key.ESCAPE);
      await page().until(async () => (await page().all('[data-capo="2"]')).length === 1, 'the capo');
      const cells = await browser().executeScript<[string, string][]>(
        `return [...document.querySelectorAll('[aria-label="Neck"] [data-note]')].map((c) => [c.dataset.cell, c.dataset.note])`
      );
      const open_ = [64, 60, 55, 48, 43, 36];
      const names: Record<string, number> = {
        C: 0,
        Db: 1,
        D: 2,
        Eb: 3,
        E: 4,
        F: 5,
        Gb: 6,
        G: 7,
        Ab: 8,
        A: 9,
        Bb: 10,
        B: 11
      };
      expect(cells.length).toBeGreaterThan(8);
      for (const [place, note] of cells) {
        const [string, fret] = place.split(':').map(Number) as [number, number];
        expect((open_[string - 1]! + fret) % 12, place).toBe(names[note]);
        expect(fret).toBeGreaterThanOrEqual(2);
      }
      await page().settings(DEFAULT_SETTINGS);
    });

    it('makes pictures that stand by themselves', async () => {
      await open();
      // Catch the file instead of saving it.
      await browser().executeScript(
        `window.files = []; URL.createObjectURL = (blob) => { window.files.push(blob); return '#'; };`
      );
      await page().clickNamed('Save this drawing as SVG, sharp at any size');
      const files = () => browser().executeScript<number>('return window.files.length');
      await page().until(async () => (await files()) === 1, 'the drawing');
      const text = await browser().executeAsyncScript<string>(
        'const done = arguments[0]; window.files[0].text().then(done);'
      );
      expect(text).toMatch(/^<svg[^>]+xmlns="http:\/\/www\.w3\.org\/2000\/svg"/);
      expect(text).toContain('@font-face');
      expect(text).not.toMatch(/class=|var\(--|https?:\/\/127/);
      await page().press('m');
      await page().clickNamed('Save this drawing as PNG, a picture');
      await page().until(async () => (await files()) === 2, 'the map');
      const start = await browser().executeAsyncScript<number[]>(
        'const done = arguments[0]; window.files[1].arrayBuffer().then((b) => done([...new Uint8Array(b).slice(0, 4)]));'
      );
      expect(start).toEqual([0x89, 0x50, 0x4e, 0x47]);
    });
  });
}
