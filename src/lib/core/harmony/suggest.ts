/**
 * Which chord may come next, or come before what follows: by the key, by what stood there in another section, by cadences and by the ways
 * chords usually move. Most likely first. Source: docs/music-rules.md, Writing on bars.
 */
import { entryOf, nth } from '../base/list';
import type { WrittenBar } from '../chart/writing/bars';
import { type Chord } from '../theory/chord';
import { readChord } from '../theory/chord-reader';
import { noteAbove, pitchClass, plainName, withoutDoubles, type NoteName } from '../theory/note';
import { prettySymbol } from '../theory/typeset';
import type { Style } from './style';
import { isMinorKey, type Key } from './key';

export interface Suggestion {
  readonly symbol: string;
  /** A few words: "ii before G7", "as in section A". */
  readonly why: string;
}

/** Where a chord is to stand, and what is known of the chart round it. */
export interface Place {
  readonly bars: readonly WrittenBar[];
  /** The bar, counted from 0; it may be the one behind the last. */
  readonly bar: number;
  /** The beat of the bar at which the chord begins, from 0. */
  readonly beat: number;
  /** The key there; null where nothing tells one. */
  readonly key: Key | null;
  readonly isBlues: boolean;
  readonly style: Style | null;
}

/** A step of a key and the chord that usually stands on it: with its seventh and without. */
interface StepChord {
  readonly step: string;
  /** From the tonic, as an interval name. */
  readonly interval: string;
  readonly seventh: string;
  readonly triad: string;
  /** Steps that follow it, the likeliest first. */
  readonly then: string;
}

const row = (step: string, interval: string, seventh: string, triad: string, then: string): StepChord => ({
  step,
  interval,
  seventh,
  triad,
  then
});

const MAJOR: readonly StepChord[] = [
  row('I', '1P', 'maj7', '', 'IV vi ii V VI7 bVII iii'),
  row('ii', '2M', 'm7', 'm', 'V I iii iv'),
  row('iii', '3M', 'm7', 'm', 'vi VI7 IV ii'),
  row('IV', '4P', 'maj7', '', 'V I iv ii iii bVII'),
  row('V', '5P', '7', '', 'I vi IV III7'),
  row('vi', '6M', 'm7', 'm', 'ii IV V II7'),
  row('vii', '7M', 'm7b5', 'dim', 'III7 iii'),
  row('VI7', '6M', '7b9', '7', 'ii II7'),
  row('II7', '2M', '7', '7', 'V ii'),
  row('III7', '3M', '7b9', '7', 'vi VI7'),
  row('I7', '1P', '7', '7', 'IV'),
  row('iv', '4P', 'm6', 'm', 'I bVII iii'),
  row('bVII', '7m', '7', '', 'I IV'),
  row('bVI', '6m', 'maj7', '', 'bVII V'),
  row('bIII', '3m', 'maj7', '', 'IV bVI ii')
];
const MINOR: readonly StepChord[] = [
  row('i', '1P', 'm7', 'm', 'iv iiø bVI bVII V'),
  row('iiø', '2M', 'm7b5', 'dim', 'V'),
  row('bIII', '3m', 'maj7', '', 'bVI iv iiø'),
  row('iv', '4P', 'm7', 'm', 'V bVII i iiø'),
  row('V', '5P', '7b9', '7', 'i bVI iv'),
  row('v', '5P', 'm7', 'm', 'i iv bVI'),
  row('bVI', '6m', 'maj7', '', 'bVII V iiø bIII'),
  row('bVII', '7m', '7', '', 'bIII bVI i'),
  row('vii', '7M', 'dim7', 'dim', 'i')
];
const DORIAN: readonly StepChord[] = [
  row('i', '1P', 'm7', 'm', 'IV ii bVII bIII'),
  row('ii', '2M', 'm7', 'm', 'i IV'),
  row('bIII', '3m', 'maj7', '', 'IV i'),
  row('IV', '4P', '7', '', 'i bVII'),
  row('v', '5P', 'm7', 'm', 'i IV'),
  row('bVII', '7m', 'maj7', '', 'IV i')
];
const MIXOLYDIAN: readonly StepChord[] = [
  row('I', '1P', '7', '', 'bVII IV v'),
  row('ii', '2M', 'm7', 'm', 'bVII I'),
  row('IV', '4P', 'maj7', '', 'I bVII'),
  row('v', '5P', 'm7', 'm', 'I IV'),
  row('bVII', '7m', 'maj7', '', 'IV I')
];
const BLUES: readonly StepChord[] = [
  row('I', '1P', '7', '7', 'IV V VI7 ii'),
  row('IV', '4P', '7', '7', 'I #iv V'),
  row('V', '5P', '7', '7', 'IV I'),
  row('ii', '2M', 'm7', 'm7', 'V'),
  row('VI7', '6M', '7', '7', 'ii V'),
  row('#iv', '4A', 'dim7', 'dim7', 'I')
];
/** Steps that a chart begins on. */
const BEGINNINGS = 'I i vi ii IV iv bVI bVII';
/** Where nothing tells a key: chords that tunes begin on. */
const FIRST = ['C', 'Am7', 'Dm7', 'Fmaj7', 'G7', 'Em', 'Bbmaj7', 'Gm7'];

