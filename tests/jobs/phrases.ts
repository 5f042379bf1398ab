/** Jobs in the room for phrases: locked, thrown, related, moved and dragged, asked why; by keys, by touch, on a phone; the server away. */
import { Key } from 'selenium-webdriver';
import { describe, expect, it } from 'vitest';
import { DEFAULT_SETTINGS } from '../../src/lib/api/default-settings';
import { AT_FIVE } from '../plan';
import type { Tools } from './neck';

/** A minor blues that rocks: short phrases, many of them. */
const TUNE = `{title: Phrase job}
{key: Bm}
{tempo: 116}
{feel: shuffle}
{style: blues}
| Bm7 | Em7 | Bm7 | % | Em7 | % | Bm7 | % | Gmaj7 | F#7 | Bm7 | F#7 |`;

export function phraseJobs(tools: () => Tools): void {
  const page = () => tools().page;
  const browser = () => tools().browser;
  const server = () => tools().server;

  async function open(): Promise<void> {
    await page().settings(DEFAULT_SETTINGS);
    const { body } = await server().call<{ id: string }>('POST', 'songbook', { source: TUNE, plan: AT_FIVE });
    await page().open(`/charts/${body.id}?view=lines`);
    await rest();
  }
  const rest = () =>
    page().until(
      async () =>
        (await page().all('[data-phrase]')).length > 2 &&
        (await page().all('[aria-busy="true"]')).length === 0,
      'the phrases'
    );
  /** Every phrase as its name and its words. */
  const blocks = () => page().texts('[data-phrase]');
  const notes = async () => (await page().attributes('[data-note]', 'data-note')).join();
  const focused = () =>
    browser().executeScript<string | null>('return document.activeElement.getAttribute("data-phrase")');
  async function changed(before: string, what: string): Promise<void> {
    await page().until(async () => (await notes()) !== before, what);
    await rest();
  }
  const focus = (index: number) =>
    browser().executeScript(`document.querySelector('[data-phrase="${index}"]').focus()`);

  describe('phrases of a line', () => {
    it('are locked, thrown anew, moved and taken out by keys; undo brings each back', async () => {
      await open();
      const whole = await notes();
      await focus(0);
      await page().press(Key.ARROW_RIGHT);
      await page().until(async () => (await focused()) === '1', 'the second phrase');
      await page().press('k');
      await page().until(async () => (await blocks())[1]!.endsWith('locked'), 'it to be locked');
      const held = (await blocks())[1];
      await page().press('o');
      await page().until(
        async () => (await page().texts('[role="alert"]')).join().includes('is locked'),
        'why it stays'
      );
      expect(await notes()).toBe(whole);
      // All others are thrown; the locked one stands.
      await page().clickNamed('New phrases');
      await changed(whole, 'other phrases');
      expect((await blocks()).filter((words) => words?.endsWith('locked'))).toHaveLength(1);
      const bars = /bars? \d+( (and|to) \d+)?/;
      const still = (await blocks()).find((words) => words.endsWith('locked'))!;
      expect(bars.exec(still)![0]).toBe(bars.exec(held!)![0]);
      const thrown = await notes();
      await focus(0);
      await page().press('o');
      await changed(thrown, 'one other phrase');
      const one = await notes();
      await page().press(Key.DELETE);
      await changed(one, 'silence');
      for (const before of [one, thrown, whole]) {
        await browser().executeScript('document.activeElement.blur()');
        await page().chord(Key.CONTROL, 'z');
        await page().until(async () => (await notes()) === before, 'a step back');
      }
    });

    it('take up another one, move by a beat and by a bar, and say what they are', async () => {
      await open();
      await focus(0);
      await page().press(' ');
      await page().find('[data-phrase-bar="0"]');
      await page().press(' ');
      await page().until(async () => (await page().all('[data-phrase-bar]')).length === 0, 'it to be let go');
      await page().press(Key.ENTER);
      await page().find('[data-phrase-bar="0"]');
      const whole = await notes();
      await page().press(Key.ARROW_RIGHT);
      await page().find('[data-phrase-bar="1"]');
      await page().pick('Relation', 'same rhythm');
      await changed(whole, 'the rhythm of A');
      expect((await blocks())[1]).toMatch(
        /^Phrase A′? ?, .*(has the rhythm of|varies|repeats|is a sequence of) A/
      );
      const related = await notes();
      const first = (await page().attributes('[data-phrase="0"]', 'style'))[0];
      await focus(0);
      await page().chord(Key.SHIFT, Key.ARROW_RIGHT);
      await page().until(
        async () =>
          (await page().attributes('[data-phrase="0"]', 'style'))[0] !== first ||
          (await page().texts('[role="alert"]')).join().includes('no room'),
        'a beat later, or why not'
      );
      await rest();
      expect((await page().all('[data-phrase]')).length).toBeGreaterThan(2);
      await browser().executeScript('document.activeElement.blur()');
      await page().chord(Key.CONTROL, 'z');
      await page().until(
        async () => (await page().attributes('[data-phrase="0"]', 'style'))[0] === first,
        'where it was'
      );
      expect(await notes()).not.toBe(whole);
      expect(related.length).toBeGreaterThan(0);
    });

    it('are dragged to another bar with the pointer, and what lies there gives way', async () => {
      await open();
      const before = (await blocks())[0]!;
      const block = await page().find('[data-phrase="0"]');
      const { width } = await browser().executeScript<{ width: number }>(
        `const [a, b] = [...document.querySelectorAll('[data-heard]')]; return { width: b.offsetLeft - a.offsetLeft };`
      );
      await browser()
        .actions()
        .move({ origin: block })
        .press()
        .move({ origin: block, x: Math.round(width / 2), y: 0 })
        .move({ origin: block, x: Math.round(2 * width), y: 2 })
        .perform();
      await page().find('[data-phrase-ghost]');
      await browser().actions().release().perform();
      await page().until(async () => !(await blocks()).includes(before), 'the phrase to be moved');
      await rest();
      expect((await page().all('[data-gap]')).length).toBeGreaterThan(0);
      await (await page().find('[data-gap]')).click();
      await page().find('[data-phrase-bar]');
    });

    it('say why a note is there, pointed at or walked to', async () => {
      await open();
      await (await page().find('[data-note]')).click();
      await page().until(async () => (await page().texts('[data-why] p')).join().length > 20, 'why');
      const said = (await page().texts('[data-why] p')).join();
      expect(said).toMatch(/ is the \S+ of \S+: /);
      await browser().executeScript(`document.querySelector('[data-notes-here]').focus()`);
      await page().press(Key.ARROW_DOWN);
      await page().until(async () => (await page().texts('[data-why] p')).join() !== said, 'the next note');
    });

    it('are held by the finger on a phone: tapped, dragged, written on', async () => {
      await open();
      const { finger } = page();
      await finger.on(390, 844, async () => {
        await page().settled();
        await finger.tap('[data-phrase="0"]');
        await page().find('[data-phrase-bar="0"]');
        expect(
          await browser().executeScript('return document.documentElement.scrollWidth <= innerWidth')
        ).toBe(true);
        const before = (await blocks())[0]!;
        const bar = await browser().executeScript<number>(
          `const [a, b] = document.querySelectorAll('[data-heard]'); return b.offsetLeft - a.offsetLeft;`
        );
        const from = await finger.over('[data-phrase="0"]');
        await finger.swipe(from, { x: from.x + 0.8 * bar, y: from.y });
        await page().until(
          async () =>
            !(await blocks()).includes(before) || (await page().texts('[role="alert"]')).join().length > 0,
          'the phrase to be moved'
        );
        await page().clickNamed('write');
        await page().find('[data-pad]');
      });
    });

    it('have few things to come to by the Tab key, and go on while the server is away', async () => {
      await open();
      const stops = await browser().executeScript<string[]>(
        `return [...document.querySelectorAll('a[href], button, input, select, textarea, [tabindex]')]
           .filter((e) => e.tabIndex >= 0 && !e.disabled && e.offsetParent !== null && e.getBoundingClientRect().top < innerHeight)
           .map((e) => e.getAttribute('aria-label') ?? e.textContent.trim().slice(0, 24))`
      );
      expect(stops.length, stops.join(' | ')).toBeLessThanOrEqual(30);
      await server().stop();
      const before = await notes();
      await focus(1);
      await page().press('o');
      await changed(before, 'another phrase without the server');
      await server().start();
    });
  });
}
