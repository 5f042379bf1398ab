/**
 * The rhythm vocabulary: what a bar of a phrase may sound like. A cell has a word for each pulse; the signs of a word divide its pulse
 * evenly: `x` struck, `.` held, `-` silent, `o` a ghost note; `|` is a bar line. Source: docs/music-rules.md, Phrases.
 */

/** P: into the bar that follows. S: begins after the beat. M: goes on. E: ends. F: a phrase within one bar. D: two bars to their end. */
export type CellRole = 'P' | 'S' | 'M' | 'E' | 'F' | 'D';

export const VOCABULARIES = {
  swing: {
    P: ['- - - -x', '- - - xx', '- - -x xx', '- - xx xx', '- - - xxx', '- - -x xxx', '- - -x .x'],
    S: [
      '- xx xx xx',
      '-x xx xx xx',
      '-x .x xx xx',
      '- -x xx xx',
      '-x xxx x. xx',
      '- xxx xx xx',
      '-x x. xx xx'
    ],
    M: [
      'xx xx xx xx',
      'x. xx xx xx',
      'xx xxx xx xx',
      'x. xx xxx xx',
      'xx xx x. .x',
      'xx x. xx xx',
      'x. .x xx xx',
      'xxx xx xx xx',
      'xx xx xxx x.',
      'x.x .x. xx xx',
      'xx .x xx xx',
      'xx .x .x xx',
      'xx xx .x xx',
      'x. xx .x xx'
    ],
    E: [
      'x . - -',
      'xx . - -',
      'xx x- - -',
      'xx xx x- -',
      'xx xx xx x-',
      'xxx x . -',
      'x- -x . -',
      'xx .x . -',
      'xx xx .x -',
      'x. xxx x- -',
      'xx xxx x- -',
      'xx x- -x .-',
      'x. .x - -'
    ],
    F: [
      '- -x xx x-',
      '-x xx x- -',
      '-x x- - -',
      '- xx .x -',
      '- - xx x-',
      'x- xx x- -',
      '-x .x x- -',
      '- xxx x- -'
    ],
    D: [
      'x. .x .. x. | .x .. x. -',
      '-x xx x. .x | .. xx .x -',
      '- xx .x xxx | x. .x x- -',
      'xx x. .x xx | .x xxx x. -',
      '-x x. .x x. | .x x. .x -',
      'x. xxx .x xx | x. .x x- -'
    ]
  },
  shuffle: {
    P: ['- - - -x', '- - - xx', '- - - xxx', '- - - --x', '- - -x xx', '- - - -xx', '- - -x .x', '- - xx xx'],
    S: ['-x x. xx x.', '- xx x. xx', '-x .x xx x.', '- xxx x. xx', '-xx x. -x xx', '-x x- -x xx'],
    M: [
      'x. xx x- xx',
      'xxx x. xx x.',
      'x.x x.x xx x.',
      'xx x- xx x.',
      'x. .x .x xx',
      'xx xx x. .x',
      'xxx xxx x. xx',
      'x. xx xxx xx',
      'x- -x xx x.',
      'xx xx x- xx',
      'x.x .x. xx x.'
    ],
    E: [
      'x . - -',
      'xx x. - -',
      'x.x x. - -',
      'xx .x . -',
      'xxx x . -',
      'x- -x . -',
      'xx xx . -',
      'xx x- x .',
      'x.x x.x x. -',
      'x . . -',
      'xxx x- - -',
      'xx .x - -'
    ],
    F: [
      '-x x- - -',
      '- -x x- -',
      '- xx x. -',
      '-xx x. - -',
      '- xxx x. -',
      'x-x x- - -',
      '- -x xx x-',
      '-x .x . -'
    ],
    D: [
      'x. xx .x -x | x. xx x- -',
      '-x x. .x x. | xxx x. - -',
      'x.x x- -x x. | .x .x x. -',
      '- xx x. -x | x. xx .x -',
      '-x .x x- -x | .x x- - -',
      'x- -x x.x x. | .x xxx x. -'
    ]
  },
  rock: {
    P: [
      '- - - -x',
      '- - - xx',
      '- - - --xx',
      '- - -x xx',
      '- - - xxxx',
      '- - xx xx',
      '- - - -xxx',
      '- - -x .x'
    ],
    S: ['-x xx x. xx', '- x. xx xx', '- -x xx xx', '-x .x .x xx', '- xxxx x. xx', '-x x. .x xx'],
    M: [
      'x. xx x. xx',
      'xx .x .x xx',
      'x. .x x. xx',
      'xx xx xx xx',
      'xxxx x. xx x.',
      'x.xx x. x.xx x.',
      'x. .x .x .x',
      'x.xx x.xx x. xx',
      'xx x. xxxx x.',
      'xxx xxx x. xx',
      'xx .x x. xx',
      'x. x.xx xx x.'
    ],
    E: [
      'x . . -',
      'x. .x . -',
      'xx . . -',
      'x.xx . . -',
      'xx x. . -',
      'xx .x . -',
      'x. xx . -',
      'xxxx x . -',
      'x. .x .- -',
      'x. x. . .',
      'x.xx x. - -',
      'xx x- - -'
    ],
    F: ['- xx x. -', '-x x. - -', '- -x .x .-', 'x- x- -x .-', '- x.xx x. -', '- xxx x. -', '--xx x. - -'],
    D: [
      'x. .x .x x. | .x x. - -',
      '-x x. xx .x | .. .x x. -',
      'x.xx x. - x.xx | x. x. .- -',
      'x. x. .x .x | .x xx x. -',
      '- -x x. .x | .x xxxx x. -',
      '-x xx .x x. | x.xx x. . -'
    ]
  },
  funk: {
    P: [
      '- - - ---x',
      '- - - --xx',
      '- - - x-xx',
      '- - - -xxx',
      '- - --x- x-xx',
      '- - - xoxx',
      '- - -x-- x-x-',
      '- - - --x-'
    ],
    S: [
      '-x-x x-ox x--- --xx',
      '--xx x-x- -x-x x-xx',
      '--x- xox- x--x .-xx',
      '- x-xx -x-x x-x-',
      '-xox x--x .-x- x-xx',
      '---x .-xx x-ox x-x-'
    ],
    M: [
      'x-ox x-x- -xox x-xx',
      'x--x .-xx x-ox x-x-',
      'x-x- -x-x x-ox x-x-',
      'xoxx x--- x-xx x-ox',
      'x--x .x-x x-xx x--x',
      'xx-x x-o- xxox x-x-',
      'x-x- x-x- -x.x .-xx',
      'xoox xoox xox- --xx',
      'x-xx -x-x xo-x x-x-',
      'x--- x-xx xox- xxxx',
      'x-xx xxx x-ox x---'
    ],
    E: [
      'x--x .... - -',
      'x-ox x--- - -',
      'x-xx x... .... -',
      '-x-x x... .... -',
      'xoxx x-x- x--- -',
      'x--x --x- x--- -',
      'xx-x .... .... -',
      'x-x- x-ox x... ..--',
      'x... .... - -',
      'xxx x--- - -',
      'x--- - - -',
      'x-xx x--- - -'
    ],
    F: [
      '--x- xox- x--- -',
      'x-x- - x-xx x---',
      '-x-x x--- - -',
      '- x-xx x--- -',
      'x-ox x--- - -',
      '--xx x-x- - -',
      '- - xoxx x---'
    ],
    D: [
      'x-ox x--x .-x- --xx | x-ox x-x- x--- -',
      'x--- --xx x-ox --x- | -x-x x--x x--- -',
      '-x-x --x- x-xx x--x | .-x- x-ox x--- -',
      'x-x- --x- --xx x-ox | x--- --x- -x-x x---',
      'xx-x x--- --x- --xx | x-ox x--- - -',
      '- x-xx x--x --x- | x-x- -xox x--- -',
      '--x- x--x .-xx x-ox | x--x --x- x--- -'
    ]
  },
  bossa: {
    P: ['- - - -x', '- - - xx', '- - -x xx', '- - -x .x', '- - x. .x', '- - xx xx', '- - - xxx'],
    S: ['-x .x xx xx', '- x. xx .x', '-x x. .x xx', '- -x .x xx', '-x xx .x .x', '- x.x .x. xx'],
    M: [
      'x. .x .x x.',
      'xx .x .x xx',
      'x. xx .x xx',
      'xx x. .x .x',
      'xx xx .x xx',
      'x. .x xx xx',
      'xx xxx x. .x',
      'x. x.x .x. xx',
      'xx .x xx .x',
      'x. .x .x .x',
      'xx x. xx .x',
      'x. xx xx x.'
    ],
    E: [
      'x . . -',
      'x. .x . .',
      'xx . . -',
      'xx .x . -',
      'x. .x .- -',
      'xx xx . -',
      'x.x .x. . -',
      'xxx x . -',
      'xx x. .x .-',
      'x . - -',
      'x. xx .- -',
      'xx .x .- -'
    ],
    F: ['-x .x . -', '- x. .x .-', '- -x .x .', '-x xx .- -', '- xx .x .-', '-x x. - -'],
    D: [
      'x. .x .. x. | .. .x .. x.',
      '-x .x x. .x | .x x. .. -',
      'x. .x .x .. | .x .x x. .-',
      'xx .x .x xx | .x x. .x .-',
      '- xx .x x. | .x .x x. -',
      'x. xx .x .x | x. .x .- -'
    ]
  },
  ballad: {
    P: [
      '- - - -x',
      '- - - --xx',
      '- - - xxx',
      '- - - xxxx',
      '- - x.x xxx',
      '- - -x xxx',
      '- - -xxx xx',
      '- - - -xxx'
    ],
    S: ['-x xx x. xx', '- xxx x. xx', '- -xxx x. xx', '--xx xx x. xxx', '- x. xx xxx', '-x x. xxxx xx'],
    M: [
      'x. xx xxx x.',
      'x. .x xxxx x.',
      'xx xxx x. xx',
      'xxxx xx x. xx',
      'x.x .x. xx xx',
      'x.xx xx x. xx',
      'x. xxxx xx xxx',
      'xx xx xxxx x.',
      'x. xxx xxxx xx',
      'xxxxxx x. xx x.',
      'x. xx .x xx',
      'x. x.xx xxx x.'
    ],
    E: [
      'x . . -',
      'xx . . -',
      'x. xx . -',
      'xxx x . -',
      'x.xx . . -',
      'xxxx x . -',
      'x. .x . -',
      'xx x.x . -',
      'x.x .x. . -',
      'x . - -',
      'x. xxx x. -',
      'xxx x- - -'
    ],
    F: ['- xx . -', '-x xx . -', '- xxx x .', '- --xx x .', '-xxx x . -', '-x . - -', '- x.xx . -'],
    D: [
      'x. .x xxx x. | .x xx x. -',
      '-x x.xx x. .x | xxxx x. . -',
      'x . xx xxx | x. .x x. -',
      '- xxx x. xxxx | x. .x . -',
      'x.x .x. xx x. | .x xxx x. -',
      '- -x x. .xxx | x. xx . -'
    ]
  },
  waltz: {
    P: ['- - -x', '- - xx', '- -x xx', '- xx xx', '- - xxx', '- -x .x', '- -x xxx'],
    S: ['- xx xx', '-x xx xx', '-x .x xx', '- xxx xx', '-x x. xx', '- x. xx'],
    M: [
      'xx xx xx',
      'x. xx xx',
      'xx x. xx',
      'x. .x xx',
      'xxx xx xx',
      'xx xxx xx',
      'xx .x xx',
      'x. .x x.',
      'x. xx x.',
      'xx xx .x',
      'x.x .x. xx',
      'x. .x .x',
      'x. xx .x'
    ],
    E: [
      'x . .',
      'x . -',
      'xx . -',
      'xx x -',
      'x. .x .',
      'xx .x .-',
      'xx xx x-',
      'xxx x -',
      'x. xx .',
      'xx x- -',
      'xx xxx x-'
    ],
    F: ['- xx x', '-x x. -', '- -x .-', '-x .x .-', '- xxx x', '-xx x -', 'x- -x .-'],
    D: [
      'x . x | . x -',
      '-x xx x. | .x xx x-',
      'xx x. .x | .. xx x-',
      '- xx xxx | x. .x .-',
      'x. xx .x | .x x. -',
      'x. .x xxx | x. .x .-'
    ]
  },
  country: {
    P: [
      '- - - xx',
      '- - - -x',
      '- - - --xx',
      '- - -x xx',
      '- - xx xx',
      '- - - xxx',
      '- - - xxxx',
      '- - -x x.xx'
    ],
    S: ['-x xx xx xx', '- xx xx xx', '- xxxx xx xx', '-x .x xx xx', '- -x xx xx', '-x xxx xx xx'],
    M: [
      'xx xx xx xx',
      'x. xx xx xx',
      'xx x. xx xx',
      'x.xx xx xx xx',
      'xx xxxx xx x.',
      'xx .x xx xx',
      'x. xx x. xx',
      'xx xxx xx xx',
      'x.xx x.xx xx xx',
      'xx xx .x xx',
      'x. .x xx xx',
      'xx xx x. x.xx'
    ],
    E: [
      'x . - -',
      'xx x- - -',
      'xx xx x- -',
      'x. xx . -',
      'xx .x . -',
      'x.xx x . -',
      'xx x. x. -',
      'xxx x . -',
      'x. x. x- -',
      'x.xx xx x- -',
      'xx xx xx x-'
    ],
    F: ['- xx x- -', '-x xx x- -', '- x.xx x. -', 'x- x- - -', '- -x xx x-', '- xxx x. -'],
    D: [
      'x. xx x. .x | x. xx x- -',
      '-x xx xxxx x. | .x xx x- -',
      'xx .x xx x. | xxx x. x- -',
      '- xx xx .x | .x xx x- -',
      'x.xx xx x. xx | .x x. x- -',
      '-x .x xx x.xx | x. .x x- -'
    ]
  },
  slow: {
    P: [
      '- - - --x',
      '- - - -xx',
      '- - - xxx',
      '- - --x xxx',
      '- - - x.xx..',
      '- - - ----xx',
      '- - - --xxxx',
      '- - -xx xxx'
    ],
    S: [
      '-xx x.. x.x xxx',
      '--x x.x x.. -xx',
      '-xx xxx x.. --x',
      '- xxx x.x xxx',
      '--x .xx x.. xxx',
      '- --x .xx x.x'
    ],
    M: [
      'x.x xxx x.. xxx',
      'x.. x.x xxx x..',
      'xxxxxx x.. x.x xxx',
      'x.x x.x .xx xxx',
      'x.. -xx x.. xxx',
      'xxx xxx xxx x..',
      'x.. xxxxxx x.. -xx',
      'x.xx.. x.x xxx x.x',
      'xxxx x.. x.x xxx',
      'x.. --x .xx x.x',
      'xxx x.xx.. xxx x..',
      'xx x.x xxx x..',
      'x.x xx x.. xxx'
    ],
    E: [
      'x.. ... ... -',
      'x.x ... ... -',
      'xxx x.. ... -',
      'x.. --x ... -',
      'xxxxxx x.. ... -',
      'x.x x.. ... -',
      '-xx x.. ... -',
      'x.x .x. ... -',
      'xxx x.x ... -',
      'x.. .xx ... ...',
      'x.xx.. x.. ... -',
      'xxx x-- - -'
    ],
    F: [
      '--x x.. - -',
      '-xx x.. - -',
      '- xxx x.. -',
      '-xx .x. ... -',
      '- --x x.. ...',
      'x.. --x x.. -',
      '- xxxxxx x.. -'
    ],
    D: [
      'x.x xxx x.. --x | x.x .xx x.. -',
      '--x x.. xxx x.. | --x x.x x.. -',
      'x.. -xx xxxx x.. | xx x.. ... -',
      '-xx x.x x.. xx | xxx x.. ... -',
      'x.xx.. x.. --x xxx | x.. .xx x.. -',
      'x.. xx x.x x.. | -xx x.xx.. x.. -'
    ]
  },
  soul: {
    P: ['- --x', '- -xx', '- xxx', '--x xxx', '- x.xx..', '- --xxxx', '-xx xxx'],
    S: ['-xx x.x', '--x x.x', '-xx xxx', '--x .xx', '-x. xxx'],
    M: [
      'x.x x.x',
      'x.. xxx',
      'xxx x..',
      'x.x xxx',
      'xxx xxx',
      'x.. -xx',
      'x.xx.. x..',
      'x.x .xx',
      'xx x..',
      'xxxx x.x',
      'xxxxxx x..',
      'x.. x.xx..',
      'x.x xx',
      'xx xxx',
      'x.x x.xx..'
    ],
    E: [
      'x.. ...',
      'x.x ...',
      'xxx ...',
      'x.x x..',
      'x.. .--',
      'xxx x.-',
      'x.. ---',
      'x.xx.. ...',
      '-xx ...',
      'xxxxxx x..',
      'x.x .x.'
    ],
    F: ['--x x..', '-xx x..', '-x. x.-', '--x .x.', 'xxx x--'],
    D: [
      'x.. .xx | x.x x.-',
      '--x x.x | xx x..',
      'x.x xxxx | x.. .--',
      '-xx x.. | xx .x-',
      'x.. xx | x.x .x.',
      'xx x.x | xxx x--'
    ]
  }
} as const satisfies Readonly<Record<string, Readonly<Record<CellRole, readonly string[]>>>>;

