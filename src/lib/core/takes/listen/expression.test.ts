import { describe, expect, it } from 'vitest';
import type { HeardNote } from '../model';
import { through, type Effect } from '../player/effects';
import type { Stroke } from '../player/perform';
import { sounded, type Tone } from '../player/string';
import { listenTo, onsetSeconds } from './listen';

const RATE = 44_100;
/** Of the ten notes; a vibrato that counts makes nearly forty. */
const MOST_BEGINNINGS = 14;
const LINE = [57, 60, 62, 64, 62, 67, 69, 67, 64, 60];

/** Notes one after another from half a second on, with what the hand does to some of them. */
const strokes = (
  seconds: number,
  touch: (i: number) => Partial<Stroke> = () => ({}),
  midis = LINE
): Stroke[] =>
  midis.map((midi, i) => ({
    at: 0.5 + i * seconds,
    seconds: seconds * 0.92,
    midi,
    loudness: 0.8,
    ...touch(i)
  }));
const heard = (played: readonly Stroke[], tone: Tone = 'bright', ...effects: Effect[]) =>
  listenTo(
    effects.reduce<Float32Array>(
      (sound, effect) => through(effect, sound, RATE),
      sounded(played, tone, RATE)
    ),
    RATE
  ).notes;
const midisOf = (notes: readonly HeardNote[]) => notes.map(({ midi }) => midi);
/** The events of all notes, with what they come to in cents. */
const eventsOf = (notes: readonly HeardNote[]) =>
  notes.flatMap(({ events }) => events.map(({ kind, cents }) => ({ kind, cents })));

describe('what a hand does to a pitch', () => {
  it('hears a vibrato as one note, however wide, and tells how wide', () => {
    const played = strokes(0.9, () => ({ vibrato: { cents: 40, hertz: 5.5, after: 0.15 } }));
    const notes = heard(played, 'driven');
    expect(midisOf(notes)).toEqual(LINE);
    const shaken = eventsOf(notes).filter(({ kind }) => kind === 'vibrato');
    expect(shaken.length).toBeGreaterThanOrEqual(9);
    for (const { cents } of shaken) expect(Math.abs(cents - 40)).toBeLessThan(10);
  });

  it('takes the swings of a vibrato for no beginnings', () => {
    const played = strokes(0.9, () => ({ vibrato: { cents: 40, hertz: 5.5, after: 0.15 } }));
    expect(onsetSeconds(sounded(played, 'driven', RATE), RATE).length).toBeLessThanOrEqual(MOST_BEGINNINGS);
  });

  it('tells how far a bend came: one of 180 cents is a little short', () => {
    const played = strokes(0.9, () => ({ bend: { from: 0, seconds: 0.2 } })).map((stroke) => ({
      ...stroke,
      midi: stroke.midi - 0.2,
      bend: { from: stroke.midi - 2, seconds: 0.2 }
    }));
    // Plain notes beside them tell how the instrument is tuned.
    const tuned = strokes(0.4).map((stroke) => ({ ...stroke, at: stroke.at + 9.5 }));
    const notes = heard([...played, ...tuned]).slice(0, 10);
    expect(midisOf(notes)).toEqual(LINE);
    for (const { events, cents } of notes) {
      expect(events.map(({ kind }) => kind)).toEqual(['bend']);
      expect(Math.abs(events[0]!.cents - 180)).toBeLessThan(16);
      expect(Math.abs(cents + 20)).toBeLessThan(10);
    }
  });

  it('hears a bend that is let down again, and one that is bent late, as one note', () => {
    const [note] = strokes(1.6, () => ({}), [64]);
    const plain = strokes(0.4).map((stroke) => ({ ...stroke, at: stroke.at + 2 }));
    const bent: Stroke = {
      ...note!,
      bend: { from: 62, seconds: 0.2 },
      release: { to: 62, after: 0.8, seconds: 0.2 }
    };
    const [first, ...rest] = heard([bent, ...plain]);
    expect(first!.midi).toBe(64);
    expect(midisOf(rest)).toEqual(LINE);
    expect(first!.events.map(({ kind }) => kind)).toEqual(['bend', 'release']);
    expect(first!.events.map(({ cents }) => Math.round(cents / 50) * 50)).toEqual([200, -200]);
    expect(Math.abs(first!.events[1]!.at - 1.3)).toBeLessThan(0.06);
  });

  it('hears a slide into a note as that note', () => {
    const played = strokes(0.6, (i) => (i % 2 ? { bend: { from: LINE[i]! - 3, seconds: 0.11 } } : {}));
    const notes = heard(played);
    expect(midisOf(notes)).toEqual(LINE);
    expect(
      notes.filter(({ events }) => events.some(({ kind, cents }) => kind === 'slide' && cents > 150)).length
    ).toBe(5);
  });

  it('tells nothing of the kind of plain notes', () => {
    for (const tone of ['bright', 'dark', 'driven'] as const)
      expect(eventsOf(heard(strokes(0.3), tone))).toEqual([]);
  });
});

describe('what stands between the guitar and the microphone', () => {
  it.each([['chorus'], ['room'], ['delay'], ['chorus', 'room', 'delay']] as Effect[][])(
    'hears each note once through %s',
    (...effects) => {
      const notes = heard(strokes(0.5), 'bright', ...effects);
      expect(midisOf(notes)).toEqual(LINE);
    }
  );

  it('tells the band that leaks in from the player, where it knows what the band played', () => {
    const line = strokes(0.5);
    // Between the notes, 13 dB below them: what a loudspeaker in the room gives.
    const band = line.map((stroke, i) => ({
      ...stroke,
      at: stroke.at + 0.23,
      midi: 48 + 5 * (i % 3),
      loudness: 0.3
    }));
    const [own, leak] = [sounded(line, 'bright', RATE), sounded(band, 'dark', RATE)];
    const both = leak.map((sample, i) => sample + (own[i] ?? 0));
    const notes = (known: readonly { at: number; midi: number }[]) =>
      midisOf(listenTo(both, RATE, undefined, known).notes);
    expect(notes([]).length).toBeGreaterThan(LINE.length);
    expect(notes(band.map(({ at, midi }) => ({ at, midi })))).toEqual(LINE);
    // A player who plays what the band plays is heard.
    expect(midisOf(listenTo(own, RATE, undefined, line).notes)).toEqual(LINE);
  });

  it('takes a note that is struck again, softer each time, for no echo', () => {
    const midis = [60, 60, 60, 64, 64, 64, 67, 67, 67, 60, 60, 60];
    const played = strokes(0.34, (i) => ({ loudness: [0.9, 0.7, 0.55][i % 3]! }), midis);
    expect(midisOf(heard(played))).toEqual(midis);
  });
});

describe('how it was struck', () => {
  it('hears both notes of a double stop', () => {
    const upper = strokes(0.6);
    const both = upper.flatMap((stroke, i) => [
      { ...stroke, midi: stroke.midi - [3, 4, 8, 9][i % 4]! },
      stroke
    ]);
    expect(midisOf(heard(both))).toEqual(both.map(({ midi }) => midi));
  });

  it('tells loud notes from soft ones, and hears muted ones', () => {
    const notes = heard(
      strokes(0.5, (i) => ({ loudness: i % 2 ? 0.35 : 0.9, ...(i % 5 === 4 ? { muted: true } : {}) }))
    );
    expect(midisOf(notes)).toEqual(LINE);
    const level = (i: number) => notes[i]!.level;
    for (const i of [0, 2, 6]) expect(level(i)).toBeGreaterThan(1.6 * level(i + 1));
    expect(Math.max(...notes.map((note) => note.level))).toBe(1);
  });
});
