import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { sure } from '../../testing/sure';
import { readSheet } from '../harmony/sheet';
import { DEGREES, type Degree } from '../theory/degree';
import { pitchClass, semitonesUp } from '../theory/note';
import { leaveAlone } from './advice';
import { contextOf } from './context';
import { APPROACHES, scaleChoices, type OfferedChoice } from './registry';

const CHARTS = ['choices', 'style-choices'].flatMap((name) =>
  readFileSync(new URL(`../../../../tests/data/${name}.tsv`, import.meta.url), 'utf8')
    .trim()
    .split('\n')
    .slice(1)
    .map((line) => line.split('\t')[0]!.replaceAll(/(\{[^}]*\})\s*/g, '$1\n'))
);
const analysisOf = (text: string) => readSheet(text).analysis;
const plainDegree = (text: string) => text.replaceAll('♭', 'b').replaceAll('♯', '#') as Degree;

/** Every choice over all charts, list by list. */
const LISTS = [...new Set(CHARTS)].flatMap((text) => {
  const analysis = analysisOf(text);
  return scaleChoices(analysis).flatMap((choices: readonly OfferedChoice[], change) =>
    APPROACHES.map(({ id }) => ({
      text,
      analysis,
      change,
      choices: choices.filter(({ approach }) => approach === id)
    }))
  );
});

describe('what is said of a choice', () => {
  it('differs from choice to choice in sound and use', () => {
    for (const { text, change, choices } of LISTS) {
      const at = `${text} ${change}: ${choices.map(({ sound, use }) => `${sound}, ${use}`).join(' | ')}`;
      expect(new Set(choices.map(({ sound }) => sound)).size, at).toBe(choices.length);
      expect(new Set(choices.map(({ use }) => use)).size, at).toBe(choices.length);
    }
  });

  it('is true by a second reading: its notes are what it calls them, and move where it says', () => {
    let [named, moved] = [0, 0];
    for (const { text, analysis, change, choices } of LISTS) {
      const context = contextOf(analysis, change);
      for (const { use, notes, name } of choices) {
        const said = `${text}, change ${change}, ${name}: ${use}`;
        const pcs = notes.map(pitchClass);
        const one = /the ([♭♯]*\d+), ([A-G][b#]*)/.exec(use);
        if (one) {
          named++;
          sure(pcs, said).toContain(pitchClass(one[2]!));
          const up = semitonesUp(context!.change.chord.rootPc, pitchClass(one[2]!));
          sure(up, said).toBe(DEGREES[plainDegree(one[1]!)].semitones % 12);
        }
        const moves = /^(.+) wants? to move into (.+?)(?:;|$)/.exec(use);
        if (!moves) continue;
        moved++;
        const [from, to] = [moves[1]!.split(' and '), moves[2]!.split(' and ')];
        sure(from.length, said).toBe(to.length);
        from.forEach((note, i) => {
          sure(pcs, said).toContain(pitchClass(note));
          sure([1, 11], said).toContain(semitonesUp(pitchClass(note), pitchClass(to[i]!)));
          sure(context!.next!.chord!.pitchClasses, said).toContain(pitchClass(to[i]!));
        });
      }
    }
    sure(named).toBeGreaterThan(500);
    sure(moved).toBeGreaterThan(100);
  });

  it('gives its reasons in two sentences at most', () => {
    for (const { choices } of LISTS)
      for (const { why } of choices)
        sure(why.split(/\.(?= |$)/).filter(Boolean).length, why).toBeLessThanOrEqual(2);
  });
});

describe('a scale that is better left alone', () => {
  it.each([
    ['{key: Ab}\n| Bbm7 | Eb7 | Abmaj7 |', 1, /all seven notes/],
    ['{key: C}\n| Cmaj7 | C7 | Fmaj7 |', 1, /six notes/],
    ['{key: C}\n{tempo: 90}\n| Dm7 G7 Em7 A7 | Dm7 |', 1, /under two beats/]
  ])('%s, change %i: %s', (text, change, why) => {
    expect(leaveAlone(analysisOf(text), change)).toMatch(why);
  });

  it.each([
    ['{key: Cm}\n| Dm7b5 | G7alt | Cm6 |', 0],
    ['{key: C}\n| Cmaj7 | Ebmaj7 | Abmaj7 | G7 |', 1],
    ['| Dm7 | % | % | % |', 1]
  ])('%s, change %i has a sound of its own', (text, change) => {
    expect(leaveAlone(analysisOf(text), change)).toBeNull();
  });
});
