/**
 * Feels as tables: what bass, chords and drums may play in a bar, as patterns (`pattern.ts`), the plainest first. A new feel
 * is a new row; what each has to hold stands in docs/music-rules.md, The band.
 */
import { sure } from '../base/list';
import { feelIdOf } from '../chart/feel-name';
import type { Meter } from '../chart/model';
import type { Style } from '../harmony/style';
import { pattern, WORDS, type Pattern, type WordsOfCell } from './pattern';

/** General MIDI percussion; tap and swirl are the snare of a brush kit. */
export const DRUMS = {
  kick: 36,
  rim: 37,
  snare: 38,
  tap: 38,
  swirl: 40,
  floor: 41,
  hat: 42,
  pedal: 44,
  mid: 45,
  open: 46,
  bell: 56,
  slap: 62,
  conga: 63,
  high: 48,
  crash: 49,
  ride: 51,
  tambourine: 54,
  claves: 75,
  click: 76,
  accent: 77,
  shaker: 82
} as const;

export type Drum = keyof typeof DRUMS;

/** What each drum may play: one of its rows is chosen for a bar. Letters: X loud, x medium, o soft, g hardly heard. */
export type DrumRows = Readonly<Partial<Record<Drum, readonly Pattern[]>>>;

/** What leads into a section, over the last pulses of the bar before it. */
export interface Fill {
  readonly rows: Readonly<Partial<Record<Drum, Pattern>>>;
  readonly pulses: number;
}

/** How a feel comps. */
export interface Comping {
  /** How often the first beat of a bar is struck, 0 to 1. */
  readonly onOne: number;
  /** How often a bar is left empty. */
  readonly air: number;
  /** How often a chord at a bar line is sounded on the last off-beat before it. */
  readonly push: number;
}

/** What the chords are played on. */
export const CHORD_SOUNDS = ['piano', 'guitar', 'organ'] as const;
export type ChordSound = (typeof CHORD_SOUNDS)[number];

export interface Feel {
  readonly id: string;
  /** As the player reads it. */
  readonly name: string;
  /** Where the second eighth of a beat falls at most; a quick tempo evens it out. */
  readonly swing: number;
  /** Which words of a pattern short and long groups of pulses take. */
  readonly words: WordsOfCell;
  readonly kit: 'sticks' | 'brushes' | 'none';
  readonly drums: DrumRows;
  /** What they play with brushes where the band is quiet; absent where they only play less. */
  readonly quiet?: DrumRows;
  readonly fills: readonly Fill[];
  /** What marks the first beat of a section. */
  readonly mark: { readonly drum: Drum; readonly velocity: number } | null;
  /**
   * Letters: R the written bass, 8 the same an octave away, 5 the chord's fifth, T a tone of the chord, A what leads by a step
   * into the next chord. Nothing but the written bass, held as long as the chord lasts, where there is no row.
   */
  readonly bass: readonly Pattern[];
  /** The bass walks: a note on every pulse, led from chord to chord. */
  readonly walks?: true;
  /** Letters: X accented, x struck, o soft. Held as long as the chord lasts where there is no row. */
  readonly chords: readonly Pattern[];
  /** The chords answer and push rather than mark every change; absent where each is struck as it comes. */
  readonly comping?: Comping;
  /**
   * How much louder or softer chords and drums are struck than their letters say, so that all parts are heard: chords three decibels under the
   * line at least, no part more than six from another. Measured by `npm run bench`.
   */
  readonly levels?: { readonly chords?: number; readonly drums?: number };
  /** Parts of a beat by which the chords lie behind it. */
  readonly behind?: number;
  /** Triads are fifths on low strings with the third above. */
  readonly powers?: true;
  /** A pedal holds the chords from stroke to stroke. */
  readonly pedals?: true;
  /** What they are played on; an electric piano where nothing is said. */
  readonly chordsOn?: ChordSound;
  /** Seventh chords take a 9 or 13 where their function has it. */
  readonly isColoured: boolean;
}

const rows = (...texts: readonly string[]): Pattern[] => texts.map(pattern);
const fill = (pulses: number, texts: Readonly<Partial<Record<Drum, string>>>): Fill => ({
  pulses,
  rows: Object.fromEntries(Object.entries(texts).map(([drum, text]) => [drum, pattern(text)]))
});

