import { describe, expect, it } from 'vitest';
import { noteOf, TICKS } from '../../line/model';
import { readChord } from '../../theory/chord-reader';
import { pieceOf } from '../testing';
import { symbolOf, kindOf } from './kinds';
import { readMusicXml } from './read';
import { writeMusicXml } from './write';

/** What may stand in an element, in the order of the schema of version 4.0; only elements that are written here. */
const ORDER: Readonly<Record<string, RegExp>> = {
  'score-partwise': /^(work )?(identification )?part-list (part )+$/,
  work: /^(work-title )?$/,
  identification: /^(encoding )?(miscellaneous )?$/,
  'part-list': /^(part-group )*score-part (score-part |part-group )*$/,
  'part-group': /^(group-symbol )?(group-barline )?$/,
  'score-part': /^part-name $/,
  measure: /^(note |backup |forward |direction |attributes |harmony |barline )*$/,
  attributes: /^(divisions )?(key )*(time )*(clef )*(staff-details )*$/,
  key: /^fifths (mode )?$/,
  time: /^(beats beat-type )+$/,
  clef: /^sign (line )?(clef-octave-change )?$/,
  'staff-details': /^(staff-lines )?(staff-tuning )*(capo )?$/,
  'staff-tuning': /^tuning-step (tuning-alter )?tuning-octave $/,
  direction: /^(direction-type )+(sound )?$/,
  metronome: /^beat-unit (beat-unit-dot )*per-minute $/,
  harmony: /^root kind (inversion )?(bass )?(degree )*(offset )?$/,
  root: /^root-step (root-alter )?$/,
  bass: /^bass-step (bass-alter )?$/,
  degree: /^degree-value degree-alter degree-type $/,
  barline: /^(bar-style )?(ending )?(repeat )?$/,
  note: /^(chord )?(pitch |rest )duration (tie ){0,2}voice (type )?(dot )*(accidental )?(time-modification )?(notehead )?(notations )*$/,
  pitch: /^step (alter )?octave $/,
  'time-modification': /^actual-notes normal-notes $/,
  notations: /^(tied |tuplet |slide |technical |ornaments )+$/,
  technical: /^(fingering |string |fret |bend |hammer-on |pull-off )+$/,
  bend: /^bend-alter (release )?$/
};

/** The names of the elements whose children are out of order, or are none of theirs. */
function outOfOrder(xml: string): string[] {
  const found: string[] = [];
  const open: { name: string; inside: string }[] = [];
  for (const [, closes, name, , isEmpty] of xml.matchAll(/<(\/?)([a-z-]+)((?: [^<>]*?)?)(\/?)>/g)) {
    if (!closes) {
      const parent = open.at(-1);
      if (parent) parent.inside += `${name} `;
      open.push({ name: name!, inside: '' });
    }
    if (!closes && !isEmpty) continue;
    const one = open.pop()!;
    if (ORDER[one.name] && !ORDER[one.name]!.test(one.inside)) found.push(`${one.name}: ${one.inside}`);
  }
  return found;
}

