/** What the tests and the bench of phrases share: charts in every style, and what is counted over the phrases they get. */
import { chordOf } from '../chart/unroll';
import { firstOf, lastOf, nth, sure } from '../base/list';
import { readSheet, type Sheet } from '../harmony/sheet';
import { STANDARD } from '../neck/tuning';
import { systemOf } from '../neck/systems/registry';
import { arrange } from './arrange';
import { linesOf, type PlacedLine } from './lines';
import { DEFAULT_PLAN, type Plan } from './model';
import { TICKS, endOf, ticksOf, type LineNote } from '../line/model';
import { askedOf, outlineLine } from '../line/outline';
import { barAt, gridOf, pulseAt, pushAt } from '../line/phrase/grid';
import type { PhraseRowId } from '../line/phrase/styles';

export interface StyleChart {
  readonly row: PhraseRowId;
  readonly text: string;
  /** A line said again adapts to its chords, so that hardly a bar comes again note for note. */
  readonly adapts?: true;
}

const times = (n: number, bars: string) => Array.from({ length: n }, () => bars).join(' | ');
const chart = (row: PhraseRowId, head: string, bars: string): StyleChart => ({
  row,
  text: `${head
    .split(' · ')
    .map((one) => `{${one}}`)
    .join('\n')}\n| ${times(3, bars)} |`
});

/** Each chart three times over: three choruses. */
export const STYLE_CHARTS: readonly StyleChart[] = [
  chart(
    'jazz blues',
    'key: Eb · tempo: 150 · feel: swing · style: blues',
    'Eb7 | Ab7 | Eb7 | Bbm7 Eb7 | Ab7 | Adim7 | Eb7 | Gm7b5 C7b9 | Fm7 | Bb7 | Eb7 C7 | Fm7 Bb7'
  ),
  chart(
    'shuffle blues',
    'key: A · tempo: 118 · feel: shuffle · style: blues',
    'A7 | D7 | A7 | % | D7 | % | A7 | % | E7 | D7 | A7 | E7'
  ),
  chart(
    'minor swing',
    'key: Gm · tempo: 160 · feel: swing · style: jazz',
    'Gm6 | Am7b5 D7b9 | Gm6 | G7b9 | Cm7 | F7 | Bbmaj7 | Ebmaj7 | Am7b5 | D7b9 | Gm6 | Dm7b5 G7b9 | Cm7 | Am7b5 D7b9 | Gm6 | Am7b5 D7b9'
  ),
  chart(
    'bossa',
    'key: Dm · tempo: 132 · feel: bossa · style: jazz',
    'Dm9 | % | E7b9 | % | Gm7 | A7b9 | Dm9 | D7b9 | Gm7 | C9 | Fmaj7 | Bbmaj7 | Em7b5 | A7b9 | Dm9 | Em7b5 A7b9'
  ),
  chart('rock', 'key: Em · tempo: 120 · feel: rock · style: rock', times(4, 'Em | C | G | D')),
  chart(
    'funk',
    'key: E · tempo: 102 · feel: funk · style: soul or funk',
    times(2, 'E7#9 | % | % | % | E7#9 | % | A9 | E7#9')
  ),
  chart(
    'ballad',
    'key: F · tempo: 66 · feel: ballad · style: jazz',
    times(2, 'Fmaj7 | Em7b5 A7b9 | Dm7 | Cm7 F7 | Bbmaj7 | Bbm6 | Am7 D7b9 | Gm7 C7')
  ),
  chart(
    'waltz',
    'key: Bb · time: 3/4 · tempo: 150 · feel: waltz · style: jazz',
    'Bbmaj7 | Gm7 | Cm7 | F7 | Dm7 | G7b9 | Cm7 | F7 | Fm7 | Bb7 | Ebmaj7 | Ebm6 | Dm7 | G7b9 | Cm7 F7 F7 | Bbmaj7'
  ),
  chart(
    'country',
    'key: G · tempo: 128 · style: country',
    'G | % | C | G | G | % | D | % | G | G7 | C | % | G | D | G | %'
  ),
  chart(
    'slow 12/8 blues',
    'key: Bm · tempo: 58 · feel: slow 12/8 blues · style: blues',
    'Bm7 | Em7 | Bm7 | % | Em7 | % | Bm7 | % | Gmaj7 | F#7 | Bm7 | F#7'
  ),
  chart(
    '6/8 soul',
    'key: C · time: 6/8 · tempo: 168 · style: soul or funk',
    'C | Em7 | Am7 | % | F | G7 | C | G7 | C | E7 | Am7 | C7 | F | Fm6 | C | G7'
  ),
  chart('modal', 'key: D dorian · tempo: 140 · style: modal · feel: swing', times(4, 'Dm7 | % | % | %')),
  chart('pop or folk', 'key: D · tempo: 104 · style: pop or folk', times(4, 'D | A | Bm | G'))
];

