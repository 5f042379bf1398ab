import { areasOf, systemOf, NECK_SYSTEMS } from './systems/registry';
import { readChord } from '../theory/chord-reader';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { sure } from '../../testing/sure';
import { type Chord } from '../theory/chord';
import { pitchClass } from '../theory/note';
import { readScale, SCALE_NAMES, scaleOf } from '../theory/scale';
import { borderOf, placeOf, staying, type Subject } from './area';
import { boxesOf, formOf, minorPentatonic, nearestTo, pentatonicOf, relativeMinor } from './box';
import { fingerGrip, fingerRun } from './fingering';
import { positionMap } from './position-map';
import { namingOf } from './shape';
import { threeAString } from './three-a-string';
import { readInstrument, soundAt, STANDARD, TUNINGS } from './tuning';

const chordOf = (symbol: string): Chord => {
  const reading = readChord(symbol);
  if (reading.kind !== 'chord') throw new Error(symbol);
  return reading.chord;
};
const subject = (symbol: string, scaleName: string): Subject => {
  const scale = readScale(scaleName)!;
  return {
    naming: namingOf(chordOf(symbol), scale),
    collection: { name: scaleName, root: scale.root, notes: scale.notes }
  };
};
const frets = (cells: readonly { string: number; fret: number }[], string: number) =>
  cells
    .filter((cell) => cell.string === string)
    .map(({ fret }) => fret)
    .sort((a, b) => a - b);

const tunings = fc.constantFrom(...Object.keys(TUNINGS));
const pitchClasses = fc.integer({ min: 0, max: 11 });