/** Where the backbeat falls on the third pulse of four, a short group keeps it. */
const HALF_TIME: WordsOfCell = { 1: [0], 2: [0, 2], 3: [0, 1, 2], 4: [0, 1, 2, 3] };

const STICK_FILLS: readonly Fill[] = [
  fill(1, { snare: 'xoxx', kick: 'x-' }),
  fill(2, { snare: 'x-xx ----', high: '---- xx--', floor: '---- --xx', kick: 'x- x-' }),
  fill(2, { snare: 'xx Xx', floor: '-- -x', kick: 'x- x-' }),
  fill(1, { high: 'xx--', mid: '--x-', floor: '---X' })
];
const JAZZ_FILLS: readonly Fill[] = [
  fill(1, { snare: 'xox', pedal: 'x--' }),
  fill(2, { snare: 'x-x oxo', kick: '-x- --x', pedal: '-- x-' }),
  fill(1, { snare: 'xo-', floor: '--x', pedal: 'x--' })
];
const SOFT_FILLS: readonly Fill[] = [
  fill(1, { tap: 'oxo', pedal: 'o--' }),
  fill(1, { tap: 'ox', pedal: 'o-' })
];
const LATIN_FILLS: readonly Fill[] = [
  fill(1, { rim: 'xx', kick: 'x-' }),
  fill(2, { snare: 'o-xo x-x-', kick: 'x- -x' })
];