/** A second chart for every row that has bounds: another key, another form. Nobody set the rows by these. */
export const OTHER_CHARTS: readonly StyleChart[] = [
  chart(
    'jazz blues',
    'key: Ab · tempo: 138 · feel: swing · style: blues',
    'Ab7 | Db9 | Ab7 | Ebm7 Ab7 | Db9 | Ddim7 | Ab13 | Cm7 F7b9 | Bbm9 | Eb7 | Ab7 F7 | Bbm7 Eb7'
  ),
  chart(
    'shuffle blues',
    'key: E · tempo: 108 · feel: shuffle · style: blues',
    'E7 | A7 | E7 | % | A7 | % | E7 | C#7 | F#7 | B7 | E7 | B7'
  ),
  chart(
    'minor swing',
    'key: F#m · tempo: 144 · feel: swing · style: jazz',
    'F#m7 | G#m7b5 C#7b9 | F#m7 | Bm7 E7 | Amaj7 | Dmaj7 | G#m7b5 | C#7b9 | F#m7 | F#7b9 | Bm7 | E9 | Amaj7 F#7b9 | Bm7 E7 | F#m7 D7 | C#7b9'
  ),
  chart(
    'bossa',
    'key: Eb · tempo: 126 · feel: bossa · style: jazz',
    'Ebmaj7 | % | F13 | % | Fm9 | Bb7 | Gm7 | C7b9 | Fm7 | Abm6 | Gm7 | C7b9 | F9 | Bb7 | Ebmaj7 | Fm7 Bb7'
  ),
  // The third of A gives way over G and D.
  {
    ...chart('rock', 'key: A · tempo: 132 · feel: rock · style: rock', times(4, 'A | G | D | A')),
    adapts: true
  },
  chart(
    'funk',
    'key: Dm · tempo: 96 · feel: funk · style: soul or funk',
    times(2, 'Dm7 | % | G9 | % | Dm7 | % | G9 | A7#9')
  ),
  chart(
    'ballad',
    'key: Db · tempo: 60 · feel: ballad · style: jazz',
    times(2, 'Dbmaj7 | Bbm7 | Ebm7 | Ab7 | Fm7b5 Bb7b9 | Ebm7 Gbm6 | Dbmaj7 Bbm7 | Ebm7 Ab7')
  ),
  chart(
    'waltz',
    'key: Cm · time: 3/4 · tempo: 138 · feel: waltz · style: jazz',
    'Cm7 | % | Dm7b5 | G7b9 | Cm7 | F7 | Bbmaj7 | Ebmaj7 | Abmaj7 | Dm7b5 | G7b9 | Cm7 | Fm7 | Bb7 | Ebmaj7 | Dm7b5 G7b9 G7b9'
  ),
  chart(
    'country',
    'key: A · tempo: 120 · style: country',
    'A | % | E | % | E | % | A | % | A | A7 | D | % | A | E | A | %'
  ),
  // The third of G7 gives way over C7.
  {
    ...chart(
      'slow 12/8 blues',
      'key: G · tempo: 62 · feel: slow 12/8 blues · style: blues',
      'G7 | C7 | G7 | % | C7 | % | G7 | E7 | Am7 | D7 | G7 | D7'
    ),
    adapts: true
  },
  chart(
    '6/8 soul',
    'key: F · time: 6/8 · tempo: 150 · style: soul or funk',
    'F | Dm7 | Gm7 | C7 | F | A7 | Dm7 | F7 | Bb | Bbm6 | F | Dm7 | Gm7 | C7 | F | C7'
  )
];

