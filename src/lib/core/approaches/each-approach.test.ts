/** Worked cases for every row of the approaches table, in keys of our own, and what holds of them all. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { sure } from '../../testing/sure';
import { readSheet } from '../harmony/sheet';
import { guideColumns, guideThreads } from '../harmony/guide-tones';
import { pitchClass } from '../theory/note';
import type { Chord } from '../theory/chord';
import { DEGREES, type Degree } from '../theory/degree';
import type { Analysis } from '../harmony/analysis';
import { findChains } from './chains';
import { lackCost, motionBetween, type ScaleChoice } from './choice';
import { collectionOf, type Collection } from './collection';
import { contextOf } from './context';
import { judgedKeyScales } from './key-centre';
import { outlineOrder, unionOf, warningsOf } from './outline';
import { APPROACHES, scaleChoices } from './registry';

const offered = (text: string, approach: string) =>
  scaleChoices(readSheet(text).analysis, { approaches: [approach] });
const names = (text: string, approach: string, change = 0) =>
  offered(text, approach)[change]!.map((c) => c.name);

describe('the approaches', () => {
  it('key-centre: the scale of the key of the moment, its pentatonic and its blues', () => {
    expect(names('{key: Ab}\n| Bbm7 | Eb7 | Abmaj7 |', 'key-centre')).toEqual([
      'Ab major',
      'Ab major pentatonic',
      'Ab major blues'
    ]);
    expect(names('{key: Gm}\n| D7 | Gm |', 'key-centre')[0]).toBe('G harmonic minor');
    expect(names('{key: F dorian}\n| Fm7 |', 'key-centre')[0]).toBe('F dorian');
    expect(names('{key: Db}\n| Db | Gbm | Db |', 'key-centre', 1)[0]).toBe('Db aeolian');
    // What the horizontal choice lacks on the IV: its root and its third.
    const four = offered('{key: Eb}\n| Ab |', 'key-centre')[0]!.find(
      (c) => c.name === 'Eb major pentatonic'
    )!;
    expect(four.lacks).toEqual(['1']);
    expect(names('{key: Eb}\n| Eb7 | Ab7 | Bb7 |', 'key-centre')[0]).toBe('Eb minor blues');
  });

  it('key-centre: says what it lacks even where it cannot be offered', () => {
    const { analysis } = readSheet('{key: C}\n| Cmaj7 | Fm7 | Cmaj7 |');
    const scale = judgedKeyScales(contextOf(analysis, 1)!)[0]!;
    expect(scale).toMatchObject({ name: 'C major', lacks: ['b3', 'b7'], contradicts: ['7', '3'] });
    expect(names('{key: C}\n| Cmaj7 | Fm7 | Cmaj7 |', 'key-centre', 1)).not.toContain('C major');
  });

  it.each([
    ['Gbmaj7', 'Gb major pentatonic'],
    ['Abm7', 'Ab minor pentatonic'],
    ['Db7', 'Db dominant pentatonic'],
    ['Fm7b5', 'F flat-five pentatonic'],
    ['Ebm6', 'Eb minor six pentatonic']
  ])('chord-pentatonic: %s takes %s', (symbol, name) => {
    expect(names(`| ${symbol} |`, 'chord-pentatonic')[0]).toBe(name);
  });

  it('chord-pentatonic: keeps the one before where it still says enough, judged on the new chord', () => {
    const kept = offered('| Em7 Cmaj7 |', 'chord-pentatonic')[1]!.find((c) => c.keptFromPrevious)!;
    expect(kept).toMatchObject({ name: 'E minor pentatonic', lacks: ['1'] });
    expect([...kept.covers, ...kept.lacks].sort()).toEqual(['1', '3', '5', '7'].sort());
    const far = offered('| Cmaj7 | F#7 |', 'chord-pentatonic')[1]!;
    expect(far.some((c) => c.keptFromPrevious)).toBe(false);
  });

  it('displaced-pentatonic: the usual three come out on top', () => {
    const roots = (text: string) =>
      names(text, 'displaced-pentatonic')
        .slice(0, 3)
        .map((n) => n.split(' ')[0])
        .sort();
    // Minor seventh from 1, 9 and 5; major seventh from 3, 6 and 7; altered from b3, 4 and b7.
    expect(roots('| Bbm7 |')).toEqual(['Bb', 'C', 'F']);
    expect(roots('{key: Db}\n| Dbmaj7 |')).toEqual(['Bb', 'C', 'F']);
    expect(roots('{key: F}\n| C7alt | Fmaj7 |')).toEqual(['Bb', 'Eb', 'F']);
  });

  it('superimposed-arpeggio: four and none, three and one, two and two, one and three', () => {
    const all = offered('{key: Eb}\n| Fm7 | Bb7 | Ebmaj7 |', 'superimposed-arpeggio')[0]!;
    expect(all.map((c) => [c.name, c.covers.length, c.degrees.length - c.covers.length])).toEqual([
      ['Fm7 arpeggio', 4, 0],
      ['Abmaj7 arpeggio', 3, 1],
      ['Cm7 arpeggio', 2, 2],
      ['Ebmaj7 arpeggio', 1, 3]
    ]);
    // On the tonic the arpeggio from the 5 brings the 11; its variant raises it.
    const tonic = offered('{key: Eb}\n| Ebmaj7 |', 'superimposed-arpeggio')[0]!;
    expect(tonic.find((c) => c.name === 'Bbmaj7 arpeggio')!.tensions).toEqual(['9', '#11']);
  });

  it('arpeggio, triads, guide-tones: built of the chord itself', () => {
    expect(names('| Dbm7 |', 'arpeggio')).toEqual([
      'Dbm7 arpeggio',
      'Dbm7 arpeggio from Fb',
      'Dbm7 arpeggio from Ab',
      'Dbm7 arpeggio from Cb'
    ]);
    expect(names('{key: Ab}\n| Bbm7 | Eb7 |', 'triads')[0]).toBe('Bb minor triad');
    expect(offered('| Gb7 |', 'guide-tones')[0]![0]!.notes).toEqual(['Bb', 'Fb']);
    expect(offered('| Gbm6 |', 'guide-tones')[0]![0]!.degrees).toEqual(['b3', '6']);
  });

  it('blues: the third changes at the IV, and elsewhere the key’s sweet side is a colour', () => {
    const text = '{key: Ab}\n| Ab7 | Db7 | Ab7 | Eb7 |';
    expect(names(text, 'blues', 0)[0]).toBe('Ab blended blues');
    const four = offered(text, 'blues')[1]![0]!;
    expect(four.degrees).toContain('b7');
    expect(four.notes).toContain('Cb');
    expect(offered(text, 'blues')[3]![0]!.degrees).toEqual(expect.arrayContaining(['3', 'b7']));
    expect(names('{key: Ab}\n| Abmaj7 |', 'blues')).toEqual(['Ab major blues']);
  });

  it('substitution: thinks one chord over another and says what it gives', () => {
    const said = (text: string, change: number) =>
      offered(text, 'substitution')[change]!.map((c) => `${c.over}: ${c.degrees.join(' ')}`);
    const cadence = '{key: Db}\n| Ebm7 | Ab7 | Dbmaj7 |';
    expect(said(cadence, 0)).toContain('Gbmaj7 over Ebm7: b3 5 b7 9');
    expect(said(cadence, 1)).toContain('Ebm7 over Ab7: 5 b7 9 11');
    expect(said(cadence, 1)).toContain('D7 over Ab7: #11 b7 b9 3');
    const minor = said('{key: Fm}\n| Gm7b5 | C7 | Fm6 |', 0);
    expect(minor).toContain('Bbm6 over Gm7b5: b3 b5 b7 1');
    expect(minor).toContain('Eb9 over Gm7b5: 1 b3 b5 b7');
  });

  it('chains: a semitone up over a cadence, IV then I, a sound held with one note changed', () => {
    const chains = findChains(readSheet('{key: Db}\n| Ebm7 | Ab7 | Dbmaj7 |').analysis);
    const pentatonics = chains.find((c) => c.approach === 'displaced-pentatonic')!;
    expect(pentatonics.step).toBe(1);
    const names = (list: readonly Collection[]) => list.map(({ name }) => name);
    expect(pentatonics.collections).toHaveLength(3);
    expect(chains.map((c) => names(c.collections))).toContainEqual([
      'Gbmaj7 arpeggio',
      'Gbmaj7 arpeggio',
      'Dbmaj7 arpeggio'
    ]);
    const held = findChains(readSheet('{key: Gm}\n| Am7b5 | D7b9 | Gm6 |').analysis).find(
      (c) => c.step === -1
    )!;
    expect(names(held.collections)).toEqual(['Am7b5 arpeggio', 'F#dim7 arpeggio']);
    const motion = motionBetween(held.collections[0]!, held.collections[1]!);
    expect(motion).toEqual({ kept: 3, semitone: 1, tone: 0 });
  });
});

/** Checks a reason word by word against the notes themselves, not against the judgement it was made from. */
function expectTrue({ name, why, notes }: ScaleChoice, chord: Chord, analysis: Analysis, at: number): void {
  const above = notes.map((note) => (pitchClass(note) - chord.rootPc + 12) % 12);
  const semitones = (degree: string) => DEGREES[degree as Degree].semitones;
  const listOf = (pattern: RegExp) =>
    (pattern.exec(why)?.[1] ?? '')
      .replaceAll('♭', 'b')
      .replaceAll('♯', '#')
      .split(/, | and /)
      .filter(Boolean);
  const here = `${chord.symbol} in ${analysis.changes.map(({ symbol }) => symbol).join(' ')}: ${name}: ${why}`;
  if (/Holds every tone/.test(why)) {
    for (const tone of chord.tones) sure(above, here).toContain(semitones(tone));
  }
  for (const tone of listOf(/Holds (.*?) but not/)) sure(above, here).toContain(semitones(tone));
  for (const tone of listOf(/but not the (.*?)[;.]/)) sure(above, here).toLack(semitones(tone));
  for (const tone of [...listOf(/adds (.*?) as colour/), ...listOf(/keep the (.*?) passing/)]) {
    sure(above, here).toContain(semitones(tone));
    sure(chord.pitchClasses, here).toLack((chord.rootPc + semitones(tone)) % 12);
  }
  if (/third of the V to come/.test(why)) {
    const after = [...analysis.changes.slice(at + 1), ...analysis.changes].find(
      ({ chord: next }) => next && next.rootPc !== chord.rootPc
    )!.chord!;
    sure((after.rootPc - chord.rootPc + 12) % 12, here).toBe(5);
    sure(after.pitchClasses, here).toContain((chord.rootPc + 9) % 12);
  }
  if (/♭3 is a blue note and wants to rise/.test(why)) {
    sure(above, here).toContain(3);
    sure(chord.tones, here).toContain('3');
    // With a ♭9 beside it the same note is a ♯9, and nobody bends it.
    if (above.includes(4) && !/blues/.test(name)) sure(above, here).toLack(1);
  }
  if (/Keep the one before/.test(why)) sure(at, here).toBeGreaterThan(0);
}

