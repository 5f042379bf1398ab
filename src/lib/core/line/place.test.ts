import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { positionFill } from '../neck/position';
import { readInstrument, soundAt, STANDARD } from '../neck/tuning';
import { noteOf, type LineNote } from './model';
import { frettedPitch, placeNotes, PLACE_WEIGHTS, type PlacedNote, type PlaceWish } from './place';

const FREE: PlaceWish = { neck: STANDARD, alternatives: 1 };
const line = (...midis: number[]) => midis.map((midi, i) => noteOf(i * 480, 480, midi));
const places = (notes: readonly PlacedNote[]) => notes.map(({ place }) => `${place.string}:${place.fret}`);

/** The cost by the rules, written out once more and in another way. */
function costOf(notes: readonly PlacedNote[]): number {
  return notes.reduce((sum, note, i) => {
    const { string, fret, finger } = note.place;
    const isOpen = finger === 0;
    const stretched =
      !isOpen && (fret < note.position || fret > note.position + 3) ? PLACE_WEIGHTS.stretch : 0;
    const last = notes[i - 1];
    if (!last) return sum + stretched;
    const rested = note.start > last.start + last.length;
    const easy = rested || isOpen || last.place.finger === 0;
    const shift = Math.abs(note.position - last.position) * (easy ? 0.5 : 1);
    const strings = Math.abs(string - last.place.string);
    const crossing = strings === 0 ? 0 : 0.25 + 0.5 * (strings - 1);
    const same =
      finger > 0 && finger === last.place.finger && fret !== last.place.fret && !note.slide ? 2 : 0;
    return sum + stretched + shift + crossing + same;
  }, 0);
}

/** Every way of playing a few notes, by trying them all. */
function bruteForce(notes: readonly LineNote[], { neck, window, strings }: PlaceWish): number {
  let best = Infinity;
  const extend = (done: PlacedNote[]) => {
    const note = notes[done.length];
    if (!note) {
      best = Math.min(best, costOf(done));
      return;
    }
    for (let string = 1; string <= neck.strings.length; string++) {
      const fret = note.midi - soundAt(neck, string, 0);
      if (fret < 0 || fret > neck.frets) continue;
      if (strings && !strings.includes(string)) continue;
      if (window && (fret < window.from || fret > window.to)) continue;
      for (let position = 1; position <= neck.frets - 3; position++) {
        if (fret > 0 && (fret < position - 1 || fret > position + 4)) continue;
        const finger = fret === 0 ? 0 : Math.min(4, Math.max(1, fret - position + 1));
        extend([...done, { ...note, place: { string, fret, finger }, position }]);
      }
    }
  };
  extend([]);
  return best;
}