/** Styles whose chords have their sevenths. */
const SEVENTHS = new Set<Style>(['jazz', 'latin', 'modal']);
export const MOST_SUGGESTIONS = 8;

/** What is worth how much; the sum orders the list. */
const WORTH = {
  again: 24,
  begins: 16,
  leads: 14,
  leadsFar: 5,
  resolves: 9,
  asBefore: 8,
  usual: 7,
  inKey: 1,
  same: -12
} as const;

interface Heard {
  readonly symbol: string;
  readonly chord: Chord;
  /** It begins right at the next bar, or within the same one. */
  readonly isNext?: boolean;
}

/** Suggestions for a place, the likeliest first; `typed` is what a symbol has to begin with. */
export function suggestionsAt(place: Place, typed = ''): Suggestion[] {
  const sum = new Map<string, { worth: number; why: string; best: number }>();
  const add = (symbol: string, worth: number, why: string) => {
    const own = sum.get(symbol) ?? { worth: 0, why, best: 0 };
    const isBest = worth > own.best;
    sum.set(symbol, {
      worth: own.worth + worth,
      why: isBest ? why : own.why,
      best: isBest ? worth : own.best
    });
  };
  const [before, after] = [chordBefore(place), chordAfter(place)];
  const hasSevenths = speaksSevenths(place);
  for (const symbol of asElsewhere(place)) add(symbol.symbol, WORTH.again, symbol.why);
  for (const { symbol, why, worth } of leadingTo(after, hasSevenths)) add(symbol, worth, why);
  if (before) {
    for (const symbol of followers(place, before.symbol))
      add(symbol, WORTH.asBefore, `after ${prettySymbol(before.symbol)} before`);
    for (const symbol of resolutions(place, before, hasSevenths))
      add(symbol, WORTH.resolves, `${prettySymbol(before.symbol)} resolves there`);
  }
  for (const [i, own] of usual(place, before, hasSevenths).entries())
    add(own.symbol, Math.max(1, WORTH.usual - i), own.why);
  const [tonic] = usual(place, null, hasSevenths);
  if (!before && tonic) add(tonic.symbol, WORTH.begins, tonic.why);
  for (const own of palette(place, hasSevenths)) add(own.symbol, WORTH.inKey, own.why);
  if (!place.key)
    for (const [i, symbol] of FIRST.entries()) add(symbol, WORTH.inKey - i / 10, 'to begin with');
  const onRoot = typed ? qualitiesOn(typed) : [];
  for (const [i, symbol] of onRoot.entries()) add(symbol, 0.5 - i / 100, 'on this root');
  if (before && sum.has(before.symbol) && before.symbol !== after?.symbol)
    entryOf(sum, before.symbol).worth += WORTH.same;
  const isWanted = (symbol: string) => symbol !== typed && beginsWith(symbol, typed);
  return [...sum]
    .filter(([symbol]) => isWanted(symbol))
    .sort(([, a], [, b]) => b.worth - a.worth)
    .slice(0, MOST_SUGGESTIONS)
    .map(([symbol, { why }]) => ({ symbol, why }));
}

const plain = (text: string) => text.replaceAll('♭', 'b').replaceAll('♯', '#');
/** The root in any case; of the rest the case counts, since m is not M. */
const beginsWith = (symbol: string, typed: string): boolean => {
  const [own, said] = [plain(symbol), plain(typed.trim())];
  return own.slice(0, 1).toUpperCase() === said.slice(0, 1).toUpperCase()
    ? own.slice(1).startsWith(said.slice(1))
    : said === '';
};