interface Phrased {
  readonly sheet: Sheet;
  readonly line: PlacedLine;
}

const known = new Map<string, Phrased>();

/** The phrases of a chart by a seed, and what they are played over; asked again they are those that were found. */
export function phrasesOver(text: string, seed: number, plan: Partial<Plan> = {}, wish: Wish = {}): Phrased {
  const key = JSON.stringify([text, seed, plan, wish]);
  const found = known.get(key) ?? phrasesAnew(text, seed, plan, wish);
  known.set(key, found);
  return found;
}

interface Wish {
  readonly density?: number;
  readonly pickup?: boolean;
}

/** The same, found anew. */
export function phrasesAnew(text: string, seed: number, plan: Partial<Plan> = {}, wish: Wish = {}): Phrased {
  const sheet = readSheet(text);
  const arranged = arrange(
    { sheet, plan: { ...DEFAULT_PLAN, ...plan } },
    STANDARD,
    sure(systemOf('positions'), 'systemOf')
  );
  const { lines, noLine } = linesOf(arranged, {
    level: 'phrases',
    subdivision: 2,
    seed,
    alternatives: 1,
    ...wish
  });
  if (!lines[0]) throw new Error(noLine?.message ?? 'no phrases');
  return { sheet, line: lines[0] };
}

/** Shares are 0 to 1. */
export interface PhraseFigures {
  readonly notes: number;
  readonly onOne: number;
  readonly early: number;
  readonly on: number;
  readonly late: number;
  readonly met: number;
  readonly startsOffOne: number;
  readonly startsOffBeat: number;
  readonly pickups: number;
  readonly silence: number;
  /** In bars. */
  readonly meanPhrase: number;
  readonly lengths: number;
  readonly longestPhrase: number;
  readonly rhythms: number;
  readonly commonest: number;
  readonly sameAsBefore: number;
  readonly mixed: number;
  readonly techniques: number;
  readonly chordOnPulses: number;
  readonly jumps: number;
  readonly leaps: number;
  readonly fallingThirds: number;
  readonly p10: number;
  readonly p90: number;
  readonly samePitch: number;
  readonly literal: number;
  readonly varied: number;
  /** Mean pitch of the fifth sixth over the first, and over the last. */
  readonly rise: number;
  readonly fall: number;
  /** Notes of the fifth sixth for one of the first. */
  readonly thickens: number;
  /** Share of the chords played over that a listener names, or nearly. */
  readonly heard: number;
}

const share = (count: number, all: number) => (all === 0 ? 0 : count / all);

