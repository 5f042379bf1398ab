/** Jobs of charts written on their bars: by keys, by touch, beside the text, dragged, undone. */
import { Key } from 'selenium-webdriver';
import { describe, expect, it } from 'vitest';
import { setViewport } from '../../scripts/lib/browser.mjs';
import { DEFAULT_SETTINGS } from '../../src/lib/api/default-settings';
import type { Tools } from './neck';
import { AT_FIVE } from '../plan';

/** Thirty-two bars as they are played, with a pickup, two endings, three sections and a bar of two chords. */
const TUNE = `{title: Second Watch}
{key: Ab}
{meta: pickup 1}
{start_of_grid label="A"}
|: Fm7 | Bbm7 | Eb7 | Abmaj7 |
| Dbmaj7 | G7b9 |1 Cm7 | F7b9 :|
|2 Abmaj7 | C7b9 |
{end_of_grid}
{start_of_grid label="B"}
| Cm7 | F7 | Bbmaj7 | % |
| Bbm7 | Eb7 | Abmaj7 | Gm7b5 C7b9 |
{end_of_grid}
{start_of_grid label="C"}
| Fm7 | Bbm7 | Eb7 | Abmaj7 |
| Dbmaj7 | G7b9 | Cm7 | Fm7 |
{end_of_grid}
`;
const plain = (text: string) => text.replaceAll(/ +/g, ' ').trim();

