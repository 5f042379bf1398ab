import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readSheet } from '../harmony/sheet';
import { noteOf, ticksOf, type LineNote } from './model';
import { askedOf, mendOf, outlineLine, plainWindows, withChanges } from './outline';
import { chordNamed, chordsOn, lineOf, ROOTS } from './testing';

const asked = (chart: string) => askedOf(readSheet(chart).form.changes);
const outline = (chart: string, notes: LineNote[]) => outlineLine(notes, asked(chart));
const verdicts = (chart: string, text: string) =>
  outline(chart, lineOf(text)).windows.map(({ verdict }) => verdict);

const SUFFIXES = [
  '',
  'm',
  '7',
  'maj7',
  'm7',
  'm7b5',
  'dim7',
  'dim',
  'aug',
  '6',
  'm6',
  'm(maj7)',
  '7#5',
  '7sus4',
  'sus4',
  'sus2',
  '9',
  'maj9',
  '13',
  '7b9',
  '7alt',
  '6/9',
  'add9'
];
const aChord = fc.constantFrom(...chordsOn(SUFFIXES));
/** The tones by which a chord is known: without extensions. */
function coreTones(symbol: string): number[] {
  const { tones, rootPc, pitchClasses } = chordNamed(symbol);
  const isCore = (tone: string) =>
    !['9', 'b9', '#9', '#11', '13', 'b13'].includes(tone) || (symbol.includes('sus2') && tone === '9');
  const core = pitchClasses.filter((_, i) => isCore(tones[i]!));
  return symbol.endsWith('alt') ? [0, 4, 8, 10].map((step) => (rootPc + step) % 12) : core;
}

/** A chord's arpeggio in some order and octaves, each tone an eighth or longer, within a bar. */
const anArpeggio = aChord.chain((symbol) => {
  const tones = coreTones(symbol);
  const each = { minLength: tones.length, maxLength: tones.length };
  return fc
    .tuple(
      fc.shuffledSubarray(tones, each),
      fc.array(fc.constantFrom(4, 5), each),
      fc.array(fc.constantFrom(0.5, 1), each)
    )
    .map(([order, octaves, beats]) => {
      const starts = beats.map((_, i) => beats.slice(0, i).reduce((sum, one) => sum + one, 0));
      const notes = order.map((pc, i) =>
        noteOf(ticksOf(starts[i]!), ticksOf(beats[i]!), pc + 12 * octaves[i]!)
      );
      return { symbol, notes };
    });
});

const later = (notes: readonly LineNote[], beats: number) =>
  notes.map((note) => ({ ...note, start: note.start + ticksOf(beats) }));
const up = (notes: readonly LineNote[], semitones: number) =>
  notes.map((note) => noteOf(note.start, note.length, note.midi + semitones));