const heard = (symbol: string | undefined): Heard | null => {
  if (symbol === undefined) return null;
  const reading = readChord(symbol);
  return reading.kind === 'chord' ? { symbol, chord: reading.chord } : null;
};

/** What sounds right before the place. */
function chordBefore({ bars, bar, beat }: Place): Heard | null {
  for (let at = Math.min(bar, bars.length - 1); at >= 0; at--) {
    const last = nth(bars, at).chords.findLast((own) => at < bar || own.beat < beat);
    if (last) return heard(last.symbol);
  }
  return null;
}

/** The chord that comes right after the place. */
function chordAfter({ bars, bar, beat }: Place): Heard | null {
  for (const { chords, index } of bars.slice(Math.max(0, bar))) {
    const next = chords.find((own) => index > bar || own.beat > beat);
    const own = next && heard(next.symbol);
    if (next) return own ? { ...own, isNext: index <= bar + 1 } : null;
  }
  return null;
}

function speaksSevenths({ bars, style }: Place): boolean {
  const chords = bars.flatMap(({ chords: own }) => own.map(({ symbol }) => heard(symbol)));
  const said = chords.filter((own) => own !== null);
  if (said.length === 0) return style === null || SEVENTHS.has(style);
  return said.filter(({ chord }) => chord.tones.length > 3).length * 2 >= said.length;
}

/** What stood at the same place of an earlier section that has gone the same way so far. */
function asElsewhere({ bars, bar, beat }: Place): Suggestion[] {
  const own = bars[bar] ?? bars.at(-1);
  if (!own) return [];
  const index = own.sectionIndex;
  const first = bars.findIndex(({ sectionIndex }) => sectionIndex === index);
  const at = bar - first;
  const wordsOf = (from: number, count: number) =>
    bars
      .slice(from, from + count)
      .map(({ chords }) => chords.map(({ symbol, beat: on }) => `${on}${symbol}`).join());
  const upTo = (from: number) =>
    (bars[from + at]?.chords ?? [])
      .filter((one) => one.beat < beat)
      .map(({ symbol }) => symbol)
      .join();
  const starts = bars.filter(({ opensSection, sectionIndex }) => opensSection && sectionIndex < index);
  return starts.reverse().flatMap(({ index: from, section }) => {
    const there = bars[from + at];
    if (!there || there.sectionIndex >= index || at === 0) return [];
    if (wordsOf(from, at).join('|') !== wordsOf(first, at).join('|') || upTo(from) !== upTo(first)) return [];
    const found = there.chords.find((one) => one.beat === beat);
    return found ? [{ symbol: found.symbol, why: section ? `as in section ${section}` : 'as before' }] : [];
  });
}

/** The V of what follows, and the ii of a V that follows. */
function leadingTo(after: Heard | null, hasSevenths: boolean): (Suggestion & { readonly worth: number })[] {
  if (!after) return [];
  const { chord, symbol } = after;
  // A chord without a fifth of its own is seldom led to by one, and what is far off not yet.
  const isGoal = after.isNext && chord.family !== 'half-diminished' && chord.family !== 'diminished';
  const worth = isGoal ? WORTH.leads : WORTH.leadsFar;
  const fifth = simple(noteAbove(chord.root, '5P'));
  const isDominant = chord.family === 'dominant' || chord.family === 'suspended';
  const goesMinor = chord.tones.includes('b9') || chord.tones.includes('b13');
  const isMinor = chord.family === 'minor' || chord.family === 'half-diminished';
  return [
    ...(isDominant
      ? [{ symbol: `${fifth}${goesMinor ? 'm7b5' : 'm7'}`, why: `ii before ${prettySymbol(symbol)}`, worth }]
      : []),
    { symbol: `${fifth}${isMinor && hasSevenths ? '7b9' : '7'}`, why: `V of ${prettySymbol(symbol)}`, worth }
  ];
}