export function barJobs(tools: () => Tools): void {
  const page = () => tools().page;
  const browser = () => tools().browser;
  const sourceOf = async (id: string) =>
    (await tools().server.call<{ source: string }>('GET', `songbook/${id}`)).body.source;
  const idHere = async () => /charts\/([^?]+)/.exec(await browser().getCurrentUrl())![1]!;
  const field = () => page().find('[data-bar-field]');
  const at = async () => (await page().attributes('[data-bar-field]', 'aria-label'))[0] ?? '';

  async function open(source: string): Promise<string> {
    await page().settings(DEFAULT_SETTINGS);
    const { body } = await tools().server.call<{ id: string }>('POST', 'songbook', { source, plan: AT_FIVE });
    await page().open(`/charts/${body.id}`);
    await browser().executeScript("localStorage.removeItem('corvel-chart-editor')");
    await page().press('e');
    await (await field()).click();
    await page().until(async () => (await at()).startsWith('Bar 1'), 'the caret in the first bar');
    return body.id;
  }
  const until = (id: string, text: string) =>
    page().until(async () => plain(await sourceOf(id)) === plain(text), `the text ${text}`);

  describe('on the bars', () => {
    it('a tune of 32 bars is written by keys alone, three presses a chord', async () => {
      await page().settings(DEFAULT_SETTINGS);
      await page().open('/');
      await page().press('n');
      await page().press('{title: Second Watch}', Key.ENTER, '{key: Ab}', Key.ENTER, '{meta: pickup 1}');
      await page().chord(Key.CONTROL, Key.ENTER);
      await page().until(
        async () => (await at()).startsWith('New bar 1'),
        'an empty chart, ready to be written'
      );
      const id = await idHere();
      let presses = 0;
      const press = async (...keys: string[]) => {
        for (const key of keys) {
          presses += 1;
          await page().press(key);
        }
      };
      /** As a player would: what is offered by one key, else by its letters and one more. */
      const write = async (symbol: string, ending: string = Key.ENTER) => {
        await page().until(async () => (await page().all('[data-suggestion]')).length > 0, 'suggestions');
        const offered = (await page().attributes('[data-suggestion]', 'data-suggestion')).indexOf(symbol);
        if (offered >= 0 && ending === Key.ENTER) await press(String(offered + 1));
        else if (symbol === '%') await press('%', ending);
        else await press(...symbol, ending);
      };
      const A = ['Fm7', 'Bbm7', 'Eb7', 'Abmaj7', 'Dbmaj7', 'G7b9', 'Cm7', 'F7b9'];
      for (const symbol of A) await write(symbol);
      const shift = async (key: string) => {
        presses += 1;
        await page().chord(Key.SHIFT, key);
      };
      await press(Key.HOME, 's', 'A', Key.ENTER, Key.END, Key.ARROW_LEFT);
      await shift(Key.ARROW_LEFT);
      await press('[', Key.END);
      for (const symbol of ['Abmaj7', 'C7b9']) await write(symbol);
      await press(Key.ARROW_LEFT, Key.ARROW_LEFT, ']', Key.END);
      await write('Cm7');
      await press(Key.ARROW_LEFT, 's', 'B', Key.ENTER, Key.END);
      for (const symbol of ['F7', 'Bbmaj7', '%', 'Bbm7', 'Eb7', 'Abmaj7']) await write(symbol);
      await write('Gm7b5', ' ');
      await write('C7b9');
      await write('Fm7');
      await press(Key.ARROW_LEFT, 's', 'C', Key.ENTER, Key.END);
      for (const symbol of ['Bbm7', 'Eb7', 'Abmaj7', 'Dbmaj7', 'G7b9', 'Cm7', 'Fm7']) await write(symbol);
      await page().press(Key.ESCAPE);
      await page().saved();
      expect(plain(await sourceOf(id))).toBe(plain(TUNE));
      // Twenty-seven chords and signs, two endings and three sections; 32 bars as they are played.
      expect(presses / 27, `${presses} presses`).toBeLessThanOrEqual(3);
    });

    it('the same is written by touch alone, on the pad of a phone', async () => {
      const id = await open('{title: Second Watch}\n{key: Ab}\n');
      const { finger } = page();
      await finger.on(390, 844, async () => {
        await finger.tap('[aria-label="Chord pad"]');
        await page().find('[data-chord-pad]');
        for (const key of ['F', 'm7', 'next', 'B', 'b', 'm7', 'next', 'E', 'b', '7', '9'])
          await finger.tap(`[data-pad-key="${key}"]`);
        await finger.tap('[data-pad-key="next"]');
        await finger.tap('[data-pad-chord="Abmaj7"]');
        await finger.tap('[data-pad-key="%"]');
        await finger.tap('[data-pad-key="next"]');
        await finger.tap('[data-pad-chord="Bbm7"]');
        await finger.tap('[data-pad-key="previous"]');
        await finger.tap('[data-pad-key="split"]');
        await finger.tap('[data-suggestion="Eb7"]');
        expect(
          await browser().executeScript('return document.documentElement.scrollWidth <= innerWidth')
        ).toBe(true);
        await until(
          id,
          '{title: Second Watch}\n{key: Ab}\n{start_of_grid}\n| Fm7 | Bbm7 | Eb9 | Abmaj7 |\n| % | Bbm7 Eb7 |\n{end_of_grid}\n'
        );
        await finger.tap('[aria-label="Chord pad"]');
        // A finger that rests takes a chord to another beat.
        const from = await finger.over('[data-bar="1"] [data-chord="0"]');
        const to = await finger.over('[data-bar="0"]', { at: { x: 150, y: 40 } });
        await finger.swipe(from, to, { rest: 600 });
        await page().until(
          async () => plain(await sourceOf(id)).includes('| Fm7 . . Bbm7 | |'),
          'the chord moved'
        );
      });
    });

    it('stand beside the text, and are the same chart at every moment', async () => {
      const id = await open('{key: Eb}\n| Fm7 | Bb7 | Ebmaj7 | C7b9 |');
      // What is typed in a bar stands in the text, and the other way round; the page shows the change.
      await page().press(Key.ARROW_RIGHT, 'E7');
      const line = () => page().texts('[data-editor] .cm-line');
      await page().until(async () => (await line())[1] === '| Fm7 | E7 | Ebmaj7 | C7b9 |', 'the text');
      await page().until(
        async () => (await page().texts('button[aria-current="true"] .sr-only'))[0]!.includes('E7'),
        'the change on the page'
      );
      await page().press(Key.ENTER);
      await (await page().find('[data-editor] .cm-content')).click();
      await page().chord(Key.CONTROL, Key.END);
      await page().press(' Abmaj7 |');
      await page().until(
        async () => (await at()).startsWith('Bar 5'),
        'the caret of the bars where it is typed'
      );
      // A symbol that is not understood is said in its bar, with what would be read instead.
      await (await page().find('[data-bar="3"] [data-chord]')).click();
      await page().press('Ebmja7');
      await page().until(
        async () => (await page().texts('[data-mend]'))[0] === 'Use Ebmaj7',
        'what the whole word is taken for'
      );
      const mend = await page().find('[data-mend]');
      await browser().actions().move({ origin: mend }).press().perform();
      // What is typed is not done with while the button is held: the field has the focus.
      expect(
        await browser().executeScript('return document.activeElement.hasAttribute("data-bar-field")')
      ).toBe(true);
      await browser().actions().release().perform();
      await page().until(async () => /\| Ebmaj7 \| Ebmaj7 \|/.test((await line())[1]!), 'the mended chord');
      // One undo goes over both.
      for (let i = 0; i < 8; i++) await page().chord(Key.CONTROL, 'z');
      await until(id, '{key: Eb}\n| Fm7 | Bb7 | Ebmaj7 | C7b9 |');
      expect(await at()).toContain('Bar');
    });

    it('are selected, copied, moved, transposed, made simpler; their form is set, and each bar says what it is', async () => {
      const id = await open('{key: Eb}\n| Fm9 | Bb13 | Ebmaj7 | C7b9 |\n');
      await page().chord(Key.SHIFT, Key.ARROW_RIGHT);
      expect(await page().texts('[data-selected-bars]')).toEqual(['bars 1 and 2 selected']);
      const menu = async (name: string, item: string) => {
        await (await page().find(`[data-menu="${name}"]`)).click();
        await (await page().find(`[data-item="${item}"]`)).click();
        await page().until(async () => (await page().all('[role="menu"]')).length === 0, 'the menu to close');
        await page().until(
          async () =>
            (await browser().executeScript('return document.activeElement?.dataset.barField')) !== undefined,
          'the focus in the bars'
        );
      };
      await menu('Chords', 'To seventh chords');
      await until(id, '{key: Eb}\n| Fm7 | Bb7 | Ebmaj7 | C7b9 |\n');
      await page().press(Key.HOME);
      await page().chord(Key.SHIFT, Key.ARROW_RIGHT);
      await page().chord(Key.CONTROL, 'c');
      await page().press(Key.END);
      await page().chord(Key.CONTROL, 'v');
      await until(id, '{key: Eb}\n| Fm7 | Bb7 | Ebmaj7 | C7b9 |\n| Fm7 | Bb7 |\n');
      await page().press(Key.HOME, 'r');
      await until(id, '{key: Eb}\n|: Fm7 :| Bb7 | Ebmaj7 | C7b9 |\n| Fm7 | Bb7 |\n');
      await page().press('r', 'o');
      await page().find('[data-asked="note"]');
      await page().press('lay out', Key.ENTER);
      await until(id, '{key: Eb}\n{comment: lay out}\n| Fm7 | Bb7 | Ebmaj7 | C7b9 |\n| Fm7 | Bb7 |\n');
      await page().press(Key.ARROW_RIGHT);
      expect(await page().attributes('[data-bar-button]', 'aria-label')).toContain(
        'Bar 1: Fm7 on beat 1. note: lay out'
      );
      await page().press(Key.ESCAPE, 'p');
      await page().find('[aria-label="Rehearse"]');
      await page().clickNamed('Play');
      await page().until(
        async () => (await page().texts('[data-stand-remark]'))[0] === 'lay out',
        'the note on the stand'
      );
      await page().press(Key.ESCAPE);
    });

    it('are dragged by their number with the pointer, and deleted by keys, bar after bar', async () => {
      const id = await open('| Fm7 | Bb7 | Ebmaj7 | C7b9 |\n');
      const grip = await page().find('[data-bar="3"] [data-grip]');
      await browser()
        .actions()
        .move({ origin: grip })
        .press()
        .move({ origin: await page().find('[data-bar="0"] [data-grip]'), duration: 200 })
        .release()
        .perform();
      await until(id, '| C7b9 | Fm7 | Bb7 | Ebmaj7 |\n');
      await page().press(Key.HOME, Key.DELETE);
      await until(id, '| | Fm7 | Bb7 | Ebmaj7 |\n');
      await page().press(Key.DELETE);
      await until(id, '| Fm7 | Bb7 | Ebmaj7 |\n');
    });

    it('go on in charts of 2,000 bars and in 320 pixels', async () => {
      await open(`${'| Fm7 | Bb7 | Ebmaj7 | C7b9 |\n'.repeat(500)}`);
      expect(await browser().executeScript('return document.querySelectorAll("*").length')).toBeLessThan(
        8000
      );
      await page().press(Key.END, 'G7', Key.ENTER);
      await page().until(async () => (await at()).startsWith('New bar 2002'), 'the bar behind the last');
      await setViewport(browser(), 320, 800);
      try {
        await page().press(Key.HOME);
        await page().until(async () => (await at()).startsWith('Bar 1,'), 'the first bar');
        expect(
          await browser().executeScript('return document.documentElement.scrollWidth <= innerWidth')
        ).toBe(true);
      } finally {
        await setViewport(browser(), 1280, 800);
      }
    });

    it('one section is practised as a chart of its own, and compared with the whole', async () => {
      await open(TUNE);
      await page().press(Key.END, Key.ARROW_LEFT);
      await (await page().find('[data-menu="Form"]')).click();
      await (await page().find('[data-item="Practise the section alone"]')).click();
      await page().until(
        async () => (await page().texts('[data-sonner-toast]')).join().includes('“Second Watch, section C”'),
        'the chart of the section'
      );
      const { body } = await tools().server.call<{ charts: { id: string; title: string }[] }>(
        'GET',
        'songbook?search=section'
      );
      const own = body.charts.find(({ title }) => title === 'Second Watch, section C')!;
      expect(plain(await sourceOf(own.id))).toContain('| Dbmaj7 | G7b9 | Cm7 | Fm7 |');
      await page().press(Key.ESCAPE);
      await page().chord(Key.CONTROL, 'k');
      await page().find('[data-finder] input');
      await page().press('Compare with another chart');
      await page().until(
        async () => /Compare with another/.test((await page().texts('[data-found]'))[0] ?? ''),
        'the command'
      );
      await page().press(Key.ENTER);
      await (await page().find('[aria-label="Find a chart to compare"]')).sendKeys('Watch, section');
      await page().until(async () => (await page().all('[data-other]')).length === 1, 'the one chart');
      await (await page().find('[data-other="Second Watch, section C"]')).click();
      await page().until(
        async () => (await page().attributes('[data-compared]', 'data-compared'))[0] === '24',
        'the bars that the section has not'
      );
      await page().press(Key.ESCAPE);
    });
  });
}
