import { describe, expect, it } from 'vitest';
import { chanceOf } from '../../line/chance';
import type { HeardNote } from '../model';
import type { Stroke } from '../player/perform';
import { sounded, TONES } from '../player/string';
import { framesOf } from './frames';
import { listenTo } from './listen';
import { resampled } from './resample';

const RATE = 44_100;
const SCALE = [52, 55, 57, 60, 62, 64, 67, 69, 72, 76];

/** Notes one after another from half a second on. */
const strokes = (midis: readonly number[], seconds: number, sounds = 0.92): Stroke[] =>
  midis.map((midi, i) => ({ at: 0.5 + i * seconds, seconds: seconds * sounds, midi, loudness: 0.8 }));

const walk = (seed: number, count = 24) => {
  const chance = chanceOf(seed);
  let at = 4;
  return Array.from({ length: count }, () => {
    at = Math.max(0, Math.min(SCALE.length - 1, at + Math.floor(chance() * 5) - 2));
    return SCALE[at]!;
  });
};

const midisOf = (notes: readonly HeardNote[]) => notes.map(({ midi }) => midi);

/** Notes that were heard where they were played, on their pitch. */
const found = (heard: readonly HeardNote[], played: readonly Stroke[]) =>
  played.filter(({ at, midi }) => heard.some((note) => note.midi === midi && Math.abs(note.at - at) < 0.05))
    .length;

/** Of eighty; without a look at the octave and twelfth below there are fewer than this. */
const MOST_OF_EIGHTY = 60;

it('frames at the ends of a sound hold silence beyond it', () => {
  const frames = framesOf(new Float32Array(600), 22_050);
  expect(frames.length).toBeGreaterThan(1);
  expect(frames.every(({ level, pitch }) => level === 0 && pitch === null)).toBe(true);
});

describe('listening to one string', () => {
  it.each(TONES)('hears every note of a %s tone in time', (tone) => {
    const played = strokes(walk(3), 0.22);
    const { notes, troubles } = listenTo(sounded(played, tone, RATE), RATE);
    expect(troubles).toEqual([]);
    expect(found(notes, played)).toBeGreaterThanOrEqual(played.length - 1);
    expect(notes.length).toBeLessThanOrEqual(played.length + 1);
    const shifts = notes
      .flatMap((note) => {
        const own = played.find(({ at }) => Math.abs(at - note.at) < 0.05);
        return own ? [note.at - own.at] : [];
      })
      .sort((a, b) => a - b);
    expect(Math.abs(shifts[shifts.length >> 1]!)).toBeLessThan(0.02);
  });

  it('hears a repeated note as often as it is played', () => {
    const { notes } = listenTo(sounded(strokes([60, 60, 60, 60], 0.3), 'bright', RATE), RATE);
    expect(midisOf(notes)).toEqual([60, 60, 60, 60]);
  });

  it('tells how long a note sounds, and that one is held no longer than it is', () => {
    const { notes } = listenTo(sounded(strokes([57, 64], 1, 0.4), 'dark', RATE), RATE);
    expect(notes[0]!.seconds).toBeGreaterThan(0.35);
    expect(notes[0]!.seconds).toBeLessThan(0.55);
  });

  it('finds three of four low pitches even where chance decides which harmonics there are', () => {
    const chance = chanceOf(11);
    const played = strokes(
      [...walk(21, 40), ...walk(22, 40)].map((midi) => midi - 7),
      0.3
    );
    const sound = new Float32Array(RATE * 26);
    for (const { at, midi } of played) {
      // A loop of noise: which harmonics are in it is chance.
      const turn = Math.round(RATE / (440 * 2 ** ((midi - 69) / 12)));
      const loop = Float32Array.from({ length: turn }, () => chance() - 0.5);
      const from = Math.round(at * RATE);
      for (let i = 0; i < 0.27 * RATE; i++) {
        const now = loop[i % turn]!;
        sound[from + i] = 0.6 * now;
        loop[i % turn] = 0.498 * (now + loop[(i + 1) % turn]!);
      }
    }
    expect(found(listenTo(sound, RATE).notes, played)).toBeGreaterThanOrEqual(MOST_OF_EIGHTY);
  });

  it('takes the tuning of the whole instrument out', () => {
    const played = strokes(walk(5), 0.25);
    // No note is quite as flat as the next one.
    const flat = played.map((stroke, i) => ({ ...stroke, midi: stroke.midi - 0.4 + (i % 2 ? 0.1 : -0.1) }));
    const { notes, tuning } = listenTo(sounded(flat, 'dark', RATE), RATE);
    expect(tuning).toBeGreaterThan(-50);
    expect(tuning).toBeLessThan(-32);
    expect(found(notes, played)).toBeGreaterThanOrEqual(played.length - 1);
    const off = notes.map(({ cents }) => Math.abs(cents)).sort((a, b) => a - b);
    expect(off[off.length >> 1]).toBeLessThan(20);
  });

  it('follows a bend as one note, which is the note it comes to', () => {
    const bent: Stroke = { at: 0.5, seconds: 0.9, midi: 64, loudness: 0.8, bend: { from: 62, seconds: 0.3 } };
    const { notes } = listenTo(sounded([bent], 'driven', RATE), RATE);
    expect(midisOf(notes)).toEqual([64]);
    const curve = notes[0]!.curve.filter((cents) => cents !== null);
    expect(Math.min(...curve)).toBeLessThan(-120);
    expect(Math.abs(curve.at(-6)!)).toBeLessThan(30);
  });

  it('hears a note that is hammered on without a stroke', () => {
    const [first] = strokes([60], 0.5, 1);
    const second: Stroke = { at: 1, seconds: 0.6, midi: 64, loudness: 0.8, slur: true };
    const { notes } = listenTo(sounded([first!, second], 'bright', RATE), RATE);
    expect(midisOf(notes)).toEqual([60, 64]);
    expect(Math.abs(notes[1]!.at - 1)).toBeLessThan(0.05);
  });

  it.each([8000, 22_050, 48_000, 96_000])('hears the same at %i samples a second', (rate) => {
    const played = strokes(walk(7, 12), 0.3);
    const { notes } = listenTo(sounded(played, 'dark', rate), rate);
    expect(found(notes, played)).toBeGreaterThanOrEqual(played.length - 1);
  });

  it('hears soft playing as it hears loud playing', () => {
    const sound = sounded(strokes(walk(9), 0.22), 'bright', RATE);
    const soft = sound.map((sample) => sample / 30);
    expect(midisOf(listenTo(soft, RATE).notes)).toEqual(midisOf(listenTo(sound, RATE).notes));
  });
});