describe('MusicXML', () => {
  it('stands in the order of the schema, whatever is in a line', () => {
    const [placed, other] = [
      { string: 2, fret: 5 },
      { string: 3, fret: 7 }
    ];
    const notes = [
      { ...noteOf(-TICKS / 2, TICKS / 2, 62), place: other },
      { ...noteOf(0, TICKS, 66), place: placed, bend: { from: 64 }, release: { to: 64 } },
      { ...noteOf(TICKS, TICKS / 3, 64), place: placed, slur: true as const },
      {
        ...noteOf(TICKS + TICKS / 3, TICKS / 3, 63),
        place: placed,
        slide: true as const,
        ghost: true as const
      },
      { ...noteOf(TICKS + (2 * TICKS) / 3, TICKS / 3, 62), place: other },
      { ...noteOf(2 * TICKS, 5 * TICKS, 64), place: { ...placed, finger: 2 }, vibrato: true as const },
      { ...noteOf(2 * TICKS, 5 * TICKS, 60), place: { ...other, finger: 1 } },
      { ...noteOf(7 * TICKS, TICKS, 60), place: other, tie: true as const }
    ];
    const form =
      '{title: Form}\n{key: Eb}\n|: Ebmaj7 | C7(b9) |1 Fm7 | Bb7 :|2 Fm7/Bb Bb7sus4 | N.C. | D.C. al Fine\n';
    for (const piece of [
      pieceOf([
        { name: 'line: A', notes },
        { name: 'melody', notes: [] }
      ]),
      pieceOf([]),
      pieceOf([], form)
    ]) {
      const xml = writeMusicXml(piece);
      expect(outOfOrder(xml)).toEqual([]);
      const ids = [...xml.matchAll(/ id="([^"]*)"/g)].map(([, id]) => id!).filter((id) => !/^P/.test(id));
      expect(new Set(ids).size).toBe(ids.length);
    }
    expect(outOfOrder('<pitch><octave>4</octave><step>C</step></pitch>')).toEqual(['pitch: octave step ']);
  });

  it('keeps lines and melody apart', () => {
    const notes = [noteOf(0, TICKS, 67)];
    const back = readMusicXml(
      writeMusicXml(
        pieceOf([
          { name: 'line: A', notes },
          { name: 'melody', notes: [noteOf(TICKS, TICKS, 70)] },
          { name: 'line: B', notes }
        ])
      )
    );
    expect(back.lines.map(({ name }) => name)).toEqual(['A', 'B']);
    expect(back.melody!.map(({ midi }) => midi)).toEqual([70]);
  });

  it('says staff, tab, meters, chords and bars in the usual words', () => {
    const place = { string: 1, fret: 11, finger: 2 };
    const notes = [
      { ...noteOf(0, 6 * TICKS, 63), place: { string: 2, fret: 4 } },
      { ...noteOf(8 * TICKS, TICKS, 75), place }
    ];
    const xml = writeMusicXml(pieceOf([{ name: 'line: A', notes }]));
    for (const said of [
      '<work-title>Ropes &amp; &lt;Knots&gt;</work-title>',
      '<divisions>960</divisions>',
      '<fifths>-2</fifths><mode>minor</mode>',
      '<clef-octave-change>-1</clef-octave-change>',
      '<staff-tuning line="1"><tuning-step>E</tuning-step><tuning-octave>2</tuning-octave></staff-tuning>',
      '<root-step>A</root-step></root><kind text="m7b5">half-diminished</kind>',
      '<bass><bass-step>B</bass-step><bass-alter>-1</bass-alter></bass><offset>960</offset>',
      '<kind text="N.C.">none</kind>',
      '<rehearsal>B</rehearsal>',
      '<beats>3</beats><beat-type>4</beat-type>'
    ]) {
      expect(xml).toContain(said);
    }
    // The tab is a part of its own, which engravers draw as one; only there do strings and frets stand.
    expect(xml).toContain('<part-name>line: A (tab)</part-name>');
    const [staff, tab] = xml.split('<part id="P1T">') as [string, string];
    expect(staff).not.toContain('<fret>');
    expect(tab).toContain('<clef><sign>TAB</sign>');
    expect(tab).toContain('<fingering>2</fingering><string>1</string><fret>11</fret>');
    expect(xml.match(/<measure /g)).toHaveLength(12);
  });

  it('reads a score from elsewhere: chords by their kind, a written octave, ties joined, grace notes told', () => {
    const note = (step: string, octave: number, duration: number, more = '') =>
      `<note><pitch><step>${step}</step><octave>${octave}</octave></pitch><duration>${duration}</duration>${more}</note>`;
    const chord = (step: string, kind: string, more = '') =>
      `<harmony><root><root-step>${step}</root-step></root><kind>${kind}</kind>${more}</harmony>`;
    const { chart, melody, left } = readMusicXml(`<?xml version="1.0"?>
<score-partwise><work><work-title>Slack Water</work-title></work>
<part-list><score-part id="P1"><part-name>Voice</part-name></score-part></part-list>
<part id="P1"><measure number="1"><attributes><divisions>2</divisions><key><fifths>1</fifths></key><time><beats>3</beats><beat-type>4</beat-type></time><transpose><chromatic>0</chromatic><octave-change>-1</octave-change></transpose></attributes>
<sound tempo="96"/>
${chord('A', 'minor-seventh')}${note('C', 5, 4)}${chord('D', 'dominant', '<degree><degree-value>9</degree-value><degree-alter>-1</degree-alter><degree-type>add</degree-type></degree>')}<note><grace/><pitch><step>E</step><octave>5</octave></pitch></note>${note('F', 5, 2, '<tie type="start"/>')}</measure>
<measure number="2">${chord('G', 'major-seventh')}${note('F', 5, 6, '<tie type="stop"/>')}</measure></part></score-partwise>`);
    expect(chart).toContain('{title: Slack Water}\n{key: G}\n{time: 3/4}\n{tempo: 96}');
    expect(chart).toContain('| Am7 . D7b9 | Gmaj7 |');
    expect(melody).toEqual([
      { start: 0, length: 1920, midi: 60, note: 'C' },
      { start: 1920, length: 3840, midi: 65, note: 'F' }
    ]);
    expect(left).toEqual([{ text: 'Voice', why: '1 grace note left out' }]);
  });

  it('knows every kind that it writes by its tones alone', () => {
    const symbols = [
      'C',
      'Dm',
      'Eb7',
      'F#m7',
      'Bbmaj7',
      'Bm7b5',
      'C#dim7',
      'G7#5',
      'Am(maj7)',
      'D6',
      'Em6',
      'G9',
      'F13',
      'C5',
      'A7b9',
      'D7#11',
      'Esus4'
    ];
    for (const symbol of symbols) {
      const reading = readChord(symbol);
      if (reading.kind !== 'chord') throw new Error(symbol);
      const { chord } = reading;
      const { kind, degrees } = kindOf(chord);
      const back = symbolOf(chord.root, { kind, text: '', degrees, bass: '' })!;
      const again = readChord(back);
      expect(again.kind === 'chord' && again.chord.pitchSet, `${symbol}: ${back}`).toBe(chord.pitchSet);
    }
  });

  it.each([
    ['no XML', 'what is this'],
    ['cut off', '<score-partwise><part id="P1"><measure>'],
    ['another XML', '<html><body/></html>'],
    [
      'entities that grow',
      '<!DOCTYPE x [<!ENTITY a "aaaa"><!ENTITY b "&a;&a;">]><score-partwise>&b;</score-partwise>'
    ],
    ['too deep', `${'<a>'.repeat(3000)}${'</a>'.repeat(3000)}`],
    ['sorted by time', '<score-timewise/>']
  ])('refuses %s with a sentence', (_, text) => {
    expect(() => readMusicXml(text)).toThrow(/XML/);
  });

  it('tells of chords and drums, and takes the rest', () => {
    const pitch = (step: string) =>
      `<pitch><step>${step}</step><octave>4</octave></pitch><duration>1</duration>`;
    const chords =
      `<note>${pitch('C')}</note><note><chord/>${pitch('E')}</note><note><chord/>${pitch('G')}</note>`.repeat(
        4
      );
    const part = (id: string, notes: string) =>
      `<part id="${id}"><measure><attributes><divisions>1</divisions></attributes>${notes}</measure></part>`;
    const { lines, melody, left, chart } = readMusicXml(
      `<score-partwise><part-list><score-part id="a"><part-name>Keys</part-name></score-part><score-part id="b"><part-name>Kit</part-name></score-part><score-part id="c"><part-name>Horn</part-name></score-part></part-list>${part('a', chords)}${part('b', '<note><unpitched/><duration>1</duration></note>')}${part('c', `<note>${pitch('D')}</note>`)}</score-partwise>`
    );
    // Nobody named the chord: what the keys play is one.
    expect(chart).toContain('| C |');
    expect(lines).toEqual([]);
    expect(melody!.map(({ midi }) => midi)).toEqual([62]);
    expect(left.map(({ text, why }) => `${text}: ${why}`)).toEqual([
      'Kit: 1 drum note left out',
      'Keys: has chords of three and more notes in 4 places; a line has two notes at once at most',
      ': The chords have no names in this file; they were named by what all parts play'
    ]);
  });

  it('takes the key it begins in, and those that are written inside', () => {
    const bar = (number: number, key: string, root: string) =>
      `<measure number="${number}"><attributes><divisions>1</divisions>${key}</attributes><harmony><root><root-step>${root}</root-step></root><kind>major-seventh</kind></harmony><note><rest/><duration>4</duration></note></measure>`;
    const fifths = (count: number, mode = 'major') =>
      `<key><fifths>${count}</fifths><mode>${mode}</mode></key>`;
    const { chart, keys, left } = readMusicXml(
      `<score-partwise><part-list><score-part id="P1"><part-name>Lead</part-name></score-part></part-list><part id="P1">${[
        bar(1, fifths(-3), 'E'),
        bar(2, fifths(-3), 'A'),
        bar(3, fifths(1), 'G'),
        bar(4, '', 'C'),
        bar(5, fifths(-6, 'minor'), 'E'),
        bar(6, fifths(-3), 'E')
      ].join('')}</part></score-partwise>`
    );
    expect(chart).toContain('{key: Eb}');
    expect(keys).toEqual([
      { bar: 3, key: 'G' },
      { bar: 5, key: 'Ebm' },
      { bar: 6, key: 'Eb' }
    ]);
    expect(left).toEqual([]);
  });
});
