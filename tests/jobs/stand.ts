/**
 * The stand while the band plays, measured at every size: what is there, that nothing overlaps, is cut or scrolls, and that all of
 * it can be read from where the player stands. And that at rest one picture is of one change.
 */
import { Key } from 'selenium-webdriver';
import { describe, expect, it } from 'vitest';
import { setViewport } from '../../scripts/lib/browser.mjs';
import { DEFAULT_SETTINGS } from '../../src/lib/api/default-settings';
import type { Tools } from './neck';
import { AT_FIVE } from '../plan';

/** Symbols as long as they come, two changes in a bar, a hand that moves. */
const TUNE = `{title: Stand sizes}
{key: Bb}
{tempo: 100}
{meta: feel swing}
{melody: Eb5:4 | D5:4 | D5:4 | F5:2 E5:2 | G5:4 | Eb5:2 F#5:2 | D5:4 | C5:4}
{start_of_grid label="A"}
| Cm7b5 | F7b9b13 | Bbmaj7#11 | Gm7 Dbm7 |
{end_of_grid}
{start_of_grid label="B"}
| Ebmaj7 | Am7b5 D7alt | Gm(maj7) | F7 |
{end_of_grid}`;
const MOVING = { ...AT_FIVE, decisions: [{ change: 2, position: 8 }] };

const SIZES = [
  [1280, 800],
  [1024, 768],
  [820, 1180],
  [1180, 820],
  [390, 844],
  [844, 390],
  [1920, 1080]
] as const;

interface Measured {
  readonly scrolls: readonly [number, number];
  /** Rectangles of the rows by name: left, top, right, bottom. */
  readonly rows: Readonly<Record<string, readonly [number, number, number, number]>>;
  readonly sizes: {
    readonly now: number;
    readonly next: number;
    readonly degrees: readonly number[];
    readonly frets: readonly number[];
  };
  /** Of the next chord, with all that it stands in. */
  readonly nextInk: number;
  readonly buttons: readonly string[];
  /** Texts that are cut by the row that they stand in. */
  readonly cut: readonly string[];
}

const MEASURE = `
  const stand = document.querySelector('[data-stand]');
  const box = (e) => { const b = e.getBoundingClientRect(); return [b.left, b.top, b.right, b.bottom].map((x) => Math.round(10 * x) / 10); };
  const rows = {};
  const named = { chords: '[data-stand-chords]', neck: '[aria-label="Neck"]', tab: '[data-run-tab]', line: '[data-stand-line]', form: '[data-stand-form]', foot: '[data-stand-foot]' };
  for (const [name, css] of Object.entries(named)) { const e = stand.querySelector(css); if (e) rows[name] = box(e); }
  const font = (e) => parseFloat(getComputedStyle(e).fontSize);
  const ink = (e) => { let all = 1; for (let at = e; at; at = at.parentElement) all *= Number(getComputedStyle(at).opacity); return all; };
  const next = stand.querySelector('[data-next]');
  const cut = [];
  for (const [css, row] of [['[data-now]', '[data-stand-chords]'], ['[data-next]', '[data-stand-chords]'], ['[data-beats]', '[data-stand-chords]'], ['[data-hand-name]', '[aria-label="Neck"]'], ['[data-tab-degree]', '[data-run-tab]']])
    for (const e of stand.querySelectorAll(css)) {
      const [own, around] = [box(e), box(stand.querySelector(row))];
      if (own[0] < around[0] - 1 || own[1] < around[1] - 2 || own[2] > around[2] + 1 || own[3] > around[3] + 2) cut.push(css + ' ' + own + ' in ' + around);
    }
  return {
    scrolls: [document.documentElement.scrollWidth - innerWidth, document.documentElement.scrollHeight - innerHeight],
    rows,
    sizes: {
      now: font(stand.querySelector('[data-now]')),
      next: font(next),
      degrees: [...stand.querySelectorAll('[aria-label="Neck"] [data-cell] text')].map(font),
      frets: [...stand.querySelectorAll('[data-fret-number]')].map(font)
    },
    nextInk: ink(next),
    buttons: [...stand.querySelectorAll('[data-marks] button')].map((e) => { const [l, t, r, b] = box(e); return l >= 0 && t >= 0 && r <= innerWidth && b <= innerHeight && r - l >= 44 && b - t >= 44 && document.elementFromPoint((l + r) / 2, (t + b) / 2)?.closest('button') === e ? '' : (e.textContent.trim() || 'Stop') + [l, t, r, b]; }),
    cut
  };`;

