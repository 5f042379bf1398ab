import { writeMidi, type MidiEvent } from 'midi-file';
import { describe, expect, it } from 'vitest';
import { readSheet } from '../../harmony/sheet';
import { TICKS } from '../../line/model';
import { readMidi } from '../midi/read';
import { pieceFile, shareRight, type Struck, type TestPiece } from './heard-testing';
import { PIECES } from './pieces-testing';
import { soundings } from './sounding';

const symbols = (chart: string | null) => readSheet(chart!).form.changes.map(({ symbol }) => symbol);
const chord = (at: number, length: number, midis: readonly number[]): Struck[] =>
  midis.map((midi) => ({ at, for: length, midi }));
/** A piece that plays the same notes in every bar of a chart. */
const playing = (bars: number, notes: readonly Struck[], head = ''): TestPiece => ({
  name: 'piece',
  chart: `${head}| ${Array.from({ length: bars }, () => 'C').join(' | ')} |\n`,
  parts: [{ name: 'part', plays: ({ at }) => notes.map((note) => ({ ...note, at: at + note.at })) }]
});
/** Notes one after another, a quarter each. */
const melody = (midis: readonly number[]): TestPiece => ({
  name: 'melody',
  chart: `| ${Array.from({ length: midis.length / 4 }, () => 'C').join(' | ')} |\n`,
  parts: [
    {
      name: 'melody',
      plays: ({ at }) => midis.slice(at, at + 4).map((midi, i) => ({ at: at + i, for: 1, midi }))
    }
  ]
});

