/** Jobs of takes: from the simulated player's sound to the remark and into its drill, files, a stand-in of a microphone, what is torn off. */
import { mkdtempSync, readdirSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { Key } from 'selenium-webdriver';
import { describe, expect, it } from 'vitest';
import type { StoredItem } from '../../src/lib/api/practice';
import type { ListedTake, StoredTake } from '../../src/lib/api/take';
import { wavFile } from '../../src/lib/audio/wav';
import { played, tuneOf } from '../../src/lib/core/takes/testing';
import { sounded } from '../../src/lib/core/takes/player/string';
import { AT_FIVE } from '../plan';
import type { Tools } from './neck';

/** The browser has a microphone that plays a file, and asks nobody. */
export const FAKE_MICROPHONE = ['--use-fake-device-for-media-stream', '--use-fake-ui-for-media-stream'];

/** A minor blues of four bars. */
const TUNE = '{title: Keel Job}\n{key: Bbm}\n{tempo: 200}\n| Bbm7 | Ebm7 | F7b9 | Bbm7 |';
const RATE = 44_100;
const PATIENCE = 30_000;

/** A MIDI instrument that is not there: `strike(status, midi)` plays it. */
const MIDI_STAND_IN = `
        const input = { id: 'one', name: 'A guitar', type: 'input', state: 'connected', connection: 'open', manufacturer: '', version: '',
          open: async () => input, close: async () => input, addEventListener() {}, removeEventListener() {}, onmidimessage: null };
        const access = { inputs: new Map([['one', input]]), outputs: new Map(), sysexEnabled: false, addEventListener() {}, removeEventListener() {} };
        Object.defineProperty(navigator, 'requestMIDIAccess', { value: async () => access, configurable: true });
        window.strike = (status, midi) => input.onmidimessage({ data: new Uint8Array([status, midi, 90]), timeStamp: performance.now(), target: input });
      `;

/** What the microphone hears: a line over the tune, again and again. */
export function fakeSound(): string {
  const path = join(mkdtempSync(join(tmpdir(), 'corvel-microphone-')), 'line.wav');
  writeFileSync(path, wavFile(sounded(played(tuneOf(TUNE), 1, 1, 4), 'bright', RATE), RATE));
  return path;
}

export function takeJobs(tools: () => Tools): void {
  const page = () => tools().page;
  const browser = () => tools().browser;

  async function open(): Promise<string> {
    const { server } = tools();
    const { body } = await server.call<{ id: string }>('POST', 'songbook', { source: TUNE, plan: AT_FIVE });
    await page().open(`/charts/${body.id}?view=takes`);
    await page().find('[data-empty]');
    return body.id;
  }
  const takesOf = async (chart: string) =>
    (await tools().server.call<{ takes: ListedTake[] }>('GET', `songbook/${chart}/takes`)).body.takes;
  const count = async (css: string) => (await page().all(css)).length;
  const idle = () =>
    page().until(
      async () => (await count('[data-doing]')) === 0 && (await count('[data-played]')) > 0,
      'the take',
      PATIENCE
    );

  async function simulate(skill: number): Promise<void> {
    if ((await count('[data-player]')) === 0) await page().pick('Source', 'player');
    await page().slide('Skill', Key.HOME, ...Array.from({ length: skill / 5 }, () => Key.ARROW_RIGHT));
    await page().clickNamed('Let it play');
    await idle();
  }
  const bring = async (name: string, bytes: Uint8Array) => {
    const path = join(mkdtempSync(join(tmpdir(), 'corvel-take-')), name);
    writeFileSync(path, bytes);
    await (await page().find('input[type="file"][aria-label="A sound or MIDI file"]')).sendKeys(path);
  };
  const alert = async () => {
    await page().find('[role="alert"]');
    return (await page().texts('[role="alert"]'))[0]!;
  };

  // Sound in real time: a machine that is busy for a moment loses some of it, and may be asked again.
  describe('takes', { retry: 2 }, () => {
    it('lead from the simulated player’s sound to the remark, and from there into its drill', async () => {
      const chart = await open();
      await simulate(100);
      expect(await page().texts('[data-remark="well"]')).toHaveLength(1);
      // What follows is the take: Space replays it, and stops it.
      await page().until(async () => (await count('[data-replay] button:focus')) === 1, 'Replay to be next');
      await page().press(Key.SPACE);
      await page().until(async () => (await page().texts('[data-replay]'))[0] === 'Stop', 'the replay');
      await page().press(Key.SPACE);
      const [good] = await takesOf(chart);
      expect(good!.summary!.figures.hits).toBe(1);
      // The player's own time, drawn and said.
      expect((await page().texts('[data-time-words]'))[0]).toContain('You play on the beat');
      await simulate(0);
      await page().until(async () => (await count('[data-take]')) === 2, 'the second take');
      const [bad] = await takesOf(chart);
      expect(bad!.summary!.figures.hits).toBeLessThan(1);
      // A take by the same player, a little better, that has something to mend and fits all the same.
      await simulate(55);
      await page().until(async () => (await count('[data-take]')) === 3, 'the third take');
      const remarks = await page().texts('[data-remark="mend"]');
      expect(remarks.length).toBeGreaterThan(0);
      await browser().executeScript(
        `[...document.querySelectorAll('[data-remark="mend"] button')].find((b) => b.textContent.trim().startsWith('drill')).click()`
      );
      await page().find('[data-assigned]');
      expect(await browser().getCurrentUrl()).toContain('view=rehearse');
      await page().press(Key.SPACE);
      await page().until(
        async () => (await page().attributes('[data-now]', 'data-now')).length > 0,
        'the stand'
      );
    });

    it('are replayed with the neck in time, looped at a change, and there after a reload', async () => {
      const chart = await open();
      await simulate(80);
      // The sound is opened by a press of the player's.
      await page().clickNamed('Replay');
      await page().until(
        async () => (await count('[data-playhead]')) > 0 && (await count('[data-lit]')) > 0,
        'the replay',
        PATIENCE
      );
      await page().press('q');
      await page().until(async () => (await count('[data-playhead]')) > 0, 'the loop');
      await page().press(Key.SPACE);
      await page().until(async () => (await count('[data-playhead]')) === 0, 'silence');
      const notes = await page().attributes('[data-played]', 'data-played');
      await page().open(`/charts/${chart}?view=takes`);
      await idle();
      expect(await page().attributes('[data-played]', 'data-played')).toEqual(notes);
    });

    it('stand beside one another, and what was played becomes lick, target and practice', async () => {
      const chart = await open();
      await simulate(100);
      await simulate(60);
      await page().until(async () => (await count('[data-take]')) === 2, 'two takes');
      const [, first] = await takesOf(chart);
      await page().pick('Compare with another take', first!.id);
      await page().find(`[data-beside="${first!.id}"]`);
      expect(await count('[aria-label="The take in time"]')).toBe(2);
      const toast = async (text: string) =>
        page().until(async () => (await page().texts('[data-sonner-toast]')).join().includes(text), text);
      await page().press(Key.ARROW_RIGHT);
      await page().pick('Save or keep', 'lick');
      await toast('kept in the lick book');
      await page().pick('Save or keep', 'line');
      await toast('among the lines');
      await page().pick('Save or keep', 'item');
      await toast('among what you practise');
      const { body } = await tools().server.call<{ items: StoredItem[] }>('GET', 'practice/items');
      expect(body.items.filter((item) => item.chart === chart)).toMatchObject([
        { data: { what: 'approach', over: { kind: 'pair', change: 0 } } }
      ]);
    });

    it('are corrected where they were misheard, by keys and by a finger, undone, and there after a reload', async () => {
      const chart = await open();
      await simulate(100);
      const [take] = await takesOf(chart);
      const kept = async () =>
        (
          await tools().server.call<StoredTake>('GET', `songbook/${chart}/takes/${take!.id}`)
        ).body.data!.notes.map(({ midi }) => midi);
      const before = await kept();
      const becomes = (notes: readonly number[], what: string) =>
        page().until(async () => JSON.stringify(await kept()) === JSON.stringify(notes), what);
      await page().press('n', Key.ARROW_RIGHT, Key.ARROW_UP);
      const raised = before.map((midi, i) => (i === 1 ? midi + 1 : midi));
      await becomes(raised, 'the second note a semitone up');
      expect((await page().texts('[data-corrected-note]'))[0]).toMatch(
        /^Note 2 of \d+, [A-G][♯♭]?\d, bar 1$/
      );
      await page().press(Key.DELETE);
      await becomes(raised.toSpliced(1, 1), 'the note to go');
      await page().chord(Key.CONTROL, 'z');
      await becomes(raised, 'the note to come back');
      await page().finger.on(390, 844, async () => {
        const from = await page().finger.over('[data-selected]');
        await page().finger.down(from);
        await page().finger.to({ x: from.x, y: from.y + 20 });
        await page().finger.to({ x: from.x, y: from.y + 60 });
        await page().finger.up();
        await page().until(async () => (await kept())[1]! < raised[1]!, 'the note to follow the finger');
        await page().finger.tap('[data-correct] button', { text: 'Split' });
        await page().until(async () => (await kept()).length === before.length + 1, 'the note in two');
        await page().finger.tap('[data-correct] button', { text: 'Done' });
      });
      const corrected = await kept();
      await page().load(`/charts/${chart}?view=takes`);
      await idle();
      expect(await kept()).toEqual(corrected);
      expect(await count('[data-correct]')).toBe(0);
    });

    it('have what was heard at each change walked by arrows; they are deleted with undo', async () => {
      const chart = await open();
      await simulate(90);
      const STOP = '[data-outline-strip] button[tabindex="0"]';
      const [first] = await page().attributes(STOP, 'data-heard');
      await browser().executeScript(`document.querySelector('${STOP}').focus()`);
      await page().press(Key.ARROW_RIGHT);
      const next = String(Number(first) + 1);
      await page().until(
        async () => (await browser().executeScript('return document.activeElement?.dataset.heard')) === next,
        'the focus on the next change'
      );
      expect(await page().attributes('[data-outline-strip] [aria-current]', 'data-heard')).toEqual([next]);
      expect(await page().attributes(STOP, 'data-heard')).toEqual([next]);
      await page().clickNamed('Delete this take');
      await page().until(async () => (await takesOf(chart)).length === 0, 'the take to go');
      await (await page().find('[data-sonner-toast] [data-button]')).click();
      await page().until(async () => (await count('[data-take]')) === 1, 'the take to come back');
      expect(await takesOf(chart)).toHaveLength(1);
    });

    it('come from a file, whose beat is found and can be put right', async () => {
      const chart = await open();
      const sound = sounded(played(tuneOf(TUNE), 1), 'dark', RATE);
      // The simulated player's own clock is 100; the chart says 200.
      await page().number('Tempo', '104');
      await bring('evening.wav', wavFile(sound, RATE));
      await idle();
      await page().until(async () => ((await takesOf(chart))[0]?.bytes ?? 0) > 0, 'the take and its sound');
      const [take] = await takesOf(chart);
      expect(take).toMatchObject({ name: 'evening', way: 'file' });
      expect(Math.abs(take!.tempo - 100)).toBeLessThan(1);
      expect(take!.bytes).toBe(44 + 2 * sound.length);
      expect(take!.summary!.figures.hits).toBe(1);
      await page().number('Tempo of the take', '120');
      await page().until(async () => (await takesOf(chart))[0]!.tempo === 120, 'the other tempo');
      expect((await takesOf(chart))[0]!.summary!.figures.hits).toBeLessThan(1);
    });

    it('are no take where the file is none: it says so, and the page goes on', async () => {
      await open();
      await bring('letter.wav', new TextEncoder().encode('no sound at all'));
      expect(await alert()).toContain('no sound that this browser reads');
      await bring('letter.mid', new TextEncoder().encode('no notes at all'));
      await page().until(async () => (await alert()).includes('MIDI'), 'the other sentence');
      await simulate(100);
      expect(await count('[role="alert"]')).toBe(0);
    });

    it('say how to go on where the microphone is refused', async () => {
      await open();
      await page().alter(
        `navigator.mediaDevices.getUserMedia = () => Promise.reject(new DOMException('', 'NotAllowedError'))`
      );
      await page().clickNamed('Record');
      expect(await alert()).toContain('not allowed to listen');
      expect(await count('[data-recording]')).toBe(0);
    });

    it('are recorded with the band, the light on, the level shown, and read when it stops', async () => {
      const chart = await open();
      await page().clickNamed('Record');
      await page().find('[data-recording]');
      // What is played over is to be read meanwhile.
      await page().until(
        async () => (await page().attributes('[data-stand] [data-now]', 'data-now'))[0] === 'Ebm7',
        'the second chord',
        PATIENCE
      );
      await page().until(
        async () => Number((await page().attributes('[data-level]', 'data-level'))[0]) > 0.02,
        'the level',
        PATIENCE
      );
      // A take is there from its first moment on.
      await page().until(
        async () => ((await takesOf(chart))[0]?.bytes ?? 0) > RATE * 2,
        'its sound',
        PATIENCE
      );
      await page().clickNamed('Stop and read it');
      await idle();
      expect(await count('[data-recording]')).toBe(0);
      await page().until(async () => ((await takesOf(chart))[0]?.seconds ?? 0) > 1, 'its notes', PATIENCE);
      const [take] = await takesOf(chart);
      expect(take!.way).toBe('microphone');
      expect(take!.bytes).toBeGreaterThan(44 + 2 * RATE * (take!.seconds - 0.1));
    });

    it('come from a MIDI instrument, in time with the band', async () => {
      const chart = await open();
      await page().alter(MIDI_STAND_IN);
      await page().pick('Source', 'midi');
      await page().clickNamed('Record');
      await page().find('[data-recording]');
      await browser().executeAsyncScript(
        `const done = arguments[0]; let n = 0;
         window.struck = [];
         const timer = setInterval(() => {
           window.struck.push(performance.now() / 1000);
           if (n > 0) window.strike(0x80, 60 + n - 1);
           if (n === 5) { clearInterval(timer); done(); } else window.strike(0x90, 60 + n++);
         }, 400);`
      );
      const struck = await browser().executeScript<number[]>('return window.struck');
      await page().clickNamed('Stop and read it');
      await page().until(async () => (await takesOf(chart)).length === 1, 'the take');
      const [take] = await takesOf(chart);
      expect(take).toMatchObject({ way: 'midi', bytes: 0, tempo: 200 });
      const { body } = await tools().server.call<StoredTake>('GET', `songbook/${chart}/takes/${take!.id}`);
      const notes = body.data!.notes;
      // What was struck while a bar was counted in is none of it.
      expect(notes.length).toBeGreaterThanOrEqual(2);
      expect(notes.map(({ midi }) => midi)).toEqual(notes.map((_, i) => 65 - notes.length + i));
      // As hard as they were struck: 90 of 127.
      for (const { level } of notes) expect(level).toBeCloseTo(90 / 127, 3);
      // A busy machine strikes late, and its audio clock slips: against what was struck, within an eighth of a second.
      const first = 5 - notes.length;
      const apart = struck[first + 1]! - struck[first]!;
      expect(Math.abs(notes[1]!.at - notes[0]!.at - apart)).toBeLessThan(0.125);
      expect(Math.abs(notes[0]!.seconds - apart)).toBeLessThan(0.125);
    });

    it('know how late an input comes in, once eight clicks were played with', async () => {
      await open();
      // A microphone that hears the clicks, a while after they were sounded.
      await page().alter(`
        navigator.mediaDevices.getUserMedia = async () => {
          const context = new AudioContext();
          const stream = context.createMediaStreamDestination();
          const started = window.AudioScheduledSourceNode.prototype.start;
          window.OscillatorNode.prototype.start = function (when, ...rest) {
            const at = context.currentTime + Math.max(0, (when ?? 0) - this.context.currentTime) + 0.12;
            const click = new OscillatorNode(context, { frequency: 700 });
            const gain = new GainNode(context, { gain: 0.5 });
            gain.gain.setTargetAtTime(0, at, 0.02);
            click.connect(gain).connect(stream);
            started.call(click, at);
            click.stop(at + 0.1);
            return started.call(this, when, ...rest);
          };
          await context.resume();
          return stream.stream;
        };
      `);
      await page().clickNamed('Latency');
      await page().until(
        async () => (await count('[data-said], [role="alert"]')) > 0,
        'what was measured',
        PATIENCE
      );
      const [said] = await page().texts('[data-said], [role="alert"]');
      expect(said).toMatch(/comes in \d+ ms late/);
      const late = Number(/comes in (\d+) ms/.exec(said!)![1]);
      // Two audio clocks stand in for a room, and a busy machine lets them drift.
      expect(late).toBeGreaterThan(20);
      expect(late).toBeLessThan(400);
    });

    it('know how late a MIDI instrument comes in, and take that out of what it plays', async () => {
      await open();
      await page().alter(`localStorage.removeItem('corvel-latency'); ${MIDI_STAND_IN}`);
      // The clicks are answered a seventh of a second after they sound, by the audio clock: it may stand still on a busy machine.
      await browser().executeScript(`
        const started = window.OscillatorNode.prototype.start;
        window.OscillatorNode.prototype.start = function (when, ...rest) {
          const answer = () => {
            if (this.context.currentTime >= (when ?? 0) + 0.14) window.strike(0x90, 60);
            else setTimeout(answer, 4);
          };
          answer();
          return started.call(this, when, ...rest);
        };`);
      await page().pick('Source', 'midi');
      await page().clickNamed('MIDI latency');
      await page().until(
        async () => (await count('[data-said], [role="alert"]')) > 0,
        'what was measured',
        PATIENCE
      );
      const [said] = await page().texts('[data-said], [role="alert"]');
      expect(said).toMatch(/comes in \d+ ms late/);
      const kept = await browser().executeScript<string>(`return localStorage.getItem('corvel-latency')`);
      const { midi } = JSON.parse(kept) as { midi: { seconds: number } };
      // A timer answers for the hand, and a busy machine is late.
      expect(midi.seconds).toBeGreaterThan(0.1);
      expect(midi.seconds).toBeLessThan(0.4);
      await browser().executeScript(`localStorage.removeItem('corvel-latency')`);
    });

    it('are there up to a moment before they were torn off, by the page or the server', async () => {
      const chart = await open();
      await page().clickNamed('Record');
      await page().find('[data-recording]');
      const begun = Date.now();
      const sent = async () => ((await takesOf(chart))[0]?.bytes ?? 0) / (2 * RATE);
      await page().until(async () => (await sent()) > 2, 'some sound', PATIENCE);
      await tools().server.stop('SIGKILL');
      await page().until(async () => (await count('[data-recording]')) === 1, 'it to go on');
      await tools().server.start();
      const before = await sent();
      await page().until(async () => (await sent()) > before + 1, 'what was played meanwhile', PATIENCE);
      const lasted = (Date.now() - begun) / 1000;
      await page().load('/');
      expect(await sent()).toBeGreaterThan(lasted - 5);
      await page().open(`/charts/${chart}?view=takes`);
      await page().find('[data-take]');
      // Nothing is said of what nobody has listened to.
      expect(await page().texts('[data-take]')).toEqual([expect.stringContaining('not listened to yet')]);
      expect(await count('[data-met]')).toBe(0);
      await page().clickNamed('Listen to it');
      await idle();
      expect((await takesOf(chart))[0]!.seconds).toBeGreaterThan(lasted - 5);
    });

    it('are recorded exactly to the sample', async () => {
      await open();
      const assets = fileURLToPath(new URL('../../build/client/_app/immutable/workers', import.meta.url));
      const file = readdirSync(assets).find((name) => /^recorder-.*\.js$/.test(name));
      const [differences, first, length] = await browser().executeAsyncScript<[number, number, number]>(
        `const [path, done] = arguments; (async () => {
          const context = new OfflineAudioContext(1, 44100, 44100);
          const buffer = context.createBuffer(1, 44100, 44100);
          const samples = buffer.getChannelData(0);
          for (let i = 0; i < samples.length; i++) samples[i] = Math.sin(i * i);
          const source = context.createBufferSource();
          source.buffer = buffer;
          await context.audioWorklet.addModule(path);
          const node = new AudioWorkletNode(context, 'corvel-recorder', { numberOfOutputs: 0, channelCount: 1, channelCountMode: 'explicit' });
          const blocks = [];
          const ended = new Promise((resolve) => (node.port.onmessage = ({ data }) => {
            blocks.push(data);
            if (data.frame + data.samples.length >= 44100) resolve();
          }));
          source.connect(node);
          source.start();
          await context.startRendering();
          node.port.postMessage('flush');
          await ended;
          let differences = 0;
          let heard = 0;
          for (const { frame, samples: own } of blocks) {
            heard += own.length;
            own.forEach((x, i) => { if (frame + i < 44100 && x !== samples[frame + i]) differences++; });
          }
          done([differences, blocks[0].frame, heard]);
        })().catch((error) => done([String(error), 0, 0]));`,
        `/_app/immutable/workers/${file}`
      );
      expect(differences).toBe(0);
      expect(first).toBe(0);
      expect(length).toBeGreaterThanOrEqual(RATE);
    });
  });
}