describe('pentatonic boxes', () => {
  it('lays the first box of C minor pentatonic out at fret 8 by hand', () => {
    const box = boxesOf(STANDARD, minorPentatonic(0)).find(({ anchor }) => anchor === 8)!;
    expect(box).toMatchObject({ minor: 1, major: 5 });
    expect([6, 5, 4, 3, 2, 1].map((string) => frets(box.cells, string))).toEqual([
      [8, 11],
      [8, 10],
      [8, 10],
      [8, 10],
      [8, 11],
      [8, 11]
    ]);
  });

  it('numbers the boxes of E flat major from C, its relative minor', () => {
    expect(relativeMinor(pitchClass('Eb'), 'major')).toBe(pitchClass('C'));
    const boxes = boxesOf(STANDARD, minorPentatonic(0)).filter(({ anchor }) => anchor < 12);
    // String 6: F at 1, G at 3, B flat at 6, C at 8, E flat at 11.
    expect(boxes.map(({ minor, major, anchor }) => [anchor, minor, major])).toEqual([
      [1, 3, 2],
      [3, 4, 3],
      [6, 5, 4],
      [8, 1, 5],
      [11, 2, 1]
    ]);
  });

  it('takes the lower string up where the lowest one is tuned down', () => {
    const dropped = readInstrument({ tuning: 'drop D' })!;
    const box = boxesOf(dropped, minorPentatonic(9)).find(({ minor }) => minor === 1)!;
    expect(box.anchor).toBe(7);
    expect(frets(box.cells, 6)).toEqual([7, 10]);
    expect(frets(box.cells, 5)).toEqual([5, 7]);
  });

  it('finds the pentatonic inside what is made of one, and none elsewhere', () => {
    const found = (name: string) => {
      const scale = readScale(name)!;
      return pentatonicOf(scale.root, scale.notes);
    };
    const plain = minorPentatonic(0);
    expect(found('Eb major pentatonic')).toEqual(plain);
    // The suspended pentatonic of F is that of C minor's relative from its second note.
    expect(found('F suspended pentatonic')).toEqual(plain);
    expect(found('C minor blues')).toEqual({ ...plain, added: [6] });
    expect(found('Eb major blues')).toEqual({ ...plain, added: [6] });
    for (const name of ['dorian', 'altered', 'whole tone', 'flat-five pentatonic']) {
      expect(found(`D ${name}`)).toBeNull();
    }
  });

  it('keeps the boxes of the plain pentatonic where one note is altered', () => {
    // G dominant: the minor root of its major pentatonic, E, has become F.
    const scale = readScale('G dominant pentatonic')!;
    const boxes = boxesOf(STANDARD, pentatonicOf('G', scale.notes)!);
    const first = boxes.find(({ major }) => major === 1)!;
    expect(first).toMatchObject({ anchor: 3, minor: 2 });
    expect(formOf(first, 'major')).toBe('E');
    expect([6, 5, 4, 3, 2, 1].map((string) => frets(first.cells, string))).toEqual([
      [3, 5],
      [2, 5],
      [3, 5],
      [2, 4],
      [3, 6],
      [3, 5]
    ]);
    const six = readScale('D minor six pentatonic')!;
    expect(boxesOf(STANDARD, pentatonicOf('D', six.notes)!).find(({ minor }) => minor === 1)!.anchor).toBe(
      10
    );
  });

  it('tiles the neck in every tuning: every note lies in a box, neighbours share their border', () => {
    fc.assert(
      fc.property(tunings, pitchClasses, (tuning, root) => {
        const neck = readInstrument({ tuning })!;
        const boxes = boxesOf(neck, minorPentatonic(root));
        for (const [i, box] of boxes.entries()) {
          sure(box.major).toBe(box.minor === 1 ? 5 : box.minor - 1);
          for (const cell of box.cells) {
            sure(soundAt(neck, cell.string, cell.fret)).toBe(cell.midi);
            sure([0, 3, 5, 7, 10]).toContain((cell.midi - root + 120) % 12);
          }
          const next = boxes[i + 1];
          if (!next) continue;
          sure(next.minor).toBe((box.minor % 5) + 1);
          // The upper note of every string is the lower one of the next box.
          for (let string = 1; string <= neck.strings.length; string++) {
            const [here, there] = [frets(box.cells, string), frets(next.cells, string)];
            if (here.length === 2 && there.length === 2) sure(there[0]).toBe(here[1]);
          }
        }
      })
    );
  });

  it('leaves no note of a standard neck outside a box', () => {
    fc.assert(
      fc.property(pitchClasses, (root) => {
        const inBoxes = new Set(
          boxesOf(STANDARD, minorPentatonic(root)).flatMap(({ cells }) => cells.map(placeOf))
        );
        for (let string = 1; string <= 6; string++) {
          // Below the nut's first box and past the last anchor boxes are cut.
          for (let fret = 3; fret <= 18; fret++) {
            const isIn = [0, 3, 5, 7, 10].includes((soundAt(STANDARD, string, fret) - root + 120) % 12);
            if (isIn) sure(inBoxes.has(`${string}:${fret}`), `${root} ${string}:${fret}`).toBe(true);
          }
        }
      })
    );
  });

  it('names the chord form whose root lies in the box, counted from the own root', () => {
    const minor = boxesOf(STANDARD, minorPentatonic(5));
    expect(minor.map((box) => formOf(box, 'minor'))).toEqual(
      minor.map(({ minor: n }) => ['E', 'D', 'C', 'A', 'G'][n - 1])
    );
    // The E form of A flat major has its root at fret 4 of string 6: the second box of F minor.
    const form = minor.find((box) => formOf(box, 'major') === 'E')!;
    expect(form).toMatchObject({ anchor: 4, minor: 2, major: 1 });
  });

  it('keeps the chord forms in their place on seven strings', () => {
    const seven = readInstrument({ tuning: 'seven-string' })!;
    const boxes = boxesOf(seven, minorPentatonic(5));
    // F on string 6 lies at fret 1, where the hand holds the E form of F.
    const e = boxes.find((box) => formOf(box, 'minor') === 'E')!;
    expect(frets(e.cells, 6)).toEqual([1, 4]);
    expect(e.minor).toBe(4);
  });

  it('takes the lower of two anchors as near', () => {
    expect(nearestTo([{ anchor: 3 }, { anchor: 7 }], 5)!.anchor).toBe(3);
    expect(nearestTo([{ anchor: 7 }, { anchor: 4 }], 6)!.anchor).toBe(7);
    expect(nearestTo([], 6)).toBeUndefined();
  });
});