/** What came after the same chord elsewhere in the chart, the latest first. */
function followers({ bars, bar, beat }: Place, symbol: string): string[] {
  const all = bars.flatMap(({ chords, index }) =>
    chords.filter((own) => index !== bar || own.beat !== beat).map((own) => own.symbol)
  );
  const next = all.flatMap((own, i) =>
    own === symbol && all[i + 1] && all[i + 1] !== symbol ? [nth(all, i + 1)] : []
  );
  return [...new Set(next.reverse())].slice(0, 3);
}

/** A root by its plainer name: E, not F♭. */
const simple = (note: NoteName): NoteName =>
  /^(?:Fb|E#|B#)$/.test(note) ? plainName(pitchClass(note)) : withoutDoubles(note);

/** The chords of the key, and the dominants that lead to them: what a pad offers, without repeats. */
export function chordsOfKey(place: Place): string[] {
  const hasSevenths = speaksSevenths(place);
  const own = palette(place, hasSevenths);
  const seven = own.slice(0, 7).map(({ symbol }) => symbol);
  const fifths = own.slice(1, 6).map(({ root }) => `${simple(noteAbove(root, '5P'))}7`);
  return [...new Set([...seven, ...fifths])];
}

/** Where a dominant resolves: the chord of the key a fifth below, else a plain one. */
function resolutions(place: Place, { chord, symbol }: Heard, hasSevenths: boolean): string[] {
  if (chord.family !== 'dominant' || (place.isBlues && !/b9|alt/.test(symbol))) return [];
  const goal = (chord.rootPc + 5) % 12;
  const own = palette(place, hasSevenths).find(
    ({ root, step }) => pitchClass(root) === goal && !step.endsWith('7')
  );
  const root = simple(noteAbove(chord.root, '4P'));
  const goesMinor = chord.tones.includes('b9') || chord.tones.includes('b13');
  return [own?.symbol ?? `${root}${goesMinor ? 'm7' : 'maj7'}`];
}

interface OnStep extends Suggestion {
  readonly step: string;
  readonly root: NoteName;
}

const MODAL: Partial<Record<Key['mode'], readonly StepChord[]>> = { dorian: DORIAN, mixolydian: MIXOLYDIAN };

function rowsIn({ key, isBlues }: Place): readonly StepChord[] {
  if (!key) return MAJOR;
  if (isBlues && !isMinorKey(key)) return BLUES;
  return MODAL[key.mode] ?? (isMinorKey(key) ? MINOR : MAJOR);
}

/** The chords that live in the key, in the way the chart writes its chords. */
function palette(place: Place, hasSevenths: boolean): OnStep[] {
  const { key } = place;
  if (!key) return [];
  return rowsIn(place).map(({ step, interval, seventh, triad }) => {
    const root = simple(noteAbove(key.tonic, interval));
    const symbol = root + (hasSevenths ? seventh : triad);
    return { step, root, symbol, why: `${step.replace('b', '♭')} in ${prettySymbol(key.tonic)}` };
  });
}

/** What usually follows the chord before, or begins a chart. */
function usual(place: Place, before: Heard | null, hasSevenths: boolean): OnStep[] {
  const own = palette(place, hasSevenths);
  const rows = rowsIn(place);
  const from = before && own.filter(({ root }) => pitchClass(root) === before.chord.rootPc);
  const isMinor = before?.chord.family === 'minor' || before?.chord.family === 'half-diminished';
  // Of two chords on one root the one of the same third.
  const step =
    from?.find(({ symbol }) => symbol === before?.symbol) ??
    from?.find(({ step: name }) => (name.replace(/^[b#]/, '')[0] ?? '') === (isMinor ? 'i' : 'I')) ??
    from?.[0];
  const then = before ? rows.find((one) => one.step === step?.step)?.then : BEGINNINGS;
  return (then ?? '').split(' ').flatMap((name) => own.find((one) => one.step === name) ?? []);
}

const QUALITIES = [
  'm7',
  '7',
  'maj7',
  'm7b5',
  'm',
  '',
  'dim7',
  '7b9',
  '6',
  'm6',
  'sus4',
  '7sus4',
  '9',
  'add9'
];
/** What may stand on a root that has been typed. */
function qualitiesOn(typed: string): string[] {
  const root = /^[A-Ga-g][b#♭♯]?/.exec(typed.trim())?.[0];
  if (!root) return [];
  const name = plain(root.charAt(0).toUpperCase() + root.slice(1));
  return QUALITIES.map((quality) => name + quality);
}
