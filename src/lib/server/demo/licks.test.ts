import { describe, expect, it } from 'vitest';
import { lickFacts } from '../../core/line/lick-facts';
import { endOf, ticksOf } from '../../core/line/model';
import { STANDARD } from '../../core/neck/tuning';
import { demoLick } from './demo';
import { DEMO_LICKS, NOT_TOLD } from './licks';

const words = (text: string) => text.split(/[\s|]+/).filter(Boolean);

describe('the demo lick book', () => {
  it('has idioms of every style, each with a name of its own', () => {
    expect(DEMO_LICKS.length).toBeGreaterThanOrEqual(40);
    expect(new Set(DEMO_LICKS.map(({ name }) => name)).size).toBe(DEMO_LICKS.length);
    const tags = new Set(DEMO_LICKS.flatMap((lick) => lick.tags));
    for (const style of [
      'swing',
      'blues',
      'minor blues',
      'rock',
      'soul',
      'funk',
      'waltz',
      'modal',
      'bossa',
      'ballad',
      'country'
    ])
      expect(tags).toContain(style);
  });

  it('breathes, pushes, bends and slurs: it is no book of straight eighths', () => {
    const all = DEMO_LICKS.map((lick) => demoLick(lick));
    const share = (has: (lick: (typeof all)[number]) => boolean) => all.filter(has).length / all.length;
    expect(share(({ notes }) => notes[0]!.start < 0)).toBeGreaterThan(0.4);
    expect(
      share(({ notes }) => notes.some(({ slur, slide, bend, vibrato }) => slur || slide || bend || vibrato))
    ).toBeGreaterThan(0.8);
    expect(share(({ notes }) => new Set(notes.map(({ length }) => length)).size > 2)).toBeGreaterThan(0.7);
    expect(all.filter(({ by }) => by === 'key').length).toBeGreaterThan(6);
    expect(
      all.filter(({ notes }) => notes.some((note, i) => notes[i - 1]?.start === note.start)).length
    ).toBeGreaterThan(1);
  });

  it.each(DEMO_LICKS.map((lick) => [lick.name, lick] as const))(
    '%s is whole, lies on the neck under one hand, and says honestly whether it tells its chords',
    (_, lick) => {
      const data = demoLick(lick);
      const written = words(lick.notes).reduce((sum, word) => sum + word.split('+').length, 0);
      expect(data.notes).toHaveLength(written);
      for (const { place, midi, bend } of data.notes) {
        expect(place).toBeDefined();
        expect(STANDARD.strings[place!.string - 1]! + place!.fret).toBe(bend?.from ?? midi);
      }
      const frets = data.notes.map(({ place }) => place!.fret).filter((fret) => fret > 0);
      expect(Math.max(...frets) - Math.min(...frets), lick.name).toBeLessThanOrEqual(6);
      // Slurred and slid notes are on the string of the note before.
      data.notes.forEach(({ slur, slide, place }, i) => {
        if (slur || slide) expect(place!.string, `${lick.name} ${i}`).toBe(data.notes[i - 1]!.place!.string);
      });
      const { told, position } = lickFacts(data, STANDARD);
      expect(Math.abs(position! - lick.position), `${lick.name}: position ${position}`).toBeLessThanOrEqual(
        2
      );
      expect(data.tags.includes(NOT_TOLD), `${lick.name}: ${told}`).toBe(told < 0.75);
      // It ends inside its chords.
      const beats = data.over.reduce((sum, one) => sum + one.beats, 0);
      expect(Math.max(...data.notes.map(endOf))).toBeLessThanOrEqual(ticksOf(beats));
    }
  );
});
