/** Jobs at the stand: play, loop, isolate, ladder, keys, drills, memory, files; by keys and by touch-sized buttons. */
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { parseMidi } from 'midi-file';
import { Key } from 'selenium-webdriver';
import { describe, expect, it } from 'vitest';
import { wavFile } from '../../src/lib/audio/wav';
import { DEFAULT_SETTINGS } from '../../src/lib/api/default-settings';
import type { Tools } from './neck';
import { AT_FIVE } from '../plan';

const TUNE = `{title: Stand job}
{key: Bb}
{tempo: 240}
{meta: feel straight}
{start_of_grid label="A"}
| Cm7 | F7 | Bbmaj7 | Gm7 |
{end_of_grid}
{start_of_grid label="B"}
| Ebmaj7 | Am7b5 D7 | Gm7 | F7 |
{end_of_grid}`;

interface Wav {
  rate: number;
  peak: number;
  samples: number[];
}

export function rehearseJobs(tools: () => Tools): void {
  const page = () => tools().page;
  const browser = () => tools().browser;

  async function open(source = TUNE): Promise<void> {
    const { server } = tools();
    await page().settings(DEFAULT_SETTINGS);
    const { body } = await server.call<{ id: string }>('POST', 'songbook', { source, plan: AT_FIVE });
    await page().open(`/charts/${body.id}`);
    await browser().executeScript('localStorage.clear()');
    await page().press('p');
    await page().find('[aria-label="Rehearse"] [data-now]');
  }

  const now = async () => (await page().attributes('[data-now]', 'data-now'))[0];
  const round = async () => Number((await page().attributes('[aria-label="Rehearse"]', 'data-round'))[0]);
  const isPlaying = async () => (await page().all('[data-playing]')).length === 1;

  /** While the band plays the stand has the page; Escape brings the desk. */
  async function unfold(): Promise<void> {
    if ((await page().all('[data-desk]')).length > 0) return;
    await page().find('[data-stand]');
    await page().press(Key.ESCAPE);
    await page().find('[data-desk]');
  }
  /** Opens what stands behind a press of the desk, unless it is open. */
  const desk = (panel: 'mix' | 'more') => page().unfold(`[data-open-${panel}]`);
  async function play(): Promise<void> {
    await page().clickNamed('Play');
    await page().until(isPlaying, 'the band to play');
    await unfold();
  }

  /** The sound files that are handed out stand in `window.files`; the sound library makes addresses of its own. */
  const catchFiles = () =>
    page().alter(
      `window.files = []; window.address ??= URL.createObjectURL.bind(URL);
       URL.createObjectURL = (blob) => blob.type.startsWith('audio') ? (window.files.push(blob), '#') : window.address(blob);`
    );

  /** The WAV of one round with only some parts sounding. */
  async function rendered(parts: readonly string[]): Promise<Wav> {
    await desk('mix');
    await desk('more');
    for (const part of ['Bass', 'Chords', 'Drums', 'Click', 'Drill']) {
      const button = `[aria-label="Mute ${part}"]`;
      const isMuted = (await page().attributes(button, 'aria-pressed'))[0] === 'true';
      if (isMuted === parts.includes(part)) await (await page().find(button)).click();
    }
    await catchFiles();
    await page().clickNamed('WAV');
    await page().until(
      async () => (await browser().executeScript<number>('return window.files.length')) === 1,
      'the sound file',
      // It is made at the pace of the machine.
      120_000
    );
    return await browser().executeAsyncScript<Wav>(
      `const done = arguments[0];
       window.files[0].arrayBuffer().then((buffer) => {
         const view = new DataView(buffer);
         const rate = view.getUint32(24, true);
         const data = new Int16Array(buffer, 44);
         // Loudness in steps of 10 ms is all that is looked at.
         const step = Math.floor(rate / 100);
         const samples = [];
         let peak = 0;
         for (const sample of data) peak = Math.max(peak, Math.abs(sample) / 32768);
         for (let at = 0; at + step <= data.length; at += step) {
           let sum = 0;
           for (let i = at; i < at + step; i++) sum += (data[i] / 32768) ** 2;
           samples.push(Math.sqrt(sum / step));
         }
         done({ rate: 100, peak, samples });
       });`
    );
  }

  const loudest = ({ samples, rate }: Wav, from: number, to: number) =>
    Math.max(0, ...samples.slice(Math.floor(from * rate), Math.ceil(to * rate)));

  /** A job that listens to what is really played. */
  const sounding = (job: () => Promise<void>) => async () => {
    await page().music('sounding');
    try {
      await job();
    } finally {
      await page().music('driven');
    }
  };

  describe('the stand', () => {
    it('plays and stops with Space, follows the chords and lights the drill', async () => {
      await open();
      await page().pick('Drill', 'up');
      await browser().executeScript('document.activeElement.blur()');
      await page().press(' ');
      await page().until(isPlaying, 'the band to play');
      await page().until(async () => (await page().all('[data-lit]')).length === 1, 'a note of the drill');
      // Read at one moment: the music goes on meanwhile.
      const nowAndNext = () =>
        browser().executeScript<string>(
          'return [document.querySelector("[data-now]")?.dataset.now, document.querySelector("[data-next]")?.dataset.next].join(" ")'
        );
      await page().until(async () => (await nowAndNext()) === 'F7 Bbmaj7', 'the second chord and the next');
      expect(await page().all('[data-tab-playhead]')).toHaveLength(1);
      await page().press(' ');
      await page().until(async () => !(await isPlaying()), 'silence');
      expect(await page().all('[data-lit]')).toHaveLength(0);
    });

    it(
      'is heard while it plays and silent after the stop; without sound it says so and waits',
      sounding(async () => {
        await open();
        const level = async () => Number((await page().attributes('[data-level]', 'data-level'))[0]);
        await play();
        await page().until(async () => (await level()) > 0.01, 'sound');
        await page().clickNamed('Stop');
        await page().until(async () => (await level()) < 0.001, 'silence');
        await open();
        await page().alter(
          'Object.defineProperty(BaseAudioContext.prototype, "state", { get: () => "suspended" });'
        );
        await page().clickNamed('Play');
        await page().until(
          async () => (await page().texts('[role="alert"]'))[0]?.includes('plays no sound') === true,
          'a sentence'
        );
        expect(await isPlaying()).toBe(false);
      })
    );

    it(
      'plays on plain sounds where its own cannot be had, and goes on playing while the server is away',
      sounding(async () => {
        const level = async () => Number((await page().attributes('[data-level]', 'data-level'))[0]);
        const isHeard = async () => {
          await play();
          await page().until(async () => (await level()) > 0.01, 'sound');
          await page().clickNamed('Stop');
        };
        await page().devTools('Network.enable');
        await page().devTools('Network.setBypassServiceWorker', { bypass: true });
        await page().devTools('Network.clearBrowserCache');
        await page().devTools('Network.setBlockedURLs', { urls: ['*.ogg'] });
        await open();
        await page().find('[data-sounds="plain"]');
        await page().devTools('Network.setBlockedURLs', { urls: [] });
        await isHeard();
        // Nothing of it may come from what the browser has kept.
        await page().devTools('Network.clearBrowserCache');
        await open();
        await page().find('[data-sounds="here"]');
        await tools().server.stop();
        await isHeard().finally(() => tools().server.start());
      })
    );

    it('goes on when the chart is cut under its loop, and says where the loop is now', async () => {
      await open();
      await page().pick('Loop', 'bars');
      await page().number('Loop from bar', '3');
      await page().number('Loop to bar', '4');
      await page().press('e');
      await (await page().find('[data-editor] .cm-content')).click();
      await page().clickNamed('count in');
      await play();
      await page().until(async () => (await now()) === 'Bbmaj7', 'bar 3');
      await (await page().find('[data-editor] .cm-content')).click();
      await page().chord(Key.CONTROL, 'a');
      await browser().manage().logs().get('browser');
      // At once: a round that began while it is typed would see a chart of one bar.
      await page().paste('| Dbm7 | Gb7 |');
      await page().until(async () => (await now()) === 'Gb7', 'the loop inside the chart');
      expect((await page().texts('[role="alert"]'))[0]).toContain('bar 2');
      expect(await isPlaying()).toBe(true);
      const errors = await browser().manage().logs().get('browser');
      expect(errors.filter(({ level }) => level.name === 'SEVERE')).toEqual([]);
      await page().clickNamed('Stop');
    });

    it('loops a section, a few bars, one change as a drone, and a pair', async () => {
      await open();
      await page().pick('Loop', '5');
      await page().clickNamed('count in');
      await play();
      await page().until(async () => (await now()) === 'Am7b5', 'a chord of the second section');
      await page().until(async () => (await round()) >= 1, 'the second round');
      await page().pick('Loop', 'bars');
      await page().until(
        async () => (await page().all('[aria-label="Loop to bar"]')).length === 1,
        'bars to choose'
      );
      await page().number('Loop from bar', '3');
      await page().number('Loop to bar', '2');
      await page().until(
        async () => (await page().texts('[role="alert"]'))[0]?.includes('before it starts') === true,
        'the refusal'
      );
      await page().number('Loop from bar', '1');
      await page().until(async () => (await page().all('[role="alert"]')).length === 0, 'no complaint');
      await page().until(async () => (await now()) === 'F7', 'the second bar');
      await page().pick('Loop', 'change');
      await page().until(async () => (await page().all('[data-next]')).length === 0, 'no next chord');
      await page().pick('Loop', 'pair');
      await page().until(async () => (await page().all('[data-next]')).length === 1, 'a pair');
      await page().clickNamed('Stop');
    });

    it('gives more and less by keys, from the next bar on and without a break; a file ends on the home chord', async () => {
      // Slowly, so that a busy machine is not a round further by the time that it looks.
      await open(TUNE.replace('{tempo: 240}', '{tempo: 80}'));
      await page().clickNamed('count in');
      await play();
      await page().until(async () => (await now()) === 'F7', 'the second bar');
      await browser().executeScript('document.activeElement.blur()');
      await page().press(']', ']', '[');
      const intensity = () =>
        browser().executeScript<string>(
          `return document.querySelector('[data-slider="Intensity of the band"] [role="slider"]').getAttribute('aria-valuetext')`
        );
      await page().until(async () => (await intensity()) === '60 percent', 'a little more');
      // It goes on where it was: begun anew it would be in its first bar.
      expect(await now()).not.toBe('Cm7');
      await page().until(async () => (await now()) === 'Gm7', 'the fourth bar');
      await page().clickNamed('Stop');
      // Help tells of the keys.
      await browser().executeScript('document.activeElement.blur()');
      await page().press('?');
      await page().until(
        async () => (await page().texts('[role="dialog"]')).join().includes('More from the band'),
        'the keys of the band'
      );
      await page().press(Key.ESCAPE);
      await page().until(async () => (await page().all('[role="dialog"]')).length === 0, 'help closed');
      await page().alter(
        `window.files = []; const before = URL.createObjectURL.bind(URL);
         URL.createObjectURL = (blob) => blob.type === 'audio/midi' ? (window.files.push(blob), '#') : before(blob);`
      );
      await desk('more');
      const lastStroke = async (count: number) => {
        await page().clickNamed('MIDI');
        await page().until(
          async () => (await browser().executeScript<number>('return window.files.length')) === count,
          'the file'
        );
        const bytes = await browser().executeAsyncScript<number[]>(
          'window.files.at(-1).arrayBuffer().then((buffer) => arguments[0]([...new Uint8Array(buffer)]))'
        );
        const { tracks } = parseMidi(Uint8Array.from(bytes));
        const ends = tracks.map((events) => {
          let tick = 0;
          return events.reduce(
            (last, { deltaTime, type }) => ((tick += deltaTime), type === 'noteOn' ? tick : last),
            0
          );
        });
        return Math.max(...ends) / 480 / 4;
      };
      expect(Math.floor(await lastStroke(1))).toBe(8);
      await page().clickNamed('with an ending');
      expect(Math.floor(await lastStroke(2))).toBe(7);
    });

    it('climbs the tempo ladder, and only after clean rounds where wished', async () => {
      await open();
      await page().pick('Loop', 'bars');
      await page().number('Loop to bar', '1');
      await page().clickNamed('count in');
      await page().clickNamed('tempo ladder');
      for (const [part, value] of [
        ['start', '200'],
        ['goal', '260'],
        ['step', '20'],
        ['rounds', '1']
      ] as const) {
        await page().number(`Ladder ${part}`, value);
      }
      const tempo = async () =>
        Number(
          await browser().executeScript(
            `return document.querySelector('[aria-label="Tempo in beats a minute"]').value`
          )
        );
      await play();
      await page().until(async () => (await tempo()) === 260, 'the goal');
      await page().clickNamed('only after clean rounds');
      await page().until(async () => (await tempo()) === 200, 'the first rung');
      await page().until(async () => (await round()) >= 2, 'two rounds');
      expect(await tempo()).toBe(200);
      await browser().executeScript(
        `[...document.querySelectorAll('[data-marks] button')].find((b) => b.textContent.trim() === 'clean').click()`
      );
      await page().until(async () => (await tempo()) === 220, 'the next rung');
      await page().clickNamed('Stop');
      await page().number('Tempo in beats a minute', '900');
      await page().until(
        async () => (await page().texts('[role="alert"]'))[0]?.includes('30 to 300') === true,
        'the bounds'
      );
    });

    it('goes round the keys, shapes and names following', async () => {
      await open();
      await page().pick('Loop', 'bars');
      await page().number('Loop to bar', '1');
      await page().clickNamed('count in');
      await page().pick('Keys', 'fourths');
      await play();
      await page().until(async () => (await now()) === 'Fm7', 'a fourth up');
      const cells = await page().attributes('[aria-label="Neck"] [data-note][data-degree="1"]', 'data-note');
      expect(new Set(cells)).toEqual(new Set(['F']));
      await page().until(async () => (await now()) === 'Bbm7', 'another fourth up');
      await page().clickNamed('Stop');
      await page().until(async () => (await now()) === 'Cm7', 'the key of the chart');
    });

    it('hides the neck to test memory', async () => {
      await open();
      const notes = async () => (await page().all('[aria-label="Neck"] [data-note]')).length;
      expect(await notes()).toBeGreaterThan(8);
      await desk('more');
      await page().pick('What the neck shows', 'all but roots');
      await page().until(async () => (await notes()) <= 4 && (await notes()) > 0, 'roots only');
      await page().pick('What the neck shows', 'everything');
      await page().until(async () => (await notes()) === 0, 'nothing');
      // Showing and hiding does not stop the band.
      await play();
      await page().until(async () => (await now()) === 'F7', 'the second chord');
      await page().pick('What the neck shows', 'nothing');
      await page().pick('What the neck shows', 'everything');
      expect(await now()).not.toBe('Cm7');
      await page().clickNamed('Stop');
      // It is kept for the next time.
      await page().press(Key.ESCAPE, 'p', 'p');
      await desk('more');
      await page().until(
        async () =>
          (await browser().executeScript(
            `return document.querySelector('[data-select="What the neck shows"]')?.dataset.value`
          )) === 'everything',
        'the setting kept'
      );
    });

    it('sounds on every beat that should, part by part, and is silent where nothing plays', async () => {
      await open(
        '{key: C}\n{tempo: 240}\n{meta: feel straight}\n| Cmaj7 | Am7 | Dm7 | G7 | Em7 | A7 | N.C. | N.C. |'
      );
      await page().pick('Drill', 'targets');
      const beat = 60 / 240;
      for (const part of ['Bass', 'Chords', 'Drums', 'Click', 'Drill']) {
        const wav = await rendered([part]);
        // The music and its tail.
        expect(wav.samples.length / wav.rate).toBeGreaterThan(32 * beat + 2);
        const bars = part === 'Drums' || part === 'Click' ? 8 : 6;
        for (let bar = 0; bar < bars; bar++) {
          expect(
            loudest(wav, bar * 4 * beat, bar * 4 * beat + 0.2),
            `${part} bar ${bar + 1}`
          ).toBeGreaterThan(0.004);
        }
        // Every stroke of the click stands on its beat, to the hundredth of a second.
        for (let stroke = 1; part === 'Click' && stroke < 32; stroke++) {
          const at = stroke * beat;
          const says = `click ${stroke}`;
          expect(loudest(wav, at - 0.04, at - 0.01), says).toBeLessThan(0.3 * loudest(wav, at, at + 0.02));
        }
        // Nothing clips, and at the end there is silence.
        expect(wav.peak).toBeLessThan(0.99);
        expect(loudest(wav, wav.samples.length / wav.rate - 0.2, wav.samples.length / wav.rate)).toBeLessThan(
          0.003
        );
        // The two bars without a chord.
        // The notes before them have died away, and the room with them.
        if (bars === 6) expect(loudest(wav, 27 * beat, 31.5 * beat), `${part} at rest`).toBeLessThan(0.004);
      }
      const silent = await rendered([]);
      expect(loudest(silent, 0, 32 * beat)).toBeLessThan(0.0005);
    }, 180_000);

    it('hides the targets too where everything is hidden', async () => {
      await open();
      const threads = '[aria-label="Rehearse"] [aria-label="Threads"]';
      const drawn = async () => (await page().attributes(`${threads} [data-thread]`, 'd'))[0];
      expect(await drawn()).not.toBe('');
      await desk('more');
      await page().pick('What the neck shows', 'everything');
      await page().until(async () => !(await drawn()), 'no target line');
      expect((await page().texts(threads)).join(' ')).not.toMatch(/[+−]\d|stays/);
      await page().pick('What the neck shows', 'nothing');
    });

    it('learns pedals by their being pressed, keeps them, and turns to the next section with one', async () => {
      await open();
      await desk('more');
      await page().clickNamed('pedals');
      await page().clickNamed('Pedal for tempo up');
      await page().press('q');
      await page().until(
        async () => (await page().texts('[aria-label="Pedal for tempo up"]'))[0] === 'Q',
        'the pedal learnt'
      );
      const tempo = () =>
        browser().executeScript<string>(
          `return document.querySelector('[aria-label="Tempo in beats a minute"]').value`
        );
      await page().press('q', 'q');
      await page().until(async () => (await tempo()) === '248', 'two steps up');
      await page().press(Key.PAGE_DOWN);
      await page().until(
        async () =>
          (await browser().executeScript(
            `return document.querySelector('[data-select="Loop"]').dataset.value`
          )) === '5',
        'the second section'
      );
      await page().press(Key.PAGE_UP);
      await page().until(isPlaying, 'the band to play');
      await page().press(Key.PAGE_UP);
      await page().until(async () => !(await isPlaying()), 'silence');
      // Escape leaves the pedal as it is.
      await page().clickNamed('Pedal for tempo up');
      await page().press(Key.ESCAPE);
      expect(await page().texts('[aria-label="Pedal for tempo up"]')).toEqual(['Q']);
      await page().load(new URL(await browser().getCurrentUrl()).pathname + '?view=rehearse');
      await page().press('q');
      await page().until(async () => (await tempo()) === '244', 'the pedal kept');
    });

    it('says where a number ends', async () => {
      await open();
      await page().number('Tempo in beats a minute', '32');
      await page().clickNamed('−4');
      await page().until(
        async () => (await page().texts('[role="alert"]'))[0]?.includes('as slow as the band plays') === true,
        'the bound'
      );
      expect(
        await browser().executeScript(
          `return document.querySelector('[aria-label="Tempo in beats a minute"]').value`
        )
      ).toBe('30');
    });

    it('counts in the meter of what is looped, and stops making a file when told', async () => {
      await open('{key: C}\n{time: 6/8}\n{tempo: 200}\n| C | F | G | C |');
      await page().clickNamed('Play');
      const left = async () => Number((await page().texts('[aria-label="Rehearse"] [role="timer"]'))[0]);
      await page().until(async () => (await left()) === 6, 'six beats to go');
      await page().clickNamed('Stop');
      await open(`{tempo: 40}\n| ${'C | F | '.repeat(60)}`);
      await page().alter('window.saved = 0; HTMLAnchorElement.prototype.click = () => window.saved++;');
      await desk('more');
      await page().clickNamed('WAV');
      const button = async () =>
        (await page().texts('[data-desk] button')).find((words) => words.includes('%'));
      await page().until(async () => /[1-9]/.test((await button()) ?? ''), 'how far it is');
      await page().clickNamed((await button())!);
      await page().until(async () => (await button()) === undefined, 'the stop');
      expect(await browser().executeScript('return window.saved')).toBe(0);
      expect(await page().all('[role="alert"]')).toHaveLength(0);
    });

    it('hands out a MIDI file and asks to rest', async () => {
      await open();
      await catchFiles();
      await page().pick('Drill', 'approach');
      await desk('more');
      await page().clickNamed('MIDI');
      const head = await browser().executeAsyncScript<string>(
        `const done = arguments[0]; window.files[0].arrayBuffer().then((b) => done(String.fromCharCode(...new Uint8Array(b).slice(0, 4))));`
      );
      expect(head).toBe('MThd');
      await page().number('Minutes of playing before a rest is proposed', '0.02');
      await page().clickNamed('Play');
      await page().until(
        async () =>
          (await page().texts('[aria-label="Rehearse"] [role="status"]'))[0]?.includes('Take a break') ===
          true,
        'a rest'
      );
      await page().clickNamed('OK');
      await page().clickNamed('Stop');
    });

    it('fits a tablet, its buttons big enough for a thumb', async () => {
      await open();
      await page().finger.on(820, 1180, async () => {
        expect(
          await browser().executeScript('return document.documentElement.scrollWidth <= window.innerWidth')
        ).toBe(true);
        const small = await browser().executeScript<string[]>(
          `return [...document.querySelectorAll('[data-desk] button, [data-desk] input, [aria-label="Play"]')]
           .filter((e) => e.offsetParent && e.getBoundingClientRect().height < 44).map((e) => e.textContent.trim())`
        );
        expect(small).toEqual([]);
        const tap = (css: string) => page().finger.tap(css);
        await tap('[aria-label="Play"]');
        await page().until(isPlaying, 'the band to play');
        // A touch brings the slim bar for some seconds.
        await tap('[aria-label="Neck"]');
        await page().find('[data-desk-bar]');
        await tap('[data-desk-bar]');
        await page().find('[data-desk]');
        await desk('mix');
        await page().find('[aria-label="Mute Drums"]');
        await tap('[aria-label="Mute Drums"]');
        await page().until(
          async () => (await page().attributes('[aria-label="Mute Drums"]', 'aria-pressed'))[0] === 'true',
          'no drums'
        );
        await tap('[aria-label="Stop"]');
        await page().until(async () => !(await isPlaying()), 'silence');
      });
    });
  });

  describe('a recording of one’s own', () => {
    const TEMPO = 104.5;
    const FIRST = 0.8;

    /** A drummer at an uneven tempo, as a file. */
    function recording(seconds = 40): string {
      const rate = 22_050;
      const samples = new Float32Array(rate * seconds);
      for (let beat = 0; FIRST + (beat * 60) / TEMPO < seconds; beat++) {
        const at = Math.round((FIRST + (beat * 60) / TEMPO) * rate);
        const pitch = beat % 4 === 0 ? 110 : 220;
        for (let i = 0; i < 4000 && at + i < samples.length; i++) {
          samples[at + i]! += 0.7 * Math.exp(-i / 900) * Math.sin((2 * Math.PI * pitch * i) / rate);
        }
      }
      const path = join(mkdtempSync(join(tmpdir(), 'corvel-')), 'deck.wav');
      writeFileSync(path, wavFile(samples, rate));
      return path;
    }
    const choose = async (path: string) => {
      await desk('more');
      await (await page().find('[aria-label="File of a recording"]')).sendKeys(path);
    };
    const found = async () => Number((await page().attributes('[data-found-tempo]', 'data-found-tempo'))[0]);
    const firstBeat = async () =>
      Number((await page().attributes('[data-beat-pane="0"]', 'aria-valuenow'))[0]);

    it('is made ready at half speed, at its own pitch, and goes on', async () => {
      await open();
      await choose(recording(12));
      await page().find('[data-found-tempo]');
      await page().clickNamed('count in');
      await page().clickNamed('half speed');
      await play();
      await page().until(
        async () => Number((await page().attributes('[data-speed]', 'data-speed'))[0]) < 0.9,
        'the recording at half speed',
        60_000
      );
      expect(await isPlaying()).toBe(true);
      await page().clickNamed('Stop');
    });

    it(
      'has its beat found, is corrected by dragging and by keys, plays in the band’s place, and is kept',
      sounding(async () => {
        await open();
        await choose(recording());
        await page().until(async () => Math.abs((await found()) - TEMPO) < 0.2, 'its tempo');
        expect(Math.abs((await firstBeat()) - FIRST)).toBeLessThan(0.04);
        const pane = await page().find('[data-beat-pane="0"]');
        await browser().executeScript('arguments[0].scrollIntoView({ block: "center" })', pane);
        const { x, y } = await browser().executeScript<{ x: number; y: number }>(
          `const line = arguments[0].querySelector('.stroke-target').getBoundingClientRect();
         return { x: Math.round(line.x + line.width / 2), y: Math.round(line.y + 20) };`,
          pane
        );
        const before = await firstBeat();
        await browser()
          .actions()
          .move({ x, y })
          .press()
          .move({ x: x + 40, y, duration: 100 })
          .release()
          .perform();
        await page().until(async () => (await firstBeat()) > before + 0.2, 'the first beat dragged');
        const dragged = await firstBeat();
        await pane.sendKeys(Key.ARROW_LEFT);
        await page().until(async () => (await firstBeat()) < dragged, 'a step back');
        // By a finger as well.
        const touched = await firstBeat();
        await page().finger.swipe({ x: x + 40, y }, { x: x + 90, y });
        await page().until(async () => (await firstBeat()) !== touched, 'the first beat dragged by touch');
        // It plays, and the chart runs along; the band's own parts have made room.
        expect(await page().all('[aria-label="Mute Drums"]')).toHaveLength(0);
        await page().clickNamed('count in');
        await play();
        await page().until(async () => (await now()) === 'F7', 'the second chord');
        const level = async () => Number((await page().attributes('[data-level]', 'data-level'))[0]);
        await page().until(async () => (await level()) > 0.005, 'sound');
        await page().clickNamed('half speed');
        await page().until(async () => (await level()) > 0.005, 'sound at half speed');
        await page().clickNamed('Stop');
        // Corrections are kept once they have settled.
        await page().find('[data-kept]');
        const kept = [await found(), await firstBeat()];
        await page().load(new URL(await browser().getCurrentUrl()).pathname + '?view=rehearse');
        await page().find('[data-found-tempo]');
        expect([await found(), await firstBeat()]).toEqual(kept);
        await page().clickNamed('× 2');
        await page().until(async () => Math.abs((await found()) - 2 * kept[0]!) < 0.1, 'counted double');
        await page().clickNamed('remove');
        await page().until(
          async () => (await page().all('[data-found-tempo]')).length === 0,
          'the band again'
        );
        await desk('more');
        await page().clickNamed('restore “deck.wav”');
        await page().find('[data-found-tempo]');
        await page().clickNamed('remove');
      })
    );

    it('says of a file that is no sound what it is', async () => {
      await open();
      const path = join(mkdtempSync(join(tmpdir(), 'corvel-')), 'notes.txt');
      writeFileSync(path, 'no sound at all');
      await choose(path);
      await page().until(
        async () => (await page().texts('[data-desk] [role="alert"]'))[0]?.includes('no sound') === true,
        'a sentence'
      );
    });
  });

  describe('hearing', () => {
    /** Counts the sampled notes that begin; every one of them is a buffer that is started. */
    async function opened(view = ''): Promise<() => Promise<number>> {
      await open();
      await page().press(view || 's');
      await page().alter(
        `window.begun = 0;
         const start = AudioBufferSourceNode.prototype.start;
         AudioBufferSourceNode.prototype.start = function (...times) { window.begun++; return start.apply(this, times); };`
      );
      return () => browser().executeScript<number>('return window.begun');
    }
    const quiet = async (begun: () => Promise<number>) => {
      await browser().executeScript('window.begun = 0');
      return begun;
    };

    it('lets this change be heard by a key and by a button, and a touched note over its chord', async () => {
      const begun = await opened();
      await page().press('j');
      // Two chords with their basses, and two targets.
      await page().until(async () => (await begun()) >= 8, 'the change and the next');
      await page().press('j');
      await quiet(begun);
      await page().clickNamed('Hear this change');
      await page().until(async () => (await begun()) >= 8, 'the same by the button');
      await page().press('j');
      await quiet(begun);
      await (await page().find('[aria-label="Neck"] [data-cell]')).click();
      await page().until(async () => (await begun()) >= 4, 'a note over its chord');
      expect(await begun()).toBeLessThan(8);
      await page().press('j', 'j');
    });

    it('lets the change that was walked to be heard at once, over what still sounds', async () => {
      const begun = await opened();
      await page().press('j');
      await page().until(async () => (await begun()) >= 8, 'the change and the next');
      await page().press(Key.ARROW_RIGHT);
      await quiet(begun);
      await page().press('j');
      await page().until(async () => (await begun()) >= 8, 'the next change and its next');
      await page().press('j');
    });

    it('lets a choice, the target line and a grip be heard', async () => {
      const begun = await opened();
      await page().clickNamed('Hear what is chosen');
      // Eight notes up, seven down, and the chord.
      await page().until(async () => (await begun()) >= 15, 'the scale over its chord');
      await quiet(begun);
      await page().press('k');
      await page().until(async () => (await begun()) >= 36, 'the whole line');
      await page().press('k');
      await page().press('g');
      await page().find('[aria-label="Hear this grip"]');
      await quiet(begun);
      await page().press('j');
      await page().until(async () => (await begun()) >= 3, 'the grip');
      expect(await begun()).toBeLessThan(7);
    });
  });
}
