/** Forms to begin a chart from, in any key: rows of steps, written out as chart text. */
import { noteAbove, withoutDoubles, type NoteName } from '../theory/note';
import { keyText, type Key } from './key';

export interface FormPattern {
  readonly id: string;
  readonly name: string;
  readonly mode: 'major' | 'minor';
  /** Words of the head beside title and key: feel, style. */
  readonly head: Readonly<Record<string, string>>;
  /** Sections of the form: a label, and rows of bars. A chord is an interval from the tonic and a suffix: "2M.m7". */
  readonly sections: readonly (readonly [label: string, rows: readonly string[]])[];
}

const SWING = { feel: 'swing' };

export const FORM_PATTERNS: readonly FormPattern[] = [
  {
    id: 'blues',
    name: '12-bar blues',
    mode: 'major',
    head: { feel: 'shuffle', style: 'blues' },
    sections: [['', ['1P.7 | 4P.7 | 1P.7 | %', '4P.7 | % | 1P.7 | %', '5P.7 | 4P.7 | 1P.7 | 5P.7']]]
  },
  {
    id: 'minor blues',
    name: '12-bar minor blues',
    mode: 'minor',
    head: { feel: 'swing', style: 'blues' },
    sections: [
      ['', ['1P.m7 | 4P.m7 | 1P.m7 | %', '4P.m7 | % | 1P.m7 | %', '6m.maj7 | 5P.7b9 | 1P.m7 | 5P.7b9']]
    ]
  },
  {
    id: 'jazz blues',
    name: '12-bar jazz blues',
    mode: 'major',
    head: { feel: 'swing', style: 'jazz' },
    sections: [
      [
        '',
        [
          '1P.7 | 4P.7 | 1P.7 | 5P.m7 1P.7',
          '4P.7 | 4A.dim7 | 1P.7 | 3M.m7b5 6M.7b9',
          '2M.m7 | 5P.7 | 1P.7 6M.7 | 2M.m7 5P.7'
        ]
      ]
    ]
  },
  {
    id: 'AABA',
    name: '32 bars, AABA',
    mode: 'major',
    head: SWING,
    sections: [
      ['A', ['1P.maj7 | 6M.m7 | 2M.m7 | 5P.7', '3M.m7 | 6M.7b9 | 2M.m7 | 5P.7']],
      ['A', ['1P.maj7 | 6M.m7 | 2M.m7 | 5P.7', '3M.m7 | 6M.7b9 | 2M.m7 5P.7 | 1P.maj7']],
      ['B', ['5P.m7 | 1P.7 | 4P.maj7 | %', '6M.m7 | 2M.7 | 2M.m7 | 5P.7']],
      ['A', ['1P.maj7 | 6M.m7 | 2M.m7 | 5P.7', '3M.m7 | 6M.7b9 | 2M.m7 5P.7 | 1P.maj7']]
    ]
  },
  {
    id: '16 bars',
    name: '16 bars, AB',
    mode: 'minor',
    head: SWING,
    sections: [
      ['A', ['1P.m7 | % | 4P.m7 | %', '2M.m7b5 | 5P.7b9 | 1P.m7 | %']],
      ['B', ['4P.m7 | 7m.7 | 3m.maj7 | 6m.maj7', '2M.m7b5 | 5P.7b9 | 1P.m7 | 5P.7b9']]
    ]
  },
  {
    id: 'loop',
    name: 'Loop of four chords',
    mode: 'major',
    head: { style: 'pop or folk' },
    sections: [['', ['1P. | 5P. | 6M.m | 4P.']]]
  },
  {
    id: 'minor loop',
    name: 'Minor loop of four chords',
    mode: 'minor',
    head: { style: 'rock', feel: 'rock' },
    sections: [['', ['1P.m | 6m. | 3m. | 7m.']]]
  },
  {
    id: 'vamp',
    name: 'One-chord vamp',
    mode: 'minor',
    head: { style: 'modal' },
    sections: [['', ['1P.m7 | % | % | %']]]
  },
  {
    id: 'empty',
    name: 'Empty bars, 32',
    mode: 'major',
    head: {},
    sections: ['A', 'A', 'B', 'A'].map((label) => [label, ['| | |', '| | |']] as const)
  }
];

/** A form as chart text in a key on some tonic. */
export function formText({ mode, head, sections }: FormPattern, tonic: NoteName, title: string): string {
  const key: Key = { tonic, mode };
  const chord = (word: string) => {
    const [interval, suffix] = word.split('.') as [string, string];
    return withoutDoubles(noteAbove(tonic, interval)) + suffix;
  };
  const bars = (line: string) =>
    `| ${line
      .split('|')
      .map((bar) => bar.trim().replaceAll(/\S+\.\S*/g, chord))
      .join(' | ')} |`.replaceAll(/ +/g, ' ');
  return [
    `{title: ${title}}`,
    `{key: ${keyText(key)}}`,
    ...Object.entries(head).map(([name, value]) => `{meta: ${name} ${value}}`),
    ...sections.flatMap(([label, rows]) => [
      label ? `{start_of_grid label="${label}"}` : '{start_of_grid}',
      ...rows.map(bars),
      '{end_of_grid}'
    ]),
    ''
  ].join('\n');
}