export function standJobs(tools: () => Tools): void {
  const page = () => tools().page;
  const browser = () => tools().browser;

  async function chart(): Promise<string> {
    const { status, body } = await tools().server.call<{ id: string }>('POST', 'songbook', {
      source: TUNE,
      plan: MOVING
    });
    expect(status).toBe(200);
    return body.id;
  }
  const sessionOf = (id: string) => {
    const part = {
      kind: 'form',
      chart: id,
      minutes: 5,
      title: 'Stand sizes',
      data: null,
      why: ''
    };
    const parts = [
      { ...part, id: '0', name: 'The whole form' },
      { ...part, id: '1', name: 'Arpeggio up, scale down, in the key a fourth higher' }
    ];
    return { parts, at: 0, began: null, ran: 0 };
  };
  /** Opens the stand with a desk and perhaps a session, and starts the band. */
  async function play(id: string, desk: object, session: object | null): Promise<void> {
    await page().open('/settings');
    await browser().executeScript(
      `localStorage.clear(); localStorage.setItem('corvel-desk', JSON.stringify(arguments[0]));
       if (arguments[1]) localStorage.setItem('corvel-session', JSON.stringify(arguments[1]));`,
      { countsIn: false, ...desk },
      session
    );
    // What is set here is read as a page is loaded.
    await page().load(`/charts/${id}?view=rehearse`);
    if (session) await page().find('[data-session]');
    await page().find('[data-open-more]');
    await page().press(Key.SPACE);
    await page().find('[data-stand]');
    await page().find('[data-left]');
  }
  const stop = async () => {
    await page().press(Key.SPACE);
    await page().find('[data-desk]');
  };
  const overlap = (a: readonly number[], b: readonly number[]) =>
    Math.min(a[2]!, b[2]!) - Math.max(a[0]!, b[0]!) > 1 &&
    Math.min(a[3]!, b[3]!) - Math.max(a[1]!, b[1]!) > 1;

  function check(measured: Measured, [width, height]: readonly [number, number], says: string): void {
    const isOnStand = Math.min(width, height) >= 700;
    const least = isOnStand
      ? { now: 88, next: 52, degree: 22, fret: 16 }
      : { now: 48, next: 32, degree: 15, fret: 12 };
    expect(measured.scrolls[0], `${says}: sideways`).toBeLessThanOrEqual(0);
    expect(measured.scrolls[1], `${says}: down`).toBeLessThanOrEqual(0);
    const rows = Object.entries(measured.rows);
    expect(Object.keys(measured.rows), says).toEqual(expect.arrayContaining(['chords', 'foot']));
    for (const [name, [left, top, right, bottom]] of rows) {
      expect(left, `${says}: ${name}`).toBeGreaterThanOrEqual(0);
      expect(top, `${says}: ${name}`).toBeGreaterThanOrEqual(0);
      expect(right, `${says}: ${name}`).toBeLessThanOrEqual(width);
      expect(bottom, `${says}: ${name}`).toBeLessThanOrEqual(height);
      for (const [other, box] of rows) {
        if (other > name)
          expect(overlap(measured.rows[name]!, box), `${says}: ${name} over ${other}`).toBe(false);
      }
    }
    expect(measured.sizes.now, says).toBeGreaterThanOrEqual(least.now);
    expect(measured.sizes.next, says).toBeGreaterThanOrEqual(least.next);
    for (const size of measured.sizes.degrees)
      expect(size, `${says}: degree`).toBeGreaterThanOrEqual(least.degree);
    for (const size of measured.sizes.frets) expect(size, `${says}: fret`).toBeGreaterThanOrEqual(least.fret);
    expect(measured.nextInk, `${says}: next chord`).toBe(1);
    expect(measured.buttons, says).toEqual(measured.buttons.map(() => ''));
    expect(measured.buttons, says).toHaveLength(4);
    expect(measured.cut, says).toEqual([]);
  }

  async function measureAll(says: string): Promise<Measured[]> {
    const all: Measured[] = [];
    for (const size of SIZES) {
      await setViewport(browser(), size[0], size[1]);
      await page().drawn();
      await page().drawn();
      const measured = await browser().executeScript<Measured>(MEASURE);
      check(measured, size, `${says}, ${size.join('×')}`);
      all.push(measured);
    }
    await setViewport(browser(), 1280, 800);
    return all;
  }

  describe('the stand at every size', { retry: 1 }, () => {
    it('is one picture without overlap: the target line, inside a session', async () => {
      await page().settings(DEFAULT_SETTINGS);
      const id = await chart();
      await play(id, {}, sessionOf(id));
      try {
        const all = await measureAll('target line, session');
        expect(all.every(({ sizes }) => sizes.degrees.length >= 6)).toBe(true);
        expect(await page().all('[data-stand-clock]')).toHaveLength(1);
        expect((await page().texts('[data-stand-then]'))[0]).toContain('Arpeggio up');
      } finally {
        await stop();
      }
    });

    it('is one picture without overlap: a drill as tab, seven strings, left-handed', async () => {
      await page().settings({ ...DEFAULT_SETTINGS, tuning: 'B1 E2 A2 D3 G3 B3 E4', leftHanded: true });
      const id = await chart();
      await play(id, { drill: 'arpeggio-scale' }, null);
      try {
        const all = await measureAll('drill, seven strings');
        expect(all.every(({ rows }) => rows.tab !== undefined)).toBe(true);
        // Where it is looked at: the run as tab, each note with its place and degree.
        expect((await page().all('[data-tab-note]')).length).toBeGreaterThanOrEqual(4);
        expect(await page().all('[data-tab-playhead]')).toHaveLength(1);
      } finally {
        await stop();
        await page().settings(DEFAULT_SETTINGS);
      }
    });

    it('tells the coming hand, brings the next chord forward in time, and Lost shows the form', async () => {
      await page().settings(DEFAULT_SETTINGS);
      const id = await chart();
      await play(id, { ladder: null }, null);
      await page().until(
        async () =>
          (await browser().executeScript<boolean>(
            `return document.querySelector('[data-now]')?.dataset.now === 'F7b9b13' && document.querySelector('[data-coming-hand]')?.dataset.comingHand === '8' && document.querySelector('[data-next][data-coming]') !== null`
          )) === true,
        'the hand to come'
      );
      await page().press('y');
      await page().find('[data-stand-form]');
      const bar = async () => Number((await page().attributes('[data-stand-form]', 'data-stand-form'))[0]);
      const seen = await bar();
      await page().until(async () => (await bar()) > seen, 'the next bar of the form');
      expect(await page().all('[data-form-bar]')).toHaveLength(8);
      // Nothing else of the page is reached meanwhile, and a hand that brushes the picture moves nothing.
      await page().press('y');
      const position = async () => (await page().attributes('[data-hand]', 'data-hand'))[0];
      await page().find('[data-hand]');
      const from = await (await page().find('[data-stand] [aria-label="Neck"]')).getRect();
      const before = [
        await position(),
        (await tools().server.call<{ plan: unknown }>('GET', `songbook/${id}`)).body.plan
      ];
      await browser()
        .actions()
        .move({ x: Math.round(from.x + 300), y: Math.round(from.y + 100) })
        .press()
        .move({ x: Math.round(from.x + 700), y: Math.round(from.y + 140) })
        .release()
        .perform();
      const after = (await tools().server.call<{ plan: unknown }>('GET', `songbook/${id}`)).body.plan;
      expect(after).toEqual(before[1]);
      expect(
        await browser().executeScript(
          `return [...document.querySelectorAll('a[href], button, input, select')].filter((e) => e.offsetParent && !e.closest('[data-stand]')).length`
        )
      ).toBe(0);
      // The moved mouse has brought the slim bar; it says the tempo that sounds, and changes it.
      await page().find('[data-slim]');
      expect((await page().texts('[data-slim] [data-sounding]'))[0]).toBe('100');
      await page().clickNamed('Faster');
      await page().until(
        async () => (await page().texts('[data-sounding]'))[0]?.startsWith('104') === true,
        'it faster'
      );
      await page().press(Key.ESCAPE);
      await page().find('[data-desk]');
      expect((await page().texts('header p'))[0]).toContain('104 bpm');
      await page().press(Key.SPACE);
    });

    it('at rest is of the change that is selected: run, rings, chord and target', async () => {
      await page().settings(DEFAULT_SETTINGS);
      const id = await chart();
      await page().open(`/charts/${id}?view=rehearse&change=3`);
      await browser().executeScript('localStorage.clear()');
      await page().load(`/charts/${id}?view=rehearse&change=3`);
      await page().pick('Drill', 'arpeggio-scale');
      await page().find('[data-run]');
      const seen = await browser().executeScript<{
        now: string;
        next: string;
        run: string[];
        rings: number;
        target: string;
      }>(
        `return {
           now: document.querySelector('[data-now]').dataset.now,
           next: document.querySelector('[data-next]').dataset.next,
           run: [...document.querySelectorAll('[data-run-strip] span')].map((e) => e.textContent.trim()),
           rings: document.querySelectorAll('[data-run]').length,
           target: document.querySelector('[data-stand-target]').textContent.trim()
         };`
      );
      expect(seen.now).toBe('Bbmaj7#11');
      expect(seen.next).toBe('Gm7');
      // B♭ major: its third and seventh are major.
      expect(seen.run.every((degree) => ['1', '3', '5', '7', '9', '♯11', '13'].includes(degree))).toBe(true);
      expect(seen.run).toContain('3');
      expect(seen.rings).toBe(seen.run.length);
      expect(seen.run[0]).toBe(seen.target.split(/\s/)[0]);
      // Few things at once.
      const focusable = await browser().executeScript<number>(
        `return [...document.querySelectorAll('a[href], button, input, select, [tabindex]')].filter((e) => e.tabIndex >= 0 && !e.disabled && e.offsetParent && e.getBoundingClientRect().top < innerHeight && !e.closest('[aria-label="Neck"] svg')).length`
      );
      expect(focusable).toBeLessThanOrEqual(30);
    });
  });
}