describe('neck systems', () => {
  it('agree about the notes, wherever the hand is', () => {
    const scales = fc.constantFrom(...SCALE_NAMES);
    fc.assert(
      fc.property(tunings, scales, fc.integer({ min: 0, max: 16 }), (tuning, name, position) => {
        const neck = readInstrument({ tuning })!;
        const scale = scaleOf('Bb', name)!;
        const pcs = scale.notes.map(pitchClass);
        const on = { ...subject('Bb7', 'Bb mixolydian'), collection: { ...scale, name: `Bb ${name}` } };
        for (const organisation of NECK_SYSTEMS) {
          const area = organisation.areaAt(neck, on, position);
          for (const cell of area.cells) {
            sure(soundAt(neck, cell.string, cell.fret)).toBe(cell.midi);
            sure(cell.fret).toBeLessThanOrEqual(neck.frets);
            sure(pcs, `${organisation.id} ${cell.note}`).toContain(cell.midi % 12);
            sure(pitchClass(cell.note)).toBe(cell.midi % 12);
          }
          sure(new Set(area.cells.map(placeOf)).size).toBe(area.cells.length);
        }
      }),
      { numRuns: 60 }
    );
  });

  it('title the same pentatonic each in their own way', () => {
    const on = subject('Gm7', 'G minor pentatonic');
    const titles = NECK_SYSTEMS.map(({ id }) => [id, systemOf(id).areaAt(STANDARD, on, 6).name.words]);
    expect(Object.fromEntries(titles)).toEqual({
      positions: 'position 6',
      'minor-boxes': 'box 2',
      'major-boxes': 'box 1',
      forms: 'D form',
      around: 'around the ♭3',
      roots: 'root on 4',
      three: 'position 6'
    });
  });

  it('say where they have no shape of their own', () => {
    const altered = subject('D7alt', 'D altered');
    const area = systemOf('minor-boxes').areaAt(STANDARD, altered, 5);
    expect(area).toMatchObject({ name: { kind: 'position', words: 'position 5' }, anchor: 5 });
    expect(area.remark).toBe('This collection has no boxes; it is laid out in position 5.');
    expect(area.box).toBeUndefined();
    expect(systemOf('three').areaAt(STANDARD, subject('C7', 'C whole tone'), 5).remark).toMatch(
      /three notes/
    );
  });

  it('put blue notes into the box where the hand finds them', () => {
    const area = systemOf('minor-boxes').areaAt(STANDARD, subject('C7', 'C minor blues'), 8);
    expect(area.box).toEqual({ minor: 1, major: 5, form: 'E' });
    expect(area.cells.filter(({ note }) => note === 'Gb').map(placeOf)).toEqual(['5:9', '3:11']);
  });

  it('keep one octave round a root', () => {
    const area = systemOf('roots').areaAt(STANDARD, subject('Ebmaj7', 'Eb major'), 6);
    expect(area).toMatchObject({ name: { kind: 'root', words: 'root on 5' }, anchor: 6 });
    expect(area.cells.map(({ degree }) => degree)).toEqual(['1', '9', '3', '11', '5', '13', '7', '1']);
  });

  it('run three notes a string without a gap', () => {
    const scale = readScale('Ab major')!;
    const shapes = threeAString(STANDARD, scale.notes);
    const shape = shapes.find(({ anchor }) => anchor === 4)!;
    expect(shape.cells.map(placeOf).slice(0, 6)).toEqual(['6:4', '6:6', '6:8', '5:4', '5:6', '5:8']);
    expect(shapes.filter(({ anchor }) => anchor >= 1 && anchor <= 12)).toHaveLength(7);
    for (const { cells } of shapes) {
      const midis = cells.map(({ midi }) => midi);
      expect(midis).toEqual([...midis].sort((a, b) => a - b));
    }
    expect(threeAString(STANDARD, readScale('Ab whole tone')!.notes)).toEqual([]);
  });

  it('join their areas over the whole neck, each with its border', () => {
    const areas = areasOf(
      STANDARD,
      systemOf('minor-boxes'),
      { tonic: 'G', mode: 'minor' },
      subject('Gm7', 'G minor pentatonic')
    );
    expect(areas.map(({ name, anchor }) => `${name.words} ${anchor}`)).toEqual([
      'box 5 1',
      'box 1 3',
      'box 2 6',
      'box 3 8',
      'box 4 10',
      'box 5 13',
      'box 1 15',
      'box 2 18'
    ]);
    expect(borderOf(areas[1]!).map(placeOf)).toEqual(['6:3', '5:3', '4:3', '3:3', '2:3', '1:3']);
  });
});