describe('what holds of every choice', () => {
  const symbol = fc.constantFrom(
    ...'Cm7 F7 Bbmaj7 Ebmaj7 Am7b5 D7b9 Gm6 G7alt Dbdim7 Absus4 E+ B7#11 F#m7 C#m7b5 Gb6 A13 Dm(maj7) Eb7 N.C.'.split(
      ' '
    )
  );
  const charts = fc
    .array(symbol, { minLength: 1, maxLength: 6 })
    .map((chords) => `| ${chords.join(' | ')} |`);

  it('covers and lacks are the chord, nothing contradicts it, and its facts make it again', () => {
    fc.assert(
      fc.property(charts, (text) => {
        const { analysis } = readSheet(text);
        scaleChoices(analysis).forEach((choices, i) => {
          const { chord } = analysis.changes[i]!;
          if (!chord) expect(choices).toEqual([]);
          for (const choice of choices) {
            expect([...choice.covers, ...choice.lacks].sort()).toEqual([...chord!.tones].sort());
            expect(choice.contradicts).toEqual(choice.against ?? []);
            expect(choice.against ?? ['one']).toHaveLength(1);
            expect(choice.degrees).toHaveLength(choice.notes.length);
            const again = collectionOf(choice.facts)!;
            sure(again.name).toBe(choice.name);
            sure(again.root).toBe(choice.root);
            const held = new Set(again.notes.map(pitchClass));
            // A rootless ninth chord leaves its root out; everything else is all there.
            for (const note of choice.notes) sure(held, choice.name).toContain(pitchClass(note));
          }
        });
      }),
      { numRuns: 60 }
    );
  });

  const everyQuality = fc.constantFrom(
    ...(
      ' m 7 maj7 m7 6 m6 m(maj7) m7b5 dim dim7 aug 7#5 maj7#5 sus2 sus4 7sus4 7sus4b9 9 13 7b9 7#9 7alt 7b5 maj7#11 ' +
      'add9 5 69 13#11 7b9b13 /G 7/Bb m7/F maj7b5 dim(maj7)'
    ).split(' ')
  );
  const anyRoot = fc.constantFrom(...'C Db D Eb E F F# G Ab A Bb B G# Cb'.split(' '));
  const anyChart = fc
    .tuple(
      fc.constantFrom(
        '',
        '{key: Eb}\n',
        '{key: F#m}\n',
        '{key: D dorian}\n',
        '{key: Ab mixolydian}\n',
        '{key: B phrygian}\n'
      ),
      fc.array(fc.tuple(anyRoot, everyQuality), { minLength: 1, maxLength: 5 })
    )
    .map(([key, chords]) => `${key}| ${chords.map((chord) => chord.join('')).join(' | ')} |`);

  it('no approach is silent where a chord sounds, and no name has a double accidental', () => {
    fc.assert(
      fc.property(anyChart, (text) => {
        const { analysis } = readSheet(text);
        for (const [i, choices] of scaleChoices(analysis).entries()) {
          const silent = APPROACHES.filter(({ id }) => !choices.some(({ approach }) => approach === id));
          // A diminished chord that stands for no dominant is thought as nothing else.
          const isPlain = analysis.changes[i]!.chord!.family === 'diminished';
          expect(silent.map(({ id }) => id).filter((id) => !(isPlain && id === 'substitution'))).toEqual([]);
          for (const { name, parent } of choices) {
            expect(`${name} ${parent?.tonic ?? ''}`).not.toMatch(/\b[A-G](?:##|bb)/);
          }
        }
      }),
      { numRuns: 60, examples: [['| Cb | A |'], ['| Fb | D |']] }
    );
  });

  it('says only what is so at its place', () => {
    fc.assert(
      fc.property(anyChart, (text) => {
        const { analysis } = readSheet(text);
        scaleChoices(analysis).forEach((choices, i) => {
          const { chord } = analysis.changes[i]!;
          for (const choice of choices) expectTrue(choice, chord!, analysis, i);
        });
      }),
      { numRuns: 60 }
    );
  });

  it('moves with the music', () => {
    const shape = (text: string) =>
      scaleChoices(readSheet(text).analysis).map((choices) =>
        choices.map((c) => [c.approach, c.degrees, c.covers, c.avoid, c.tensions])
      );
    expect(shape('{key: G}\n| Am7 | D7 | Gmaj7 | E7b9 |')).toEqual(
      shape('{key: Bb}\n| Cm7 | F7 | Bbmaj7 | G7b9 |')
    );
    expect(shape('{key: Em}\n| F#m7b5 | B7 | Em6 |')).toEqual(shape('{key: Fm}\n| Gm7b5 | C7 | Fm6 |'));
  });

  it('says nothing where no chord was understood', () => {
    expect(scaleChoices(readSheet('| Gm7 | Czz |').analysis)[1]).toEqual([]);
    expect(new Set(APPROACHES.map(({ id }) => id)).size).toBe(APPROACHES.length);
  });
});

describe('ideas for a cadence', () => {
  it('are found for one change as among all', () => {
    const { analysis } = readSheet('{key: Bb}\n| Cm7 | F7 | Bbmaj7 | % | Am7b5 | D7b9 | Gm7 | Ebmaj7 |');
    const all = findChains(analysis);
    expect(all.length).toBeGreaterThan(2);
    for (const { index } of analysis.changes) {
      const here = ({ changes }: { changes: readonly number[] }) => changes.includes(index);
      expect(findChains(analysis, index).filter(here)).toEqual(all.filter(here));
    }
  });
});

describe('answers that are kept', () => {
  const bars = fc.array(
    fc.constantFrom(
      'Am7',
      'D7',
      'Gmaj7',
      'C7 F7',
      'Bm7b5',
      'E7b9',
      'Em7',
      'Am7 Am7',
      'Am7 . . D7',
      'Am7 D7',
      'Eb/G',
      'N.C.'
    ),
    { minLength: 1, maxLength: 8 }
  );
  const keys = fc.constantFrom('C', 'Am', 'G', 'Em', 'Eb');

  it('are the same as if they were worked out anew, from chart to chart and key to key', () => {
    const answered = new Map();
    fc.assert(
      fc.property(bars, keys, (chords, key) => {
        const { analysis } = readSheet(`{key: ${key}}\n| ${chords.join(' | ')} |`);
        expect(scaleChoices(analysis, { answered })).toEqual(scaleChoices(analysis));
      }),
      { numRuns: 60 }
    );
  });
});

describe('the whole chart', () => {
  it('outlines first what the scale of the key serves worst', () => {
    const { analysis } = readSheet('{key: C}\n| Cmaj7 | Dm7 | A7b9 | Fm7 | G7 |');
    expect(outlineOrder(analysis).slice(0, 2).sort()).toEqual([2, 3]);
    const order = (text: string) => {
      const sheet = readSheet(text).analysis;
      return outlineOrder(sheet).map((i) => sheet.changes[i]!.symbol);
    };
    // A scale that denies the third is worse than one that lacks root, third and fifth; an avoid note is a little bad.
    expect(order('{key: C}\n| F# | Gm7 | Dm7 | Cmaj7 |')).toEqual(['Gm7', 'F#', 'Cmaj7', 'Dm7']);
  });

  it('counts a lacking third or seventh most, then the root, then the fifth', () => {
    const costs = (['b3', 'b7', '1', '5', '9'] as const).map((tone) => lackCost([tone]));
    expect(costs[0]).toBe(costs[1]);
    expect([...costs].sort((a, b) => b - a)).toEqual(costs);
    expect(new Set(costs).size).toBe(4);
  });

  it('says what the union amounts to', () => {
    const scale = (name: string) => {
      const [root, ...type] = name.split(' ');
      return collectionOf({ kind: 'scale', root: root!, type: type.join(' ') })!;
    };
    const union = (...list: string[]) => unionOf(list.map(scale));
    expect(union('F minor pentatonic', 'Bb mixolydian')).toBe('Together: all seven notes of Eb major.');
    expect(union('C minor pentatonic', 'C major pentatonic')).toMatch(/^Together: all eight notes of/);
    expect(union()).toBe('Nothing chosen yet.');
  });

  it('warns of a flat nine on a half-diminished and of both thirds', () => {
    const { analysis } = readSheet('{key: Gm}\n| Am7b5 | D7 | Gm6 | Eb7 |');
    const choice = (i: number, name: string) => scaleChoices(analysis)[i]!.find((c) => c.name === name)!;
    expect(warningsOf(choice(0, 'A locrian'), analysis, 0).join()).toMatch(/♭9/);
    expect(warningsOf(choice(0, 'A locrian natural 2'), analysis, 0)).toEqual([]);
    const flatThird = scaleChoices(analysis)[3]!.find(
      (c) => c.blue.includes('b3') && !c.degrees.includes('3')
    );
    if (flatThird) expect(warningsOf(flatThird, analysis, 3).join()).toMatch(/♭3/);
  });
});

describe('guide tones', () => {
  const { changes } = readSheet('{key: Eb}\n| Fm7 | Bb7 | Ebmaj7 | Eb6 |').analysis;

  it('reads down the columns', () => {
    const columns = guideColumns(changes);
    expect(columns.map((c) => c.degree)).toEqual(['1', '3', '5', '7']);
    expect(columns[1]).toMatchObject({ notes: ['Ab', 'D', 'G', 'G'], steps: [6, 5, 0] });
    expect(columns[3]).toMatchObject({ notes: ['Eb', 'Ab', 'D', null], steps: [5, 6, null] });
  });

  it('follows the nearest motion from each tone of the first chord', () => {
    const threads = guideThreads(changes);
    expect(threads).toHaveLength(4);
    expect(threads[1]).toEqual({
      notes: ['Ab', 'Ab', 'G', 'G'],
      degrees: ['b3', 'b7', '3', '3'],
      steps: [0, -1, 0],
      total: 1
    });
  });
});
