/** Within reach: real touch, the address, a server that is away. */
import { Key } from 'selenium-webdriver';
import { setViewport } from '../../scripts/lib/browser.mjs';
import { describe, expect, it } from 'vitest';
import { DEFAULT_SETTINGS } from '../../src/lib/api/default-settings';
import type { Finger } from '../finger';
import type { Tools } from './neck';
import { AT_FIVE } from '../plan';

const TUNE = '{title: Reach job}\n{key: Ab}\n| Bbm7 | Eb7 | Abmaj7 | F7b9 |';

export function reachJobs(tools: () => Tools): void {
  const page = () => tools().page;
  const browser = () => tools().browser;

  async function newChart(): Promise<string> {
    await page().settings(DEFAULT_SETTINGS);
    const { body } = await tools().server.call<{ id: string }>('POST', 'songbook', {
      source: TUNE,
      plan: AT_FIVE
    });
    return body.id;
  }
  const scrolled = () => browser().executeScript<number>('return scrollY');

  /** The page under a finger on a small tablet. */
  const byTouch = (work: (finger: Finger) => Promise<void>) =>
    page().finger.on(820, 700, async () => {
      await page().open(`/charts/${await newChart()}`);
      await work(page().finger);
    });

  describe('by touch', () => {
    it('drags the hand along the neck, and the page stays', () =>
      byTouch(async (finger) => {
        const from = await finger.over('[role="slider"][aria-label="Position of the hand"]');
        await finger.swipe(from, { x: from.x + 160, y: from.y + 30 });
        await page().until(async () => (await page().position()) > 6, 'the hand to move');
        expect(await scrolled()).toBe(0);
      }));

    it('drags a target to another tone, and the page stays', () =>
      byTouch(async (finger) => {
        const before = (await page().targets())[1]!;
        const from = await finger.over('[data-change="1"] [data-target]');
        await finger.swipe(from, { x: from.x, y: from.y + 50 });
        await page().until(async () => (await page().targets())[1] !== before, 'another target');
        expect(await scrolled()).toBe(0);
      }));

    it('scrolls by a swipe that is none of these, and a tap selects', () =>
      byTouch(async (finger) => {
        const before = await page().targets();
        const column = await finger.over('[data-change="2"] rect');
        const free = { x: column.x + 20, y: column.y + 60 };
        await finger.swipe(free, { x: free.x, y: free.y - 160 });
        await page().until(async () => (await scrolled()) > 40, 'the page to scroll');
        expect(await page().targets()).toEqual(before);
        expect(await page().texts('button[aria-current="true"] .sr-only')).toEqual([
          expect.stringContaining('Bbm7')
        ]);
        await browser().executeScript("scrollTo({ top: 0, behavior: 'instant' })");
        await finger.down(free);
        await finger.up();
        await page().until(
          async () => (await page().texts('button[aria-current="true"] .sr-only'))[0]!.includes('Abmaj7'),
          'the tapped change'
        );
      }));

    it('paints the map after a long press, and scrolls over it without one', () =>
      byTouch(async (finger) => {
        await page().press('m');
        await page().find('[data-map-cell="1:0"]');
        const painted = () => page().attributes('[data-map-cell][aria-pressed="true"]', 'data-map-cell');
        const before = await painted();
        const row = before[0]!.startsWith('0') ? 1 : 0;
        const from = await finger.over(`[data-map-cell="${row}:0"]`);
        await finger.swipe(from, { x: from.x, y: from.y - 120 });
        expect(await painted()).toEqual(before);
        await page().open(
          await browser()
            .getCurrentUrl()
            .then((url) => new URL(url).pathname + '?view=map')
        );
        await page().find('[data-map-cell="1:0"]');
        await finger.swipe(
          await finger.over(`[data-map-cell="${row}:0"]`),
          await finger.over(`[data-map-cell="${row}:2"]`),
          { rest: 600 }
        );
        await page().until(
          async () => (await painted()).filter((cell) => cell?.startsWith(`${row}:`)).length >= 3,
          'three changes to be painted'
        );
      }));
  });

  describe('at every width', () => {
    /** The views of a chart by their keys, after the one that it opens with. */
    const VIEWS = [...'mgipd'];
    const drawn = () =>
      page().until(async () => (await page().all('[aria-busy="true"]')).length === 0, 'the view');
    const overflow = () =>
      browser().executeScript<number>(
        'return document.documentElement.scrollWidth - document.documentElement.clientWidth'
      );

    /** To a view by its key, until all of it is there. */
    async function to(view: string): Promise<void> {
      const shown = async () => new URL(await browser().getCurrentUrl()).searchParams.get('view') ?? 'moment';
      const before = await shown();
      if (view) {
        await page().press(view);
        await page().until(async () => (await shown()) !== before, 'another view');
      }
      await drawn();
    }

    it.each([320, 390, 820])('nothing reaches over the edge of %i pixels', async (width) => {
      const id = await newChart();
      await setViewport(browser(), width, 800);
      try {
        await page().open('/');
        expect(await overflow(), 'songbook').toBeLessThanOrEqual(0);
        await page().open(`/charts/${id}`);
        for (const view of ['', ...VIEWS]) {
          await to(view);
          expect(await overflow(), view).toBeLessThanOrEqual(0);
        }
      } finally {
        await setViewport(browser(), 1280, 800);
      }
    });

    it('draws what is seen of 2,000 changes, wherever one is in them', async () => {
      const symbols = ['Fm7', 'Bb7', 'Ebmaj7', 'C7b9', 'Dm7b5'];
      const source = Array.from({ length: 2000 }, (_, i) => `| ${symbols[(i * 3) % 5]}`).join(' ') + ' |';
      const { body } = await tools().server.call<{ id: string }>('POST', 'songbook', {
        source,
        plan: AT_FIVE
      });
      const nodes = () => browser().executeScript<number>('return document.querySelectorAll("*").length');
      await page().open(`/charts/${body.id}?view=takes&change=1000`);
      await drawn();
      expect(await nodes(), 'takes').toBeLessThan(8000);
      for (const view of ['s', ...VIEWS]) {
        await to(view);
        expect(await nodes(), view).toBeLessThan(8000);
      }
      await page().open(`/charts/${body.id}`);
      await page().press(Key.END);
      await page().until(
        async () => (await page().all('[data-change="1999"]')).length === 1,
        'the last change to be drawn'
      );
      expect(await page().texts('button[aria-current="true"] .sr-only')).toEqual([
        expect.stringContaining('bar 2000')
      ]);
      await page().press('b');
      await page().until(async () => (await page().all('[role="dialog"] tbody tr')).length > 10, 'the table');
      expect(await page().texts('[role="dialog"] [aria-label="Part of the changes"]')).toEqual([
        'changes 1921 to 2000 of 2000'
      ]);
      expect(await nodes()).toBeLessThan(8000);
      await page().press(Key.ESCAPE);
    });

    it('reads what is typed into a long chart at a rest, and undo takes back what was not read yet', async () => {
      const source = '| Fm7 | Bb7 | Ebmaj7 | C7b9 |\n'.repeat(250);
      const { body } = await tools().server.call<{ id: string }>('POST', 'songbook', { source });
      await page().open(`/charts/${body.id}`);
      await page().press('e');
      await (await page().find('[data-editor] .cm-content')).click();
      await page().chord(Key.CONTROL, Key.END);
      const last = () =>
        page()
          .texts('[data-editor] .cm-line')
          .then((lines) => lines.at(-1));
      // Before there is a rest: what was there stays, in the editor too.
      await page().press(...'| G7 |');
      await page().chord(Key.CONTROL, 'z');
      await page().until(async () => !(await last())?.includes('G7'), 'the undo in the editor');
      await page().chord(Key.CONTROL, Key.END);
      await page().press(...'| Abmaj7 |');
      expect(await last()).toBe('| Abmaj7 |');
      await page().until(
        async () => (await page().texts('section[aria-label="Chart editor"]'))[0]!.includes('1001 changes'),
        'the text to be read'
      );
    });

    /** Steps from change to change, each followed by two frames; tells at which of them `isMissed`, a JavaScript expression, held. */
    const missedOn = (steps: number, isMissed: string) =>
      browser().executeAsyncScript<number[]>(
        `const [steps, done] = arguments;
         const scroller = document.querySelector('[aria-label="Threads, to be scrolled"]');
         const column = (change) => scroller.querySelector('[data-change="' + change + '"]');
         const isSeen = (change) => {
           const [own, room] = [column(change)?.getBoundingClientRect(), scroller.getBoundingClientRect()];
           return own !== undefined && own.left >= room.left - 1 && own.right <= room.right + 1;
         };
         const frame = () => new Promise(requestAnimationFrame);
         (async () => {
           const missed = [];
           for (let step = 1; step <= steps; step++) {
             document.body.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowRight', bubbles: true }));
             await frame();
             await frame();
             if (${isMissed}) missed.push(step);
           }
           done(missed);
         })();`,
        steps
      );

    it('has the change in sight however fast one goes, and all of the way there drawn at once', async () => {
      const source = '| Fm7 | Bb7 | Ebmaj7 | C7b9 |\n'.repeat(16);
      const { body } = await tools().server.call<{ id: string }>('POST', 'songbook', { source });
      await page().open(`/charts/${body.id}`);
      await page().find('[aria-label="Threads"] svg');
      expect(await missedOn(40, '!isSeen(step)')).toEqual([]);
      await page().press(Key.HOME);
      const last = await browser().executeScript<number>(
        `const room = document.querySelector('[aria-label="Threads, to be scrolled"]').clientWidth;
         const column = document.querySelector('[data-change="1"]').getBoundingClientRect().width;
         return Math.floor(room / column) - 1;`
      );
      await page().until(async () => (await missedOn(1, '!isSeen(1)')).length === 0, 'the start in sight');
      await missedOn(last - 1, 'false');
      // After a rest one travels: half a row ahead is on its way before one is there.
      await page().settled();
      expect(await missedOn(1, `!column(${last + 7})`)).toEqual([]);
    });

    it('draws half a row ahead while the player scrolls, and at rest what is in sight', async () => {
      const source = '| Fm7 | Bb7 | Ebmaj7 | C7b9 |\n'.repeat(50);
      const { body } = await tools().server.call<{ id: string }>('POST', 'songbook', { source });
      await page().open(`/charts/${body.id}`);
      await page().find('[aria-label="Threads"] svg');
      await page().settled();
      const drawn = () =>
        browser().executeAsyncScript<{ moving: number; seen: number }>(
          `const done = arguments[0];
           const scroller = document.querySelector('[aria-label="Threads, to be scrolled"]');
           const count = () => scroller.querySelectorAll('[data-change]').length;
           const width = scroller.querySelector('[data-change="1"]').getBoundingClientRect().width;
           scroller.scrollLeft += 40;
           const frame = () => new Promise(requestAnimationFrame);
           (async () => {
             await frame();
             await frame();
             const moving = count();
             done({ moving, seen: Math.ceil(scroller.clientWidth / width) });
           })();`
        );
      const { moving, seen } = await drawn();
      expect(moving).toBeGreaterThanOrEqual(Math.floor(1.5 * seen));
      await page().until(async () => (await page().all('[data-change]')).length <= seen + 4, 'the rest');
    });

    it('keeps the height of the page from change to change, and a choice walked to by keys in sight', async () => {
      await page().settings(DEFAULT_SETTINGS);
      const { body } = await tools().server.call<{ id: string }>('POST', 'songbook', {
        source: '| Fm7 | Bb7 | Ebmaj7 | Abmaj7 | Dm7b5 | G7b9 | Cm6 | C7 | F#m7 | B7 | Emaj7 | Am7 |'
      });
      await page().open(`/charts/${body.id}`);
      await page().find('[aria-label="Hands"]');
      const heights = new Set<number>();
      for (let i = 0; i < 12; i++) {
        await page().press(Key.ARROW_RIGHT);
        await page().settled();
        heights.add(await browser().executeScript<number>('return document.documentElement.scrollHeight'));
      }
      expect([...heights]).toHaveLength(1);
      await page().press('c');
      for (let i = 0; i < 9; i++) {
        await page().press(Key.ARROW_DOWN);
        const [top, bottom, room] = await browser().executeScript<[number, number, number]>(
          `const { top, bottom } = document.activeElement.getBoundingClientRect();
           return [top, bottom, innerHeight];`
        );
        expect(top).toBeGreaterThanOrEqual(0);
        expect(bottom).toBeLessThanOrEqual(room + 1);
      }
      // Of another change what is chosen is seen first.
      const isChosenSeen = () =>
        browser().executeScript<boolean>(
          `const [own, panel] = ['[data-chosen]', '[aria-label="Choices"]'].map((css) =>
             document.querySelector(css).getBoundingClientRect());
           return own.top >= panel.top && own.bottom <= panel.bottom;`
        );
      expect(await isChosenSeen()).toBe(false);
      await page().press(Key.ESCAPE);
      await page().press(Key.ARROW_RIGHT);
      await page().until(isChosenSeen, 'what is chosen');
    });

    it('shows the choices that are out of sight once the player rests', async () => {
      const { body } = await tools().server.call<{ id: string }>('POST', 'songbook', {
        source: '{key: Eb}\n| Fm7 | Bb7 | Ebmaj7 | C7b9 |'
      });
      const { body: offer } = await tools().server.call<{
        changes: { choices: { name: string }[] }[];
      }>('POST', 'scale-choices', { chart: '{key: Eb}\n| Fm7 | Bb7 | Ebmaj7 | C7b9 |' });
      await page().open(`/charts/${body.id}`);
      for (const change of [1, 2, 3]) {
        await page().press(Key.ARROW_RIGHT);
        const names = new Set(offer.changes[change]!.choices.map(({ name }) => name));
        await page().until(async () => {
          const drawn = await page().attributes('[data-choice]', 'data-choice');
          return drawn.length > 10 && drawn.every((name) => names.has(name ?? ''));
        }, `the choices of change ${change}`);
      }
    });
  });

  describe('the address', () => {
    const query = async () => new URL(await browser().getCurrentUrl()).searchParams;
    const view = async () => (await page().texts('[aria-label="View"] [aria-pressed="true"]'))[0];

    it('holds view, change and position over reload, Back and a link', async () => {
      const id = await newChart();
      await page().open(`/charts/${id}`);
      await page().press(Key.ARROW_RIGHT, Key.ARROW_RIGHT, Key.ARROW_UP);
      await page().until(async () => (await query()).get('change') === '3', 'the change in the address');
      expect((await query()).get('position')).toBe('6');
      await page().press('g');
      await page().until(async () => (await query()).get('view') === 'grips', 'the view in the address');
      await page().press('m');
      await page().until(async () => (await query()).get('view') === 'map', 'the other view');
      await browser().navigate().back();
      await page().until(async () => (await view()) === 'Grips', 'the view before');
      await browser().navigate().refresh();
      await page().until(async () => (await view()) === 'Grips', 'the same view after a reload');
      expect((await query()).get('change')).toBe('3');
      await browser().navigate().back();
      await page().until(async () => (await view()) === 'Moment', 'the first view');
      await page().open(`/charts/${id}?view=moment&change=2&position=8`);
      await page().until(async () => (await page().position()) === 8, 'the linked position');
      expect(await page().texts('button[aria-current="true"] .sr-only')).toEqual([
        expect.stringContaining('Eb7')
      ]);
    });
  });

  describe('a server that is away', () => {
    it('is told where a view cannot be fetched, and the view comes when it is back', async () => {
      const id = await newChart();
      // Views are fetched ahead when a page has settled; this one never does.
      const { identifier } = await page().devTools<{ identifier: string }>(
        'Page.addScriptToEvaluateOnNewDocument',
        { source: 'window.requestIdleCallback = () => 0;' }
      );
      await page().load(`/charts/${id}`);
      await page().devTools('Page.removeScriptToEvaluateOnNewDocument', { identifier });
      await page().devTools('Network.enable', {});
      await page().devTools('Network.clearBrowserCache', {});
      // As in a browser without a service worker, or before it has all.
      await page().devTools('Network.setBypassServiceWorker', { bypass: true });
      await tools().server.stop();
      await page().press('g');
      try {
        await page().find('[data-arriving="failed"]');
      } finally {
        await tools().server.start();
      }
      await page().until(async () => (await page().all('[aria-label="Grips"]')).length === 1, 'the view');
      await page().devTools('Network.setBypassServiceWorker', { bypass: false });
    });
  });
}
