/** Jobs of practice: a session by touch from plan to log, the trainer by keyboard alone, the log corrected, a server that is away. */
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Key } from 'selenium-webdriver';
import { describe, expect, it } from 'vitest';
import type { StoredCard, StoredItem, StoredRow, Today } from '../../src/lib/api/practice';
import { DEFAULT_SETTINGS } from '../../src/lib/api/default-settings';
import { readChord } from '../../src/lib/core/theory/chord-reader';
import { asciiAccidentals } from '../../src/lib/core/theory/typeset';
import type { Tools } from './neck';
import { AT_FIVE } from '../plan';

/** A waltz in flats, two bars, so that a round is over soon. */
const TUNE = '{title: Ebb Tide Job}\n{key: Db}\n{time: 3/4}\n{tempo: 240}\n| Ebm7 | Ab7 |';

export function practiceJobs(tools: () => Tools): void {
  const page = () => tools().page;
  const browser = () => tools().browser;
  const call = <T>(method: string, path: string, body?: unknown) =>
    tools().server.call<T>(method, `practice/${path}`, body);

  /** A chart of its own, with nothing else to practise. */
  async function alone(after: readonly string[] = []): Promise<string> {
    const { server } = tools();
    await page().settings(DEFAULT_SETTINGS);
    for (const { id } of (await call<{ items: StoredItem[] }>('GET', 'items')).body.items) {
      await call('DELETE', `items/${encodeURIComponent(id)}`);
    }
    const { body } = await server.call<{ id: string }>('POST', 'songbook', { source: TUNE, plan: AT_FIVE });
    const data = (what: string, name: string) => ({
      what,
      name,
      area: 5,
      key: 'Db',
      after,
      tempo: { start: 240, goal: 250 }
    });
    await call('POST', 'items', {
      items: [
        { id: `${body.id}:Db:5:up`, chart: body.id, data: data('up', 'Ascending') },
        { id: `${body.id}:Db:5:targets`, chart: body.id, data: data('targets', 'Targets alone') },
        {
          id: `${body.id}:Db:form`,
          chart: body.id,
          data: { ...data('band', 'The whole form'), area: null, form: true }
        }
      ]
    });
    return body.id;
  }
  const rowsOf = async (chart: string) =>
    (await call<{ rows: StoredRow[] }>('GET', `log?chart=${chart}`)).body.rows;
  const forget = () => browser().executeScript('localStorage.clear()');
  const tap = (css: string, text?: string) => page().finger.tap(css, text === undefined ? {} : { text });

  /** A tablet upright, touched; the browser is as it was afterwards. */
  async function onTablet(job: () => Promise<void>): Promise<void> {
    try {
      await page().finger.on(820, 1180, job);
    } finally {
      await forget();
    }
  }
  /** The plan of today for ten minutes, chosen by a finger. */
  async function planTen(): Promise<void> {
    await page().open('/today');
    await forget();
    await tap('[aria-label="Usual lengths"] button', '10');
    await page().until(
      async () => (await page().attributes('[data-planned]', 'data-planned'))[0] === '10',
      'a plan for ten minutes'
    );
  }

  describe('practice', () => {
    it('runs a session by touch, from the plan to the log', async () => {
      const chart = await alone();
      await onTablet(async () => {
        await planTen();
        const kinds = await page().attributes('[data-plan] [data-part]', 'data-part');
        expect(kinds).toContain('new');
        expect(kinds.at(-1)).toBe('form');
        // The cards are for another job.
        if (kinds[0] === 'cards') await tap('[aria-label="Skip Cards"]');
        await tap('button', 'Start');
        // Started once: the band begins, and the clock of the part with it.
        await page().find('[data-stand]');
        expect(await browser().getCurrentUrl()).toContain(`/charts/${chart}?view=rehearse`);
        expect((await page().texts('[data-stand-clock]'))[0]).toMatch(/^\d:\d\d$/);
        await page().until(
          async () => (await page().all('[data-mark="not marked"]')).length > 0,
          'a round to be over'
        );
        await tap('[data-marks] button', 'clean');
        await page().until(
          async () => (await page().texts('[data-marks] button')).includes('clean (1)'),
          'the mark'
        );
        // A touch brings the slim bar; the next part begins by itself.
        await tap('[data-stand] [aria-label="Neck"]');
        await tap('[data-slim] button', 'next');
        await page().until(
          async () => (await page().texts('[data-session-part]'))[0] !== 'Ascending',
          'the next part'
        );
        await page().find('[data-stand]');
        await tap('[aria-label="Stop"]');
        await page().find('[data-assigned]');
        await tap('[data-session] [aria-label="Skip it"]');
        await page().until(
          async () =>
            (await page().attributes('[data-session]', 'data-at'))[0] ===
            String(kinds.filter((kind) => kind !== 'cards').length),
          'the end'
        );
        // The session is over: the desk is the player's own again.
        expect(await page().all('[data-assigned]')).toHaveLength(0);
        await tap('[data-session] button', 'to the log');
        await page().find('[data-row]');
        expect(await page().texts('[data-row] b')).toContain('Ascending');
        const rows = await rowsOf(chart);
        expect(
          rows.some(
            ({ clean, tempo, area, key, item }) =>
              clean === true && tempo === 240 && area === 5 && key === 'Db' && item === `${chart}:Db:5:up`
          )
        ).toBe(true);
        expect(rows.reduce((sum, { rounds }) => sum + rounds, 0)).toBeGreaterThan(0);
      });
    });

    it('runs a part by keys alone: started, marked, stopped, in the log', async () => {
      const chart = await alone();
      await page().open('/today');
      await forget();
      await page().open('/today');
      await page().find('[data-plan] [data-part]');
      const focus = (text: string, within = 'body') =>
        page().until(
          async () =>
            (await browser().executeScript<boolean>(
              `const one = [...document.querySelectorAll(arguments[1] + ' button')].find((b) => b.textContent.trim() === arguments[0] && !b.disabled);
               one?.focus(); return one !== undefined && document.activeElement === one;`,
              text,
              within
            )) === true,
          `the focus on ${text}`
        );
      // The cards are for another job.
      if ((await page().attributes('[data-plan] [data-part]', 'data-part'))[0] === 'cards')
        await page().clickNamed('Skip Cards');
      await focus('Start');
      await page().press(Key.ENTER);
      await page().find('[data-stand]');
      await page().until(
        async () => (await page().all('[data-mark="not marked"]')).length > 0,
        'a round to be over'
      );
      await page().press('c');
      await page().until(
        async () => (await page().texts('[data-marks] button')).includes('clean (1)'),
        'the mark'
      );
      await page().press(Key.SPACE);
      await page().find('[data-desk]');
      // The focus is where the band is started again.
      expect(await browser().executeScript(`return document.activeElement.getAttribute('aria-label')`)).toBe(
        'Play'
      );
      await page().until(async () => (await rowsOf(chart)).some(({ clean }) => clean === true), 'the log');
      await browser().executeScript(`document.querySelector('[aria-label="End the session"]').focus()`);
      await page().press(Key.ENTER);
      await page().until(async () => (await page().all('[data-assigned]')).length === 0, 'the own desk');
      await forget();
    });

    it('comes back from a break for a date: lower, by the set list, with the section that stumbled, by touch', async () => {
      await alone();
      for (const { id } of (await call<{ items: StoredItem[] }>('GET', 'items')).body.items)
        await call('DELETE', `items/${encodeURIComponent(id)}`);
      for (const { id } of (await call<{ setLists: { id: string }[] }>('GET', 'set-lists')).body.setLists)
        await call('DELETE', `set-lists/${id}`);
      const { body } = await tools().server.call<{ id: string }>('POST', 'songbook', {
        source:
          '{title: Slack Water Job}\n{key: Bbm}\n{time: 2/4}\n{tempo: 280}\n{start_of_grid label="A"}\n| Bbm | F7 | Bbm | F7 |\n{end_of_grid}\n{start_of_grid label="B"}\n| Ebm | Bbm | F7 | Bbm |\n{end_of_grid}',
        plan: AT_FIVE
      });
      const item = `${body.id}:Bbm:form`;
      const data = {
        what: 'band',
        name: 'The whole form',
        area: null,
        key: 'Bbm',
        after: [],
        tempo: { start: 196, goal: 280 },
        form: true
      };
      await call('POST', 'items', { items: [{ id: item, chart: body.id, data }] });
      const ago = (days: number) => new Date(Date.now() - days * 86_400_000).toISOString().slice(0, 10);
      const row = {
        id: crypto.randomUUID(),
        item,
        chart: body.id,
        kind: 'rehearse',
        what: 'The whole form',
        startedAt: Date.now() - 9 * 86_400_000,
        day: ago(9),
        seconds: 60,
        rounds: 6,
        tempo: 240,
        clean: false,
        key: 'Bbm',
        bars: { from: 1, to: 8 },
        loops: [[], [], [], [6], [7], []],
        revision: 1
      };
      await call('POST', 'log', { rows: [row] });
      const list = {
        id: crypto.randomUUID(),
        name: 'The ferry ball',
        data: { day: ago(-12), charts: [{ chart: body.id, tempo: 280, tuning: 'drop D' }] }
      };
      await call('POST', 'set-lists', list);
      await onTablet(async () => {
        await planTen();
        // Others were played yesterday: the break is this tune’s alone.
        expect((await page().texts('[data-word]'))[0]).toContain('A short day');
        expect((await page().texts('[data-driven]'))[0]).toContain('The ferry ball');
        const part = `[data-plan] [data-item="${item}"]`;
        expect((await page().texts(part))[0]).toContain('the whole, bars 5 to 8, the whole');
        const said = (await page().texts(part))[0]!;
        expect(said).toContain('Number 1 of 1 of the set in 12 days');
        // Two rungs under what was clean: nine days away.
        expect(said).toContain('221 bpm');
        if ((await page().all('[aria-label="Skip Cards"]')).length) await tap('[aria-label="Skip Cards"]');
        await tap('button', 'Start');
        await page().find('[data-stand]');
        expect((await page().texts('[data-stand-then]'))[0]).toContain('the whole (1 of 3)');
        await tap('[aria-label="Stop"]');
        await page().find('[data-assigned]');
        expect((await page().texts('[data-session]'))[0]).toContain('tuning: drop D');
        // Its stretches come by the clock: here they are seconds, not minutes.
        await browser().executeScript(
          `const kept = JSON.parse(localStorage.getItem('corvel-session'));
           kept.parts[kept.at].steps.forEach((step) => { step.minutes = 0.05; });
           localStorage.setItem('corvel-session', JSON.stringify(kept));`
        );
        await page().open(`/charts/${body.id}?view=rehearse`);
        await page().find('[data-assigned]');
        await tap('[aria-label="Play"]');
        await page().find('[data-stand]');
        await page().until(
          async () => (await page().texts('[data-stand-then]'))[0]?.includes('bars 5 to 8 (2 of 3)') === true,
          'the section'
        );
        await page().until(
          async () => (await page().texts('[data-stand-then]'))[0]?.includes('the whole (3 of 3)') === true,
          'the whole again'
        );
        await tap('[aria-label="Stop"]');
        const rows = await rowsOf(body.id);
        expect(rows.some(({ bars }) => bars?.from === 5 && bars.to === 8)).toBe(true);
        expect(rows.every((one) => one.item === item)).toBe(true);
      }).finally(() => call('DELETE', `set-lists/${list.id}`));
    });

    it('asks cards that are answered by keyboard alone, and remembers the answers', async () => {
      await alone();
      // Asked long ago: they come first.
      const questions = [
        { kind: 'spell', symbol: 'Gbm7b5' },
        { kind: 'moves', from: 'Eb7', to: 'Ab7', at: 5 },
        { kind: 'sing', symbol: 'Eb7', degree: '3' }
      ];
      await call('POST', 'reviews', {
        reviews: questions.map((question, i) => ({
          id: crypto.randomUUID(),
          question,
          at: 1_500_000_000_000 + i,
          day: '2017-07-14',
          isRight: true,
          seconds: 9
        }))
      });
      await page().open('/trainer');
      await forget();
      const before = (await call<{ cards: StoredCard[] }>('GET', 'cards')).body.cards;
      const reps = (cards: StoredCard[]) => cards.reduce((sum, { memory }) => sum + memory.reps, 0);
      await page().press(Key.ENTER);
      let spelled = 0;
      for (let card = 0; card < 40 && (card < 8 || spelled === 0); card++) {
        await page().find('[data-ask]');
        const kind = (await page().attributes('[data-trainer]', 'data-kind'))[0];
        const ask = (await page().texts('[data-ask]'))[0]!;
        if (kind === 'spell') {
          const reading = readChord(asciiAccidentals(ask.replace('Spell ', '')));
          const notes = reading.kind === 'chord' ? reading.chord.notes : [];
          await page().press(notes.join(' ').toLowerCase(), Key.ENTER);
        } else if (kind === 'find' || kind === 'nearest')
          await page().press(Key.ARROW_DOWN, Key.ARROW_RIGHT, Key.SPACE);
        else if (['octaves', 'moves', 'lacks', 'compare', 'phrase'].includes(kind ?? ''))
          await page().press(Key.ARROW_DOWN, Key.SPACE, Key.ENTER);
        else if (kind === 'sing') {
          // Where the button for the next card was pressed, Enter hears this one.
          await page().until(
            () => browser().executeScript('return document.activeElement.textContent.trim() === "hear it"'),
            'the focus on what is to be heard'
          );
          await page().press(Key.ENTER, '1');
        } else await page().press('1');
        await page().until(
          async () => (await page().all('[data-verdict]')).length > 0,
          `the verdict on ${kind}: ${ask}`
        );
        if (kind === 'spell') {
          spelled += 1;
          expect((await page().attributes('[data-verdict]', 'data-verdict'))[0], ask).toBe('right');
        }
        await page().press(Key.ENTER);
        await page().until(async () => (await page().all('[data-verdict]')).length === 0, 'the next card');
        if ((await page().all('[data-over]')).length > 0) break;
      }
      expect(spelled).toBeGreaterThan(0);
      await page().until(
        async () =>
          reps((await call<{ cards: StoredCard[] }>('GET', 'cards')).body.cards) >= reps(before) + 5,
        'the answers to be kept'
      );
      const { rows } = (await call<{ rows: StoredRow[] }>('GET', 'log?limit=5')).body;
      expect(rows.find(({ kind }) => kind === 'trainer')).toMatchObject({ what: 'Cards', rounds: 1 });
    });

    it('takes a note that is played by MIDI as the answer, in any octave', async () => {
      await alone();
      const question = { kind: 'find', symbol: 'Abm7', degree: 'b3', from: 4, to: 8 };
      const answer = { question, at: 1_400_000_000_000, day: '2014-05-13', isRight: true, seconds: 9 };
      await call('POST', 'reviews', { reviews: [{ id: crypto.randomUUID(), ...answer }] });
      await page().open('/trainer');
      // An instrument that is not there.
      await page().alter(`
        const input = {
          id: 'one', type: 'input', name: 'Guitar', manufacturer: '', state: 'connected', connection: 'open', version: '',
          open: async () => input, close: async () => input, addEventListener() {}, removeEventListener() {}
        };
        const access = { inputs: new Map([['one', input]]), outputs: new Map(), sysexEnabled: false, addEventListener() {}, removeEventListener() {} };
        Object.defineProperty(navigator, 'requestMIDIAccess', { value: async () => access, configurable: true });
        window.strike = (midi) => input.onmidimessage({ data: new Uint8Array([0x90, midi, 90]), timeStamp: performance.now(), target: input });
      `);
      await page().press(Key.ENTER);
      await page().until(
        async () => (await page().texts('[data-ask]'))[0]?.startsWith('Find the ♭3 of A♭m7') === true,
        'the card'
      );
      await page().clickNamed('MIDI');
      await page().until(
        async () =>
          (await page().attributes('[data-trainer] button[aria-pressed]', 'aria-pressed'))[0] === 'true',
        'MIDI to listen'
      );
      // A C flat, two octaves up.
      await browser().executeScript('window.strike(83)');
      await page().find('[data-verdict]');
      expect((await page().attributes('[data-verdict]', 'data-verdict'))[0]).toBe('right');
    });

    it('keeps what was played while the server was away, and what was cut off with the page', async () => {
      const chart = await alone();
      await page().open(`/charts/${chart}?view=rehearse`);
      await forget();
      await page().open(`/charts/${chart}?view=rehearse`);
      await page().clickNamed('Play');
      await page().until(async () => (await page().all('[data-mark]')).length > 0, 'a round');
      await tools().server.stop('SIGKILL');
      const known = (await page().all('[data-mark]')).length;
      await page().until(async () => (await page().all('[data-mark]')).length > known, 'another round');
      const waiting = () =>
        browser().executeScript<number>(
          `return JSON.parse(localStorage.getItem('corvel-log') ?? '[]').length`
        );
      await page().until(async () => (await waiting()) > 0, 'it to wait on the device');
      // The page is torn away mid-round; another one sends what the first could not.
      await tools().server.start();
      await page().open('/today?show=log');
      await page().until(async () => (await waiting()) === 0, 'nothing to wait');
      const rounds = (await rowsOf(chart)).reduce((sum, row) => sum + row.rounds, 0);
      expect(rounds).toBeGreaterThan(known);
    });

    it('tells which answers the server did not take, and lets go of them', async () => {
      await alone();
      await forget();
      await page().open('/trainer');
      const question = { kind: 'spell', symbol: 'Gbm7' };
      const review = {
        id: crypto.randomUUID(),
        question,
        at: 1,
        day: '2026-05-04',
        isRight: true,
        seconds: 2
      };
      await browser().executeScript(
        'localStorage.setItem("corvel-reviews-refused", arguments[0])',
        JSON.stringify([{ thing: { ...review, day: 'Friday' }, why: '“Friday” is no day.' }])
      );
      await page().open('/trainer');
      await page().find('[data-refused="1"]');
      expect((await page().texts('[data-refused] li'))[0]).toMatch(/G♭m7.*“Friday” is no day/);
      // Sent once more it is refused once more.
      await page().clickNamed('Try again');
      await page().find('[data-refused="1"]');
      await page().clickNamed('Delete');
      await page().until(async () => (await page().all('[data-refused]')).length === 0, 'nothing refused');
      await forget();
    });

    it('notes where it went wrong, and the item’s ladder follows the marks', async () => {
      const chart = await alone();
      await page().open('/today?show=items');
      await page().clickNamed('Play Ascending');
      await page().find(`[data-assigned="${chart}:Db:5:up"]`);
      await page().clickNamed('Play');
      await page().until(async () => (await page().all('[data-playing]')).length === 1, 'the band');
      // Nothing can go wrong before the first beat: pressed until it is taken.
      await page().until(async () => {
        const taken = (await page().texts('[data-marks] button')).some((text) => text.includes('(1)'));
        if (!taken) await page().press('x');
        return taken;
      }, 'the stumble to be taken');
      await page().until(async () => (await page().all('[data-mark="not clean"]')).length === 1, 'the mark');
      const stumbles = async () => (await rowsOf(chart)).flatMap((row) => row.stumbles);
      await page().until(async () => (await stumbles()).length >= 1, 'the stumble to be kept');
      // Sixteen bars with no more than one stumble go up a rung: eight rounds of two bars, and the one that went wrong.
      for (let clean = 1; clean <= 8; clean++) {
        await page().until(async () => {
          await page().press('c');
          return (await page().texts('[data-marks] button')).includes(`clean (${clean})`);
        }, `${clean} clean rounds`);
      }
      await page().until(
        async () => (await rowsOf(chart)).some(({ tempo }) => tempo === 250),
        'a round at the goal'
      );
      await page().clickNamed('Stop');
    });

    it('takes a chart up in the order it is learnt, and lets the player bend items and plan', async () => {
      await alone();
      await page().open('/today?show=items');
      const { body } = await tools().server.call<{ id: string }>('POST', 'songbook', {
        source: '{title: Fogbank Job}\n{key: F#m}\n{tempo: 120}\n| F#m7 | B7 | F#m7 | C#7alt |',
        plan: AT_FIVE
      });
      await page().open('/today?show=items');
      await page().pick('Chart to practise', body.id);
      await page().clickNamed('Practise this chart');
      const own = '[data-items-of="Fogbank Job"] [data-item]';
      await page().until(async () => (await page().all(own)).length === 31, 'its items');
      // What is not open yet is folded away, and comes by a press.
      const seen = async () =>
        (await page().attributes(`${own}:not([hidden])`, 'data-state')).filter((state) => state === 'shut')
          .length;
      expect(await seen()).toBe(0);
      await page().clickNamed('show 28 exercises not open yet');
      await page().until(async () => (await seen()) === 28, 'the rest');
      expect((await page().texts(`${own} b`)).slice(0, 3)).toEqual([
        'Ascending',
        'Descending',
        'Up and down in turn'
      ]);
      expect(await page().attributes(own, 'data-state')).toContain('shut');
      // By keys: the handle takes it up, an arrow moves it, the handle lets it go.
      const handle = (await page().all(`${own} [aria-label^="Move"]`))[0]!;
      await browser().executeScript('arguments[0].focus()', handle);
      await page().press(Key.ENTER);
      await page().press(Key.ARROW_DOWN);
      await page().press(Key.ENTER);
      await page().until(async () => (await page().texts(`${own} b`))[0] === 'Descending', 'the other order');
      await page().until(async () => {
        const { items } = (await call<{ items: StoredItem[] }>('GET', 'items')).body;
        return items.filter(({ chart }) => chart === body.id)[0]?.data?.name === 'Descending';
      }, 'the order to be kept');

      await page().clickNamed('Change Up and down in turn');
      const name = await page().find('[aria-label="Name of Up and down in turn"]');
      await page().replaceText(name, 'In turn, slowly');
      await page().press(Key.TAB);
      await page().until(async () => (await page().texts(`${own} b`))[2] === 'In turn, slowly', 'its name');

      await page().open('/today');
      await page().number('Minutes', '30');
      const planned = async () => (await page().attributes('[data-planned]', 'data-planned'))[0];
      await page().until(async () => (await planned()) === '30', 'thirty minutes');
      const first = (await page().texts('[data-plan] [data-item] b.font-display.text-xl'))[0]!;
      await page().clickNamed(`A minute more of ${first}`);
      await page().until(async () => (await planned()) === '31', 'a minute more');
      await page().clickNamed('reset the plan');
      await page().until(async () => (await planned()) === '30', 'as it was');
      await page().number('Minutes', '0');
      expect(await planned()).toBe('30');
    });

    it('lets the log be corrected, deleted with undo, and filled from a table with wrong lines', async () => {
      const chart = await alone();
      const file = join(mkdtempSync(join(tmpdir(), 'corvel-')), 'log.csv');
      writeFileSync(
        file,
        `day,seconds,tempo,clean,chart,what\n2026-01-05,600,92,yes,Ebb Tide Job,Imported in\n2026-01-35,60,,,,\n2026-01-06,300,9000,,,\n`
      );
      await page().open('/today?show=log');
      await (await page().find('[data-import-log]')).sendKeys(file);
      await page().until(async () => (await page().all('[data-taken="1"]')).length === 1, 'one entry');
      expect((await page().texts('[data-taken] li')).map((line) => line.slice(0, 6))).toEqual([
        'line 3',
        'line 4'
      ]);
      expect(await rowsOf(chart)).toMatchObject([{ what: 'Imported in', tempo: 92, clean: true }]);

      await page().replaceText(await page().find('[aria-label="Played elsewhere"]'), 'Quay rehearsal');
      await page().clickNamed('add it');
      await page().until(
        async () => (await page().texts('[data-row] b'))[0] === 'Quay rehearsal',
        'the entry'
      );
      await page().clickNamed('–: change it');
      await page().until(
        async () => (await page().texts('[data-row] button'))[0] === 'clean',
        'the correction'
      );
      await page().clickNamed('Delete this entry');
      await page().until(
        async () => !(await page().texts('[data-row] b')).includes('Quay rehearsal'),
        'it to go'
      );
      await page().clickNamed('Undo');
      await page().until(
        async () => (await page().texts('[data-row] b'))[0] === 'Quay rehearsal',
        'it to come back'
      );
    });

    it('shows a set list with what is ready, and prints its cue sheets', async () => {
      const chart = await alone();
      await page().open('/today?show=dates');
      await page().replaceText(await page().find('[aria-label="Name of a new set list"]'), 'The quay');
      await page().clickNamed('new set list');
      await page().find('[data-set-list="The quay"]');
      await page().pick('Add a tune to The quay', chart);
      await page().find('[data-set-list="The quay"] [data-tune]');
      // Not played yet: that is said, and the days until then work towards it.
      await page().until(
        async () => (await page().texts('[data-outlook-said]'))[0]?.includes('not played clean yet') === true,
        'what is known of it'
      );
      expect((await page().texts('[data-set-list="The quay"]'))[0]).toContain('works towards it');
      await page().replaceText(await page().find('[aria-label^="Tuning for"]'), 'drop D');
      await page().press(Key.TAB);
      await page().replaceText(await page().find('[aria-label^="Note on"]'), 'bass begins');
      await page().press(Key.TAB);
      await page().until(async () => {
        const { setLists } = (await call<Today>('GET', `today?day=${new Date().toISOString().slice(0, 10)}`))
          .body;
        return setLists.find(({ name }) => name === 'The quay')?.data?.charts[0]?.note === 'bass begins';
      }, 'the note to be kept');
      await page().open('/today?show=dates');
      await page().find('[data-set-list="The quay"] [data-tune]');
      await browser().executeScript('window.print = () => { window.isPrinted = true; }');
      await (await page().find('[data-set-list="The quay"] button:nth-of-type(2)')).click();
      await page().until(
        async () => (await browser().executeScript<boolean>('return window.isPrinted === true')) === true,
        'the paper'
      );
      await page().devTools('Emulation.setEmulatedMedia', { media: 'print' });
      const text = await browser().executeScript<string>(`return document.querySelector('main').innerText`);
      await page().devTools('Emulation.setEmulatedMedia', { media: '' });
      expect(text).toContain('The quay');
      expect(text).toContain('D♭ major');
      expect(text).toContain('tuning: drop D');
      expect(text).toContain('bass begins');
      // Read from a stand: chords large, landing notes twelve points, bar numbers nine.
      const sizes = await browser().executeScript<number[]>(
        `const size = (css) => Math.round(parseFloat(getComputedStyle(document.querySelector('[data-cue] ' + css)).fontSize) * 7.5) / 10;
         return ['chord', 'land', 'bar'].map((name) => size('[data-' + name + ']'));`
      );
      expect(sizes[0]).toBeGreaterThanOrEqual(20);
      expect(sizes[1]).toBeGreaterThanOrEqual(12);
      expect(sizes[2]).toBeGreaterThanOrEqual(9);
      expect(text).not.toContain('new set list');
      await page().clickNamed('Delete The quay');
      await page().until(
        async () => (await page().all('[data-set-list="The quay"]')).length === 0,
        'it to go'
      );
    });

    it('takes a lick up everywhere, shows where it is known, and opens it there from the plan', async () => {
      await alone();
      for (const { id } of (await call<{ items: StoredItem[] }>('GET', 'items')).body.items)
        await call('DELETE', `items/${encodeURIComponent(id)}`);
      await page().open('/licks');
      await page().find('[data-lick]');
      const [name] = await page().attributes('[data-lick]', 'data-lick');
      const card = `[data-lick="${name}"]`;
      await page().clickNamed('practise it');
      await page().find(`${card} [data-places] [data-place]`);
      const cells = (await page().all(`${card} [data-place]`)).length;
      expect(cells).toBeGreaterThan(24);
      const known = async () => (await page().attributes(`${card} [data-place]`, 'data-known'))[0];
      expect(await known()).toBe('0.00');
      const ready = () =>
        page().until(
          async () => (await page().all(`${card} [data-places] button:disabled`)).length === 0,
          'the buttons to be ready'
        );
      await ready();
      await page().number(`Tempo of ${name} here`, '90');
      await page().clickNamed('clean');
      await page().until(async () => (await known()) !== '0.00', 'what is known');
      expect(await known()).toBe('0.75');
      // Not near enough to its goal for the next place to open.
      expect(await page().all(`${card} [data-next]`)).toHaveLength(0);
      await ready();
      await page().number(`Tempo of ${name} here`, '110');
      await page().clickNamed('clean');
      await page().find(`${card} [data-next]`);
      await (await page().find(`${card} [data-next]`)).click();
      await page().until(
        async () => (await page().attributes(card, 'data-area'))[0] !== null,
        'the lick in the next area'
      );
      await page().open('/today');
      await forget();
      await page().open('/today');
      const part = '[data-plan] [data-item^="lick:"]';
      await page().find(part);
      if ((await page().all('[aria-label="Skip Cards"]')).length) await page().clickNamed('Skip Cards');
      await page().clickNamed('Start');
      await page().find('[data-places]');
      expect(await browser().getCurrentUrl()).toContain('/licks?item=lick');
      // Away from any chart the bar takes down how it went.
      await page().clickNamed('clean');
      await page().until(async () => {
        const { rows } = (await call<{ rows: StoredRow[] }>('GET', 'log?limit=3')).body;
        return rows.filter(({ item }) => item?.startsWith('lick:')).length >= 3;
      }, 'it to be logged');
      await forget();
    });

    it('draws pictures that read as tables too', async () => {
      await page().open('/today?show=progress');
      await page().find('[data-coverage] [data-cell]');
      const cells = (await page().all('[data-coverage] [data-cell]')).length;
      await (await page().find('[data-picture^="Where on the neck"] button')).click();
      await page().find('[data-picture^="Where on the neck"] tbody tr');
      expect((await page().all('[data-picture^="Where on the neck"] tbody tr')).length).toBe(cells);
    });
  });
}