describe('the position map', () => {
  const home = { tonic: 'G', mode: 'minor' } as const;
  const subjects = [
    subject('Gm7', 'G minor pentatonic'),
    subject('Cm7', 'C minor pentatonic'),
    subject('D7alt', 'D altered'),
    null
  ];
  const map = positionMap(STANDARD, systemOf('minor-boxes'), home, subjects);

  it('has a row for every box of the home pentatonic that fits', () => {
    expect(map.map(({ position }) => position)).toEqual([1, 3, 6, 8, 10, 13, 15, 18]);
  });

  it('gives every change its own nearest box, position fill where there is none, nothing at a rest', () => {
    const row = map.find(({ position }) => position === 3)!;
    expect(row.areas.map((area) => area && [area.name.words, area.anchor])).toEqual([
      ['box 1', 3],
      ['box 4', 3],
      ['position 3', 3],
      null
    ]);
  });

  it('knows what stays from one cell to the next', () => {
    const [first, second] = map.find(({ position }) => position === 3)!.areas;
    const kept = staying(second!, first!);
    expect(kept.has('6:3')).toBe(true);
    for (const place of kept) expect(first!.cells.map(placeOf)).toContain(place);
  });

  it('moves with the music', () => {
    const up = positionMap(STANDARD, systemOf('minor-boxes'), { tonic: 'Ab', mode: 'minor' }, [
      subject('Abm7', 'Ab minor pentatonic')
    ]);
    expect(up.map(({ position }) => position).slice(0, 6)).toEqual([2, 4, 7, 9, 11, 14]);
  });
});

describe('fingers', () => {
  it('never ask one finger for two frets, and lay a bar only where nothing sounds below', () => {
    const cell = fc.record({ fret: fc.integer({ min: 0, max: 6 }) });
    fc.assert(
      fc.property(fc.array(cell, { minLength: 3, maxLength: 4 }), (raw) => {
        const cells = raw.map(({ fret }, i) => ({ string: 6 - i, fret, midi: 40 + fret }));
        const held = fingerGrip(cells)!;
        expect(held.map(placeOf)).toEqual(cells.map(placeOf));
        for (const a of held) {
          expect(a.finger === 0).toBe(a.fret === 0);
          for (const b of held) {
            if (a === b || a.finger === 0 || a.finger !== b.finger) continue;
            expect(a.fret).toBe(b.fret);
            const between = held.filter(
              ({ string }) => string < Math.max(a.string, b.string) && string > Math.min(a.string, b.string)
            );
            expect(between.every(({ fret }) => fret >= a.fret)).toBe(true);
          }
          if (a.finger) {
            for (const b of held) if (b.finger > a.finger) expect(b.fret).toBeGreaterThanOrEqual(a.fret);
          }
        }
      })
    );
  });

  it('hold a B flat major seventh from the fifth string as players do', () => {
    const cells = [1, 3, 2, 3].map((fret, i) => ({ string: 5 - i, fret, midi: 0 }));
    expect(fingerGrip(cells)!.map(({ finger }) => finger)).toEqual([1, 3, 2, 4]);
  });

  it('run up a string', () => {
    expect(fingerRun([5, 7, 8])).toEqual([1, 3, 4]);
    expect(fingerRun([5, 6, 8])).toEqual([1, 2, 4]);
    expect(fingerRun([5, 7, 9])).toEqual([1, 2, 4]);
    expect(fingerRun([0, 2, 3]).slice(0, 1)).toEqual([0]);
  });
});
