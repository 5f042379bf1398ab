import { describe, expect, it } from 'vitest';
import { excerptOf, type Excerpt } from '../harmony/excerpt';
import { readSheet } from '../harmony/sheet';
import { midiName } from '../theory/note';
import { bandEvents } from './band';
import { homeChord, slowedBeat, slowingOf, withEnding } from './ending';
import type { Part, SoundEvent } from './events';
import { DRUMS, FEELS, feelNamed, type Feel } from './feel';
import { intensityOf, isQuiet } from './intensity';

const BLUES =
  '{key: F}\n| F7 | Bb7 | F7 | Cm7 F7 | Bb7 | Bdim7 | F7 | Am7b5 D7b9 | Gm7 | C7 | F7 D7b9 | Gm7 C7 |';
const sheetOf = (text: string) => {
  const { form, analysis } = readSheet(text);
  return { analysis, excerpt: excerptOf(form, analysis, { kind: 'form' })! };
};
const play = (excerpt: Excerpt, feel: Feel, intensity: number, more: object = {}): SoundEvent[] =>
  Array.from({ length: 5 }, (_, round) =>
    bandEvents({ excerpt, feel, ratio: 0.6, seed: 5, round, isLast: false, intensity, ...more })
  ).flat();
const mean = (values: readonly number[]) => values.reduce((sum, one) => sum + one, 0) / values.length;
const of = (part: Part, events: readonly SoundEvent[]) => events.filter((event) => event.part === part);
const LEVELS = [0, 0.5, 1];
const PLAYING = FEELS.filter(({ id }) => id !== 'drone');

describe('how much the band gives', () => {
  const { excerpt } = sheetOf(BLUES);

  it.each(PLAYING.map((feel) => [feel.id, feel] as const))(
    '%s: every part is louder at each step, and nothing is over full',
    (_, feel) => {
      const levels = LEVELS.map((intensity) => play(excerpt, feel, intensity));
      for (const part of ['bass', 'chords', 'drums'] as const) {
        const loudness = levels.map((events) =>
          of(part, events).reduce((sum, { velocity }) => sum + velocity, 0)
        );
        for (let i = 1; i < loudness.length; i++)
          expect(loudness[i], `${part} at ${LEVELS[i]}`).toBeGreaterThan(loudness[i - 1]! * 1.02);
      }
      expect(levels.flat().filter(({ velocity }) => !(velocity > 0 && velocity <= 1))).toEqual([]);
    }
  );

  it('half of it is what is played where nothing is asked for', () => {
    for (const feel of FEELS) {
      const pass = { excerpt, feel, ratio: 0.6, seed: 5, round: 2, isLast: false };
      expect(bandEvents(pass)).toEqual(bandEvents({ ...pass, intensity: 0.5 }));
    }
  });

  it('a quiet walking bass plays halves, a quiet jazz drummer takes brushes, both walk and ride again', () => {
    for (const id of ['swing', 'jazz waltz']) {
      const feel = feelNamed(id)!;
      const [soft, plain] = [0.1, 0.5].map((intensity) => play(excerpt, feel, intensity));
      expect(of('bass', soft!).length).toBeLessThan(0.75 * of('bass', plain!).length);
      expect(of('drums', soft!).every(({ isBrushed }) => isBrushed)).toBe(true);
      expect(of('drums', plain!).some(({ isBrushed }) => isBrushed)).toBe(false);
      expect(of('drums', plain!).some(({ midi }) => midi === DRUMS.ride)).toBe(true);
    }
  });

  it('a quiet rock bass holds its roots, and never where another tone comes', () => {
    const [soft, plain] = [0.1, 0.5].map((intensity) =>
      of('bass', play(excerpt, feelNamed('rock')!, intensity))
    );
    expect(soft!.length).toBeLessThan(0.8 * plain!.length);
    expect(new Set(soft!.map(({ midi }) => midi % 12)).size).toBeGreaterThan(4);
  });

  it('comps less where it is quiet, and higher where it gives all', () => {
    const feel = feelNamed('swing')!;
    const [soft, plain, full] = [0, 0.5, 1].map((intensity) => of('chords', play(excerpt, feel, intensity)));
    const strokes = (events: readonly SoundEvent[]) => new Set(events.map(({ start }) => start)).size;
    expect(strokes(soft!)).toBeLessThan(strokes(plain!));
    const height = (events: readonly SoundEvent[]) => mean(events.map(({ midi }) => midi));
    expect(height(full!)).toBeGreaterThan(height(plain!) + 0.5);
  });

  it('fills more often the more it gives, and rides instead of hats with all it has', () => {
    const { excerpt: long } = sheetOf(`{key: A}\n| ${Array(16).fill('A | D | E | A').join(' | ')} |`);
    const rock = feelNamed('rock')!;
    const toms = (intensity: number) =>
      play(long, rock, intensity).filter(({ midi }) => midi === DRUMS.high || midi === DRUMS.floor).length;
    expect(toms(0.1)).toBeLessThan(toms(0.5));
    expect(toms(0.5)).toBeLessThan(toms(1));
    const struck = (intensity: number, drum: number) =>
      play(long, rock, intensity).some(({ midi, part }) => part === 'drums' && midi === drum);
    expect([struck(0.5, DRUMS.ride), struck(0.9, DRUMS.ride)]).toEqual([false, true]);
    expect(struck(0.9, DRUMS.hat)).toBe(false);
  });

  it('is asked for as one number, or round by round, the last of which holds', () => {
    expect([0, 1, 5].map((round) => intensityOf(0.3, round))).toEqual([0.3, 0.3, 0.3]);
    expect([0, 1, 2, 9].map((round) => intensityOf([0.1, 0.4, 1], round))).toEqual([0.1, 0.4, 1, 1]);
    expect(intensityOf(undefined, 3)).toBe(0.5);
    expect([0.29, 0.3].map(isQuiet)).toEqual([true, false]);
  });
});

