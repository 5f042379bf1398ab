/** For everybody: axe over every view, dialog, theme and width; nothing over the edge; everything printed whole. */
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { Key } from 'selenium-webdriver';
import { describe, expect, it } from 'vitest';
import { setViewport } from '../../scripts/lib/browser.mjs';
import { DEFAULT_SETTINGS } from '../../src/lib/api/default-settings';
import type { Tools } from './neck';
import { AT_FIVE } from '../plan';

const axe = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');
const TUNE = '{title: Gangway}\n{key: Ab}\n| Bbm7 | Eb7 | Abmaj7 | F7b9 | Bbm7 | Eb7 | Abmaj7 | % |';

/** A state of the page: what is pressed, and what is there then. */
interface State {
  readonly name: string;
  readonly keys?: readonly string[];
  readonly shown: string;
  readonly also?: (tools: Tools) => Promise<void>;
}

const STATES: readonly State[] = [
  { name: 'the moment', shown: '[aria-label="Hands"] button' },
  { name: 'the map', keys: ['m'], shown: '[data-map]' },
  { name: 'the grips', keys: ['g'], shown: '[data-grip-path]' },
  { name: 'the lines', keys: ['i'], shown: '[data-outline-strip]' },
  {
    name: 'a phrase that is selected, and why a note is there',
    keys: ['i'],
    shown: '[data-phrase]',
    also: async ({ page, browser }) => {
      await (await page.find('[data-phrase="0"]')).click();
      await page.find('[data-phrase-bar]');
      const row = await page.find('[data-reading] tbody tr');
      // On a phone the places stand over the foot of the window.
      await browser.executeScript(`arguments[0].scrollIntoView({ block: 'center' })`, row);
      await row.click();
      await page.find('[data-why] p');
    }
  },
  {
    name: 'how lines are found',
    keys: ['i'],
    shown: '[data-outline-strip]',
    also: async ({ page }) => {
      await (await page.find('[aria-label="How it is found"][aria-haspopup]')).click();
      await page.find('[data-panel="How it is found"]');
    }
  },
  {
    name: 'a line on staff and tab, written, with licks',
    keys: ['i'],
    shown: '[data-pad]',
    also: async ({ page }) => {
      // The row of tools may move under the pointer while the line is still coming.
      await page.until(
        async () => {
          const [state] = await page.attributes('[data-toggle="score"]', 'data-state');
          if (state !== 'on') await (await page.find('[data-toggle="score"]')).click();
          return (await page.all('.engraved svg')).length > 0;
        },
        'the score',
        30_000
      );
      await page.clickNamed('licks');
      await page.until(
        async () => (await page.attributes('[data-licks]', 'data-licks'))[0] !== '0',
        'the licks'
      );
      await page.clickNamed('write');
    }
  },
  {
    name: 'the stand',
    keys: ['p'],
    shown: '[data-desk]',
    also: async ({ page }) => {
      for (const part of ['mix', 'more']) {
        const button = await page.find(`[data-open-${part}]`);
        // What was open stays open on the next page.
        if ((await button.getAttribute('aria-expanded')) !== 'true') await button.click();
      }
      await page.find('[data-desk-more]');
    }
  },
  {
    name: 'the stand, playing',
    keys: ['p'],
    shown: '[data-stand] [data-left]',
    also: async ({ page }) => {
      await page.find('[data-desk]');
      await page.press(' ');
    }
  },
  { name: 'the editor', keys: ['e'], shown: '[data-editor] .cm-content' },
  {
    name: 'the chord pad, and a question about a bar',
    keys: ['e'],
    shown: '[data-asked="note"]',
    also: async ({ page }) => {
      if ((await page.all('[data-chord-pad]')).length === 0) await page.clickNamed('Chord pad');
      await page.find('[data-chord-pad]');
      await (await page.find('[data-bar-field]')).click();
      await page.press('o');
    }
  },
  {
    name: 'two charts compared',
    shown: '[data-other]',
    also: async ({ page }) => {
      await page.chord(Key.CONTROL, 'k');
      await page.find('[data-finder] input');
      await page.press('Compare with another chart');
      await page.until(
        async () => /Compare with another/.test((await page.texts('[data-found]'))[0] ?? ''),
        'the command'
      );
      await page.press(Key.ENTER);
    }
  },
  { name: 'the rules', keys: ['r'], shown: '[data-select="Way of the line"]' },
  { name: 'the alternatives', keys: ['x'], shown: '[data-alternative]' },
  { name: 'the whole neck', keys: ['w'], shown: '[data-area]' },
  { name: 'the table', keys: ['b'], shown: '[role="dialog"] tbody tr' },
  { name: 'help', keys: ['?'], shown: '[role="dialog"] dl' },
  {
    name: 'the palette',
    shown: '[role="dialog"] input',
    also: ({ page }) => page.chord(Key.CONTROL, 'k')
  },
  {
    name: 'takes, none yet',
    keys: ['d'],
    shown: '[data-empty]',
    also: ({ page }) => page.pick('Source', 'player')
  },
  {
    name: 'a take',
    keys: ['d'],
    shown: '[data-met]',
    also: async ({ page }) => {
      await page.find('[data-empty]');
      await page.pick('Source', 'player');
      await page.clickNamed('Let it play');
      await page.until(async () => (await page.all('[data-take]')).length === 1, 'the take');
      await page.clickNamed('Let it play');
      await page.until(async () => (await page.all('[data-trends]')).length === 1, 'two takes');
      await page.until(async () => (await page.all('[data-doing]')).length === 0, 'the end of the work');
    }
  },
  {
    name: 'a take, recorded',
    keys: ['d'],
    shown: '[data-stand] [data-recording]',
    also: async ({ page }) => {
      await page.find('[data-empty]');
      await page.press(' ');
    }
  },
  {
    name: 'the tuner',
    keys: ['u'],
    shown: '[data-tuner]'
  },
  {
    name: 'the stand, listening',
    keys: ['p'],
    shown: '[data-listening="microphone"]',
    also: async ({ page }) => {
      await page.find('[aria-label="Listening"]');
      await page.press('z');
    }
  },
  {
    name: 'the practice book',
    shown: '[data-page="4"]',
    also: async ({ page, browser }) => {
      await page.open(`${new URL(await browser.getCurrentUrl()).pathname}/book?keys=0`);
      // Pages are drawn as they come into view.
      await browser.executeScript(`document.querySelector('[data-page="3"]').scrollIntoView()`);
      await page.find('[data-page="3"] a');
    }
  },
  {
    name: 'the guitar',
    shown: '[role="dialog"] [role="switch"]',
    also: async ({ page }) => {
      await page.clickNamed('More');
      await page.clickNamed('Your guitar');
    }
  },
  {
    name: 'the versions',
    shown: '[role="dialog"] li button',
    also: async ({ page }) => {
      await page.clickNamed('More');
      await page.clickNamed('Earlier versions');
    }
  },
  {
    name: 'an open list',
    shown: '[role="option"]',
    also: async ({ page }) => (await page.find('[data-select="Approach"]')).click()
  },
  {
    name: 'one shape over the next',
    keys: ['m'],
    shown: '[role="dialog"] [data-share]',
    also: async ({ page, browser }) => {
      await page.find('[data-map-cell="1:1"]');
      await browser.executeScript(`document.querySelector('[data-map-cell="1:1"]').focus()`);
      await page.press('o');
    }
  }
];

