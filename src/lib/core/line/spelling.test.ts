import { describe, expect, it } from 'vitest';
import { readSheet } from '../harmony/sheet';
import { STANDARD } from '../neck/tuning';
import { systemOf } from '../neck/systems/registry';
import { arrange } from '../plan/arrange';
import { DEFAULT_PLAN } from '../plan/model';
import { noteOf, TICKS } from './model';
import { readLine } from './read';
import { spelledOver } from './spelling';

/** A quarter each, from the first beat. */
function named(chart: string, ...pitches: readonly number[]): string {
  const sheet = readSheet(chart);
  const { analysis, chosen } = arrange({ sheet, plan: DEFAULT_PLAN }, STANDARD, systemOf('positions'));
  const ground = { form: sheet.form, analysis, chosen };
  const notes = pitches.map((midi, i) => noteOf(i * TICKS, TICKS, midi));
  const { notes: read } = readLine({ meter: sheet.head.meter, notes }, ground);
  return spelledOver(notes, read, ground)
    .map(({ note }) => note)
    .join(' ');
}

describe('the notes of a line are named', () => {
  it.each([
    // The third of E7 is G sharp, never A flat.
    ['| E7 | Am |', [68, 71, 74, 68, 69], 'G# B D G# A'],
    ['| Gm7b5 | C7b9 | Fm |', [70, 73, 77, 68, 76, 73, 70, 67, 68], 'Bb Db F Ab E Db Bb G Ab'],
    // A chromatic note that leads up stands on the letter below its goal; one that falls keeps its flat.
    ['| C | G7 |', [67, 66, 67, 64], 'G F# G E'],
    // Over Dm7 it would be A flat by its degree.
    ['| Dm7 | G7 |', [69, 68, 69, 65, 67, 71], 'A G# A F G B'],
    ['| Dbmaj7 | Gb7 |', [72, 68, 65, 61, 70, 64], 'C Ab F Db Bb Fb'],
    ['| F#m7 | B7 | Emaj7 |', [69, 73, 76, 66, 75, 66, 69, 71, 68], 'A C# E F# D# F# A B G#'],
    ['| Bmaj7 | G#m7 |', [70, 75, 66, 63, 68], 'A# D# F# D# G#']
  ])('over %s: %j', (chart, pitches, names) => {
    expect(named(chart, ...pitches)).toBe(names);
  });

  it('as they were given, where they were', () => {
    const sheet = readSheet('| E7 |');
    const { analysis, chosen } = arrange({ sheet, plan: DEFAULT_PLAN }, STANDARD, systemOf('positions'));
    const ground = { form: sheet.form, analysis, chosen };
    const notes = [{ ...noteOf(0, TICKS, 68), note: 'Ab', isNamed: true as const }];
    const { notes: read } = readLine({ meter: sheet.head.meter, notes }, ground);
    expect(spelledOver(notes, read, ground)[0]!.note).toBe('Ab');
  });
});
