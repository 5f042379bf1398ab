import fc from 'fast-check';
import { parseMidi } from 'midi-file';
import { describe, expect, it } from 'vitest';
import { noteOf, type LineNote } from '../line/model';
import { soundAt, STANDARD } from '../neck/tuning';
import { readCsv } from './csv/read';
import { writeCsv } from './csv/write';
import { readMidi } from './midi/read';
import { writeMidiPiece } from './midi/write';
import { readMusicXml } from './musicxml/read';
import { writeMusicXml } from './musicxml/write';
import type { ReadPiece } from './piece';
import { readTab } from './tab/read';
import { writeTab } from './tab/write';
import { CHART, pieceOf, plain } from './testing';

/** A line of struck, bent, slid, slurred and tied notes, double stops and silence, on the neck or by pitch alone. */
const anyLine = fc
  .array(
    fc.record({
      gap: fc.constantFrom(0, 0, 0, 480, 77, 960),
      length: fc.constantFrom(240, 320, 480, 960, 1440, 133, 2880),
      string: fc.integer({ min: 1, max: 6 }),
      fret: fc.integer({ min: 0, max: 17 }),
      isPlaced: fc.boolean(),
      how: fc.constantFrom(
        '',
        '',
        '',
        'slide',
        'slur',
        'bend',
        'release',
        'vibrato',
        'ghost',
        'tie',
        'double',
        'finger'
      )
    }),
    { minLength: 1, maxLength: 24 }
  )
  .map((each) => {
    const notes: LineNote[] = [];
    let at = 0;
    for (const { gap, length, string, fret, isPlaced, how } of each) {
      const before = notes.at(-1);
      if (how === 'tie' && before && !before.ghost) {
        const { place, midi, note } = before;
        notes.push({ start: at, length, midi, note, ...(place ? { place } : {}), tie: true });
        at += length;
        continue;
      }
      at += gap;
      const fretted = soundAt(STANDARD, string, fret);
      const place = isPlaced ? { place: { string, fret, ...(how === 'finger' ? { finger: 2 } : {}) } } : {};
      const midi = how === 'bend' || how === 'release' ? fretted + 2 : fretted;
      const struck: LineNote = {
        ...noteOf(at, length, midi),
        ...place,
        ...(midi > fretted ? { bend: { from: fretted } } : {}),
        ...(how === 'release' ? { release: { to: fretted } } : {}),
        ...(how === 'slide' && before ? { slide: true as const } : {}),
        ...(how === 'slur' && before ? { slur: true as const } : {}),
        ...(how === 'vibrato' ? { vibrato: true as const } : {}),
        ...(how === 'ghost' ? { ghost: true as const } : {})
      };
      const second =
        how === 'double' && string < 6
          ? [
              {
                ...noteOf(at, length, soundAt(STANDARD, string + 1, fret)),
                ...(isPlaced ? { place: { string: string + 1, fret } } : {})
              }
            ]
          : [];
      notes.push(...[struck, ...second].sort((a, b) => a.midi - b.midi));
      at += length;
    }
    return notes;
  });

/** A tab has no fingers, and its chords come back without the chart's sections. */
const unfingered = ({ place, ...rest }: ReturnType<typeof plain>) => ({
  ...rest,
  ...(place ? { place: { string: place.string, fret: place.fret } } : {})
});

describe('what goes out comes back as it was', () => {
  const there = (voices: ReadPiece) => [
    ...voices.lines,
    ...(voices.melody ? [{ name: 'melody', notes: voices.melody }] : [])
  ];
  const voices = (notes: LineNote[]) => [
    { name: 'line: First watch', notes },
    {
      name: 'melody',
      notes: notes.map(({ place: _, finger: _f, ...note }: LineNote & { finger?: number }) => note)
    }
  ];

  it('as MusicXML, chart and all', () => {
    fc.assert(
      fc.property(anyLine, (notes) => {
        const back = readMusicXml(writeMusicXml(pieceOf([{ name: 'line: First watch', notes }])));
        expect(back.lines.map(({ name }) => name)).toEqual(['First watch']);
        expect(back.lines[0]!.notes.map(plain)).toEqual(notes.map(plain));
        expect(back.chart).toBe(CHART);
        expect(back.left).toEqual([]);
      }),
      { numRuns: 40 }
    );
  });

  it('as tab', () => {
    fc.assert(
      fc.property(anyLine, (notes) => {
        // Techniques stand at a fret; without one there is nothing to write them at.
        const placed = notes.map((note) =>
          note.place
            ? note
            : { ...noteOf(note.start, note.length, note.midi), ...(note.tie ? { tie: true as const } : {}) }
        );
        const back = readTab(writeTab(pieceOf([{ name: 'line: First watch', notes: placed }])));
        expect(back.lines.map(({ name }) => name)).toEqual(['First watch']);
        expect(back.lines[0]!.notes.map(plain).map(unfingered)).toEqual(placed.map(plain).map(unfingered));
        expect(back.chart).toContain('| Am7b5 | D7b9 . . Gm/Bb | N.C. | Ebmaj7 |');
        expect(back.chart).toContain('{key: G minor}\n{time: 4/4}\n{tempo: 104}');
        expect(back.left).toEqual([]);
      }),
      { numRuns: 40 }
    );
  });

  it('as CSV', () => {
    fc.assert(
      fc.property(anyLine, (notes) => {
        const back = readCsv(writeCsv(pieceOf(voices(notes))));
        expect(there(back).map(({ notes: own }) => own.map(plain))).toEqual(
          voices(notes).map(({ notes: own }) => own.map(plain))
        );
        expect(back.chart).toContain('| Am7b5 | D7b9 . . Gm/Bb | N.C. | Ebmaj7 |');
        expect(back.left).toEqual([]);
      }),
      { numRuns: 40 }
    );
  });
});

