/** Jobs by keys alone: what has the focus keeps its own keys, all others act, and what they do is spoken. */
import { Key } from 'selenium-webdriver';
import { describe, expect, it } from 'vitest';
import { DEFAULT_SETTINGS } from '../../src/lib/api/default-settings';
import type { Tools } from './neck';
import { AT_FIVE } from '../plan';

const TUNE = '{title: Keys job}\n{key: Ab}\n{tempo: 200}\n| Bbm7 | Eb7 | Abmaj7 | F7b9 |';

export function keyJobs(tools: () => Tools): void {
  const page = () => tools().page;
  const browser = () => tools().browser;

  async function open(...keys: string[]): Promise<string> {
    const { server } = tools();
    await page().settings(DEFAULT_SETTINGS);
    const { body } = await server.call<{ id: string }>('POST', 'songbook', { source: TUNE, plan: AT_FIVE });
    await page().open(`/charts/${body.id}`);
    if (keys.length) await page().press(...keys);
    return body.id;
  }
  const focus = (css: string) =>
    browser().executeScript('document.querySelector(arguments[0]).focus({ preventScroll: true })', css);
  const isPlaying = async () => (await page().all('[data-playing]')).length === 1;
  const spoken = async () => (await page().texts('[aria-live="polite"].sr-only')).join(' ');
  const dialogs = async () => (await page().all('[role="dialog"]')).length;
  const view = async () => (await page().texts('[aria-label="View"] [aria-pressed="true"]'))[0];
  const pressed = async (css: string) => (await page().attributes(css, 'aria-pressed'))[0];
  const text = () =>
    browser().executeScript<string>('return document.querySelector("[data-editor] .cm-content").innerText');

  describe('keys', () => {
    it('Space types in the editor while the stand is open, and plays everywhere else', async () => {
      await open('e');
      await page().until(
        async () => (await page().all('[data-editor] .cm-content')).length === 1,
        'the editor'
      );
      await page().press(Key.ESCAPE);
      await page().press('p');
      await page().find('[aria-label="Rehearse"]');
      await page().press('e');
      await (await page().find('[data-editor] .cm-content')).click();
      await page().chord(Key.CONTROL, Key.END);
      await page().press('  C7');
      await page().until(async () => (await text()).includes('|  C7'), 'two spaces');
      expect(await isPlaying()).toBe(false);
      await page().press(Key.ESCAPE);
      await focus('[aria-label="Rehearse"] [data-now]');
      await browser().executeScript('document.activeElement.blur()');
      await page().press(' ');
      await page().until(isPlaying, 'the band');
      await page().press(' ');
      await page().until(async () => !(await isPlaying()), 'silence');
    });

    it('Space and Enter press the button that has the focus', async () => {
      await open('p');
      await page().unfold('[data-open-mix]');
      await page().find('[aria-label="Mute Bass"]');
      await focus('[aria-label="Mute Bass"]');
      await page().press(' ');
      await page().until(
        async () => (await pressed('[aria-label="Mute Bass"]')) === 'true',
        'the bass to be muted'
      );
      expect(await isPlaying()).toBe(false);
      await page().press('?');
      await page().until(async () => (await dialogs()) === 1, 'help');
      await browser().executeScript(
        '[...document.querySelectorAll("[role=dialog] button")].find((b) => b.textContent.trim() === "Close").focus()'
      );
      await page().press(' ');
      await page().until(async () => (await dialogs()) === 0, 'help to close');
      expect(await isPlaying()).toBe(false);
    });

    it('act again after a choice in a select or on a slider', async () => {
      await open('p');
      await page().pick('Drill', 'up');
      await page().press(' ');
      await page().until(isPlaying, 'the band');
      await page().press(Key.ESCAPE);
      await page().unfold('[data-open-mix]');
      const slider = await page().find('[data-slider="Volume of Bass"]');
      await browser().actions().move({ origin: slider, x: 10 }).click().perform();
      await page().press(' ');
      await page().until(async () => !(await isPlaying()), 'silence');
      await (await page().find('[aria-label="Mute Drums"]')).click();
      await page().press(' ');
      await page().until(isPlaying, 'the band again');
      await page().press(' ');
      await page().press('m');
      await page().until(async () => (await view()) === 'Map', 'the map');
    });

    it('P compares in the choices, also after Enter, and walking them moves nothing else', async () => {
      await open('c');
      for (let i = 0; i < 12; i++) await page().press(Key.ARROW_DOWN);
      expect(await browser().executeScript('return scrollY')).toBe(0);
      const [list, row] = await browser().executeScript<{ top: number; bottom: number }[]>(
        `const row = document.activeElement;
         return [row.closest('[class*=overflow-y]'), row].map((e) => e.getBoundingClientRect().toJSON());`
      );
      expect(row!.top).toBeGreaterThanOrEqual(list!.top - 1);
      expect(row!.bottom).toBeLessThanOrEqual(list!.bottom + 1);
      await page().press(Key.ENTER);
      await page().press('p');
      await page().until(async () => (await page().all('[data-compared]')).length === 1, 'the comparison');
      expect(await view()).toBe('Moment');
    });

    it('a dialog has its keys to itself: no second one, no undo behind it', async () => {
      const id = await open(Key.ARROW_UP);
      await page().saved();
      await page().chord(Key.CONTROL, 'k');
      await page().until(async () => (await dialogs()) === 1, 'the palette');
      await page().press('gr');
      await page().chord(Key.CONTROL, 'z');
      await page().chord(Key.CONTROL, 'k');
      await page().press(Key.ESCAPE);
      await page().until(async () => (await dialogs()) === 0, 'no dialog');
      expect(await page().position()).toBe(6);
      const { body } = await tools().server.call<{ version: number }>('GET', `songbook/${id}`);
      expect(body.version).toBe(2);
    });

    it('Home and End move the hand when the hand has the focus, else they walk the chart', async () => {
      await open();
      await focus('[aria-label="Position of the hand"]');
      await page().press(Key.END);
      await page().until(async () => (await page().position()) > 12, 'the top of the neck');
      await page().press(Key.HOME);
      await page().until(async () => (await page().position()) === 0, 'the nut');
      expect(await page().texts('button[aria-current="true"] .sr-only')).toEqual([
        expect.stringContaining('Bbm7')
      ]);
      await browser().executeScript('document.activeElement.blur()');
      await page().press(Key.END);
      await page().until(
        async () => (await page().texts('button[aria-current="true"] .sr-only'))[0]!.includes('F7b9'),
        'the last change'
      );
    });

    it('closing the editor gives the focus back, and undo in it goes over text and plan', async () => {
      await open('e');
      await (await page().find('[data-editor] .cm-content')).click();
      await page().chord(Key.CONTROL, Key.END);
      await page().press(' | C7 |');
      await page().chord(Key.CONTROL, 'z');
      await page().until(async () => !(await text()).includes('C7'), 'the text before');
      await page().press(Key.ESCAPE);
      expect(await browser().executeScript('return document.activeElement.getAttribute("aria-label")')).toBe(
        'Chart'
      );
      // The page shows the change in which the text was written last; after the last one comes the first.
      await page().press(Key.ARROW_RIGHT);
      await page().until(async () => (await spoken()).includes('Bbm7'), 'the next change to be spoken');
    });

    it('what they do is spoken', async () => {
      await open(Key.ARROW_RIGHT);
      await page().until(async () => /Eb7, bar 2, target/.test(await spoken()), 'the change');
      await page().press(Key.ARROW_LEFT);
      await page().until(async () => (await spoken()).includes('Bbm7, bar 1'), 'the change before');
      await page().press('g');
      await page().until(async () => (await spoken()).includes('Grips'), 'the view');
      await page().press('m');
      await page().find('[data-map-cell="1:2"]');
      await focus('[data-map-cell="1:2"]');
      await page().press(Key.ENTER);
      await page().until(async () => /Abmaj7 in position \d+/.test(await spoken()), 'the painting');
    });

    it('the focus can be seen on the current card', async () => {
      await open();
      const outline = (css: string) =>
        browser().executeScript<string>(
          'return getComputedStyle(document.querySelector(arguments[0])).outlineStyle',
          css
        );
      expect(await outline('button[aria-current="true"]')).toBe('none');
      await page().press(Key.TAB);
      await focus('button[aria-current="true"]');
      expect(await outline('button[aria-current="true"]')).toBe('solid');
    });
  });
}