export const FEELS: readonly Feel[] = [
  {
    id: 'straight',
    name: 'Straight eighths',
    swing: 0.5,
    words: WORDS[4],
    kit: 'sticks',
    drums: {
      kick: rows('X- -- xo --', 'X- -o x- --', 'X- -- -x --', 'X- -x x- -o'),
      snare: rows('-- X- -- X-', '-- X- -- X-', '-- X- -g X-'),
      hat: rows('xo xo xo xo', 'xo xo xo x-', 'x- xo x- xo')
    },
    fills: STICK_FILLS,
    mark: { drum: 'crash', velocity: 0.7 },
    bass: rows('R= == 5= ==', 'R= =R 5= ==', 'R= == 5= T=', 'R= -R T= 5='),
    chords: rows('x= =x =x ==', 'x= == x= ==', 'x= =x == -o', '-- x= -x ==', 'x= -x -x =='),
    levels: { chords: 0.9 },
    isColoured: false
  },
  {
    id: 'swing',
    name: 'Swing',
    swing: 2 / 3,
    words: WORDS[4],
    kit: 'sticks',
    drums: {
      ride: rows('x- Xx x- Xx', 'x- Xx x- X-', 'x- X- xx Xx', 'xx X- x- Xx', 'x- Xx xx X-'),
      pedal: rows('-- x- -- x-'),
      kick: rows('g- g- g- g-', 'g- g- g- gx', 'g- gx g- g-'),
      snare: rows('-- -- -- --', '-- -o -- --', '-- -- -o --', '-o -- -- o-', '-- -- -- -o', '-- o- -o --')
    },
    quiet: {
      swirl: rows('x- o- x- o-', 'x- -- x- --'),
      tap: rows('-- o- -- o-', '-- o- -o o-'),
      pedal: rows('-- x- -- x-')
    },
    fills: JAZZ_FILLS,
    mark: { drum: 'crash', velocity: 0.4 },
    bass: rows('R T T A'),
    walks: true,
    chords: rows(
      'x= =x == --',
      '-x -- -x --',
      'x- -x -- --',
      '-- -x == --',
      'x= == -- -x',
      '-x == -- x-',
      '-- x- -x =='
    ),
    comping: { onOne: 0.7, air: 0.125, push: 0.35 },
    behind: 0.018,
    levels: { chords: 0.95 },
    isColoured: true
  },
  {
    id: 'shuffle',
    name: 'Shuffle',
    swing: 2 / 3,
    words: WORDS[4],
    kit: 'sticks',
    drums: {
      kick: rows('X- -- x- --', 'X- -o x- --', 'x- o- x- o-', 'X- -- x- -o'),
      snare: rows('-- X- -- X-', '-o X- -o X-', '-- X- -- Xo'),
      hat: rows('xo xo xo xo', 'xo xo x- xo', 'x- xo xo xo')
    },
    fills: [...JAZZ_FILLS, fill(2, { snare: 'xxo xxX', kick: 'x-- x--' })],
    mark: { drum: 'crash', velocity: 0.6 },
    bass: rows('R T T T', 'RR TT TT TT', 'R 8 T T', 'R= -R T= T=', 'R T 5 A'),
    chords: rows('x- -x -- -x', '-x -x -x -x', 'x- -- -x --', '-- x- -- x-', 'x= == -x --'),
    comping: { onOne: 0.6, air: 0.1, push: 0.2 },
    behind: 0.012,
    isColoured: true
  },
  {
    id: 'bossa',
    name: 'Bossa nova',
    swing: 0.5,
    words: WORDS[4],
    kit: 'sticks',
    drums: {
      kick: rows('X- -o x- -o', 'X- -o x- --'),
      rim: rows('x- -x -- x- -- x- -x --', 'x- -x -- x- -- x- -- x-'),
      hat: rows('xo xo xo xo', 'xo ox xo xo'),
      shaker: rows('-- -- -- --', 'oo oo oo oo')
    },
    fills: LATIN_FILLS,
    mark: { drum: 'ride', velocity: 0.35 },
    // With the kick.
    bass: rows('R= =5 5= =R', 'R= =- 5= =5', 'R= =5 5= =-', 'R= == 5= =T'),
    chords: rows(
      'x- -x -- x- -- x- -x --',
      'x- -x =- x= =- x- -x ==',
      '-- x- -x -- x- -x -- x-',
      'x= =- x- -x =- x- -- x='
    ),
    comping: { onOne: 0.75, air: 0.1, push: 0.4 },
    isColoured: true
  },
  {
    id: 'waltz',
    name: 'Waltz',
    swing: 2 / 3,
    words: WORDS[3],
    kit: 'sticks',
    drums: {
      ride: rows('x- xx x-', 'x- x- xx', 'x- xx xx', 'xx x- x-'),
      pedal: rows('-- x- x-', '-- x- --'),
      kick: rows('x- -- --', 'x- -- -o', 'x- -o --'),
      snare: rows('-- -- --', '-- -o --', '-- -- o-', '-o -- --')
    },
    quiet: {
      swirl: rows('x- o- o-', 'x- -- o-'),
      tap: rows('-- o- o-', '-- -- o-'),
      pedal: rows('-- o- --')
    },
    fills: JAZZ_FILLS,
    mark: { drum: 'crash', velocity: 0.35 },
    bass: rows('R= == ==', 'R= == 5=', 'R= T= T=', 'R= == A=', 'R= T= A='),
    chords: rows('-- x- x-', 'x= =x ==', '-- -x ==', '-- x= =-', 'x= == x-'),
    comping: { onOne: 0.5, air: 0.1, push: 0.2 },
    behind: 0.012,
    levels: { chords: 0.91 },
    isColoured: true
  },
  {
    id: 'ballad',
    name: 'Ballad, brushes',
    swing: 0.6,
    words: WORDS[4],
    kit: 'brushes',
    drums: {
      swirl: rows('x- o- x- o-', 'x- -- x- --'),
      tap: rows('-- o- -- o-', '-- o- -- oo', '-- o- -o o-'),
      pedal: rows('-- o- -- o-', '-- x- -- x-'),
      kick: rows('o- -- -- --', 'g- -- -- --', 'o- -- g- --')
    },
    fills: SOFT_FILLS,
    mark: { drum: 'ride', velocity: 0.3 },
    bass: rows('R= == 5= ==', 'R= == == 5=', 'R= == T= A=', 'R= == == =A'),
    chords: rows('x= == == ==', 'x= == -o ==', 'x= == == =o', '-- x= == ==', 'x= =o == =='),
    pedals: true,
    levels: { chords: 0.9 },
    behind: 0.02,
    isColoured: true
  },
  {
    id: 'rock',
    name: 'Rock',
    swing: 0.5,
    words: WORDS[4],
    kit: 'sticks',
    drums: {
      kick: rows('X- -- X- --', 'X- -x X- --', 'X- -x -x --', 'X- -- xX --', 'Xx -- X- -x'),
      snare: rows('-- X- -- X-'),
      hat: rows('Xo Xo Xo Xo', 'Xo Xo Xo X-'),
      open: rows('-- -- -- --', '-- -- -- --', '-- -- -- -x')
    },
    fills: STICK_FILLS,
    mark: { drum: 'crash', velocity: 0.85 },
    bass: rows('RR RR RR RR', 'R= =R R= =R', 'RR RR RR TT', 'R= RR R= 5R', 'RR R5 RR RT'),
    chords: rows('X= =x == ==', 'xx xx xx xx', 'X= == x= ==', 'X- -x -x ==', 'X= == == -x'),
    powers: true,
    chordsOn: 'guitar',
    levels: { chords: 0.7 },
    isColoured: false
  },
  {
    id: 'half-time rock',
    name: 'Half-time rock',
    swing: 0.5,
    words: HALF_TIME,
    kit: 'sticks',
    drums: {
      kick: rows('X- -- -- --', 'X- -x -- --', 'X- -x -- -x', 'X- -- -x x-'),
      snare: rows('-- -- X- --'),
      hat: rows('Xo Xo Xo Xo', 'X- X- X- X-'),
      open: rows('-- -- -- --', '-- -- -- --', '-- -- -- -x')
    },
    fills: STICK_FILLS,
    mark: { drum: 'crash', velocity: 0.85 },
    bass: rows('R= == == ==', 'R= =R == ==', 'R= =R == 5=', 'R= == R= =T'),
    chords: rows('X= == == ==', 'X= == x= ==', 'X= =x == ==', 'X= == == =x'),
    powers: true,
    chordsOn: 'guitar',
    levels: { chords: 0.88 },
    isColoured: false
  },
  {
    id: 'funk',
    name: 'Funk, sixteenths',
    swing: 0.5,
    words: WORDS[4],
    kit: 'sticks',
    drums: {
      kick: rows('X--x ---- --x- -x--', 'X-x- ---- -xx- ----', 'X--- --x- x--x ----', 'X--x ---x --x- ----'),
      snare: rows('---- X--g -g-- X---', '---- X--g -g-g X--g', '---- X--- -g-- X--g'),
      hat: rows('xoxo xoxo xoxo xoxo', 'x-xo x-xo x-xo x-xo', 'xoxo x-xo xoxo x-x-')
    },
    fills: STICK_FILLS,
    mark: { drum: 'crash', velocity: 0.7 },
    bass: rows('R--R --8- --R- -5-T', 'R--- --R8 ---R --T-', 'R-R- ---5 -8-- T---', 'R--8 ---- R-T- --5-'),
    chords: rows(
      '--x- --x- ---x --x-',
      'x--- ---x -x-- ----',
      '---- x--x ---- x---',
      '--xx ---- --x- -x--',
      'x--x ---- --xo ----'
    ),
    comping: { onOne: 0.88, air: 0.06, push: 0.15 },
    chordsOn: 'guitar',
    levels: { chords: 0.82 },
    isColoured: true
  },
  {
    id: 'soul',
    name: 'Soul',
    swing: 0.5,
    words: WORDS[4],
    kit: 'sticks',
    drums: {
      kick: rows('X--- --x- x-x- ----', 'X--- --x- -xx- ----', 'X-x- ---- x-x- ----', 'X--- ---x x--- ----'),
      snare: rows('---- X--- ---- X---', '---- X--g -g-- X---'),
      hat: rows('x-o- x-o- x-o- x-o-', 'xo xo xo xo'),
      tambourine: rows('-- -- -- --', '-- x- -- x-')
    },
    fills: STICK_FILLS,
    mark: { drum: 'crash', velocity: 0.6 },
    bass: rows('R--R --5- R--- 5-T-', 'R--- --R- 8-5- T---', 'R--R ---- 5--R ----', 'R-R- 5--- R--- --A-'),
    chords: rows('-- x- -- x-', 'x- x- x- x-', 'x= == -- x-', '-- x- -x x-', 'x= -x -- x-'),
    comping: { onOne: 0.6, air: 0.08, push: 0.25 },
    chordsOn: 'organ',
    behind: 0.012,
    levels: { chords: 0.93 },
    isColoured: true
  },
  {
    id: 'slow 12/8 blues',
    name: 'Slow 12/8 blues',
    swing: 2 / 3,
    words: WORDS[4],
    kit: 'sticks',
    drums: {
      kick: rows('X-- --o x-- ---', 'X-- --- x-o ---', 'X-- --- x-- --o'),
      snare: rows('--- X-- --- X--', '--- X-- --g X--', '--- X-- --- X-g'),
      hat: rows('xoo xoo xoo xoo', 'xoo xoo xoo x-o')
    },
    fills: [
      fill(1, { snare: 'xxx', kick: 'x--' }),
      fill(2, { snare: 'xxx x--', high: '--- -x-', floor: '--- --x', kick: 'x-- x--' }),
      fill(1, { high: 'x--', mid: '-x-', floor: '--X' })
    ],
    mark: { drum: 'crash', velocity: 0.55 },
    bass: rows('R== =-R 5== =-T', 'R== T== 5== T==', 'R== =-R T== A==', 'R== --5 8== --T'),
    chords: rows(
      'x== === -xx ===',
      'xxx xxx xxx xxx',
      'x== -xx === -xx',
      '--- x== --- x==',
      'x== =-- --x ==='
    ),
    behind: 0.015,
    levels: { chords: 0.89 },
    isColoured: true
  },
  {
    id: 'reggae',
    name: 'Reggae, one drop',
    swing: 0.5,
    words: HALF_TIME,
    kit: 'sticks',
    drums: {
      kick: rows('-- -- X- --', '-- -- X- -o'),
      rim: rows('-- -- X- --', '-- -o X- --'),
      hat: rows('xo xo xo xo', 'x- xo xo xo', 'xoo xo xo xo')
    },
    fills: [
      fill(1, { snare: 'x-xx', hat: 'x-' }),
      fill(2, { high: 'x-x- ----', mid: '---- xx--', floor: '---- --x-', hat: 'x- x-' })
    ],
    mark: { drum: 'crash', velocity: 0.5 },
    bass: rows('R- -- T- R5', 'R= -T == 5=', 'R- R- -- T8', 'R= == -5 T-'),
    chords: rows('-- x- -- x-', '-- x- -- xo', '-x -x -x -x'),
    comping: { onOne: 0, air: 0, push: 0 },
    chordsOn: 'guitar',
    levels: { chords: 0.87 },
    isColoured: false
  },
  {
    id: 'samba',
    name: 'Samba',
    swing: 0.5,
    words: WORDS[4],
    kit: 'sticks',
    drums: {
      kick: rows('x- -o x- -o'),
      floor: rows('o- -- X- --', 'o- -- X- -o'),
      shaker: rows('xo xo xo xo', 'xo ox xo ox'),
      rim: rows('x- x- -x x- -x -x x- -x', '-x x- -x -x x- x- -x x-', 'x- -x -x x- -x x- x- -x')
    },
    fills: LATIN_FILLS,
    mark: { drum: 'crash', velocity: 0.45 },
    bass: rows('R= =5 5= =R', 'R= =R 5= =5', 'R= =- 5= =5'),
    chords: rows(
      'x- -x -- x- -- x- -x --',
      'x- x- -x -- -x -- x- x-',
      '-x -x -- x- x- -x -x --',
      'x- -x -x -- x- -x -- x-'
    ),
    comping: { onOne: 0.5, air: 0.08, push: 0.4 },
    isColoured: true
  },
  {
    id: 'country',
    name: 'Country, two beats',
    swing: 0.5,
    words: WORDS[4],
    kit: 'sticks',
    drums: {
      kick: rows('X- -- X- --', 'X- -- X- -o', 'X- -o X- --'),
      rim: rows('-- X- -- X-', '-- X- -- Xo'),
      hat: rows('xo xo xo xo', 'x- xo x- xo')
    },
    fills: [fill(1, { snare: 'oxxx', kick: 'x-' }), fill(2, { snare: 'x-xo xxX-', kick: 'x- x-' })],
    mark: { drum: 'crash', velocity: 0.45 },
    // Root and fifth, and a walk where the chord changes.
    bass: rows('R= == 5= ==', 'R= == 5= ==', 'R= == 5= A=', 'R= == T= A='),
    chords: rows('-- x- -- x-', '-- xo -- xo', 'o- x- o- xo', '-- x- -- xx'),
    comping: { onOne: 0.15, air: 0.04, push: 0.08 },
    chordsOn: 'guitar',
    levels: { chords: 0.87 },
    isColoured: false
  },
  {
    id: 'train',
    name: 'Train beat',
    swing: 0.5,
    words: WORDS[4],
    kit: 'brushes',
    drums: {
      tap: rows('ooXo ooXo ooXo ooXo', 'ooXo ooXo ooXo oXXo', 'ooXo ooXg ooXo ooXo'),
      kick: rows('x- -- x- --', 'x- x- x- x-'),
      pedal: rows('-- o- -- o-')
    },
    fills: [fill(1, { tap: 'xoXx', kick: 'x-' })],
    mark: { drum: 'ride', velocity: 0.4 },
    bass: rows('R= == 5= ==', 'R= == 5= =A', 'R= 5= R= 5=', 'R= == T= A='),
    chords: rows('-- x- -- x-', '-x -x -x -x', '-- xo -- xo'),
    comping: { onOne: 0.1, air: 0.04, push: 0.06 },
    chordsOn: 'guitar',
    levels: { chords: 0.85 },
    isColoured: false
  },
  {
    id: 'montuno',
    name: 'Montuno',
    swing: 0.5,
    words: WORDS[4],
    kit: 'sticks',
    drums: {
      // Three strokes in one bar, two in the next; what the others play leans on them.
      claves: rows('x- -x -- x- -- x- x- --'),
      bell: rows('x- xo x- xo', 'x- x- x- xo'),
      slap: rows('-- x- -- --', '-o x- -- --'),
      conga: rows('-- -- -- xx', '-- -- -- xx', '-- -- -x xx'),
      kick: rows('-- -x -- --', '-- -o -- o-')
    },
    fills: [
      fill(1, { conga: 'xxx', slap: '--x' }),
      fill(2, { high: 'x-x- --x-', mid: '--x- x-xx', bell: 'x- x-' })
    ],
    mark: { drum: 'crash', velocity: 0.45 },
    // With the drums on the second half of 2 and on 4, where it is early for what comes.
    bass: rows('R= =5 == 8=', 'R= =5 == 5=', 'R= =8 == 5=', 'R- -5 == T='),
    chords: rows('x- xx -x -x -x -x -x x-', 'x- xx -x x- -x -x -x xx', '-x -x -x x- xx -x -x -x'),
    comping: { onOne: 0.55, air: 0.02, push: 0.4 },
    levels: { chords: 0.95 },
    isColoured: false
  },
  {
    id: 'bolero',
    name: 'Bolero',
    swing: 0.5,
    words: WORDS[4],
    kit: 'sticks',
    drums: {
      shaker: rows('xo xo xo xo', 'xoo xo xo xo'),
      conga: rows('-- -- -- xx', '-- -- -- xo'),
      slap: rows('-- o- -- --', '-- o- -o --'),
      rim: rows('x- -o x- o-', 'x- -- x- o-')
    },
    fills: [fill(1, { conga: 'xxx' }), fill(1, { conga: 'x-', slap: '-x' })],
    mark: { drum: 'ride', velocity: 0.3 },
    bass: rows('R= == 5= 8=', 'R= == 5= T=', 'R= == 5= A=', 'R= == T= 5='),
    chords: rows('x= =o x= oo', 'x= == x= =o', 'x= =x == x=', '-- x= -o x='),
    chordsOn: 'guitar',
    levels: { chords: 0.77, drums: 1.28 },
    isColoured: true
  },
  {
    id: 'gospel 6/8',
    name: 'Gospel, in six',
    swing: 2 / 3,
    words: WORDS[4],
    kit: 'sticks',
    drums: {
      kick: rows('X-- --x X-- ---', 'X-- --- X-o --x', 'X-- --x X-- --o'),
      snare: rows('--- X-- --- X--', '--- X-- --g X-g'),
      ride: rows('xox xox xox xox', 'xoo xox xoo xox'),
      tambourine: rows('--- x-- --- x--', '--x x-x --x x-x')
    },
    fills: [
      fill(1, { snare: 'xxX', kick: 'x--' }),
      fill(2, { snare: 'x-x xxx', high: '-x- ---', floor: '--- --X', kick: 'x-- x--' })
    ],
    mark: { drum: 'crash', velocity: 0.65 },
    bass: rows('R== --T 5== --T', 'R== ==5 8== T-A', 'R== 5-T R== T-A', 'R-- R-5 8== --A'),
    chords: rows('x== o== x== o=x', 'x== --x x== --x', 'x=x o== x=x o==', 'x== x=x x== x=x'),
    chordsOn: 'organ',
    behind: 0.015,
    levels: { chords: 0.81 },
    isColoured: true
  },
  {
    id: 'second line',
    name: 'Second line, street beat',
    swing: 0.58,
    words: WORDS[4],
    kit: 'sticks',
    drums: {
      // The bass drum leads to the fourth beat of the second bar.
      kick: rows('X- -x -- x- x- -x -- X-', 'X- -x -- x- -- x- -- X-'),
      snare: rows('xo xX ox Xo ox oX xo Xx', 'Xo xx oX oo xX ox Xo xX', 'xo Xo xX oo Xo xX oo Xo'),
      pedal: rows('-- x- -- x-')
    },
    fills: [fill(1, { snare: 'xxX' }), fill(2, { snare: 'xox xXx', kick: 'x-- x--' })],
    mark: { drum: 'crash', velocity: 0.6 },
    bass: rows('R= =R 5= 8=', 'R- -T 5- T-', 'R= =5 == 8=', 'R- -5 -T 5A'),
    chords: rows('-x -x -x -x', 'x- -x -- x- -- x- -x --', '-x -- xx -x', 'x= -x -- xx'),
    comping: { onOne: 0.4, air: 0.08, push: 0.25 },
    behind: 0.01,
    isColoured: true
  },
  {
    id: 'hard rock',
    name: 'Hard rock',
    swing: 0.5,
    words: WORDS[4],
    kit: 'sticks',
    drums: {
      kick: rows('X- XX -- X-', 'X- -X X- -X', 'XX -- XX --', 'X- -X -X X-'),
      snare: rows('-- X- -- X-'),
      open: rows('X- X- X- X-', 'Xo Xo Xo Xo')
    },
    fills: [
      ...STICK_FILLS,
      fill(2, { snare: 'xxxx ----', high: '---- xxx-', floor: '---- ---X', kick: 'x-x- x-x-' })
    ],
    mark: { drum: 'crash', velocity: 0.95 },
    bass: rows('RR RR RR RR', 'RR RR RR R8', 'R- RR -R RR', 'RR RR R5 TA'),
    chords: rows('X= == X= ==', 'X- xx X- xx', 'X= =X =- X=', 'X= == -- XX', 'XX -X -X X='),
    powers: true,
    chordsOn: 'guitar',
    levels: { chords: 0.68 },
    isColoured: false
  },
  {
    id: 'jazz waltz',
    name: 'Jazz waltz',
    swing: 2 / 3,
    words: WORDS[3],
    kit: 'sticks',
    drums: {
      ride: rows('x- xx Xx', 'x- Xx x-', 'xx x- Xx', 'x- xx x- x- Xx xx'),
      pedal: rows('-- x- --', '-- x- -x'),
      kick: rows('g- -- --', 'x- -o --', 'x- -- -x'),
      snare: rows('-- -o --', '-o -- o-', '-- -- -o', 'o- -o -- -o -- o-')
    },
    quiet: {
      swirl: rows('x- o- o-', 'x- -- o-'),
      tap: rows('-- o- o-', '-- -- oo'),
      pedal: rows('-- o- --')
    },
    fills: JAZZ_FILLS,
    mark: { drum: 'crash', velocity: 0.35 },
    bass: rows('R= T= T=', 'R= == A=', 'R= T= A='),
    walks: true,
    // Two over three now and then.
    chords: rows('x= =x ==', '-- -x =-', 'x= == -x', '-x == x=', 'x- -x -- -x -- x-'),
    comping: { onOne: 0.5, air: 0.12, push: 0.3 },
    behind: 0.018,
    levels: { chords: 0.95 },
    isColoured: true
  },
  {
    id: 'drone',
    name: 'Drone',
    swing: 0.5,
    words: WORDS[4],
    kit: 'none',
    drums: {},
    fills: [],
    mark: null,
    bass: [],
    chords: [],
    isColoured: false
  }
];

/** The instrument of a feel's chords. */
export const chordsOn = ({ chordsOn: own }: Feel): ChordSound => own ?? 'piano';

/** The feel of an id. */
export function feelNamed(id: string): Feel | undefined {
  return FEELS.find((feel) => feel.id === id);
}

/** The feel that a style is played with where a chart says none. */
const BY_STYLE: Readonly<Record<Style, string>> = {
  jazz: 'swing',
  modal: 'swing',
  blues: 'shuffle',
  rock: 'rock',
  'pop or folk': 'straight',
  country: 'country',
  'soul or funk': 'soul',
  latin: 'montuno'
};

/** The id of the feel that a style has where nothing is said. */
export const feelOfStyle = (style: Style): string => BY_STYLE[style];

/** The feel of a chart by what it says and its meter: three beats waltz, dotted beats roll; straight where it says nothing. */
export function feelOf(said: string | null, meter: Meter): Feel {
  return sure(feelNamed(feelIdOf(said, meter)), 'feelNamed');
}
