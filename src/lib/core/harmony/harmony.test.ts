import { prettyNumeral } from '../theory/typeset';
import { describe, expect, it } from 'vitest';
import { analyse, type AnalysedChange } from './analysis';
import { cadenceName } from './cadence-model';
import { romanText } from './numeral';
import { keyText, readKey } from './key';
import { readSheet } from './sheet';

const roman = ({ numeral }: AnalysedChange) => numeral && romanText(numeral);

/** "symbol numeral" for every change, with "in KEY" where the key of the moment is another than the home key. */
function romans(text: string): string {
  const { analysis } = readSheet(text);
  const name = (key: { tonic: string; mode: string }) => key.tonic + (key.mode === 'minor' ? 'm' : '');
  return analysis.changes
    .map((c) => `${roman(c)}${name(c.key) === name(analysis.key) ? '' : ` in ${name(c.key)}`}`)
    .join(' | ');
}

function keyOf(text: string): string {
  const { key } = readSheet(text).analysis;
  return `${key.tonic} ${key.mode}`;
}

describe('key finding', () => {
  it.each([
    ['| Fm7 | Bb7 | Ebmaj7 | C7b9 |', 'Eb major'],
    ['| Bbm7 | Eb7 | Abmaj7 | Dbmaj7 |', 'Ab major'],
    ['| F#m7b5 | B7b9 | Em6 | % |', 'E minor'],
    ['| Bb | Gm | Eb | F |', 'Bb major'],
    ['| Ebm7 | % | % | % |', 'Eb minor'],
    ['| Ab7 | Db7 | Ab7 | % | Db7 | % | Ab7 | % | Eb7 | Db7 | Ab7 | Eb7 |', 'Ab major'],
    ['| E | B | C#m | A |', 'E major'],
    ['| Cm | Fm | G7 | Cm |', 'C minor'],
    ['| Gbmaj7 | Abm7 Db7 | Gbmaj7 | % |', 'Gb major'],
    ['| Em7 A7 | Dmaj7 | Em7 A7 | Dmaj7 |', 'D major'],
    // The last chord leads home, round to no tonic chord.
    ['| E7 | Ebmaj7 | Gm7 | C7 |', 'F major'],
    // A dominant that falls to its tonic tells more than where the loop begins.
    ['| Bb7 | Em7 | Bb7 | F7 |', 'Bb major']
  ])('%s is in %s', (text, key) => expect(keyOf(text)).toBe(key));

  it('lets a declared key win and names a runner-up', () => {
    const { key } = readSheet('{key: Cm}\n| Eb | Ab | Bb | Eb |').analysis;
    expect(key).toMatchObject({ tonic: 'C', mode: 'minor', runnerUp: { tonic: 'Eb', mode: 'major' } });
    expect(readSheet('| C |', 'Ab').analysis.key.tonic).toBe('Ab');
  });

  it('reads keys as players write them', () => {
    expect(readKey('F# minor')).toEqual({ tonic: 'F#', mode: 'minor' });
    expect(readKey('B♭')).toEqual({ tonic: 'Bb', mode: 'major' });
    expect(readKey('F dorian')).toEqual({ tonic: 'F', mode: 'dorian' });
    expect(readKey('Bb mixolydian')).toEqual({ tonic: 'Bb', mode: 'mixolydian' });
    expect(readKey('C aeolian')).toEqual({ tonic: 'C', mode: 'minor' });
    expect(readKey('quickly')).toBeNull();
    for (const text of ['Gm', 'Eb', 'D dorian', 'F# phrygian']) expect(keyText(readKey(text)!)).toBe(text);
    expect(readSheet('{key: H}\n| C |').problems[0]!.code).toBe('bad-key');
  });
});