/** What is counted over a line of phrases. */
export function figuresOf(
  { form, analysis }: Sheet,
  { notes }: { readonly notes: readonly LineNote[] },
  isFine = false
): PhraseFigures {
  const grid = gridOf(form.bars);
  // Of two notes at once the upper one is the line.
  const struck = notes.filter((note, i) => notes[i + 1]?.start !== note.start);
  const starts = new Set(struck.map(({ start }) => start));
  const pulse = firstOf(firstOf(grid.bars).pulses);
  const beat = pulse.isTriple ? (pulse.length * 2) / 3 : pulse.length;
  const soundingBars = grid.bars.filter(({ start, end }) =>
    notes.some((note) => note.start < end && endOf(note) > start)
  );
  // Phrases by silence.
  const phrases: LineNote[][] = [];
  for (const note of struck) {
    const last = phrases.at(-1)?.at(-1);
    if (!last || note.start - endOf(last) >= beat - 1) phrases.push([note]);
    else lastOf(phrases).push(note);
  }
  const bar = firstOf(grid.bars).end - firstOf(grid.bars).start;
  const lengthOf = (own: LineNote[]) => (endOf(lastOf(own)) - firstOf(own).start) / bar;
  const isPickup = (own: LineNote[]) => {
    const line = grid.bars.find(({ start }) => start > firstOf(own).start)?.start ?? Infinity;
    return line - firstOf(own).start <= 2 * pulse.length && endOf(lastOf(own)) > line;
  };
  // Changes.
  const chordChanges = analysis.changes.filter(
    ({ chord }, i) => chord && (i === 0 || nth(analysis.changes, i - 1).symbol !== chord.symbol)
  );
  let [early, on, late] = [0, 0, 0];
  for (const change of chordChanges) {
    const start = ticksOf(change.start);
    const push = pushAt(grid, start, isFine) + 1;
    const ahead = struck.find(
      (note) => note.start < start && start - note.start <= push && endOf(note) > start
    );
    if (ahead) early++;
    else if (starts.has(start)) {
      const at = struck.findIndex((note) => note.start === start);
      const [own, next] = [nth(struck, at), struck[at + 1]];
      const isTone = (note: LineNote) => chordOf(change).pitchClasses.includes(note.midi % 12);
      const leans =
        next &&
        !isTone(own) &&
        isTone(next) &&
        next.start - start <= push &&
        Math.abs(next.midi - own.midi) <= 2;
      if (leans) late++;
      else on++;
    } else if (struck.some((note) => note.start > start && note.start - start <= Math.max(TICKS, push)))
      late++;
  }
  const met = early + on + late;
  // Rhythms of bars.
  const words = grid.bars.map(({ start, end }) =>
    struck
      .filter((note) => note.start >= start && note.start < end)
      .map((note) => `${note.start - start}`)
      .join()
  );
  const sounding = words.filter((word) => word !== '');
  const counts = new Map<string, number>();
  for (const word of sounding) counts.set(word, (counts.get(word) ?? 0) + 1);
  const first32 = new Set(words.slice(0, 32).filter((word) => word !== ''));
  const isMixed = (i: number) => {
    const kinds = new Set(
      nth(grid.bars, i).pulses.flatMap(({ start, length }) => {
        const own = struck.filter((note) => note.start > start && note.start < start + length);
        if (own.length === 0) return [];
        const parts = [2, 3, 4, 6, 8].find((n) =>
          own.every((note) => ((note.start - start) * n) % length === 0)
        );
        return parts === undefined ? [] : [parts];
      })
    );
    return kinds.size > 1;
  };
  const tone = (note: LineNote) => {
    const change =
      analysis.changes.findLast(({ start }) => ticksOf(start) <= note.start) ?? firstOf(analysis.changes);
    return { change, isTone: change.chord?.pitchClasses.includes(note.midi % 12) ?? false };
  };
  const onPulses = notes.filter((note) => {
    const own = pulseAt(grid, note.start);
    return own.start === note.start && !note.ghost;
  });
  const joined = struck.slice(1).map((note, i) => [nth(struck, i), note] as const);
  const eighth = pulse.isTriple ? pulse.length / 3 : pulse.length / 2;
  const jumps = joined.filter(
    ([a, b]) =>
      b.start - a.start <= eighth &&
      a.place &&
      b.place &&
      Math.abs(a.place.fret - b.place.fret) > 5 &&
      a.place.fret > 0 &&
      b.place.fret > 0
  ).length;
  const near = joined.filter(([a, b]) => b.start - endOf(a) < beat - 1);
  const fallingThirds = near.filter(([a, b]) => {
    // What comes early for a change, or is only touched, is not heard over the old chord.
    if (
      a.ghost ||
      b.ghost ||
      chordChanges.some(({ start }) => ticksOf(start) > b.start && ticksOf(start) < endOf(b))
    )
      return false;
    const { change } = tone(b);
    if (!change.chord?.tones.includes('3') || change.symbol !== tone(a).change.symbol) return false;
    const third = (change.chord.rootPc + 4) % 12;
    return a.midi % 12 === third && b.midi === a.midi - 1;
  }).length;
  const pitches = notes.map(({ midi }) => midi).sort((a, b) => a - b);
  const at = (part: number) => nth(pitches, Math.floor(part * (pitches.length - 1)));
  const barNotes = grid.bars.map(({ start, end }) =>
    struck
      .filter((note) => note.start >= start && note.start < end)
      .map((note) => [note.start - start, note.midi] as const)
  );
  let [literal, varied, big] = [0, 0, 0];
  barNotes.forEach((own, i) => {
    if (own.length < 3) return;
    big++;
    const text = (all: typeof own) => all.map((one) => one.join(':')).join();
    const rhythm = (all: typeof own) => all.map(([start]) => start).join();
    const half = Math.ceil(own.length / 2);
    const before = barNotes.slice(Math.max(0, i - 8), i).filter((one) => one.length >= 3);
    if (before.some((one) => text(one) === text(own))) literal++;
    else if (
      before.some(
        (one) => rhythm(one) === rhythm(own) || text(one.slice(0, half)) === text(own.slice(0, half))
      )
    )
      varied++;
  });
  const sixth = grid.end / 6;
  const notesIn = (n: number) => notes.filter(({ start }) => start >= n * sixth && start < (n + 1) * sixth);
  const countIn = (n: number) => notesIn(n).length;
  const meanIn = (n: number) => {
    const own = notesIn(n);
    return own.reduce((sum, { midi }) => sum + midi, 0) / Math.max(1, own.length);
  };
  const techniques = notes.filter(
    ({ bend, slide, slur, vibrato, ghost }, i) =>
      bend || slide || slur || vibrato || ghost || notes[i + 1]?.start === nth(notes, i).start
  ).length;
  const soundingTicks = struck.reduce((sum, { length }) => sum + length, 0);
  return {
    notes: notes.length,
    onOne: share(soundingBars.filter(({ start }) => starts.has(start)).length, soundingBars.length),
    early: share(early, met),
    on: share(on, met),
    late: share(late, met),
    met: share(met, chordChanges.length),
    startsOffOne: share(
      phrases.filter(([first]) => nth(grid.bars, barAt(grid, first!.start)).start !== first!.start).length,
      phrases.length
    ),
    startsOffBeat: share(
      phrases.filter(([first]) => pulseAt(grid, first!.start).start !== first!.start).length,
      phrases.length
    ),
    pickups: share(phrases.filter(isPickup).length, phrases.length),
    silence: 1 - soundingTicks / grid.end,
    meanPhrase: phrases.reduce((sum, own) => sum + lengthOf(own), 0) / Math.max(1, phrases.length),
    lengths: new Set(phrases.map((own) => Math.round(lengthOf(own) * 4))).size,
    longestPhrase: Math.max(...phrases.map(lengthOf)),
    rhythms: first32.size,
    commonest: share(Math.max(...counts.values()), sounding.length),
    sameAsBefore: share(
      words.filter((word, i) => word !== '' && word === words[i - 1]).length,
      sounding.length
    ),
    mixed: share(grid.bars.filter((_, i) => words[i] !== '' && isMixed(i)).length, sounding.length),
    techniques: share(techniques, notes.length),
    chordOnPulses: share(onPulses.filter((note) => tone(note).isTone).length, onPulses.length),
    jumps,
    leaps: near.filter(([a, b]) => Math.abs(a.midi - b.midi) > 12).length,
    fallingThirds,
    p10: at(0.1),
    p90: at(0.9),
    samePitch: share(near.filter(([a, b]) => a.midi === b.midi).length, near.length),
    literal: share(literal, big),
    varied: share(varied, big),
    rise: meanIn(4) - meanIn(0),
    fall: meanIn(4) - meanIn(5),
    thickens: countIn(4) / Math.max(1, countIn(0)),
    heard: heardOf(notes, analysis)
  };
}