describe('what a listener hears in a line alone', () => {
  it('knows an arpeggio in any order and inversion, whatever stands beside it', () => {
    fc.assert(
      fc.property(fc.array(anArpeggio, { minLength: 1, maxLength: 5 }), (bars) => {
        const chart = bars.map(({ symbol }) => symbol).join(' | ');
        const notes = bars.flatMap(({ notes: own }, bar) => later(own, 4 * bar));
        const told = outline(`| ${chart} |`, notes);
        expect(told.windows.map(({ verdict }) => verdict)).toEqual(bars.map(() => 'clear'));
        expect(told.share).toBe(1);
      }),
      { numRuns: 120 }
    );
  });

  it.each(ROOTS)(
    'hears at least part of the chords in 3 and 7 alone, ii–V–I and iiø–V–i from %s',
    (tonic) => {
      const pc = ROOTS.indexOf(tonic);
      const on = (step: number, suffix: string) => ROOTS[(pc + step) % 12]! + suffix;
      const major = [on(2, 'm7'), on(7, '7'), on(0, 'maj7')];
      const minor = [on(2, 'm7b5'), on(7, '7'), on(0, 'm7')];
      for (const chords of [major, minor]) {
        const notes = chords.flatMap((symbol, bar) => {
          const [, third, , seventh] = coreTones(symbol);
          return [third!, seventh!].map((tone, i) => noteOf(ticksOf(4 * bar + 2 * i), ticksOf(2), 60 + tone));
        });
        const told = outline(`| ${chords.join(' | ')} |`, notes).windows.map(({ verdict }) => verdict);
        expect(told).not.toContain('not');
      }
    }
  );

  it.each(ROOTS)(
    'does not hear the IV and the V in the key’s pentatonic run up and down, from %s',
    (tonic) => {
      const pc = ROOTS.indexOf(tonic);
      const on = (step: number) => ROOTS[(pc + step) % 12]!;
      const run = [0, 2, 4, 7, 9, 12, 9, 7, 4, 2, 0, 2, 4, 7, 9, 12, 9, 7, 4, 2, 0, 2, 4, 7];
      const notes = run.map((step, i) => noteOf(ticksOf(i / 2), ticksOf(0.5), 48 + pc + step));
      const [, four, five] = outline(`| ${on(0)} | ${on(5)} | ${on(7)} |`, notes).windows;
      expect([four!.verdict, five!.verdict]).not.toContain('clear');
    }
  );

  it('gives the transposed answer to a transposed line', () => {
    const aNote = fc.record({
      midi: fc.integer({ min: 50, max: 72 }),
      beats: fc.constantFrom(0.5, 1, 1 / 3)
    });
    fc.assert(
      fc.property(
        fc.array(aNote, { maxLength: 20 }),
        fc.integer({ min: 1, max: 11 }),
        (played, semitones) => {
          let at = 0;
          const notes = played.map(({ midi, beats }) => {
            at += ticksOf(beats);
            return noteOf(at - ticksOf(beats), ticksOf(beats), midi);
          });
          const heard = (some: LineNote[]) =>
            outlineLine(some, plainWindows(some)).windows.map((window) =>
              window.heard.map(({ root, share, symbol }) => ({
                root,
                share: Number(share.toFixed(9)),
                suffix: symbol.replace(/^[A-G][b#]?(?!\d?$)/, '')
              }))
            );
          const moved = heard(up(notes, semitones));
          expect(moved.map((window) => window.map(({ root, share }) => [root, share]))).toEqual(
            heard(notes).map((window) => window.map(({ root, share }) => [(root + semitones) % 12, share]))
          );
        }
      ),
      { numRuns: 60 }
    );
  });

  it('hears silence as silence, and counts it nowhere', () => {
    const told = outline(
      '| Dm7 | G7 | Cmaj7 |',
      lineOf('D4 1, F4 1, A4 1, C5 1, - 4, E4 1, G4 1, B4 1, C5 1')
    );
    expect(told.windows.map(({ verdict }) => verdict)).toEqual(['clear', 'silence', 'clear']);
    expect(told.windows[1]!.heard).toEqual([]);
    expect(told.share).toBe(1);
    expect(outline('| Dm7 |', []).share).toBeNull();
  });

  it('reads a pushed note with the chord it is pushed into', () => {
    const pushed = lineOf('C4, E4, G4, C5, G4, E4, D4, A3 2.5, F4 1, A4 1');
    expect(outline('| C | F |', pushed).windows.map(({ verdict }) => verdict)).toEqual(['clear', 'clear']);
  });

  it('hears a rootless form as a part, and takes chords of the same notes for one', () => {
    expect(verdicts('| G7b9 |', 'B4, D5, F5, Ab5, F5, D5, B4 1')).toEqual(['partly']);
    expect(verdicts('| C6 |', 'A4, C5, E5, G5')).toEqual(['clear']);
    expect(verdicts('| Fm6 |', 'D4, F4, Ab4, C5')).toEqual(['clear']);
    expect(verdicts('| Dm7 |', 'D4 1, F4 1, A4 1, F4 1')).toEqual(['partly']);
    expect(verdicts('| C5 |', 'C4 1, Eb4 1, G4 1')).toEqual(['clear']);
  });
});

/** Bars as players play them, each over its chord. */
const IDIOMS: readonly (readonly [style: string, chord: string, bar: string])[] = [
  ['blues', 'A7', 'C4 .25, C#4 .75, E4, A4, G4, E4, C#4 1'],
  ['blues', 'E7', 'G4 .25, G#4 .75, B4, D5, E5, D5, B4, G#4'],
  ['blues', 'D7', 'F4, F#4, A4, C5, D5, C5, A4, F#4'],
  ['blues', 'Bb7', 'Db4, D4, F4, Ab4, Bb4 1, Ab4, F4'],
  ['blues', 'G7', 'A#3, B3, D4, E4, F4, D4, B3, G3'],
  ['blues', 'C7', 'Eb4 .25, E4 .25, G4, A4, Bb4, G4, E4, C4 1'],
  ['blues', 'Eb7', 'Gb4, G4, Bb4 1, Db5 1, Bb4, G4'],
  ['rock', 'E', 'E4, G#4, B4, E5, C#5, B4, G#4, E4'],
  ['rock', 'A', 'E4, A4, B4, C#5, E5 1, C#5, A4'],
  ['rock', 'D', 'A3, D4, E4, F#4, A4 1, F#4, D4'],
  ['rock', 'Em', 'B3, E4, G4, A4, B4, G4, E4 1'],
  ['rock', 'G', 'D4, E4, G4, B4, D5 1, B4, G4'],
  ['rock', 'Bm', 'F#4, B4, C#5, D5, F#5, D5, B4 1'],
  ['bop', 'Dm7', 'D4, F4, A4, C5, E5, C5, A4, F4'],
  ['bop', 'G7', 'B4, D5, F5, Ab5, G5, F5, D5, B4'],
  ['bop', 'Cmaj7', 'G4, F#4, G4, E4, C4, B3, E4, G4'],
  ['bop', 'Fm7', 'C5, B4, C5, Ab4, F4, Eb4, Ab4, C5'],
  ['bop', 'Bb7', 'D5, C#5, D5, F5, Ab5, F5, D5, Bb4'],
  ['bop', 'Ebmaj7', 'D4, Eb4, G4, Bb4, D5, Bb4, G4, Eb4'],
  ['bop', 'Am7b5', 'A4, C5, Eb5, G5, F5, Eb5, C5, A4'],
  ['soul', 'Fmaj7', 'A4, C5, E5 1, C5, A4, F4 1'],
  ['soul', 'Cm7', 'G4, Bb4, C5, Eb5, C5, Bb4, G4, Eb4'],
  ['soul', 'Ab', 'C5, Bb4, Ab4, Eb4, C4 1, Eb4, Ab4'],
  ['soul', 'Bbm7', 'F4, Ab4, Bb4, Db5, F5, Db5, Bb4 1'],
  ['soul', 'Gm7', 'D5, C5, Bb4, G4, F4, G4, Bb4, D5'],
  ['soul', 'C7', 'E4, G4, Bb4, C5, D5, C5, Bb4, G4']
];

describe('bars as players play them', () => {
  it.each(IDIOMS)('%s over %s is heard at least in part', (_, chord, bar) => {
    expect(['clear', 'partly']).toContain(verdicts(`| ${chord} |`, bar)[0]);
  });

  it('are heard with the first note pushed as well', () => {
    for (const [, chord, bar] of IDIOMS) {
      const pushed = later(lineOf(bar), 4).map((note, i) =>
        i === 0 ? { ...note, start: note.start - ticksOf(0.5), length: note.length + ticksOf(0.5) } : note
      );
      const told = outline(`| N.C. | ${chord} |`, pushed).windows[1]!;
      expect([chord, told.verdict]).not.toEqual([chord, 'not']);
    }
  });
});

describe('mending', () => {
  const mended = (chart: string, text: string, at: number) => {
    const notes = lineOf(text);
    return { notes, mend: mendOf(notes, asked(chart), at) };
  };

  it('takes the smallest change of one note that makes the chord clear', () => {
    // A C triad over Am7 needs its root.
    const { mend } = mended('| Am7 |', 'C4 1, E4 1, G4 1, C5 1', 0);
    expect(mend).toMatchObject({ reaches: 'clear' });
    expect(mend!.changes.map(({ to }) => to % 12)).toEqual([9]);
    expect(mend!.why).toContain('root');
  });

  it('says nothing of what is clear, or silent', () => {
    expect(mended('| C |', 'C4 1, E4 1, G4 1', 0).mend).toBeNull();
    expect(mendOf([], asked('| C |'), 0)).toBeNull();
  });

  it('never trades a chord that is partly told for a likelier one that is not', () => {
    const notes = [58, 59, 64].map((midi, i) => noteOf(ticksOf(i / 2), ticksOf(0.5), midi));
    const changes = asked('| Amaj9 |');
    expect(outlineLine(notes, changes).windows[0]!.verdict).toBe('partly');
    const mend = mendOf(notes, changes, 0);
    const after = mend && outlineLine(withChanges(notes, mend.changes), changes).windows[0]!.verdict;
    expect(after).not.toBe('not');
  });

  it('reaches what it says, over any bars', () => {
    const aBar = fc.array(fc.integer({ min: 55, max: 72 }), { minLength: 2, maxLength: 8 });
    const rank = { silence: 0, not: 0, partly: 1, clear: 2 } as const;
    fc.assert(
      fc.property(fc.array(fc.tuple(aChord, aBar), { minLength: 1, maxLength: 4 }), (bars) => {
        const changes = asked(`| ${bars.map(([symbol]) => symbol).join(' | ')} |`);
        const notes = bars.flatMap(([, midis], bar) =>
          midis.map((midi, i) => noteOf(ticksOf(4 * bar + i / 2), ticksOf(0.5), midi))
        );
        const before = outlineLine(notes, changes).windows;
        changes.forEach((_, at) => {
          const mend = mendOf(notes, changes, at);
          if (!mend) return;
          expect(mend.changes.length).toBeLessThanOrEqual(2);
          const after = outlineLine(withChanges(notes, mend.changes), changes).windows[at]!;
          if (mend.reaches === 'more') {
            expect(rank[after.verdict!]).toBeGreaterThanOrEqual(rank[before[at]!.verdict!]);
          } else expect(after.verdict).toBe(mend.reaches);
        });
      }),
      { numRuns: 40 }
    );
  });
});