describe('the ending', () => {
  it.each([
    ['{key: Eb}\n| Eb7 | Ab7 | Eb7 | Bb7 |', 'Eb7'],
    ['{key: Gm}\n| Cm7 | Am7b5 D7b9 | Gm6 | D7 |', 'Gm6'],
    ['{key: Bb}\n| Cm7 | F7 | Cm7 | F7 |', 'Bb'],
    ['{key: C minor}\n| Fm7 | G7 | Fm7 | G7 |', 'Cm'],
    ['{key: Em}\n| E5 | G5 | A5 | B5 |', 'E5'],
    ['{key: D dorian}\n| Dm7 | G7 |', 'Dm7'],
    ['{key: Gb}\n| Gbmaj7/Bb | Db7 | Gbmaj7 | Db7 |', 'Gbmaj7']
  ])('%s comes home to %s', (text, home) => {
    expect(homeChord(sheetOf(text).analysis)?.symbol).toBe(home);
  });

  it.each(FEELS.map((feel) => [feel.id, feel] as const))(
    '%s: stands on 1 of a bar after the form, once, and rings; nothing begins after it',
    (_, feel) => {
      const { excerpt, analysis } = sheetOf('{key: Bb}\n| Bbmaj7 | G7 | Cm7 | F7 |');
      const whole = withEnding(excerpt, analysis);
      expect(whole.beats).toBe(excerpt.beats + 4);
      const events = bandEvents({
        excerpt: whole,
        feel,
        ratio: 0.6,
        seed: 3,
        round: 2,
        isLast: true,
        closes: true
      }).filter(({ part }) => part !== 'click');
      const last = events.filter(({ start }) => start >= excerpt.beats - 1e-6);
      expect(last.every(({ start }) => start <= excerpt.beats + 0.02)).toBe(true);
      const bass = of('bass', last);
      expect(bass.map(({ midi }) => midiName(midi).replace(/\d/, ''))).toEqual(['Bb']);
      expect(bass[0]!.beats).toBeGreaterThan(3.5);
      const chords = of('chords', last);
      expect(chords.length).toBeGreaterThanOrEqual(feel.id === 'drone' ? 1 : 2);
      for (const { midi } of chords) expect([10, 2, 5, 9, 0, 7]).toContain(midi % 12);
      if (feel.kit !== 'none') expect(of('drums', last).length).toBeGreaterThan(1);
      // No stroke of the form is lost before it.
      expect(
        events.filter(({ start }) => start >= excerpt.beats - 4 && start < excerpt.beats).length
      ).toBeGreaterThan(0);
    }
  );

  it('is led into: a walk comes from a step or a fifth', () => {
    for (let seed = 1; seed <= 12; seed++) {
      const { excerpt, analysis } = sheetOf('{key: Bb}\n| Bbmaj7 | G7b9 | Cm7 | F7 |');
      const whole = withEnding(excerpt, analysis);
      const bass = of(
        'bass',
        bandEvents({
          excerpt: whole,
          feel: feelNamed('swing')!,
          ratio: 2 / 3,
          seed,
          round: 0,
          isLast: true,
          closes: true
        })
      );
      const [before, home] = bass.slice(-2);
      expect([1, 2, 5, 7]).toContain(Math.abs(home!.midi - before!.midi) % 12);
    }
  });

  it('slows in a ballad, pulse by pulse, and in no groove', () => {
    const { excerpt, analysis } = sheetOf('{key: F}\n| Fmaj7 | C7 |');
    const whole = withEnding(excerpt, analysis);
    const slowing = slowingOf(whole, 'ballad');
    expect(slowing.map(({ start }) => start)).toEqual([3, 4, 5, 6, 7, 8]);
    for (let i = 1; i < slowing.length; i++) expect(slowing[i]!.part).toBeLessThan(slowing[i - 1]!.part);
    expect(slowingOf(whole, 'funk')).toEqual([]);
    expect([0, 3, 4].map((beat) => slowedBeat(slowing, beat))).toEqual([0, 3, 3 + 1 / 0.96]);
    const beats = [3, 4, 5, 6, 7, 8].map((beat) => slowedBeat(slowing, beat + 1) - slowedBeat(slowing, beat));
    expect(beats.map((beat) => 1 / beat)).toEqual(
      slowing.map(({ part }) => expect.closeTo(part, 9) as number)
    );
  });
});