function heardOf(notes: readonly LineNote[], { changes }: Sheet['analysis']): number {
  const told = outlineLine(notes, askedOf(changes)).windows.filter(
    ({ verdict }) => verdict && verdict !== 'silence'
  );
  return share(told.filter(({ verdict }) => verdict !== 'not').length, told.length);
}

/** Means over several seeds. */
export function meanFigures(own: StyleChart, seeds: readonly number[]): PhraseFigures {
  const all = seeds.map((seed) => {
    const { sheet, line } = phrasesOver(own.text, seed);
    return figuresOf(sheet, line, own.row === 'funk');
  });
  const names = Object.keys(firstOf(all)) as (keyof PhraseFigures)[];
  return Object.fromEntries(
    names.map((name) => [name, all.reduce((sum, one) => sum + one[name], 0) / all.length])
  ) as unknown as PhraseFigures;
}

type Bound = readonly [low: number, high: number];
export type PhraseBounds = Partial<Record<keyof PhraseFigures, Bound>>;

const BLUES: readonly string[] = ['jazz blues', 'shuffle blues', 'slow 12/8 blues'];
const JAZZ: readonly string[] = ['jazz blues', 'minor swing', 'bossa', 'waltz', 'ballad'];
const RIFFS: readonly string[] = ['shuffle blues', 'slow 12/8 blues', 'rock', 'funk'];
const PUSHED: readonly string[] = ['jazz blues', 'minor swing', 'bossa', 'rock', 'ballad'];
const MIXED: Readonly<Record<string, number>> = {
  ballad: 0.5,
  bossa: 0.1,
  'slow 12/8 blues': 0.1,
  '6/8 soul': 0.06
};
const TECHNIQUES: Readonly<Record<string, Bound>> = {
  'jazz blues': [0.1, 0.2],
  'minor swing': [0.1, 0.2],
  bossa: [0.1, 0.2],
  waltz: [0.1, 0.2],
  funk: [0.2, 0.3],
  'slow 12/8 blues': [0.27, 0.37]
};
const HEARD: Readonly<Record<string, number>> = {
  waltz: 0.62,
  rock: 0.62,
  ballad: 0.62,
  country: 0.52,
  '6/8 soul': 0.52,
  // A chord for bars on end has no bound.
  funk: 0
};
const ANY: Bound = [0, 1];

