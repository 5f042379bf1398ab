/** What is the same on every page: the head, the finder, the help, the settings, the focus; and Corvel without its server. */
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Key } from 'selenium-webdriver';
import { describe, expect, it } from 'vitest';
import { setViewport } from '../../scripts/lib/browser.mjs';
import { DEFAULT_SETTINGS } from '../../src/lib/api/default-settings';
import { Page } from '../page';
import { AT_FIVE } from '../plan';
import { Server } from '../server';
import type { Tools } from './neck';

const TUNE = '{title: Harbour Lamps}\n{key: Gb}\n{time: 3/4}\n| Gbmaj7 | Ebm7 | Abm7 | Db7b9 |';
const PLACES = ['/', '/today', '/trainer', '/licks', '/settings'] as const;

export function shellJobs(tools: () => Tools): void {
  const page = () => tools().page;
  const browser = () => tools().browser;
  const server = () => tools().server;

  async function newChart(source = TUNE): Promise<string> {
    const { body } = await server().call<{ id: string }>('POST', 'songbook', { source, plan: AT_FIVE });
    return body.id;
  }
  /** What has the focus: "body", or the element's name. */
  const focused = () =>
    browser().executeScript<string>(
      `const at = document.activeElement;
       if (!at || at === document.body) return 'body';
       return at.getAttribute('aria-label') ?? at.tagName.toLowerCase() + ' ' + at.textContent.trim().slice(0, 40);`
    );
  const find = async (words: string) => {
    await page().chord(Key.CONTROL, 'k');
    await page().find('[data-finder] input');
    await page().press(words);
  };
  const foundIn = async (group: string) => page().texts(`[data-found="${group}"]`);
  const pinned = async (id: string) => {
    const { body } = await server().call<{ plan: { decisions: { pins?: unknown[] }[] } }>(
      'GET',
      `songbook/${id}`
    );
    return body.plan.decisions.filter(({ pins }) => pins).length;
  };
  const keysOf = async (id: string) => (await page().texts(`[data-keys] [data-key-of="${id}"]`))[0];

  describe('the head', () => {
    it('is one row on every page and width, with the places in one spot, and nothing else above the page', async () => {
      const id = await newChart();
      await page().settings(DEFAULT_SETTINGS);
      try {
        const sizes = [
          [1920, 1080],
          [1280, 800],
          [820, 1180],
          [390, 844]
        ] as const;
        const spots = new Map(sizes.map(([width]) => [width, new Set<string>()]));
        for (const path of [...PLACES, `/charts/${id}?view=lines`, `/charts/${id}/book`, `/charts/${id}`]) {
          await page().open(path);
          await page().find('[data-head] [aria-label="More"]');
          for (const [width, height] of sizes) {
            await setViewport(browser(), width, height);
            await page().drawn();
            const { head, over, spot, crowded } = await browser().executeScript<{
              head: number;
              over: number;
              spot: string;
              crowded: string[];
            }>(
              `const head = document.querySelector('[data-head]');
               const box = head.getBoundingClientRect();
               const first = document.querySelector('[data-go]').getBoundingClientRect();
               const shown = [...head.querySelectorAll('a, button')].filter((e) => e.checkVisibility() && !e.closest('[aria-label="Places"]'));
               const boxes = shown.map((e) => [e.textContent.trim() || e.ariaLabel, e.getBoundingClientRect()]);
               const crowded = boxes.filter(([, b]) => b.bottom > box.bottom + 8 || b.right > innerWidth || b.left < 0).map(([name]) => name);
               for (let i = 1; i < boxes.length; i++) {
                 const [a, b] = [boxes[i - 1][1], boxes[i][1]];
                 if (a.right > b.left + 1 && a.bottom > b.top + 1 && b.bottom > a.top + 1) crowded.push(boxes[i][0]);
               }
               return {
                 head: box.bottom,
                 over: document.documentElement.scrollWidth - innerWidth,
                 spot: [first.left, first.top].map(Math.round).join(),
                 crowded
               };`
            );
            expect(head, `${path} at ${width}`).toBeLessThanOrEqual(56);
            expect(over, `${path} at ${width}`).toBeLessThanOrEqual(0);
            expect(crowded, `${path} at ${width}`).toEqual([]);
            spots.get(width)!.add(spot);
          }
        }
        for (const [width, own] of spots) expect([...own], String(width)).toHaveLength(1);
        // The neck is seen without scrolling on a phone.
        const bottom = await browser().executeScript<number>(
          `return document.querySelector('[aria-label="Places"]').getBoundingClientRect().top
             - document.querySelector('[data-cell]').closest('svg').getBoundingClientRect().bottom;`
        );
        expect(bottom).toBeGreaterThan(0);
      } finally {
        await setViewport(browser(), 1280, 800);
      }
    });

    it('leads to every place by one press, and on a phone a new chart is one press away', async () => {
      const id = await newChart();
      await page().settings(DEFAULT_SETTINGS);
      try {
        await setViewport(browser(), 390, 844);
        await page().open(`/charts/${id}`);
        await (await page().find('[data-go="licks"]')).click();
        await page().until(async () => (await browser().getTitle()).startsWith('Lick book'), 'the lick book');
        await (await page().find('[data-go="songbook"]')).click();
        const write = await page().find('[data-write-chart]');
        const { y } = await write.getRect();
        expect(y).toBeLessThan(844);
        await write.click();
        await page().until(async () => (await focused()) === 'Chart text', 'the field');
        await page().press(Key.ESCAPE);
        await page().until(async () => (await focused()).includes('New chart'), 'the way back');
      } finally {
        await setViewport(browser(), 1280, 800);
      }
    });
  });

  describe('keys on every page', () => {
    it.each(PLACES)('Ctrl K and ? answer on %s, with the keys that act there', async (path) => {
      await page().settings(DEFAULT_SETTINGS);
      await page().open(path);
      await find('lick book');
      await page().until(
        async () => (await foundIn('To do here')).join().includes('Lick book'),
        'what can be done'
      );
      await page().press(Key.ESCAPE);
      await page().until(async () => (await page().all('[data-finder]')).length === 0, 'the finder to close');
      await page().press('?');
      await page().until(async () => (await keysOf('find')) === 'Ctrl K', 'the help');
      expect(await keysOf('next-change')).toBeUndefined();
      await page().press(Key.ESCAPE);
      await page().until(async () => (await page().all('[data-keys]')).length === 0, 'the help to close');
    });

    it('finds charts, licks, takes and the log by their words, and goes there', async () => {
      await newChart('{title: Zitterwal Song}\n| Fm7 | Bb7 |');
      await page().open('/today');
      await find('zitterwal');
      await page().until(async () => (await foundIn('Charts')).join().includes('Zitterwal'), 'the chart');
      await page().press(Key.ENTER);
      await page().until(
        async () => (await browser().getTitle()).startsWith('Zitterwal'),
        'the chart, opened'
      );
      await find('bilge take');
      await page().until(async () => (await foundIn('Takes')).length > 1, 'takes');
      await page().press(Key.ESCAPE);
      await find('bilge ascending');
      await page().until(async () => (await foundIn('Log')).length > 0, 'rows of the log');
      await page().press(Key.ESCAPE);
    });

    it('the help says what a key does at that moment: N names, edits, writes', async () => {
      const id = await newChart();
      await page().settings(DEFAULT_SETTINGS);
      await page().open(`/charts/${id}`);
      await page().press('?');
      await page().until(async () => (await keysOf('naming')) === 'N', 'naming');
      await page().press(Key.ESCAPE);
      await page().until(async () => (await page().all('[data-keys]')).length === 0, 'closed');
      await page().press('i');
      await page().find('[data-line]');
      await page().press('?');
      await page().until(async () => (await keysOf('line-edit')) === 'N', 'the pen');
      expect(await keysOf('naming')).toBeUndefined();
      await page().press(Key.ESCAPE);
    });

    it('a digit pins what it names where it lies, then goes on to the next octave', async () => {
      const id = await newChart();
      await page().settings(DEFAULT_SETTINGS);
      await page().open(`/charts/${id}`);
      await page().until(async () => (await page().targets()).length === 4, 'the targets');
      const [before] = await page().targets();
      const degree = (await page().attributes('[data-change="0"] [data-target]', 'data-degree'))[0]!;
      await page().press(degree.replace(/^[b#]+/, ''));
      await page().until(async () => (await pinned(id)) === 1, 'the pin');
      expect((await page().targets())[0]).toBe(before);
      await page().press(degree.replace(/^[b#]+/, ''));
      await page().until(async () => (await page().targets())[0] !== before, 'the next octave');
    });
  });

  describe('settings', () => {
    it('apply at once and are taken back; a key is changed, refused where it is taken, and acts', async () => {
      await page().settings(DEFAULT_SETTINGS);
      await page().open('/settings');
      await page().pick('Theme', 'stage');
      await page().until(async () => (await page().attributes('html', 'data-theme'))[0] === 'stage', 'Stage');
      await page().clickNamed('Undo');
      await page().until(
        async () => (await page().attributes('html', 'data-theme'))[0] === 'system',
        'undone'
      );
      // Undo has nothing left to do, and its focus goes to what follows.
      await page().until(async () => (await focused()) !== 'body', 'the focus');
      const change = async (id: string, key: string) => {
        const button = await page().find(`[data-settings] [data-key-of="${id}"]`);
        await browser().executeScript('arguments[0].scrollIntoView({ block: "center" })', button);
        await button.click();
        await page().press(key);
      };
      await change('voice-leading', 'x');
      await page().until(
        async () =>
          (await page().texts('[data-settings] [role="status"]')).join().includes('next best paths'),
        'why not'
      );
      await page().press('q');
      await page().until(
        async () => (await page().texts('[data-settings] [data-key-of="voice-leading"]'))[0] === 'Q',
        'the new key'
      );
      await page().open(`/charts/${await newChart()}`);
      const isOn = async () => (await page().texts('[aria-live]')).join().includes('Voice leading is shown');
      await page().press('v');
      await page().press('q');
      await page().until(isOn, 'voice leading, said');
      await page().settings(DEFAULT_SETTINGS);
    });

    it('the theme is as the device has it', async () => {
      await page().settings(DEFAULT_SETTINGS);
      await page().load('/');
      const paper = () =>
        browser().executeScript<string>('return getComputedStyle(document.documentElement).backgroundColor');
      const asThe = (value: string) =>
        page().devTools('Emulation.setEmulatedMedia', {
          features: [{ name: 'prefers-color-scheme', value }]
        });
      try {
        await asThe('light');
        const light = await paper();
        await asThe('dark');
        await page().until(async () => (await paper()) !== light, 'the dark paper');
        await page().settings({ ...DEFAULT_SETTINGS, theme: 'day' });
        await page().load('/');
        expect(await paper()).toBe(light);
      } finally {
        await page().devTools('Emulation.setEmulatedMedia', { features: [] });
        await page().settings(DEFAULT_SETTINGS);
      }
    });

    it('names are written with H and B everywhere on the page, and stored as they were', async () => {
      const id = await newChart('{title: Hafen}\n{key: B}\n| Bmaj7 | Bbm7b5 E7/B |');
      await page().settings({ ...DEFAULT_SETTINGS, letters: 'h', labels: 'name' });
      try {
        await page().load(`/charts/${id}`);
        await page().until(async () => (await page().targets()).length > 0, 'the targets');
        const said = await browser().executeScript<string>('return document.body.innerText');
        expect(said).toContain('Hmaj7');
        expect(said).toContain('Bm7♭5');
        expect(said).toContain('E7/H');
        // No name is left in other letters: with H there is no B♭ in this tune.
        expect(said).not.toMatch(/B♭/);
        expect(await page().texts('[data-cell] text')).toContain('H');
        const { body } = await server().call<{ source: string }>('GET', `songbook/${id}`);
        expect(body.source).toContain('| Bmaj7 | Bbm7b5 E7/B |');
      } finally {
        await page().settings(DEFAULT_SETTINGS);
      }
    });
  });

  describe('the focus', () => {
    it('never falls to the body: a chart is deleted and brought back, a line kept, a page gone to', async () => {
      await newChart('{title: Aal zum Loeschen}\n| Fm7 |');
      await page().settings(DEFAULT_SETTINGS);
      await newChart('{title: Aal im Rauch}\n| Fm7 |');
      await page().load('/?search=Aal');
      const press = async (name: string) => {
        await browser().executeScript(
          `[...document.querySelectorAll('button, a')].find((e) => (e.ariaLabel ?? e.textContent.trim()) === arguments[0]).focus()`,
          name
        );
        await page().press(Key.ENTER);
      };
      await press('Delete Aal zum Loeschen');
      await page().until(
        async () => (await page().all('[aria-label="Delete Aal zum Loeschen"]')).length === 0,
        'the chart to go'
      );
      await page().until(async () => (await focused()).startsWith('Delete '), 'what follows');
      await press('Lick book');
      await page().until(async () => (await browser().getTitle()).startsWith('Lick book'), 'the lick book');
      await page().until(async () => (await focused()) !== 'body', 'the page’s main part');
      const id = await newChart();
      await page().open(`/charts/${id}?view=lines`);
      await page().find('[data-line]');
      await page().until(
        async () => Number((await page().attributes('[data-notes]', 'data-notes'))[0]) > 0,
        'notes'
      );
      await press('Keep');
      await page().until(async () => (await page().all('[data-select="Line"]')).length > 0, 'the line, kept');
      await page().until(async () => (await focused()) !== 'body', 'what follows Keep');
    });

    /** Pages whose buttons are pressed one after another; the bench presses all of all pages. */
    const isWhole = process.env.CORVEL_ALL_LOOKS === '1';
    const PRESSED = [
      '/',
      '/today',
      '/today?show=items',
      '/today?show=log',
      '/licks',
      '/trainer',
      '/settings'
    ];
    const VIEWS = ['moment', 'map', 'grips', 'lines', 'rehearse', 'takes'];
    const MOST = isWhole ? 60 : 9;
    it.each(isWhole ? [...PRESSED, ...VIEWS] : ['/', 'moment', 'lines'])(
      'no press leaves the focus to the body: %s',
      async (where) => {
        await page().settings(DEFAULT_SETTINGS);
        const path = where.startsWith('/') ? where : `/charts/${await newChart()}?view=${where}`;
        await page().load(path);
        await page().until(async () => (await page().all('[aria-busy="true"]')).length === 0, 'all parts');
        const all = () =>
          browser().executeScript<string[]>(
            `return [...new Set([...document.querySelectorAll('main button:not(:disabled)')]
               .filter((e) => e.checkVisibility({ visibilityProperty: true }))
               .map((e) => (e.ariaLabel ?? e.textContent.trim()).slice(0, 60)))]`
          );
        const isOpen = async () =>
          (await page().all('[role="dialog"][data-state="open"], [role="listbox"][data-state="open"]'))
            .length > 0;
        const lost: string[] = [];
        for (const name of (await all()).slice(0, MOST)) {
          const isThere = await browser().executeScript<boolean>(
            `const one = [...document.querySelectorAll('main button:not(:disabled)')]
               .find((e) => (e.ariaLabel ?? e.textContent.trim()).slice(0, 60) === arguments[0]);
             one?.focus();
             return one !== undefined && document.activeElement === one;`,
            name
          );
          if (!isThere) continue;
          await page().press(Key.ENTER);
          await page().settled();
          if ((await focused()) === 'body') lost.push(name);
          for (let i = 0; i < 3 && (await isOpen()); i++) {
            await page().press(Key.ESCAPE);
            await page().settled();
          }
          if ((await focused()) === 'body') lost.push(`${name}, closed`);
          if (!(await browser().getCurrentUrl()).includes(path.split('?')[0]!)) await page().load(path);
        }
        expect(lost).toEqual([]);
      }
    );

    it('a finger that rests on Delete asks what it is, and deletes nothing', async () => {
      const id = await newChart('{title: Bleibt Da}\n| Fm7 |');
      await page().load('/?search=Bleibt');
      const { finger } = page();
      await finger.on(1280, 800, async () => {
        await finger.down(await finger.over('[aria-label="Delete Bleibt Da"]'));
        await page().until(async () => (await page().texts('#hint')).join() === 'Delete', 'the hint');
        await finger.up();
        await page().settled();
        expect(await page().all('[aria-label="Delete Bleibt Da"]')).toHaveLength(1);
        expect((await server().call('GET', `songbook/${id}`)).status).toBe(200);
      });
    });
  });

  describe('from an empty songbook to a logged round', () => {
    const SHORT = '| Fm7 | Bb7 |';
    /** A songbook with nothing in it, and a player at it. */
    async function fromNothing(work: (own: Server, page: Page) => Promise<void>): Promise<void> {
      const own = new Server(join(mkdtempSync(join(tmpdir(), 'corvel-empty-')), 'songbook.db'), false);
      await own.start();
      try {
        await work(own, new Page(browser(), () => own.url));
      } finally {
        await browser().get('about:blank');
        await own.stop();
      }
    }
    interface Rows {
      rows: { kind: string; rounds: number; clean: boolean | null }[];
    }
    const played = async (own: Server) =>
      (await own.call<Rows>('GET', 'practice/log')).body.rows.filter(
        ({ rounds, clean }) => rounds > 0 && clean === true
      ).length;
    /** A round is over as soon as it can be: two bars, as fast as the band plays. */
    const hasRound = (player: Page) =>
      player.until(async () => (await player.all('[data-marks]')).length > 0, 'the marks');

    it('by keys alone', async () => {
      await fromNothing(async (own, player) => {
        await player.load('/');
        await player.press('n');
        await player.until(async () => (await focused()) === 'Chart text', 'the field');
        await player.press(`{tempo: 280}\n${SHORT}`);
        await player.chord(Key.CONTROL, Key.ENTER);
        await player.until(async () => (await player.targets()).length === 2, 'the chart');
        await player.press('p');
        await player.find('[data-select="Feel"]');
        await player.press(Key.SPACE);
        await hasRound(player);
        await player.press('c');
        await player.until(async () => {
          await player.press('c');
          return (await player.texts('[data-marks]')).join().includes('clean (');
        }, 'a clean round');
        await player.press(Key.SPACE);
        await player.until(async () => (await played(own)) > 0, 'the round in the log');
        await player.chord(Key.CONTROL, 'k');
        await player.find('[data-finder] input');
        await player.press('today');
        await player.until(async () => (await foundIn('To do here')).join().includes('Today'), 'Today');
        await player.press(Key.ENTER);
        await player.until(async () => (await browser().getTitle()).startsWith('Today'), 'Today, opened');
      });
    });

    it('by touch alone, on a tablet', async () => {
      await page().finger.on(820, 1180, () =>
        fromNothing(async (own, player) => {
          const tap = (css: string) => player.finger.tap(css);
          await player.load('/');
          await tap('[data-write-chart]');
          await player.until(async () => (await focused()) === 'Chart text', 'the field');
          // The letters of a keyboard on the screen.
          await player.press(`{tempo: 280}\n${SHORT}`);
          await tap('[data-new-chart] [type="submit"]');
          await player.until(async () => (await player.targets()).length === 2, 'the chart');
          await tap('[data-view="rehearse"]');
          await tap('[aria-label="Play"]');
          await hasRound(player);
          await player.until(async () => {
            await tap('[data-marks] [data-hint^="The last round was clean"]');
            return (await player.texts('[data-marks]')).join().includes('clean (');
          }, 'a clean round');
          await tap('[aria-label="Stop"]');
          await player.until(async () => (await played(own)) > 0, 'the round in the log');
        })
      );
    });
  });

  describe('without its server', () => {
    const isKept = (path: string) =>
      browser().executeAsyncScript<boolean>(
        `const [path, done] = arguments;
         caches.keys().then(async (names) => {
           for (const name of names) if (await (await caches.open(name)).match(location.origin + path)) return true;
           return false;
         }).then(done, () => done(false));`,
        path
      );

    it('opens what was looked at lately, keeps what is written, says so, and comes back by itself', async () => {
      await page().settings(DEFAULT_SETTINGS);
      const [id, unseen] = [await newChart(), await newChart('{title: Never Opened}\n| Am7 |')];
      await page().load('/');
      await browser().executeAsyncScript('navigator.serviceWorker.ready.then(() => arguments[0]())');
      await page().load(`/charts/${id}`);
      await page().until(() => isKept(`/charts/${id}`), 'the page to be kept');
      await server().stop('SIGKILL');
      try {
        await page().load(`/charts/${id}`);
        expect(await browser().getTitle()).toContain('Harbour Lamps');
        await page().find('[data-away]');
        await page().press(Key.END, '1');
        await page().until(
          async () => (await page().attributes('[data-save-state]', 'data-save-state'))[0] === 'offline',
          'the edit to wait'
        );
        // Another page from here, and one that was never opened.
        await page().load('/');
        expect(await browser().getTitle()).toContain('Songbook');
        await browser().get(`${server().url}/charts/${unseen}`);
        await page().until(
          async () => (await page().texts('#kept li')).join().includes('Harbour Lamps'),
          'what can be opened meanwhile'
        );
      } finally {
        await server().start();
      }
      await page().until(
        async () => (await browser().getTitle()).includes('Never Opened'),
        'the page itself'
      );
      await page().load(`/charts/${id}`);
      await page().saved();
      await page().until(async () => (await pinned(id)) === 1, 'the edit on the server');
      expect(await page().all('[data-away]')).toHaveLength(0);
    });

    it('keeps no page of another build', async () => {
      const id = await newChart();
      await page().load('/');
      await browser().executeAsyncScript('navigator.serviceWorker.ready.then(() => arguments[0]())');
      const builds = await browser().executeAsyncScript<string[]>(
        `caches.keys().then((names) => arguments[0](names.filter((name) => name.startsWith('corvel-')).sort()))`
      );
      const version = (await (await fetch(`${server().url}/_app/version.json`)).json()) as {
        version: string;
      };
      expect(builds).toEqual([`corvel-pages-${version.version}`, `corvel-shell-${version.version}`]);
      const response = await fetch(`${server().url}/charts/${id}`);
      expect(response.headers.get('corvel-build')).toBe(version.version);
    });
  });
}
