import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { sounded, type Tone } from '../player/string';
import { LiveEar, type LiveMoment, type LiveNote } from './live';

const RATE = 44_100;

/** Notes of half a second each, one after another from 0.3 s on. */
const soundOf = (pitches: readonly number[], tone: Tone = 'bright', every = 0.5) =>
  sounded(
    pitches.map((midi, i) => ({ at: 0.3 + i * every, seconds: every * 0.95, midi, loudness: 0.8 })),
    tone,
    RATE
  );

function heard(samples: Float32Array, block = 512, rate = RATE, first = 0) {
  const ear = new LiveEar(rate);
  const moments: LiveMoment[] = [];
  for (let from = 0; from < samples.length; from += block) {
    moments.push(
      ear.take({
        frame: first + from,
        samples: samples.slice(from, from + block) as Float32Array<ArrayBuffer>
      })
    );
  }
  return { moments, notes: moments.flatMap(({ began, at }) => began.map((note) => ({ ...note, told: at }))) };
}
const pitchesOf = (notes: readonly LiveNote[]) => notes.map(({ midi }) => midi);

describe('the live ear', () => {
  // F♯ Locrian up and down, a repeated note and leaps of octaves among it.
  const line = [54, 55, 57, 57, 60, 48, 60, 64, 66, 62, 50, 40];

  it.each(['bright', 'dark', 'driven'] as const)(
    'tells a %s line note for note, within 80 ms of its stroke',
    (tone) => {
      const { notes } = heard(soundOf(line, tone));
      expect(pitchesOf(notes)).toEqual(line);
      notes.forEach(({ at, told }, i) => {
        expect(Math.abs(at - (0.3 + i * 0.5))).toBeLessThan(0.04);
        expect(told - (0.3 + i * 0.5)).toBeLessThan(0.08);
      });
    }
  );

  it('does not depend on how the sound is cut into blocks', () => {
    const samples = soundOf([45, 52, 61, 70]);
    const whole = pitchesOf(heard(samples).notes);
    fc.assert(
      fc.property(fc.integer({ min: 64, max: 4000 }), (block) => {
        expect(pitchesOf(heard(samples, block).notes)).toEqual(whole);
      }),
      { numRuns: 8 }
    );
  });

  it('gives times of the clock that stamps the blocks', () => {
    const samples = soundOf([50, 53]);
    const [a, b] = [heard(samples), heard(samples, 512, RATE, 10 * RATE)];
    b.notes.forEach((note, i) => expect(note.at - a.notes[i]!.at).toBeCloseTo(10, 6));
  });

  it('hears at other rates', () => {
    const samples = sounded([{ at: 0.2, seconds: 0.8, midi: 57, loudness: 0.8 }], 'bright', 48_000);
    expect(pitchesOf(heard(samples, 512, 48_000).notes)).toEqual([57]);
  });

  it('tells that a note has ended, and nothing of silence or noise', () => {
    const { moments } = heard(new Float32Array([...soundOf([57]), ...new Float32Array(RATE)]));
    expect(moments.some(({ sounds }) => sounds?.midi === 57)).toBe(true);
    expect(moments.at(-1)!.sounds).toBeNull();
    expect(heard(new Float32Array(RATE)).notes).toEqual([]);
    let state = 7;
    const noise = Float32Array.from({ length: 2 * RATE }, () => {
      state = (state * 16_807) % 2_147_483_647;
      return 0.1 * (state / 2_147_483_647 - 0.5);
    });
    expect(heard(noise).notes).toEqual([]);
  });

  it('hears a pitch that swells without a stroke, as a voice does', () => {
    const voice = Float32Array.from({ length: 2 * RATE }, (_, i) => {
      const swell = Math.min(1, i / (0.6 * RATE));
      const at = (2 * Math.PI * 220 * i) / RATE;
      return 0.2 * swell * (Math.sin(at) + 0.5 * Math.sin(2 * at) + 0.25 * Math.sin(3 * at));
    });
    expect(pitchesOf(heard(voice).notes)).toEqual([57]);
  });

  it('learns how a whole instrument is tuned', () => {
    const pitches = Array.from({ length: 12 }, (_, i) => 50 + i);
    const { notes } = heard(soundOf(pitches.map((midi) => midi + 0.35)));
    expect(pitchesOf(notes)).toEqual(pitches);
  });
});
