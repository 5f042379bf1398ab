/** Jobs of listening while it is played: the stand, the tuner, a played answer, a trade; a microphone that goes, a page that sleeps. */
import { Key } from 'selenium-webdriver';
import { describe, expect, it } from 'vitest';
import type { ListedTake, StoredTake } from '../../src/lib/api/take';
import { AT_FIVE } from '../plan';
import type { Tools } from './neck';

const TUNE = '{title: Sounding Lead}\n{key: Bbm}\n{tempo: 160}\n| Bbm7 | Ebm7 | F7b9 | Bbm7 |';
const PATIENCE = 30_000;

/** A stand-in of a microphone: a plucked tone of so many hertz, again and again. */
const PLUCKED = `
  window.pluckAt = (hertz, every) => {
    navigator.mediaDevices.getUserMedia = async () => {
      const context = new AudioContext();
      const out = context.createMediaStreamDestination();
      await context.resume();
      let next = context.currentTime + 0.1;
      setInterval(() => {
        for (; next < context.currentTime + 1; next += every) {
          const tone = new OscillatorNode(context, { type: 'sawtooth', frequency: hertz });
          const gain = new GainNode(context, { gain: 0 });
          gain.gain.setValueAtTime(0.4, next);
          gain.gain.setTargetAtTime(0, next + 0.01, every / 3);
          tone.connect(gain).connect(out);
          tone.start(next);
          tone.stop(next + every * 0.95);
        }
      }, 200);
      window.unplug = () => out.stream.getTracks()[0].dispatchEvent(new Event('ended'));
      return out.stream;
    };
  };`;