describe('chords that nobody named', () => {
  it.each(PIECES.map((piece) => [piece.name, piece] as const))('are told in: %s', (_, piece) => {
    for (const seed of [1, 2]) {
      const { chart, left } = readMidi(pieceFile(piece, seed));
      expect(shareRight(piece.chart, chart), `${chart}`).toBeGreaterThanOrEqual(0.85);
      expect(left).toContainEqual({
        text: '',
        why: 'The chords have no names in this file; they were named by what all parts play'
      });
    }
  });

  it('have their sevenths, colours and basses for the most part', () => {
    const shares = PIECES.map((piece) => shareRight(piece.chart, readMidi(pieceFile(piece)).chart, true));
    expect(shares.reduce((sum, share) => sum + share, 0) / shares.length).toBeGreaterThan(0.9);
  });

  it('stand where the piece has them, in any key', () => {
    const [first] = PIECES;
    for (let up = 1; up < 12; up++) {
      const moved = {
        ...first!,
        parts: first!.parts.map((part) => ({
          ...part,
          plays: (here: Parameters<typeof part.plays>[0]) =>
            part.plays(here).map((note) => ({ ...note, midi: note.midi + up }))
        }))
      };
      const [home, there] = [readMidi(pieceFile(first!)).chart, readMidi(pieceFile(moved)).chart];
      const roots = (chart: string | null) =>
        readSheet(chart!).form.changes.map(({ chord }) => chord!.rootPc);
      expect(roots(there)).toEqual(roots(home).map((root) => (root + up) % 12));
    }
  });

  it('have the bass that lies under them', () => {
    const over = playing(8, [...chord(0, 4, [43]), ...chord(0, 4, [60, 65, 69])]);
    expect(new Set(symbols(readMidi(pieceFile(over)).chart))).toEqual(new Set(['F/G']));
    const inverted = playing(8, [...chord(0, 4, [40]), ...chord(0, 4, [60, 64, 67])]);
    expect(new Set(symbols(readMidi(pieceFile(inverted)).chart))).toEqual(new Set(['C/E']));
    // A bass that goes between fifth and root stands on the root.
    const between = playing(8, [...chord(0, 2, [43]), ...chord(2, 2, [36]), ...chord(0, 4, [60, 64, 67])]);
    expect(new Set(symbols(readMidi(pieceFile(between)).chart))).toEqual(new Set(['C']));
    const mostly = playing(8, [...chord(0, 3, [43]), ...chord(3, 1, [36]), ...chord(0, 4, [60, 64, 67])]);
    expect(new Set(symbols(readMidi(pieceFile(mostly)).chart))).toEqual(new Set(['C']));
  });

  it('are none where a tune goes by steps alone, or where all notes sound at once', () => {
    const steps = melody([60, 62, 64, 65, 67, 65, 64, 62, 60, 59, 60, 62, 64, 65, 67, 69]);
    const noise = playing(4, chord(0, 4, [60, 61, 62, 63, 64, 65]));
    for (const piece of [steps, noise]) {
      const { chart, left } = readMidi(pieceFile(piece));
      expect(chart).toBeNull();
      expect(left.map(({ why }) => why).join()).toContain('There is no chord in it');
    }
  });

  it('are doubtful where notes contradict each other, and the bars are named', () => {
    const piece = PIECES[0]!;
    const { chart, sure, left } = readMidi(
      pieceFile({
        ...piece,
        parts: [
          ...piece.parts,
          {
            name: 'noise',
            plays: ({ at, quarters }) => (at === 8 ? chord(at, quarters, [61, 63, 64, 66, 68]) : [])
          }
        ]
      })
    );
    expect(sure!.map((one) => one < 0.5)).toEqual(sure!.map((_, i) => i === 2));
    expect(left).toContainEqual({
      text: '',
      why: 'Bar 3 is uncertain; listen, and correct what is wrong'
    });
    expect(chart).toContain('{comment: Uncertain in the file: bar 3}');
  });

  it('go from the bar line on which they change, and what comes before is a pickup', () => {
    const piece = PIECES[1]!;
    const { chart, left, lines, melody: tune } = readMidi(pieceFile({ ...piece, late: 3 }));
    expect(shareRight(piece.chart, chart)).toBeGreaterThan(0.9);
    expect(left).toContainEqual({
      text: '',
      why: 'Bar lines were moved by 3 beats to where the chords change; what comes before is a pickup'
    });
    expect(Math.min(...[...lines.map(({ notes }) => notes), tune!].map((notes) => notes[0]!.start))).toBe(0);
  });

  it('are read in the key that they make, where the file says nothing or the wrong thing', () => {
    const { chart } = readMidi(pieceFile(PIECES[3]!));
    expect(chart).toContain('{key: Eb}');
    expect(readSheet(chart!).form.changes[1]!.symbol).toMatch(/^Ab/);
  });

  it('hear notes for as long as a pedal holds them', () => {
    const broken = [36, 52, 55, 59].map((midi, i): Struck => ({ at: i, for: 0.2, midi }));
    const piece = playing(8, broken);
    const held = { ...piece, parts: piece.parts.map((part) => ({ ...part, pedal: true as const })) };
    expect(new Set(symbols(readMidi(pieceFile(held)).chart))).toEqual(new Set(['Cmaj7']));
  });

  it('take no part in them where they are drums or noises', () => {
    const piece = PIECES[0]!;
    const noise = {
      name: 'gun',
      program: 127,
      plays: ({ at, quarters }: { at: number; quarters: number }) => chord(at, quarters, [61, 62, 63, 64])
    };
    const { chart } = readMidi(pieceFile({ ...piece, parts: [...piece.parts, noise] }));
    expect(shareRight(piece.chart, chart)).toBe(1);
  });

  it('cost no more than a file is long, however its notes, pedals and bars are made', () => {
    const head = { format: 0 as const, numTracks: 1, ticksPerBeat: 480 };
    const end = { deltaTime: 0, meta: true, type: 'endOfTrack' };
    const fileOf = (events: readonly unknown[]) =>
      Uint8Array.from(writeMidi({ header: head, tracks: [[...events, end] as MidiEvent[]] }));
    // Notes that are never let go, under a pedal that is told of again and again.
    const rings = Array.from({ length: 20_000 }, (_, i) => [
      { deltaTime: 60, type: 'controller', channel: 0, controllerType: 64, value: i % 128 },
      { deltaTime: 60, type: 'noteOn', channel: 0, noteNumber: 40 + (i % 40), velocity: 80 }
    ]).flat();
    const bars = Array.from({ length: 40 }, (_, i) => ({
      start: 4 * i * TICKS,
      length: 4 * TICKS,
      meter: { beats: 4, unit: 4 }
    }));
    const held = soundings(bars, [[{ start: 0, length: 160 * TICKS, midi: 60, level: 1 }]]);
    expect(held.filter(({ weights }) => weights[0]! > 0)).toHaveLength(64);
    const endless = readMidi(fileOf(rings));
    expect(endless.left.length).toBeGreaterThan(0);
    // Bars of 255 beats, more of them than a chart has room for.
    const meter = {
      deltaTime: 0,
      meta: true,
      type: 'timeSignature',
      numerator: 255,
      denominator: 4,
      metronome: 24,
      thirtyseconds: 8
    };
    const wide = [60, 64, 67].map((noteNumber) => ({
      deltaTime: 0,
      type: 'noteOn',
      channel: 0,
      noteNumber,
      velocity: 80
    }));
    const late = { deltaTime: 255 * 480 * 40, type: 'noteOff', channel: 0, noteNumber: 60, velocity: 0 };
    const { chart, left } = readMidi(fileOf([meter, ...wide, late]));
    expect(chart).toBeNull();
    expect(left.at(-1)!.why).toContain('too long for its chords to be named');
  });
});