describe('phrases', () => {
  /** Every technique, a pickup before bar 1, a curl. */
  const at = (
    start: number,
    length: number,
    string: number,
    fret: number,
    how: Partial<LineNote> = {}
  ): LineNote => {
    const fretted = soundAt(STANDARD, string, fret);
    const up = how.bend && how.bend.cents === undefined ? 2 : 0;
    return {
      ...noteOf(start, length, fretted + up),
      place: { string, fret },
      ...how,
      ...(how.bend ? { bend: { ...how.bend, from: fretted } } : {})
    };
  };
  const LINE = [
    at(-960, 480, 3, 7),
    at(-480, 480, 3, 5),
    at(0, 960, 3, 7, { bend: { from: 0 }, release: { to: soundAt(STANDARD, 3, 7) } }),
    at(960, 480, 2, 8, { bend: { from: 0, cents: 40 } }),
    at(1440, 480, 2, 5, { slur: true }),
    at(1920, 480, 2, 6, { ghost: true }),
    at(2400, 1440, 2, 8, { bend: { from: 0 }, vibrato: true }),
    at(3840, 1920, 2, 8, { vibrato: true })
  ];
  const written = LINE.map(plain);
  const readBack = ({ lines }: ReadPiece) => lines[0]!.notes.map(plain);

  it('come back from a table, from tab and from MusicXML as they went out', () => {
    const piece = pieceOf([{ name: 'line: phrase', notes: LINE }]);
    expect(readBack(readCsv(writeCsv(piece)))).toEqual(written);
    expect(readBack(readTab(writeTab(piece)))).toEqual(written);
    const xml = writeMusicXml(piece);
    expect(xml).toContain('<measure number="0" implicit="yes">');
    expect(readBack(readMusicXml(xml))).toEqual(written);
    for (const read of [readCsv(writeCsv(piece)), readTab(writeTab(piece)), readMusicXml(xml)])
      expect(read.chart).toContain('| Am7b5 |');
  });

  it('come back from MIDI with their pitches, bends and times, bar 1 marked', () => {
    const piece = pieceOf([{ name: 'line: phrase', notes: LINE }]);
    const read = readMidi(writeMidiPiece(piece));
    const heard = read.lines[0]!.notes;
    expect(heard.map(({ start, length, midi }) => [start, length, midi])).toEqual(
      LINE.map(({ start, length, midi }) => [start, length, midi])
    );
    expect(heard.map(({ bend }) => bend?.from)).toEqual(LINE.map(({ bend }) => bend?.from));
    expect(heard.map(({ bend }) => bend?.cents)).toEqual(LINE.map(({ bend }) => bend?.cents));
    expect(heard.map(({ release }) => release?.to)).toEqual(LINE.map(({ release }) => release?.to));
    expect(heard.map(({ vibrato }) => vibrato)).toEqual(LINE.map(({ vibrato }) => vibrato));
    expect(read.chart).toContain('| Am7b5 |');
  });

  it('leave the pitch wheel of MIDI at rest for the next note', () => {
    const { tracks } = parseMidi(writeMidiPiece(pieceOf([{ name: 'line: phrase', notes: LINE }])));
    let [wheel, bent] = [0, 0];
    for (const event of tracks[1]!) {
      if (event.type === 'pitchBend') {
        wheel = event.value;
        bent++;
      }
      if (event.type === 'noteOn' && event.velocity > 0) expect(wheel).toBe(0);
    }
    expect(bent).toBeGreaterThan(20);
  });
});
