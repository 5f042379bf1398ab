import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { transposeText } from '../chart/transpose';
import { readSheet } from '../harmony/sheet';
import { landingOf, notesOver, readMelody } from './melody';
import { melodyText, withMelody } from './melody-out';
import { beatsOf, endOf, noteOf } from './model';

const CHART = '{key: Gm}\n{time: 3/4}\n{melody: G4:2 A4 | Bb4:1.5 a:1/2 F | r D5:2}\n| Gm | Cm7 | D7 |';
const melodyOf = (text: string) => {
  const { head, form } = readSheet(text);
  return readMelody(head.melody ?? '', form, head.meter);
};
const said = (text: string) =>
  melodyOf(text).line.notes.map(
    ({ start, length, midi, note }) => `${note}${midi} ${beatsOf(start)}+${beatsOf(length)}`
  );

describe('the melody', () => {
  it('is read bar by bar, with lengths in beats, and the nearest octave where none is said', () => {
    expect(melodyOf(CHART).problems).toEqual([]);
    expect(said(CHART)).toEqual(['G67 0+2', 'A69 2+1', 'Bb70 3+1.5', 'A69 4.5+0.5', 'F65 5+1', 'D74 7+2']);
  });

  it('keeps to its bars, and tells bar by bar what does not fit', () => {
    const { line, problems } = melodyOf('{melody: C4:3 D4:3 E4 | x9 G4 | C4 | D4}\n| C | F | C |');
    expect(line.notes.map(({ start }) => beatsOf(start))).toEqual([0, 3, 4, 8]);
    expect(problems.map(({ bar }) => bar)).toEqual([1, 1, 2, 4]);
    expect(problems[2]!.message).toMatch(/“x9” is no note/);
    expect(melodyOf('{melody: C4:0 C4:99 C4:1/0}\n| C |').line.notes).toEqual([]);
  });

  it('holds a note over a bar, and is written from notes as it is read', () => {
    expect(said('{melody: C4:2 D4:2 | ~D4 E4:3}\n| C | F |')).toEqual(['C60 0+2', 'D62 2+3', 'E64 5+3']);
    // There is nothing to hold on.
    expect(said('{melody: C4:4 | ~D4}\n| C | F |')).toEqual(['C60 0+4', 'D62 4+1']);
    const time = fc.constantFrom(240, 320, 480, 960, 1440, 2880);
    const line = fc.array(
      fc.record({ gap: fc.constantFrom(0, 0, 480), length: time, midi: fc.integer({ min: 36, max: 90 }) }),
      { maxLength: 14 }
    );
    const { form, head } = readSheet('{time: 3/4}\n' + '| C | F | G | C |\n'.repeat(6));
    fc.assert(
      fc.property(line, (each) => {
        let at = 0;
        const notes = each.map(({ gap, length, midi }) => {
          const note = noteOf(at + gap, length, midi);
          at = endOf(note);
          return note;
        });
        const back = readMelody(melodyText(notes, form), form, head.meter);
        expect(back.problems).toEqual([]);
        expect(back.line.notes).toEqual(notes);
      }),
      { numRuns: 40 }
    );
  });

  it('begins in a pickup before the first bar, where the chart declares one', () => {
    const text = '{meta: pickup 1.5}\n{melody: D4:1/2 E4 | F4:4 | G4}\n| F | C |';
    expect(said(text)).toEqual(['D62 -1.5+0.5', 'E64 -1+1', 'F65 0+4', 'G67 4+1']);
    // Without one the first words are those of the first bar.
    expect(said(text.replace('{meta: pickup 1.5}\n', ''))[0]).toBe('D62 0+0.5');
    // A bar line at the head says that nothing is played before it.
    expect(said(text.replace('D4:1/2 E4 |', '|'))).toEqual(['F65 0+4', 'G67 4+1']);
    expect(melodyOf(text.replace('E4 |', 'E4:3 |')).problems).toMatchObject([{ bar: 0 }]);
  });

  it('is written with a pickup that is long enough, and read back as it was', () => {
    const notes = [noteOf(-1400, 400, 62), noteOf(0, 960, 65), noteOf(5 * 960, 480, 67)];
    for (const head of ['', '{meta: pickup 3}\n', '{pickup: 1}\n']) {
      const source = `${head}| F | C |`;
      const written = withMelody(source, notes, readSheet(source).form);
      expect(melodyOf(written).line.notes).toEqual(notes);
      expect(readSheet(written).form.pickup).toBe(head.includes('3') ? 3 : 2);
    }
    const source = '{meta: pickup 2}\n| F | C |';
    const late = withMelody(source, notes.slice(1), readSheet(source).form);
    expect(melodyOf(late).line.notes).toEqual(notes.slice(1));
  });

  it('is landed on by the note that sounds at a change, or up to half a beat late', () => {
    const { form, head } = readSheet(
      '{melody: E4:6 F4:2 | r:0.5 A4:3.5 | r:2 G4:2}\n| C . F . | Dm | G7 |'.replace('E4:6 F4:2', 'E4:3 F4')
    );
    const { line } = readMelody(head.melody!, form, head.meter);
    const landings = form.changes.map((change) => landingOf(line, change)?.note ?? null);
    // E rings into the F; A comes half a beat late; G far too late.
    expect(landings).toEqual(['E', 'E', 'A', null]);
    expect(notesOver(line, form.changes[1]!).map(({ note }) => note)).toEqual(['E', 'F']);
  });

  it('goes along into another key, and stays as typed but for its names', () => {
    const moved = transposeText(CHART, { tonic: 'G', mode: 'major' }, 3);
    expect(moved).toContain('{melody: Bb4:2 C5 | Db5:1.5 C:1/2 Ab | r F5:2}');
    expect(said(moved).map((note) => Number(/\d+/.exec(note)![0]))).toEqual([70, 72, 73, 72, 68, 77]);
  });

  it('never throws, and its notes stand in their bars in order', () => {
    const word = fc.constantFrom(...'C4 c:2 Bb r r:3 | || F#5:1/3 x : C4:: ♭ E♭3:0.25 G9:64'.split(' '));
    fc.assert(
      fc.property(fc.array(word, { maxLength: 40 }), (words) => {
        const { form, head } = readSheet('| C | F | G7 | % |');
        const { line } = readMelody(words.join(' '), form, head.meter);
        line.notes.forEach(({ start, length }, i) => {
          const before = line.notes[i - 1];
          if (before) expect(start).toBeGreaterThanOrEqual(before.start + before.length);
          expect(Math.floor(beatsOf(start) / 4)).toBe(Math.floor((beatsOf(start + length) - 0.001) / 4));
        });
      })
    );
  });
});