/** What phrases of a row have to hold in the mean of five seeds over three choruses. Source: docs/music-rules.md, Phrases. */
export function phraseBoundsOf(row: string): PhraseBounds {
  const isJazz = JAZZ.includes(row);
  const isRiff = RIFFS.includes(row);
  return {
    onOne: [0, row === 'country' ? 0.75 : 0.7],
    early: [row === 'country' ? 0.07 : PUSHED.includes(row) ? 0.18 : 0.1, 1],
    late: [0.12, 1],
    on: [0, 0.72],
    startsOffOne: [0.65, 1],
    startsOffBeat: [0.3, 1],
    pickups: [0.25, 1],
    silence: row === 'funk' ? [0.45, 0.58] : BLUES.includes(row) ? [0.28, 0.45] : [0.15, 0.3],
    meanPhrase: [1, 2.4],
    lengths: [5, 99],
    longestPhrase: [0, 5],
    rhythms: [15, 32],
    commonest: [0, 0.18],
    sameAsBefore: [0, 0.06],
    mixed: [MIXED[row] ?? 0.2, 1],
    techniques: TECHNIQUES[row] ?? [0.16, 0.28],
    chordOnPulses: [row === 'country' ? 0.78 : row === 'funk' ? 0.94 : 0.84, 0.99],
    jumps: [0, 0],
    leaps: [0, 0],
    fallingThirds: isRiff ? [0, 0] : [0, 99],
    p10: [59, 90],
    p90: [72, 79],
    samePitch: isRiff ? [0.06, 0.18] : isJazz ? [0, 0.02] : ANY,
    literal: isRiff ? [0.05, 0.16] : isJazz ? [0, 0.04] : ANY,
    varied: isRiff ? [0.14, 0.32] : isJazz ? [0.1, 0.3] : ANY,
    rise: [3, 20],
    fall: [0.5, 20],
    heard: [HEARD[row] ?? 0.7, 1]
  };
}

/** Means of five solos: a hundredth more or less is chance. */
const CHANCE = 0.011;

/** The figures that lie outside their bounds, in words. */
export function outsideOf(figures: PhraseFigures, { row, adapts }: StyleChart): string[] {
  const bounds = { ...phraseBoundsOf(row), ...(adapts ? { literal: [0, 0.16] as const } : {}) };
  return Object.entries(bounds).flatMap(([name, [low, high]]) => {
    const value = figures[name as keyof PhraseFigures];
    return value < low - CHANCE || value > high + CHANCE
      ? [`${name} ${value.toFixed(3)} not in ${low}–${high}`]
      : [];
  });
}