export function listeningJobs(tools: () => Tools): void {
  const page = () => tools().page;
  const browser = () => tools().browser;

  async function open(view: string): Promise<string> {
    const { server } = tools();
    const { body } = await server.call<{ id: string }>('POST', 'songbook', { source: TUNE, plan: AT_FIVE });
    await page().open(`/charts/${body.id}?view=${view}`);
    return body.id;
  }
  const pluck = (hertz: number, every = 0.375) =>
    page().alter(`${PLUCKED} window.pluckAt(arguments[0], arguments[1])`, hertz, every);
  const all = async (css: string) => (await page().all(css)).length;
  const attribute = async (css: string, name: string) => (await page().attributes(css, name))[0] ?? null;
  const takesOf = async (chart: string) =>
    (await tools().server.call<{ takes: ListedTake[] }>('GET', `songbook/${chart}/takes`)).body.takes;

  // Sound in real time: a machine that is busy for a moment loses some of it, and may be asked again.
  describe('listening while it is played', { retry: 2 }, () => {
    it('shows the note on the neck and how each change was met, until it is turned off', async () => {
      await open('rehearse');
      // A D flat: the third of B flat minor, the seventh of E flat minor, outside F.
      await pluck(277.18);
      await page().find('[aria-label="Listening"]');
      expect(await all('[data-listening="microphone"]')).toBe(0);
      await page().press('z');
      await page().find('[data-listening="microphone"]');
      // Read at once: the tone comes and goes.
      const heard = () =>
        browser().executeScript<string[]>(
          `return [...document.querySelectorAll('[data-heard="61"] [data-heard-at]')].map((e) => e.dataset.heardAt)`
        );
      await page().until(async () => (await heard()).includes('3:6'), 'the note in its place', PATIENCE);
      await page().press(Key.SPACE);
      await page().until(
        async () => /^\d+\/[4-9]/.test((await attribute('[data-landed]', 'data-landed')) ?? ''),
        'the changes of a round',
        PATIENCE
      );
      // Outside the chord: F7 has no D flat.
      const met = () =>
        browser().executeScript<Record<string, string>>(
          `return Object.fromEntries([...document.querySelectorAll('[data-met-at]')].map((e) =>
             [e.dataset.metAt, e.querySelector('[data-met]').dataset.met]))`
        );
      // The line turns its pages with the music.
      await page().until(async () => (await met())['2'] === 'outside', 'the miss over F7', PATIENCE);
      await page().press('z');
      await page().until(
        async () => (await all('[data-heard], [data-met-at], [data-landed]')) === 0,
        'it to go'
      );
      await page().press(Key.SPACE);
    });

    it('says how to go on where the microphone goes, and the band goes on', async () => {
      await open('rehearse');
      await pluck(220);
      await page().press('z');
      await page().find('[data-listening="microphone"]');
      await page().press(Key.SPACE);
      await page().find('[data-playing]');
      await browser().executeScript('window.unplug()');
      await page().find('[role="alert"]');
      expect((await page().texts('[role="alert"]')).join()).toContain('microphone was disconnected');
      expect(await all('[data-playing]')).toBe(1);
      expect(await all('[data-listening="microphone"]')).toBe(0);
    });

    it('tunes: the string, how far it is off, and which way to turn', async () => {
      await open('moment');
      // The A string, twelve cents flat.
      await pluck(110 * 2 ** (-12 / 1200), 1.2);
      await page().press('u');
      await page().until(
        async () => (await attribute('[data-tuner]', 'data-string')) === '5',
        'the string',
        PATIENCE
      );
      await page().until(
        async () => Math.abs(Number(await attribute('[data-tuner]', 'data-cents')) + 12) < 2,
        'its cents',
        PATIENCE
      );
      expect((await page().texts('[data-words]'))[0]).toMatch(/1[0-4] cents flat: tighten/);
      await page().press(Key.ESCAPE);
      await page().until(async () => (await all('[data-tuner]')) === 0, 'the tuner to close');
    });

    it('takes what is played to the microphone as the answer to a card, in any octave', async () => {
      const { server } = tools();
      const question = { kind: 'find', symbol: 'Ebm7', degree: 'b7', from: 4, to: 8 };
      const review = {
        id: crypto.randomUUID(),
        question,
        at: 1_300_000_000_000,
        day: '2011-03-13',
        isRight: true,
        seconds: 9
      };
      await server.call('POST', 'practice/reviews', { reviews: [review] });
      await page().open('/trainer');
      await pluck(138.59, 0.8);
      await page().press(Key.ENTER);
      await page().until(
        async () => (await page().texts('[data-ask]'))[0]?.includes('♭7 of E♭m7') === true,
        'the card'
      );
      await page().clickNamed('listen');
      await page().find('[data-verdict]');
      expect(await attribute('[data-verdict]', 'data-verdict')).toBe('right');
    });

    it('trades bars with the player, and reads each answer against its call', async () => {
      const chart = await open('takes');
      await page().find('[data-empty]');
      await page().pick('Trade bars', '2');
      await page().pick('Source', 'player');
      await page().clickNamed('Let it play');
      await page().until(async () => (await all('[data-exchange]')) > 0, 'the exchanges', PATIENCE);
      expect((await page().texts('[data-exchange]'))[0]).toMatch(/^Bars 3–4: you /);
      expect(await all('[data-called]')).toBeGreaterThan(3);
      const [take] = await takesOf(chart);
      const { body } = await tools().server.call<StoredTake>('GET', `songbook/${chart}/takes/${take!.id}`);
      expect(body.data!.trade!.bars).toBe(2);
      // Bars 1 and 2 are Corvel's: nothing of the player's is judged there.
      expect(take!.summary!.figures.changes).toBe(4);
      await page().pick('Source', 'microphone');
      await page().clickNamed('Record');
      await page().find('[data-turn="corvel"]');
      await page().find('[data-turn="own"]');
      await page().clickNamed('Stop and read it');
      await page().until(async () => (await takesOf(chart)).length === 2, 'the recording', PATIENCE);
    });

    it('keeps what was recorded until the microphone went', async () => {
      const chart = await open('takes');
      await page().find('[data-empty]');
      await pluck(233.08);
      await page().clickNamed('Record');
      await page().find('[data-recording]');
      await page().until(
        async () => ((await takesOf(chart))[0]?.bytes ?? 0) > 44_100 * 3,
        'some sound',
        PATIENCE
      );
      await browser().executeScript('window.unplug()');
      await page().until(async () => (await all('[data-recording]')) === 0, 'the light to go out');
      await page().until(async () => ((await takesOf(chart))[0]?.seconds ?? 0) > 1, 'its notes', PATIENCE);
      // It is told once the answer to what was kept has come.
      await page().until(
        async () =>
          (await page().texts('[role="alert"]')).join().includes('What was recorded until then is kept'),
        'that it is kept',
        PATIENCE
      );
    });

    it('goes on recording after the page has stood still', async () => {
      const { server } = tools();
      const { body } = await server.call<{ id: string }>('POST', 'songbook', { source: TUNE, plan: AT_FIVE });
      await page().open(`/charts/${body.id}?view=takes`);
      await page().find('[data-empty]');
      await page().clickNamed('Record');
      await page().find('[data-recording]');
      const bytes = async () => (await takesOf(body.id))[0]?.bytes ?? 0;
      await page().until(async () => (await bytes()) > 44_100, 'some sound', PATIENCE);
      // Longer than it is from one piece to the next; nothing of the page runs meanwhile.
      const before = await bytes();
      await browser().executeScript('for (const since = Date.now(); Date.now() - since < 3000; );');
      await page().until(async () => (await bytes()) > before + 88_200, 'more of it', PATIENCE);
      await page().clickNamed('Stop and read it');
      await page().until(
        async () => ((await takesOf(body.id))[0]?.seconds ?? 0) > 3,
        'it to be read',
        2 * PATIENCE
      );
    });
  });
}