export type Vocabulary = keyof typeof VOCABULARIES;

/** A cell as it is read. */
export interface Cell {
  readonly text: string;
  /** A word for each pulse. */
  readonly words: readonly string[];
  /** Notes struck, ghosts among them. */
  readonly notes: number;
  /** It divides two of its pulses differently. */
  readonly isMixed: boolean;
  /** Three notes in every pulse, and nothing else. */
  readonly isPlainTriple: boolean;
  /** Something is struck, but nothing on a pulse. */
  readonly floats: boolean;
}

/** Into how many parts a word divides its pulse, as far as something is struck in it. */
const divisionOf = (word: string) => (word.length > 1 && /[xo]/.test(word) ? word.length : 1);

/** A cell from its word: a letter for each part of a pulse, a space between pulses. Source: docs/music-rules.md, Phrases. */
export function readCell(text: string): Cell {
  const words = text.split(' ').filter((word) => word !== '|');
  const divisions = new Set(words.map(divisionOf).filter((parts) => parts > 1));
  const notes = text.replace(/[^xo]/g, '').length;
  return {
    text,
    words,
    notes,
    isMixed: divisions.size > 1,
    isPlainTriple: words.every((word) => word === 'xxx'),
    floats: notes > 0 && words.every((word) => !/^[xo]/.test(word))
  };
}

type Read = Readonly<Record<CellRole, readonly Cell[]>>;
const read = new Map<Vocabulary, Read>();

/** The cells of a vocabulary by their roles. */
export function cellsOf(vocabulary: Vocabulary): Read {
  const known = read.get(vocabulary);
  if (known) return known;
  const { P, S, M, E, F, D } = VOCABULARIES[vocabulary];
  const cells = (texts: readonly string[]) => texts.map(readCell);
  const own = { P: cells(P), S: cells(S), M: cells(M), E: cells(E), F: cells(F), D: cells(D) };
  read.set(vocabulary, own);
  return own;
}