describe('placing notes', () => {
  it('costs what the rules say, and no way is cheaper', () => {
    const pitches = fc.array(fc.integer({ min: 43, max: 74 }), { minLength: 1, maxLength: 3 });
    const neck = readInstrument({ frets: 12 })!;
    const wishes = fc.constantFrom<Partial<PlaceWish>>(
      {},
      { window: { from: 2, to: 9 } },
      { strings: [1, 2, 3] }
    );
    fc.assert(
      fc.property(pitches, wishes, (midis, wish) => {
        const rules = { neck, alternatives: 1, ...wish };
        const { places: found } = placeNotes(line(...midis), rules);
        const least = bruteForce(line(...midis), rules);
        if (least === Infinity) {
          expect(found).toEqual([]);
          return;
        }
        expect(found[0]!.cost).toBeCloseTo(least, 6);
        expect(costOf(found[0]!.notes)).toBeCloseTo(found[0]!.cost, 6);
      }),
      { numRuns: 60 }
    );
  });

  it('sounds every note it claims, on the neck, one string a note', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 40, max: 84 }), { minLength: 1, maxLength: 40 }), (midis) => {
        const { places: found } = placeNotes(line(...midis), FREE);
        for (const { place, midi } of found[0]!.notes) {
          expect(STANDARD.strings[place.string - 1]! + place.fret).toBe(midi);
          expect(place.fret).toBeLessThanOrEqual(STANDARD.frets);
          expect(place.finger === 0).toBe(place.fret === 0);
        }
        expect(found[0]!.notes.map(({ midi }) => midi)).toEqual(midis);
      }),
      { numRuns: 30 }
    );
  });

  it('in a position takes the places and fingers of position fill', () => {
    const scale = [55, 57, 58, 60, 62, 63, 65, 67];
    const { places: found } = placeNotes(line(...scale), { ...FREE, position: 5 });
    const fill = new Map(
      positionFill(
        STANDARD,
        scale.map((midi) => midi % 12),
        5
      ).map((cell) => [cell.midi, cell])
    );
    for (const { midi, place, position } of found[0]!.notes) {
      const { string, fret, finger } = fill.get(midi)!;
      expect(place).toEqual({ string, fret, finger });
      expect(position).toBe(5);
    }
    expect(found[0]!.shifts).toBe(0);
  });

  it('keeps slides and slurs on one string, and bends where a finger can bend', () => {
    const slid = line(62, 64).map((note, i) => (i === 1 ? { ...note, slide: true as const } : note));
    const [one, two] = placeNotes(slid, FREE).places[0]!.notes;
    expect(one!.place.string).toBe(two!.place.string);
    // A whole tone up into G: bent from F, never on an open string nor below the third fret.
    const bent: LineNote = { ...noteOf(0, 960, 67), bend: { from: 65 } };
    const { place } = placeNotes([bent], FREE).places[0]!.notes[0]!;
    expect(STANDARD.strings[place.string - 1]! + place.fret).toBe(65);
    expect(frettedPitch(bent)).toBe(65);
    expect(place.fret).toBeGreaterThanOrEqual(3);
    const low: LineNote = { ...noteOf(0, 960, 43), bend: { from: 41 } };
    expect(placeNotes([low], FREE).noPlace).toMatchObject({
      note: 0,
      message: expect.stringMatching(/fret 3/)
    });
  });

  it('holds double stops with fingers of their own on strings of their own', () => {
    const thirds = [60, 64, 62, 65].map((midi, i) => noteOf(Math.floor(i / 2) * 960, 960, midi));
    const { notes } = placeNotes(thirds, FREE).places[0]!;
    for (const pair of [notes.slice(0, 2), notes.slice(2)]) {
      expect(pair[0]!.place.string).not.toBe(pair[1]!.place.string);
      if (pair[0]!.place.fret !== pair[1]!.place.fret && pair[0]!.place.finger > 0) {
        expect(pair[0]!.place.finger).not.toBe(pair[1]!.place.finger);
      }
      expect(pair[0]!.position).toBe(pair[1]!.position);
    }
    const unison = [noteOf(0, 960, 41), noteOf(0, 960, 40)];
    expect(placeNotes(unison, FREE).noPlace!.message).toMatch(/cannot be held together/);
  });

  it('offers other ways, all different, the best first', () => {
    const { places: found } = placeNotes(line(60, 62, 64, 65), { ...FREE, alternatives: 5 });
    expect(found).toHaveLength(5);
    expect(
      new Set(found.map(({ notes }) => notes.map(({ place }) => JSON.stringify(place)).join())).size
    ).toBe(5);
    const costs = found.map(({ cost }) => cost);
    expect(costs).toEqual([...costs].sort((a, b) => a - b));
    expect(places(found[0]!.notes)).not.toEqual(places(found[4]!.notes));
  });

  it('says which note cannot be placed, and why', () => {
    expect(placeNotes(line(60, 39), FREE).noPlace).toMatchObject({
      note: 1,
      message: expect.stringMatching(/lower than/)
    });
    expect(placeNotes(line(60, 99), FREE).noPlace!.message).toMatch(/higher than/);
    expect(placeNotes(line(60, 76), { ...FREE, window: { from: 1, to: 5 } }).noPlace).toMatchObject({
      note: 1,
      message: expect.stringMatching(/frets 1 to 5/)
    });
    expect(placeNotes(line(76), { ...FREE, position: 2 }).noPlace!.message).toMatch(/position 2/);
    expect(placeNotes([], FREE).places).toEqual([{ notes: [], cost: 0, shifts: 0 }]);
  });
});
