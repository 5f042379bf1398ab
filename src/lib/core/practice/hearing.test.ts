import { describe, expect, it } from 'vitest';
import { readSheet } from '../harmony/sheet';
import { collectionOver, gripAlone, noteOver, pathOver, type Heard } from './hearing';

const { changes } = readSheet('{key: Ab}\n| Bbm7 | Eb7/G | Abmaj7 | % |').analysis;
const of = ({ events }: Heard, part: string) => events.filter((event) => event.part === part);

describe('what is heard when asked for', () => {
  it('is a note over its chord, the written bass under both', () => {
    const heard = noteOver({ change: changes[1]!, midi: 73 });
    expect(of(heard, 'line')).toMatchObject([{ start: 0, midi: 73 }]);
    expect(of(heard, 'bass')[0]!.midi % 12).toBe(7);
    const chord = new Set(of(heard, 'chords').map(({ midi }) => midi % 12));
    expect([...chord].every((pc) => [3, 7, 10, 1].includes(pc))).toBe(true);
    expect(chord).toContain(7);
    expect(chord).toContain(1);
  });

  it('is the moment of change, or a whole line, chord after chord', () => {
    const heard = pathOver(changes.map((change, i) => ({ change, midi: [61, 60, null, 63][i] ?? null })));
    expect(of(heard, 'bass').map(({ start, midi }) => [start, midi % 12])).toEqual([
      [0, 10],
      [2, 7],
      [4, 8],
      [6, 8]
    ]);
    expect(of(heard, 'line').map(({ start, midi }) => [start, midi])).toEqual([
      [0, 61],
      [2, 60],
      [6, 63]
    ]);
    for (const { start, beats } of heard.events) expect(start + beats).toBeLessThanOrEqual(heard.beats);
  });

  it('is a grip from its lowest string', () => {
    const heard = gripAlone([64, 52, 60, 57]);
    expect(heard.events.map(({ midi }) => midi)).toEqual([52, 57, 60, 64]);
    const starts = heard.events.map(({ start }) => start);
    expect(starts).toEqual([...starts].sort((a, b) => a - b));
    expect(new Set(starts).size).toBe(4);
  });

  it('is a collection from its root up an octave and down again', () => {
    // B flat Dorian over B flat minor seven.
    const heard = collectionOver(changes[0]!, 10, [10, 0, 1, 3, 5, 7, 8]);
    expect(of(heard, 'line').map(({ midi }) => midi)).toEqual([
      58, 60, 61, 63, 65, 67, 68, 70, 68, 67, 65, 63, 61, 60, 58
    ]);
  });

  it('is the note alone where no chord sounds', () => {
    const rest = readSheet('| N.C. | C |').analysis.changes[0]!;
    expect(noteOver({ change: rest, midi: 60 }).events).toMatchObject([{ part: 'line', midi: 60 }]);
  });
});
