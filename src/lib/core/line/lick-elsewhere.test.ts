import { describe, expect, it } from 'vitest';
import { STANDARD } from '../neck/tuning';
import { pitchClass } from '../theory/note';
import { lickElsewhere } from './lick-elsewhere';
import type { KeptLick } from './lick-facts';
import { TICKS } from './model';

/** E♭7: ♭3 to 3, 5, 1, the ♭7 bent up to from the 6. */
const LICK: KeptLick = {
  meter: { beats: 4, unit: 4 },
  key: 'Eb',
  over: [{ symbol: 'Eb7', beats: 4 }],
  notes: (
    [
      [-0.5, 66, 'Gb', 3, 11],
      [0, 67, 'G', 3, 12],
      [1, 70, 'Bb', 2, 11],
      [2, 75, 'Eb', 1, 11],
      [3, 73, 'Db', 1, 7]
    ] as const
  ).map(([at, midi, note, string, fret], i) => ({
    start: at * TICKS,
    length: TICKS / 2,
    midi,
    note,
    place: { string, fret },
    ...(i === 1 ? { slur: true as const } : {}),
    ...(i === 4 ? { bend: { from: 71 } } : {})
  }))
};

describe('a lick elsewhere', () => {
  it('is itself where it was kept', () => {
    const there = lickElsewhere(LICK, { shift: 0, area: null }, STANDARD)!;
    expect(there.notes).toEqual(LICK.notes);
    expect(there).toMatchObject({
      key: { tonic: 'Eb' },
      areaName: null,
      over: [{ symbol: 'Eb7', beats: 4 }]
    });
  });

  it('keeps its intervals, times and techniques in all twelve keys, named by the key', () => {
    const steps = (notes: readonly { readonly midi: number }[]) =>
      notes.slice(1).map(({ midi }, i) => midi - notes[i]!.midi);
    const keys = Array.from({ length: 12 }, (_, shift) => {
      const there = lickElsewhere(LICK, { shift, area: null }, STANDARD)!;
      expect(steps(there.notes)).toEqual(steps(LICK.notes));
      expect(there.notes.map(({ start, length }) => [start, length])).toEqual(
        LICK.notes.map(({ start, length }) => [start, length])
      );
      there.notes.forEach(({ midi, note, place, bend, slur }, i) => {
        expect(pitchClass(note)).toBe(midi % 12);
        expect(STANDARD.strings[place!.string - 1]! + place!.fret).toBe(bend?.from ?? midi);
        expect(slur).toBe(LICK.notes[i]!.slur);
        expect(bend && midi - bend.from).toBe(i === 4 ? 2 : undefined);
      });
      return there.key.tonic;
    });
    expect(new Set(keys.map(pitchClass)).size).toBe(12);
    // Five semitones up from E♭ is A♭, with a C♭ in it.
    expect(lickElsewhere(LICK, { shift: 5, area: null }, STANDARD)!.notes[0]!.note).toBe('Cb');
  });

  it('keeps a curl a curl: it makes no new pitch in any key', () => {
    const curled: KeptLick = {
      ...LICK,
      notes: [{ ...LICK.notes[4]!, bend: { from: 73, cents: 40 } }]
    };
    const there = lickElsewhere(curled, { shift: 5, area: null }, STANDARD)!;
    expect(there.notes[0]).toMatchObject({ midi: 78, bend: { from: 78, cents: 40 } });
  });

  it('lies in each of the five areas of its key, under one hand', () => {
    const areas = [0, 1, 2, 3, 4].map((area) => lickElsewhere(LICK, { shift: 0, area }, STANDARD));
    const found = areas.filter((there) => there !== null);
    expect(found.length).toBeGreaterThanOrEqual(4);
    expect(new Set(found.map(({ areaName }) => areaName)).size).toBe(found.length);
    for (const { notes, areas: count } of found) {
      expect(count).toBe(5);
      const frets = notes.map(({ place }) => place!.fret).filter((fret) => fret > 0);
      expect(Math.max(...frets) - Math.min(...frets)).toBeLessThanOrEqual(5);
      expect(notes.map(({ midi }) => midi % 12)).toEqual(LICK.notes.map(({ midi }) => midi % 12));
      notes.forEach(({ slur, place }, i) => {
        if (slur) expect(place!.string).toBe(notes[i - 1]!.place!.string);
      });
    }
  });
});