describe('numerals', () => {
  it.each([
    ['{key: Gm}\n| Am7b5 | D7b9 | Gm6 | % |', 'iiø7 | V7 | i6 | i6'],
    ['{key: C}\n| E7 | Am | A7 | Dm7 | D7 | G7 |', 'V7/vi | vi | V7/ii | ii7 | V7/V | V7'],
    ['{key: Db}\n| Ebm7 | D7 | Dbmaj7 |', 'ii7 | subV7/I | Imaj7'],
    ['{key: F}\n| Fmaj7 | Bbm7 | Eb7 | Fmaj7 |', 'Imaj7 | iv7 | bVII7 | Imaj7'],
    ['{key: G}\n| G | G#dim7 | Am7 | A#dim7 | Bm7 |', 'I | #i°7 | ii7 | #ii°7 | iii7'],
    ['{key: Eb}\n| Ebmaj7 | Gm7b5 | C7 | Fm7 |', 'Imaj7 | iiø7/ii | V7/ii | ii7'],
    ['{key: Am}\n| Am | G | F | E7 |', 'i | bVII | bVI | V7'],
    ['{key: Bb}\n| Bbmaj7 | Bm7 | E7 | Amaj7 |', 'Imaj7 | ii7 in A | V7 in A | Imaj7 in A'],
    ['| Emaj7 | Gmaj7 | Bbmaj7 | Dbmaj7 |', 'Imaj7 | Imaj7 in G | Imaj7 in Bb | Imaj7 in Db']
  ])('%s', (text, expected) => expect(romans(text)).toBe(expected));

  it('names the functions of a blues and its turnaround', () => {
    const text = '| Eb7 | Ab7 | Eb7 | % | Ab7 | % | Eb7 | C7b9 | Fm7 | Bb7 | Eb7 C7 | Fm7 Bb7 |';
    const { changes, cadences } = readSheet(text).analysis;
    expect([0, 1, 7, 8, 9].map((i) => changes[i]!.function)).toEqual([
      'blues I',
      'blues IV',
      'secondary dominant',
      'pre-dominant',
      'blues V'
    ]);
    expect(cadences.find((c) => c.kind === 'twelve-bar')).toMatchObject({ from: 0, to: 13 });
  });

  it('stays in the key of a blues where a cadence passes through another', () => {
    const passing =
      '| Bb7 | Eb7 | Bb7 | Fm7 Bb7 | Eb7 | Ebm7 Ab7 | Dbmaj7 | G7 | Cm7 | F7 | Bb7 G7 | Cm7 F7 |';
    const { blues, changes } = readSheet(`{key: Bb}\n${passing}`).analysis;
    expect(blues).toBe(true);
    expect(new Set(changes.map(({ key }) => key.tonic))).toEqual(new Set(['Bb']));
    const ballad = readSheet('{key: Bb}\n| Bbmaj7 | Ebmaj7 | Ebm7 Ab7 | Dbmaj7 | Cm7 F7 | Bbmaj7 |').analysis;
    expect(ballad.changes[4]!.key.tonic).toBe('Db');
  });

  it('names the other keys to which a change belongs', () => {
    const others = (text: string, change: number) =>
      readSheet(text).analysis.changes[change]!.alsoIn.map(
        ({ tonic, mode, numeral }) => `${romanText(numeral)} in ${tonic} ${mode}`
      );
    const blues = '{key: Ab}\n| Ab7 | Db7 | Dbm7 Gb7 | Ab7 |';
    expect(others(blues, 2)).toEqual(['ii7 in Cb major']);
    expect(others(blues, 3)).toEqual(['V7 in Cb major']);
    expect(others('{key: E}\n| Emaj7 | C#m7 | F#7 | Bmaj7 |', 1)).toEqual(['vi7 in E major']);
    expect(others('{key: E}\n| Emaj7 | A |', 0)).toEqual([]);
  });

  it('goes home with the ii that leads there, though it belongs to the key before as well', () => {
    const { changes } = readSheet('{key: C}\n| Cmaj7 | Fm7 Bb7 | Ebmaj7 | Dm7b5 G7b9 | Cmaj7 |').analysis;
    expect(changes.map(({ key }) => key.tonic).join(' ')).toBe('C Eb Eb Eb C C C');
  });

  it('counts a minor key’s V with raised leading tone as in key, and the chord of another key not', () => {
    const { changes } = readSheet('{key: Fm}\n| Gm7b5 | C7 | Fm | D7 |').analysis;
    expect(changes.map((c) => c.inKey)).toEqual([true, true, true, false]);
  });

  it('are read with true accidentals, and nothing else of theirs is touched', () => {
    const pretty = ['subV7/I', 'bVII7', 'V7/bIII', '#iv°7', 'biii°7', 'iiø7/bVI'].map(prettyNumeral);
    expect(pretty).toEqual(['subV7/I', '♭VII7', 'V7/♭III', '♯iv°7', '♭iii°7', 'iiø7/♭VI']);
  });

  it('gives unreadable chords and rests no numeral', () => {
    const { changes } = readSheet('| N.C. | Qq | C |').analysis;
    expect(changes.map(roman)).toEqual([null, null, 'I']);
  });
});

