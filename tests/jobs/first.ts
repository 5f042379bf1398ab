/** First jobs: a newcomer, the drawing, editing, choices, the songbook, what is kept, the boundary. */
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Key, type WebDriver } from 'selenium-webdriver';
import { beforeAll, describe, expect, it } from 'vitest';
import { AT_FIVE } from '../plan';
import type { Page } from '../page';
import { Server } from '../server';
import type { Tools } from './neck';

const NEWCOMER = '| Fm7 | Bb7 | Ebmaj7 | C7b9 |';

interface Cell {
  string: number;
  fret: number;
  note: string;
  degree: string;
  midi: number;
  finger: number;
}

export function firstJobs(tools: () => Tools): void {
  let server: Server;
  let browser: WebDriver;
  let page: Page;
  beforeAll(() => ({ server, browser, page } = tools()));

  /** The targets are there after a reload, and after the server was stopped and started. */
  async function expectKept(targets: readonly string[]): Promise<void> {
    const { pathname } = new URL(await browser.getCurrentUrl());
    await page.open(pathname);
    expect(await page.targets()).toEqual(targets);
    await server.stop();
    await server.start();
    await page.open(pathname);
    expect(await page.targets()).toEqual(targets);
  }

  async function newChart(source: string): Promise<string> {
    const { body } = await server.call<{ id: string }>('POST', 'songbook', { source, plan: AT_FIVE });
    return body.id;
  }

  describe('a newcomer', () => {
    it('types a progression, sees the path, moves, fixes a target, reloads, restarts: it is all there', async () => {
      await page.open('/');
      await page.replaceText(await page.find('textarea'), NEWCOMER);
      await page.until(async () => (await page.texts('#verdict'))[0]!.includes('E♭ major'), 'the verdict');
      await page.clickNamed('Open it with a plan');
      await page.until(async () => (await page.targets()).length === 4, 'four targets');

      // The path runs through thirds and sevenths only.
      const degrees = await page.attributes('[data-target]', 'data-degree');
      expect(degrees.every((degree) => /[37]$/.test(degree!))).toBe(true);

      // The hand begins where it has it easiest.
      const start = await page.position();
      await page.press(Key.ARROW_UP, Key.ARROW_UP, Key.ARROW_UP);
      await page.until(async () => (await page.position()) === start + 3, 'three frets up');

      // Click another tone of the third chord in Threads: it becomes the target.
      const tone = await page.find('[data-change="2"] [data-degree="5"]');
      await browser.actions().move({ origin: tone }).click().perform();
      await page.until(
        async () => (await page.texts('[data-path-summary]'))[0]!.includes('3 of 4'),
        'a fixed fifth'
      );
      const before = await page.targets();
      await page.saved();

      await expectKept(before);
      expect(await page.position()).toBe(start + 3);
      expect((await page.texts('[data-change="0"]')).length).toBe(1);
    });

    it('does the same by keyboard alone', async () => {
      await page.open('/');
      // Tab until the text field has the focus.
      for (let i = 0; i < 60; i++) {
        await page.press(Key.TAB);
        if (await browser.executeScript('return document.activeElement.tagName === "TEXTAREA"')) break;
      }
      await page.press('| Gm7 | C7 | Fmaj7 | D7b9 |');
      await page.chord(Key.CONTROL, Key.ENTER);
      await page.until(async () => (await page.targets()).length === 4, 'four targets');
      const start = await page.position();
      await page.press(Key.ARROW_RIGHT, Key.ARROW_DOWN, Key.ARROW_DOWN, '5');
      await page.until(async () => (await page.position()) === start - 2, 'two frets down');
      await page.until(
        async () => (await page.attributes('[data-change="1"] [data-target]', 'data-degree'))[0] === '5',
        'the fifth'
      );
      // Once more: the same degree in another octave.
      const first = (await page.targets())[1];
      await page.press('5');
      await page.until(async () => (await page.targets())[1] !== first, 'the next octave');
      const before = await page.targets();
      await page.saved();
      await expectKept(before);
      expect(await page.position()).toBe(start - 2);
    });
  });

  describe('the drawing', () => {
    it('shows every note where the core says it lies', async () => {
      for (const [chord, scale] of [
        ['Abm7', 'Ab dorian'],
        ['Db7', 'Db mixolydian'],
        ['Gbmaj7', 'Gb major'],
        ['F#m7b5', 'F# locrian natural 2']
      ] as const) {
        const context: Record<string, string> = {
          Abm7: '{key: Gb}\n| Abm7 | Db7 |',
          Db7: '{key: Gb}\n| Db7 | Gbmaj7 |',
          Gbmaj7: '{key: Gb}\n| Gbmaj7 | Ebm7 |',
          'F#m7b5': '{key: Em}\n| F#m7b5 | B7 |'
        };
        const id = await newChart(context[chord]!);
        await page.open(`/charts/${id}`);
        const drawn = await browser.executeScript<Record<string, string>[]>(
          'return [...document.querySelectorAll("[data-cell]")].map((e) => ({ ...e.dataset }))'
        );
        const { body } = await server.call<{ cells: Cell[] }>('POST', 'shape', { chord, scale, position: 5 });
        const expected = body.cells
          .map((c) => `${c.string}:${c.fret} ${c.note} ${c.degree} ${c.finger}`)
          .sort();
        expect(drawn.map((d) => `${d.cell} ${d.note} ${d.degree} ${d.finger}`).sort()).toEqual(expected);
        // The same notes are there to be heard by a screen reader.
        const spoken = await page.texts('section[aria-label="Neck"] li');
        for (const { string, fret } of body.cells) {
          expect(spoken[string - 1]).toContain(`String ${string}: `);
          expect(spoken[string - 1]).toContain(fret === 0 ? 'open, ' : `fret ${fret}, `);
        }
      }
    });

    it('draws the solved path of the route', async () => {
      const id = await newChart(NEWCOMER);
      await page.open(`/charts/${id}`);
      const { body } = await server.call<{ paths: { targets: { change: number; cell: Cell }[] }[] }>(
        'POST',
        'targets',
        {
          chart: NEWCOMER,
          position: 5,
          degrees: ['3', '7'],
          loop: true
        }
      );
      expect(await page.targets()).toEqual(body.paths[0]!.targets.map((t) => `${t.change}:${t.cell.midi}`));
      // The ghost is the next target; the tail leads there, or a bar says that it stays.
      const next = body.paths[0]!.targets[1]!.cell;
      expect(await page.attributes('[data-ghost]', 'data-ghost')).toEqual([`${next.string}:${next.fret}`]);
    });

    it('cycles labels, goes left-handed and changes its theme', async () => {
      const id = await newChart(NEWCOMER);
      await page.open(`/charts/${id}`);
      const label = async () => (await page.texts('[data-cell][data-degree="b3"] text'))[0];
      expect(await label()).toBe('♭3');
      await page.press('l');
      await page.until(async () => (await label()) === 'A♭', 'names');
      await page.press('l');
      await page.until(async () => /^[1-4]$/.test((await label())!), 'fingers');
      await page.press('l');
      await page.press('t');
      await page.until(
        async () => (await page.attributes('html', 'data-theme'))[0] === 'stage',
        'the Stage theme'
      );
      await page.press('t');
      await page.clickNamed('More');
      await page.clickNamed('Your guitar');
      const box = await browser.wait(
        async () => (await page.all('[role="dialog"] [role="switch"]'))[2],
        5000
      );
      const x = () =>
        browser.executeScript<number>(
          'return +document.querySelector("[role=slider] text").getAttribute("x")'
        );
      const right = await x();
      await box!.click();
      await page.until(async () => (await x()) !== right, 'the mirrored neck');
      await box!.click();
      await page.press(Key.ESCAPE);
    });
  });

  describe('editing', () => {
    it('checks while typing, keeps targets on their changes, and undoes', async () => {
      const id = await newChart(NEWCOMER);
      await page.open(`/charts/${id}`);
      await page.press(Key.END, '1');
      await page.until(
        async () => (await page.attributes('[data-change="3"] [data-target]', 'data-degree'))[0] === '1',
        'the root'
      );
      await page.press('e');
      const editor = await page.find('.cm-content');
      await editor.click();
      await page.chord(Key.CONTROL, Key.HOME);
      await page.press('| Gm7b5 ');
      await page.until(async () => (await page.targets()).length === 5, 'five changes');
      expect((await page.attributes('[data-change="4"] [data-target]', 'data-degree'))[0]).toBe('1');

      await page.chord(Key.CONTROL, Key.END);
      await page.press(' Dmi8 |');
      await page.until(
        async () =>
          (await page.texts('section[aria-label="Chart editor"] li')).some((t) => t.includes('Dmi8')),
        'the problem'
      );
      expect(await page.targets()).toHaveLength(5);
      await page.press(Key.ESCAPE);
      await page.until(async () => (await page.all('.cm-content')).length === 0, 'a closed editor');
      // What is typed after a pause, as on a busy machine, is a step of its own.
      const stepsTo = async (key: string, changes: number) => {
        const count = async () => (await page.attributes('[data-change]', 'data-change')).length;
        for (let step = 0; step < 12 && (await count()) !== changes; step++) {
          await page.chord(Key.CONTROL, key);
          await page.settled();
        }
        expect(await count()).toBe(changes);
      };
      await stepsTo('z', 4);
      await stepsTo('y', 6);
      await page.saved();
    });

    it('moves the hand by dragging and the thread by dragging', async () => {
      const id = await newChart(NEWCOMER);
      await page.open(`/charts/${id}`);
      const handle = await page.find('[role="slider"] text');
      await browser
        .actions()
        .move({ origin: handle })
        .press()
        .move({ origin: handle, x: 140, y: 0 })
        .release()
        .perform();
      expect(await page.position()).toBeGreaterThan(6);
      const start = await page.find('[data-change="1"] [data-target]');
      const goal = await page.find('[data-change="1"] [data-degree="1"]');
      await browser.actions().move({ origin: start }).press().move({ origin: goal }).release().perform();
      await page.until(
        async () => (await page.attributes('[data-change="1"] [data-target]', 'data-degree'))[0] === '1',
        'the dragged thread'
      );
      await page.press('0');
      await page.until(
        async () => (await page.attributes('[data-change="1"] [data-target]', 'data-degree'))[0] !== '1',
        'the free thread'
      );
      await page.saved();
    });

    it('picks another target line and finds commands and charts in the palette', async () => {
      const id = await newChart(NEWCOMER);
      await page.open(`/charts/${id}`);
      await page.chord(Key.CONTROL, 'k');
      await page.find('[role="dialog"] input');
      await page.press('foghorns');
      await page.until(
        async () => (await page.texts('[data-found="Charts"]')).join().includes('Four Foghorns'),
        'the chart in the list'
      );
      await page.press(Key.ENTER);
      await page.until(async () => (await page.texts('h1'))[0] === 'Four Foghorns', 'the chart found');
      await page.clickNamed('other lines');
      await page.pick('How the target line is led', '7');
      await page.until(
        async () => (await page.attributes('[data-target]', 'data-degree')).every((d) => d === '7'),
        'sevenths'
      );
      await page.saved();
    });

    it('never loses a text that is too long or cannot be read', async () => {
      const id = await newChart(NEWCOMER);
      await page.open(`/charts/${id}`);
      await page.press('e');
      await (await page.find('.cm-content')).click();
      await page.paste(`\n${'# ferry '.repeat(9000)}`);
      await page.until(
        async () => (await page.texts('[role="alert"]'))[0]?.includes('64 KiB') ?? false,
        'the sentence'
      );
      expect(await page.attributes('[data-save-state]', 'data-save-state')).toEqual(['refused']);
      await page.press(Key.ESCAPE);
      await page.chord(Key.CONTROL, 'z');
      await page.saved();
    });
  });

  describe('the choices', () => {
    const CHART = '{key: Eb}\n| Fm7 | Bb7 | Ebmaj7 | % |\n| Fm7 | Bb7 | Ebmaj7 | C7b9 |';
    const chosen = async () => (await page.attributes('[data-chosen]', 'data-chosen'))[0];

    it('previews, takes, applies to all like this, undoes, and is there after a reload', async () => {
      const id = await newChart(CHART);
      await page.open(`/charts/${id}`);
      expect(await chosen()).toBe('F dorian');
      // By keyboard: to the choices, down to another one, take it.
      await page.press('c');
      await page.until(
        async () => (await browser.executeScript('return document.activeElement.dataset.choice')) !== null,
        'a choice in focus'
      );
      for (let i = 0; i < 40; i++) {
        if (
          (await browser.executeScript('return document.activeElement.dataset.choice')) ===
          'F minor pentatonic'
        )
          break;
        await page.press(Key.ARROW_DOWN);
      }
      // The preview is on the neck already: no 9 in the pentatonic.
      await page.until(
        async () => !(await page.attributes('[data-cell]', 'data-degree')).includes('9'),
        'the preview'
      );
      await page.press(Key.ENTER);
      await page.until(async () => (await chosen()) === 'F minor pentatonic', 'the choice taken');
      await page.press(Key.ESCAPE, 'a');
      const titles = () => page.texts('section[aria-label="Hands"] button');
      await page.until(
        async () => (await titles()).filter((t) => t.includes('F Minor pentatonic')).length === 2,
        'both ii chords'
      );
      await page.saved();
      await page.open(`/charts/${id}`);
      expect(await chosen()).toBe('F minor pentatonic');
      const offer = await server.call<{ changes: { choices: { approach: string; name: string }[] }[] }>(
        'POST',
        'scale-choices',
        { chart: CHART }
      );
      const drawn = await page.attributes('[data-choice]', 'data-choice');
      const names = offer.body.changes[0]!.choices.map((c) => c.name);
      expect(drawn.length).toBeGreaterThan(8);
      for (const name of drawn) expect(names).toContain(name);
      await page.clickNamed('Reset');
      await page.until(async () => (await chosen()) === 'F dorian', 'the first choice again');
      await page.chord(Key.CONTROL, 'z');
      await page.until(async () => (await chosen()) === 'F minor pentatonic', 'the undone choice');
    });

    it('compares two choices on the neck', async () => {
      const id = await newChart(CHART);
      await page.open(`/charts/${id}`);
      await page.clickNamed('Compare F dorian');
      await page.clickNamed('Compare F aeolian');
      await page.until(async () => (await page.all('[data-share]')).length > 0, 'the comparison');
      const shares = await page.attributes('[data-share]', 'data-share');
      expect(new Set(shares)).toEqual(new Set(['both', 'first', 'second']));
      // D is in the Dorian only, D flat in the Aeolian only.
      await page.clickNamed('end');
      await page.until(async () => (await page.all('[data-share]')).length === 0, 'the notes again');
    });

    it('takes a cadence at once and dials between key centre and chord by chord', async () => {
      const id = await newChart(CHART);
      await page.open(`/charts/${id}`);
      await (await page.find('[data-chains] button')).click();
      const take = await browser.findElements({
        xpath: '//section[@aria-label="Choices"]//button[normalize-space()="use it for the cadence"]'
      });
      await take[0]!.click();
      await page.until(async () => /minor pentatonic$/.test((await chosen())!), 'the chain');
      // IV then I over the cadence, going over within the V, on a beat that can be dragged.
      await page.until(async () => (await page.all('[data-chains]')).length === 1, 'the ideas');
      if ((await page.attributes('[data-chains] button', 'aria-expanded'))[0] === 'false')
        await (await page.find('[data-chains] button')).click();
      const chains = await browser.findElements({
        xpath: '//section[@aria-label="Choices"]//button[normalize-space()="use it for the cadence"]'
      });
      await chains[1]!.click();
      await page.until(async () => (await chosen()) === 'Abmaj7 arpeggio', 'IV over ii');
      await page.press(Key.ARROW_RIGHT);
      await page.until(
        async () => (await page.attributes('[data-change-over]', 'data-change-over'))[0] === '3',
        'the change-over on beat 3'
      );
      await page.slide('Beat of the change-over in this change', Key.ARROW_LEFT);
      await page.until(
        async () => (await page.attributes('[data-change-over]', 'data-change-over'))[0] === '2',
        'the change-over on beat 2'
      );
      await page.slide('Changes outlined', Key.HOME);
      await page.until(
        async () => (await page.texts('[data-outlined]'))[0]!.startsWith('on 0 of 8'),
        'key centre'
      );
      await page.press(Key.ARROW_RIGHT);
      await page.until(
        async () => (await page.texts('[data-outlined]'))[0]!.startsWith('on 1 of 8'),
        'one outlined'
      );
      // The chord that the key serves worst is outlined first.
      const titles = () => page.texts('section[aria-label="Hands"] button');
      await page.until(async () => (await titles())[7]!.includes('C Altered'), 'the chord outlined');
      expect((await titles())[3]).toContain('E♭ Major');
      await page.until(
        async () => (await page.texts('[data-union]'))[0]!.startsWith('Together'),
        'the union'
      );
      await page.saved();
    });

    it('overrules the key of a change', async () => {
      const id = await newChart(CHART);
      await page.open(`/charts/${id}`);
      await page.clickNamed('Change key or function');
      await page.pick('Key of this change', 'Ab');
      await page.until(
        async () =>
          (await page.texts('section[aria-label="This change"] header'))[0]!.includes('vi7 in A♭ major'),
        'the other key'
      );
      await page.until(async () => (await chosen()) === 'F aeolian', 'the mode of the other key');
      await page.saved();
      await page.open(`/charts/${id}`);
      expect((await page.texts('section[aria-label="This change"] header'))[0]).toContain('vi7 in A♭ major');
      await page.chord(Key.CONTROL, 'k');
      await page.press(Key.ESCAPE);
    });

    it('reads the chord table and follows a line from it', async () => {
      const id = await newChart(CHART);
      await page.open(`/charts/${id}`);
      await page.press('b');
      await page.until(
        async () => (await page.texts('[role="dialog"] tbody tr')).length === 8,
        'a row a chord'
      );
      const { body } = await server.call<{ columns: { notes: string[] }[] }>('POST', 'guide-tones', {
        chart: CHART
      });
      const thirds = (await page.texts('[role="dialog"] tbody tr td:nth-child(3) span:first-child')).map(
        (t) => t.replace('♭', 'b')
      );
      expect(thirds).toEqual(body.columns[1]!.notes);
      await page.clickNamed('Sevenths');
      await page.until(
        async () => (await page.attributes('[data-target]', 'data-degree')).every((d) => /7$/.test(d!)),
        'the sevenths'
      );
      await page.press('b');
      await page.find('[role="dialog"] li button');
      await (await page.all('[role="dialog"] li button'))[1]!.click();
      await page.until(
        async () =>
          (await page.attributes('[data-target]', 'data-degree')).slice(0, 3).join(' ') === 'b3 b7 3',
        'the thread of the third'
      );
      await page.saved();
    });

    it('says what the scale of the key costs where it cannot be played', async () => {
      const id = await newChart('{key: C}\n| Cmaj7 | Fm7 | Cmaj7 |');
      await page.open(`/charts/${id}`);
      expect(await page.all('[data-denied]')).toHaveLength(0);
      await page.press(Key.ARROW_RIGHT);
      await page.until(
        async () =>
          (await page.texts('[data-denied]'))[0] ===
          'C Major does not hold here: it lacks its ♭3, ♭7 and sounds a 7, 3 against it.',
        'the price of the key'
      );
    });

    it('gives a chord that is not understood no choices and says why', async () => {
      const id = await newChart('| Gm7 | Czz |');
      await page.open(`/charts/${id}`);
      await page.press(Key.ARROW_RIGHT);
      await page.until(
        async () => (await page.texts('section[aria-label="Choices"]'))[0]!.includes('not understood'),
        'the reason'
      );
      const { status, body } = await server.call<{ error: { message: string } }>('POST', 'scale-choices', {
        chart: '| C |',
        approaches: ['humming']
      });
      expect(status).toBe(400);
      expect(body.error.message).toContain('humming');
    });
  });

  describe('the songbook', () => {
    it('finds, renames, duplicates, deletes and brings back', async () => {
      await page.open('/');
      const titles = () => page.texts('[data-charts] a');
      const search = await page.find('input[type="search"]');
      await search.sendKeys('waltz');
      await page.until(async () => (await titles()).join() === 'Waltz for the Night Steward', 'the waltz');
      await page.clickNamed('Duplicate Waltz for the Night Steward');
      await page.until(async () => (await titles()).length === 2, 'the copy');
      await page.clickNamed('Rename Waltz for the Night Steward (copy)');
      await page.press('Waltz at Slack Water', Key.ENTER);
      await page.until(async () => (await titles()).includes('Waltz at Slack Water'), 'the new title');
      await page.clickNamed('Delete Waltz at Slack Water');
      await page.until(async () => (await titles()).length === 1, 'one chart');
      await page.clickNamed('Undo');
      await page.until(async () => (await titles()).length === 2, 'the chart again');
    });

    it('says when nothing matches and why a text is too large', async () => {
      await page.open('/');
      await (await page.find('input[type="search"]')).sendKeys('zzzz');
      await page.until(
        async () => (await page.texts('[data-charts] li'))[0]!.includes('No chart matches'),
        'the empty list'
      );
      await browser.executeScript(
        `const field = document.querySelector('textarea'); field.value = 'x'.repeat(70 * 1024); field.dispatchEvent(new Event('input', { bubbles: true }));`
      );
      await page.until(async () => (await page.texts('#verdict'))[0]!.includes('64 KiB'), 'the sentence');
    });
  });

  describe('what is kept', () => {
    it('survives a kill in the middle of edits: every acknowledged save is there', async () => {
      const own = new Server(join(mkdtempSync(join(tmpdir(), 'corvel-')), 'songbook.db'), false);
      await own.start();
      const { body } = await own.call<{ id: string }>('POST', 'songbook', { source: '| C |' });
      const plan = AT_FIVE;
      let acknowledged = 1;
      for (let round = 0; round < 3; round++) {
        // In the middle of the edits, however slow the machine is: a moment after some have been acknowledged.
        let killing: Promise<unknown> | null = null;
        let saves = 0;
        for (;;) {
          const answer = await own
            .call<{ version: number }>('PUT', `songbook/${body.id}`, {
              base: acknowledged,
              source: `| C | ${'F '.repeat((acknowledged % 4) + 1)}|`,
              plan
            })
            .catch(() => null);
          if (!answer || answer.status !== 200) break;
          acknowledged = answer.body.version;
          saves += 1;
          if (saves === 3) {
            killing = new Promise((resolve) => setTimeout(resolve, 40)).then(() => own.stop('SIGKILL'));
          }
        }
        await killing;
        await own.start();
        const kept = await own.call<{ version: number }>('GET', `songbook/${body.id}`);
        // The last write may have been stored without its answer getting through; none that was answered is missing.
        expect(kept.body.version).toBeGreaterThanOrEqual(acknowledged);
        expect(kept.body.version).toBeLessThanOrEqual(acknowledged + 1);
        acknowledged = kept.body.version;
      }
      expect(acknowledged).toBeGreaterThan(9);
      await own.stop();
    });

    it('offers both versions when another window saved first', async () => {
      const id = await newChart(NEWCOMER);
      await page.open(`/charts/${id}`);
      const { body } = await server.call<{ plan: object }>('GET', `songbook/${id}`);
      await server.call('PUT', `songbook/${id}`, {
        base: 1,
        source: '{title: Other Window}\n| C |',
        plan: body.plan
      });
      await page.press(Key.ARROW_UP);
      await page.until(async () => (await page.all('[data-notice="stale"]')).length === 1, 'the question');
      await page.clickNamed('Use the other one');
      await page.until(async () => (await page.texts('h1'))[0] === 'Other Window', 'the other version');
      const { body: kept } = await server.call<{ source: string }>('GET', `songbook/${id}`);
      expect(kept.source).toContain('Other Window');
    });

    it('goes back to an earlier version', async () => {
      const id = await newChart(NEWCOMER);
      await page.open(`/charts/${id}`);
      await page.press(Key.ARROW_UP);
      await page.saved();
      await page.clickNamed('More');
      await page.clickNamed('Earlier versions');
      await page.until(async () => (await page.texts('[role="dialog"] li')).length === 2, 'two versions');
      const back = (await page.all('[role="dialog"] li button'))[1]!;
      await back.click();
      await page.until(async () => (await page.position()) === 5, 'the first position');
      await page.saved();
    });
  });

  describe('the boundary', () => {
    it('answers errors with sentences', async () => {
      const post = (path: string, body: unknown) =>
        server.call<{ error: { code: string; message: string } }>('POST', path, body);
      expect((await post('analysis', { chart: '' })).status).toBe(400);
      expect((await post('analysis', { chart: 'x'.repeat(70_000) })).status).toBe(413);
      expect((await post('analysis', { chart: 'x'.repeat(700_000) })).status).toBe(413);
      expect((await post('targets', { chart: '| C |', position: 99 })).body.error.message).toContain(
        'off this neck'
      );
      const notJson = await fetch(`${server.url}/api/v1/shape`, { method: 'POST', body: '{' });
      expect(notJson.status).toBe(400);
    });

    it('takes changes from its own pages only', async () => {
      const foreign = await fetch(`${server.url}/api/v1/songbook`, {
        method: 'POST',
        headers: { origin: 'http://elsewhere.example', 'content-type': 'application/json' },
        body: '{"source":"| C |"}'
      });
      expect(foreign.status).toBe(403);
    });

    it('runs no inline script and loads nothing from elsewhere', async () => {
      const response = await fetch(`${server.url}/`);
      const policy = response.headers.get('content-security-policy')!;
      expect(policy).toContain("default-src 'self'");
      // WebAssembly, which stretches recordings, is all that may be made into code.
      const scripts = /script-src ([^;]*)/.exec(policy)![1]!.split(' ');
      const allowed = scripts.filter((source) => !source.startsWith("'nonce-"));
      expect(allowed).toEqual(["'self'", "'wasm-unsafe-eval'"]);
    });
  });
}