/** Pages over all charts. */
const PLACES = [
  '/',
  '/licks',
  '/today',
  '/today?show=items',
  '/today?show=dates',
  '/today?show=progress',
  '/today?show=log',
  '/trainer',
  '/settings'
] as const;

/** Ways to look at a state: width and theme. */
const LOOKS = [
  [1280, 'day'],
  [820, 'stage'],
  [390, 'day']
] as const;
/** Each state is looked at in one of them, in turn; in all of them by `npm run bench -- axe`. */
const looksAt = (index: number) => (process.env.CORVEL_ALL_LOOKS ? LOOKS : [LOOKS[index % LOOKS.length]!]);

export function accessJobs(tools: () => Tools): void {
  const page = () => tools().page;
  const browser = () => tools().browser;

  async function open(source = TUNE): Promise<void> {
    const { server } = tools();
    await page().settings(DEFAULT_SETTINGS);
    const { body } = await server.call<{ id: string }>('POST', 'songbook', { source, plan: AT_FIVE });
    await page().open(`/charts/${body.id}`);
  }

  /** Everything that axe finds by the rules of WCAG 2.2 AA, and by its own of order and landmarks. */
  async function findings(): Promise<string[]> {
    if (!(await browser().executeScript<boolean>('return "axe" in window')))
      await browser().executeScript(axe);
    return browser().executeAsyncScript<string[]>(
      `const done = arguments[0];
       const runOnly = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'];
       axe.run(document, { runOnly, resultTypes: ['violations'] }).then((r) =>
         done(r.violations.map((v) => v.id + ': ' + v.nodes.map((n) => n.target.join(' ')).slice(0, 3).join(', '))));`
    );
  }

  const over = () =>
    browser().executeScript<number>(
      'return document.documentElement.scrollWidth - document.documentElement.clientWidth'
    );

  describe('for everybody', () => {
    const places = PLACES.flatMap((path, i) =>
      looksAt(i).map(([width, theme]) => [path, width, theme] as const)
    );
    it.each(places)('axe finds nothing at %s, %i wide, %s', async (path, width, theme) => {
      await setViewport(browser(), width, 900);
      try {
        await page().settings({ ...DEFAULT_SETTINGS, theme });
        await page().open(path);
        await page().until(async () => (await page().all('[aria-busy="true"]')).length === 0, 'all parts');
        expect(await findings()).toEqual([]);
        expect(await over()).toBeLessThanOrEqual(0);
      } finally {
        await setViewport(browser(), 1280, 800);
      }
    });

    it.each(STATES.map((state, i) => ({ ...state, i })))(
      'axe finds nothing in $name',
      async ({ i, keys = [], shown, also }) => {
        try {
          for (const [width, theme] of looksAt(i)) {
            await setViewport(browser(), width, 900);
            await open();
            await browser().executeScript('document.documentElement.dataset.theme = arguments[0]', theme);
            if (keys.length) await page().press(...keys);
            await also?.(tools());
            await page().until(async () => (await page().all(shown)).length > 0, shown);
            await page().until(
              async () => (await page().all('[aria-busy="true"]')).length === 0,
              'all parts'
            );
            // Colours are read once they have come to rest.
            await browser().executeScript(`document.getAnimations()
               .filter((one) => one.effect.getComputedTiming().endTime !== Infinity)
               .forEach((one) => one.finish())`);
            expect(await findings(), `${width} ${theme}`).toEqual([]);
            expect(await over(), `${width}`).toBeLessThanOrEqual(0);
          }
        } finally {
          await setViewport(browser(), 1280, 800);
        }
      }
    );

    it('a hint comes by pointer, by keyboard and by a long press, and goes', async () => {
      await open();
      const hint = async () =>
        (await browser().executeScript<string>(
          `const e = document.getElementById('hint'); return e && !e.hidden ? e.textContent : ''`
        )) ?? '';
      const chart = await page().find('[aria-label="Chart"]');
      await browser().actions().move({ origin: chart }).perform();
      await page().until(async () => (await hint()) === 'Chart text (E)', 'the hint by pointer');
      await browser()
        .actions()
        .move({ origin: await page().find('h1') })
        .perform();
      await page().until(async () => (await hint()) !== 'Chart text (E)', 'no hint');
      await page().press(Key.TAB, Key.TAB);
      await page().until(async () => (await hint()).length > 0, 'a hint by keyboard');
      await page().press(Key.ESCAPE);
      await page().until(async () => (await hint()) === '', 'none after Escape');
      const { finger } = page();
      await finger.on(1280, 800, async () => {
        await finger.down(await finger.over('[aria-label="Find"]'));
        await page().until(async () => (await hint()).startsWith('Find charts'), 'the hint by finger');
        await finger.up();
      });
    });

    it('every control is as large as a finger where a finger is used', async () => {
      await page().devTools('Emulation.setTouchEmulationEnabled', { enabled: true });
      await page().devTools('Emulation.setEmulatedMedia', {
        features: [
          { name: 'pointer', value: 'coarse' },
          { name: 'hover', value: 'none' }
        ]
      });
      await setViewport(browser(), 820, 1180);
      try {
        await open();
        for (const key of ['', 'm', 'g', 'r', 'i', 'p', 'd', ...PLACES.slice(2)]) {
          if (key.startsWith('/')) await page().open(key);
          else if (key) await page().press(key);
          // The line comes after its view, and its phrases with it.
          if (key === 'i') await page().find('[data-phrase]');
          await page().settled();
          await page().until(async () => (await page().all('[aria-busy="true"]')).length === 0, 'all parts');
          const small = await browser().executeScript<string[]>(
            `return [...document.querySelectorAll('button, input:not([type=hidden]), a[href], [role=switch], [data-slider]')]
               .filter((e) => e.offsetParent && !e.closest('[data-sonner-toaster], .sr-only, svg'))
               .filter((e) => { const b = e.getBoundingClientRect(); return b.width > 0 && Math.min(b.height, b.width) < 43.5; })
               .map((e) => (e.getAttribute('aria-label') ?? e.textContent).trim() + ' ' + Math.round(e.getBoundingClientRect().width) + '×' + Math.round(e.getBoundingClientRect().height))`
          );
          expect(small, key || 'moment').toEqual([]);
        }
      } finally {
        await page().devTools('Emulation.setTouchEmulationEnabled', { enabled: false });
        await page().devTools('Emulation.setEmulatedMedia', { features: [] });
        await setViewport(browser(), 1280, 800);
      }
    });
  });

  describe('on paper', () => {
    /** What would stand on the paper, as text, and on how many pages. */
    async function printed(isReady: string): Promise<{ text: string; pages: number }> {
      await page().until(
        async () =>
          (await browser().executeScript<boolean>(
            `window.dispatchEvent(new Event('beforeprint')); return !!document.querySelector(arguments[0])`,
            isReady
          )) === true,
        'the sheet'
      );
      await page().devTools('Emulation.setEmulatedMedia', { media: 'print' });
      const text = await browser().executeScript<string>('return document.body.innerText');
      await page().devTools('Emulation.setEmulatedMedia', { media: '' });
      const pdf = await page().pdf();
      await browser().executeScript(`window.dispatchEvent(new Event('afterprint'))`);
      const [, wide, high] = /\/MediaBox \[0 0 ([\d.]+) ([\d.]+)\]/.exec(pdf)!;
      expect([Number(wide), Number(high)].map(Math.round)).toEqual([595, 842]);
      return { text, pages: pdf.match(/\/Type \/Page\b/g)!.length };
    }

    it('stands what is on the screen: the moment with every hand', async () => {
      await open();
      await page().press(Key.ARROW_RIGHT);
      const { text, pages } = await printed('[data-sheet] svg');
      expect(text).toContain('Gangway');
      expect(text).toContain('E♭ Mixolydian');
      expect(text.match(/bar \d/g)!.length).toBeGreaterThanOrEqual(9);
      expect(text).not.toContain('Saved');
      expect(pages).toBe(1);
    });

    it('the map, on one page', async () => {
      await open();
      await page().press('m');
      await page().find('[data-map]');
      const { text, pages } = await printed('[data-sheet] [data-map]');
      expect(text).toContain('hand positions');
      expect(pages).toBe(1);
    });

    it('the grips, all of them', async () => {
      await open(`${TUNE}\n${TUNE.split('\n').at(-1)}\n${TUNE.split('\n').at(-1)}`);
      await page().press('g');
      await page().find('[data-grip-path]');
      const { text } = await printed('[data-sheet] .grips');
      expect(text).toContain('strings');
      expect(text.match(/F7♭9|F\n?7♭9/g)!.length).toBe(3);
    });

    it('the table, all its rows, while it is open', async () => {
      await open();
      await page().press('b');
      await page().find('[role="dialog"] tbody tr');
      const { text, pages } = await printed('[data-sheet] tbody tr');
      expect(text.match(/bar \d/g)).toHaveLength(8);
      expect(text).toContain('Sevenths');
      expect(pages).toBe(1);
      await page().press(Key.ESCAPE);
    });

    it('the landing sheet from the stand', async () => {
      await open();
      await page().press('p');
      await page().find('[data-desk]');
      const { text, pages } = await printed('[data-sheet] ol li');
      expect(text).toContain('8 targets');
      expect(pages).toBe(1);
    });
  });
}