describe('cadences', () => {
  const types = (text: string) =>
    readSheet(text).analysis.cadences.map((c) => `${cadenceName(c)} ${c.from}-${c.to} ${c.goal.tonic}`);
  it.each([
    ['{key: Gm}\n| Am7b5 | D7b9 | Gm6 | % |', 'ii-V-i 0-2 G'],
    ['{key: C}\n| Cmaj7 | Fm7 | Bb7 | Cmaj7 |', 'iv-bVII7-I 1-3 C'],
    ['{key: C}\n| C | E7 | Am |', 'V-i 1-2 A'],
    ['{key: A}\n| A | D | A |', 'IV-I 1-2 A'],
    ['{key: Eb}\n| Ebmaj7 | Fm7 | Bb7 | Gm7 |', 'ii-V 1-2 Eb'],
    ['{key: C}\n| Em7 A7 | Dm7 G7 | Cmaj7 |', 'ii-V-I 2-4 C']
  ])('%s has %s', (text, cadence) => expect(types(text)).toContain(cadence));

  it.each([
    ['| Em7 | Eb7 | Dm7 | Db7 | Cmaj7 |', ['ii-V chain 0-4', 'ii-V 0-1', 'ii-V-I 2-4']],
    ['| F#m7 | F7 | Em7 | Eb7 | Dmaj7 |', ['ii-V chain 0-4', 'ii-V 0-1', 'ii-V-I 2-4']],
    ['| Bbm7 Eb7 | Am7 D7 | Abm7 Db7 | Gbmaj7 |', ['ii-V chain 0-6']],
    ['{key: Eb}\n| Fm7 | Bb7sus4 | Ebmaj7 |', ['ii-V-I 0-2']],
    ['{key: Ab}\n| Eb9sus4 | Ab6 |', ['V-I 0-1']],
    ['{key: Gm}\n|: Gm6 | Am7b5 D7 :|', ['ii-V-i 1-3']],
    ['| Cmaj7 Eb7 | Abmaj7 B7 | Emaj7 G7 | Cmaj7 |', ['V-I 1-2', 'V-I 3-4', 'V-I 5-6']]
  ])('%s has %j', (text, wanted) => {
    const found = types(text).map((one) => one.replace(/ \S+$/, ''));
    for (const cadence of wanted) expect(found).toContain(cadence);
  });

  it('sees a chain of ii–V', () => {
    expect(
      types('{key: C}\n| F#m7 B7 | Fm7 Bb7 | Dm7 G7 | C |').some((t) => t.startsWith('ii-V chain 0-'))
    ).toBe(true);
  });
});

describe('overrules', () => {
  it('change the key, the numeral and the function of their change only', () => {
    const { form } = readSheet('{key: C}\n| Dm7 | G7 | Cmaj7 |');
    const { changes } = analyse(form, readKey('C'), {
      overrules: [
        { change: 0, key: { tonic: 'F', mode: 'major' } },
        { change: 2, function: 'borrowed' }
      ]
    });
    expect(changes.map((c) => `${roman(c)} ${c.function}`)).toEqual([
      'vi7 tonic',
      'V7 dominant',
      'Imaj7 borrowed'
    ]);
  });
});

describe('problems', () => {
  it('tells of an empty chart and a chart too long, in words', () => {
    expect(readSheet('').problems[0]).toMatchObject({ code: 'empty-chart' });
    expect(readSheet('| C '.repeat(2001) + '|').problems.map((p) => p.code)).toContain('too-many-changes');
  });

  it('uses a declared key that no chord fits, and remarks on it', () => {
    const { analysis, problems } = readSheet('{key: F#}\n| C | F | G7 |');
    expect(analysis.key.tonic).toBe('F#');
    expect(problems.map((p) => p.code)).toEqual(['key-fits-nothing']);
  });

  it('tells of a bad symbol once, however often it is played', () => {
    expect(readSheet('|: Cq | F :|').problems.filter((p) => p.code === 'bad-chord')).toHaveLength(1);
  });
});