describe('what is no single line', () => {
  it('is told as silence', () => {
    expect(listenTo(new Float32Array(RATE), RATE)).toEqual({ notes: [], tuning: 0, troubles: ['silence'] });
    expect(listenTo(new Float32Array(0), RATE).troubles).toEqual(['silence']);
  });

  it('is told as noise, and is no note', () => {
    const chance = chanceOf(4);
    const noise = Float32Array.from({ length: 3 * RATE }, () => chance() - 0.5);
    expect(listenTo(noise, RATE)).toMatchObject({ notes: [], troubles: ['noise'] });
  });

  it('is told as clipped, and read all the same', () => {
    const played = strokes(walk(2), 0.25);
    const loud = sounded(played, 'bright', RATE).map((sample) => Math.max(-1, Math.min(1, sample * 12)));
    const { notes, troubles } = listenTo(loud, RATE);
    expect(troubles).toContain('clipped');
    expect(found(notes, played)).toBeGreaterThan(played.length * 0.7);
  });

  it('is told as several notes at once', () => {
    const layers = [0, 4, 7].map((up) =>
      sounded(
        strokes([48, 53, 55, 48, 53, 55], 0.6).map((s) => ({ ...s, midi: s.midi + up })),
        'dark',
        RATE
      )
    );
    const chords = layers[0]!.map((sample, i) => sample + layers[1]![i]! + layers[2]![i]!);
    expect(listenTo(chords, RATE).troubles).toContain('several notes at once');
  });
});

describe('sound at another rate', () => {
  it('keeps a tone as it is', () => {
    const tone = Float32Array.from({ length: RATE }, (_, i) => Math.sin((2 * Math.PI * 440 * i) / RATE));
    const half = resampled(tone, RATE, RATE / 2);
    expect(half.length).toBe(RATE / 2);
    for (let i = 100; i < half.length - 100; i += 97) {
      expect(half[i]).toBeCloseTo(Math.sin((2 * Math.PI * 440 * 2 * i) / RATE), 2);
    }
  });

  it('cuts off what would fold back', () => {
    const high = Float32Array.from({ length: RATE }, (_, i) => Math.sin((2 * Math.PI * 15_000 * i) / RATE));
    const half = resampled(high, RATE, RATE / 2).subarray(200, 20_000);
    expect(half.reduce((most, x) => Math.max(most, Math.abs(x)), 0)).toBeLessThan(0.02);
  });
});
