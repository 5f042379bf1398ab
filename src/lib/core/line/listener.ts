/**
 * The listener: which chords a line tells of by itself. It knows no chart, no key and no recording; it weighs the notes of a
 * window of time against every chord it knows, and joins neighbouring windows by the usual motions of roots, so that the most
 * likely sequence is found exactly. Source: docs/music-rules.md, The outline test.
 */
import { firstOf, nth } from '../base/list';
import type { Ticks } from '../base/units';
import { DEGREES, type Degree } from '../theory/degree';
import { plainName, type PitchClass } from '../theory/note';
import { endOf, TICKS, type LineNote } from './model';

/** A stretch of time, in ticks. */
export interface Window {
  readonly from: number;
  readonly to: number;
}

/** A chord the listener knows. */
interface Quality {
  readonly suffix: string;
  readonly tones: readonly Degree[];
  /** Other notes that belong to it as colours. */
  readonly tensions: readonly Degree[];
  /** An altered fifth or a suspended tone without which it is not that chord. */
  readonly telling?: Degree;
  /** What it pays for being rare. */
  readonly prior?: number;
}

/** Sixths have no rows of their own: they sound as the sevenths of the same notes do. */
const QUALITIES: readonly Quality[] = [
  { suffix: '', tones: ['1', '3', '5'], tensions: ['9', '13'] },
  { suffix: 'm', tones: ['1', 'b3', '5'], tensions: ['9', '11'] },
  { suffix: 'dim', tones: ['1', 'b3', 'b5'], tensions: ['9', '11'], telling: 'b5', prior: -0.1 },
  { suffix: 'aug', tones: ['1', '3', '#5'], tensions: [], telling: '#5' },
  { suffix: 'sus4', tones: ['1', '11', '5'], tensions: ['9', '13'], telling: '11', prior: -0.7 },
  { suffix: 'maj7', tones: ['1', '3', '5', '7'], tensions: ['9', '#11', '13'] },
  { suffix: 'm7', tones: ['1', 'b3', '5', 'b7'], tensions: ['9', '11', '13'] },
  { suffix: '7', tones: ['1', '3', '5', 'b7'], tensions: ['b9', '9', '#9', '#11', 'b13', '13'] },
  { suffix: 'm7b5', tones: ['1', 'b3', 'b5', 'b7'], tensions: ['9', '11', 'b13'], prior: -0.1 },
  {
    suffix: 'dim7',
    tones: ['1', 'b3', 'b5', 'bb7'],
    tensions: ['9', '11', 'b13', '7'],
    telling: 'b5',
    prior: -0.1
  },
  { suffix: 'm(maj7)', tones: ['1', 'b3', '5', '7'], tensions: ['9', '11', '13'], prior: -0.2 },
  { suffix: '7#5', tones: ['1', '3', '#5', 'b7'], tensions: ['b9', '9', '#9', '#11'], prior: -0.5 },
  { suffix: 'maj7#5', tones: ['1', '3', '#5', '7'], tensions: ['9', '#11', '13'], prior: -0.5 },
  { suffix: '7b5', tones: ['1', '3', 'b5', 'b7'], tensions: ['b9', '9', '#9', 'b13', '13'], prior: -0.6 },
  { suffix: '7sus4', tones: ['1', '11', '5', 'b7'], tensions: ['9', '13'], telling: '11', prior: -0.8 }
];

/** What a note costs a chord, for each beat of its weight. */
const STRANGE = { tension: -4.2, other: -6 } as const;
/** What a chord pays for a tone that the line never shows. */
const NEVER_SHOWN = { root: -1.6, third: -2.4, fifth: -0.6, telling: -1.6, seventh: -1.8 } as const;
/** By how much a note weighs more on a beat, and as the first of its window. */
const ON_BEAT = 1.5;
const FIRST = 1.5;
/** What passes or leads, by its shape alone, is held against a chord by this much of its weight. */
const PASSING = 0.5;
/** A short note left by a semitone leads even on a beat. */
const LEANING = 0.6;
/** Usual motions of a root, in semitones up. */
const MOTION: Readonly<Record<number, number>> = { 0: 0.1, 5: 0.25, 7: 0.1, 11: 0.1 };

const OCTAVE = 12;
const HALF = TICKS / 2;
const STEP = 2;

/** A chord on a root. */
interface Row {
  readonly root: PitchClass;
  readonly quality: Quality;
  /** Which of the sounds it is: chords of the same notes are one. */
  readonly sound: number;
}

/** What can be told apart by ear: a set of pitch classes, bit n for pitch class n. */
interface Sound {
  readonly pitchSet: number;
  readonly names: readonly string[];
}

const slotCost = (degree: Degree, { telling }: Quality): number => {
  if (degree === telling) return NEVER_SHOWN.telling;
  const { slot } = DEGREES[degree];
  if (slot === '1') return NEVER_SHOWN.root;
  if (slot === '3') return NEVER_SHOWN.third;
  return slot === '7' ? NEVER_SHOWN.seventh : NEVER_SHOWN.fifth;
};

/** For each quality, by semitones above its root: what a beat of the note costs, and what its absence does. */
const TABLES = QUALITIES.map((quality) => {
  const strange = new Float64Array(OCTAVE).fill(STRANGE.other);
  const missing = new Float64Array(OCTAVE);
  for (const degree of quality.tensions) strange[DEGREES[degree].semitones] = STRANGE.tension;
  for (const degree of quality.tones) {
    const { semitones } = DEGREES[degree];
    strange[semitones] = 0;
    missing[semitones] = slotCost(degree, quality);
  }
  return { strange, missing };
});

/** A sixth chord has the notes of a seventh a minor third below it. */
const SIXTHS: Readonly<Record<string, string>> = { m7: '6', m7b5: 'm6' };

const { rows: ROWS, sounds: SOUNDS } = knownChords();

function knownChords(): { rows: readonly Row[]; sounds: readonly Sound[] } {
  const sounds: { pitchSet: number; names: string[] }[] = [];
  const rows = QUALITIES.flatMap((quality) =>
    Array.from({ length: OCTAVE }, (_, root): Row => {
      const pitchSet = quality.tones.reduce((set, tone) => set | bit(root + DEGREES[tone].semitones), 0);
      let sound = sounds.findIndex((one) => one.pitchSet === pitchSet);
      if (sound < 0) sound = sounds.push({ pitchSet, names: [] }) - 1;
      const names = nth(sounds, sound).names;
      names.push(plainName(root) + quality.suffix);
      const sixth = SIXTHS[quality.suffix];
      if (sixth) names.push(plainName((root + 3) % OCTAVE) + sixth);
      return { root, quality, sound };
    })
  );
  return { rows, sounds };
}

function bit(pitch: number): number {
  return 1 << (pitch % OCTAVE);
}

/** Whether the listener has such a chord. */
export function isKnownSound(pitchSet: number): boolean {
  return SOUNDS.some((sound) => sound.pitchSet === pitchSet);
}

/** A chord that is heard. */
export interface HeardChord {
  readonly symbol: string;
  readonly pitchSet: number;
  readonly root: PitchClass;
  /** Of all chords together, 0 to 1. */
  readonly share: number;
  /** Other names of the same notes. */
  readonly same: readonly string[];
}

/** What is heard in a window; nothing where it is silent. The most likely first. */
export interface HeardWindow {
  /** In the best sequence of all. */
  readonly inSequence: readonly HeardChord[];
  /** In the window taken by itself. */
  readonly alone: readonly HeardChord[];
  /** The pitch classes shown, as a set. */
  readonly shown: number;
  /** The share of some sounds together, in the best sequence. */
  readonly shareOf: (pitchSets: ReadonlySet<number>) => number;
}

/** For each window the places of the notes that count in it: what sounds in it, but what only anticipates the next. */
export function countedIn(notes: readonly LineNote[], windows: readonly Window[]): number[][] {
  const counted = windows.map((): number[] => []);
  let at = 0;
  notes.forEach((note, i) => {
    while (at < windows.length && nth(windows, at).to <= note.start) at++;
    for (let w = at; w < windows.length && nth(windows, w).from < endOf(note); w++) {
      const { to } = nth(windows, w);
      const anticipatesNext = endOf(note) > to && to - note.start <= HALF;
      if (!anticipatesNext) nth(counted, w).push(i);
    }
  });
  return counted;
}

const isOnBeat = (start: Ticks) => start % TICKS === 0;

/** How much of a note is held against a chord that it is strange to. */
function heldAgainst(note: LineNote, next: LineNote | undefined): number {
  if (!next || next.start > endOf(note) || note.length > TICKS) return 1;
  const distance = Math.abs(next.midi - note.midi);
  if (distance === 0 || distance > STEP) return 1;
  if (!isOnBeat(note.start)) return PASSING;
  return distance === 1 && note.length <= HALF ? LEANING : 1;
}

/** The note after one: of those that start later the first. */
const following = (notes: readonly LineNote[], at: number) =>
  notes.slice(at + 1, at + 4).find(({ start }) => start > notes[at]!.start);

interface Weighed {
  /** By pitch class, in beats. */
  readonly weights: Float64Array;
  readonly shown: number;
}

/** Weighs the notes that count in a window. */
function weigh(notes: readonly LineNote[], at: readonly number[], { from, to }: Window): Weighed | null {
  if (at.length === 0) return null;
  const weights = new Float64Array(OCTAVE);
  const first = Math.min(...at.map((i) => nth(notes, i).start));
  let shown = 0;
  for (const i of at) {
    const note = notes[i]!;
    // What is only touched is rhythm, and no pitch.
    if (note.ghost) continue;
    const isPushed = note.start < from && from - note.start <= HALF;
    const start = isPushed ? note.start : Math.max(from, note.start);
    const beats = (Math.min(to, endOf(note)) - start) / TICKS;
    const strong = isPushed || isOnBeat(note.start) ? ON_BEAT : 1;
    const leading = note.start === first ? FIRST : 1;
    const pc = note.midi % OCTAVE;
    weights[pc]! += beats * strong * leading * heldAgainst(note, following(notes, i));
    shown |= bit(pc);
  }
  return { weights, shown };
}

/** How well each chord explains a window. */
function explain({ weights, shown }: Weighed): Float64Array {
  const scores = new Float64Array(ROWS.length);
  for (let q = 0; q < QUALITIES.length; q++) {
    const { strange, missing } = TABLES[q]!;
    const prior = QUALITIES[q]!.prior ?? 0;
    for (let root = 0; root < OCTAVE; root++) {
      let score = prior;
      for (let step = 0, pc = root; step < OCTAVE; step++, pc = pc === 11 ? 0 : pc + 1) {
        score += weights[pc]! * strange[step]!;
        if ((shown & (1 << pc)) === 0) score += missing[step]!;
      }
      scores[q * OCTAVE + root] = score;
    }
  }
  return scores;
}

/** For every root the best chord on it. */
function byRoot(scores: Float64Array): Float64Array {
  const best = new Float64Array(OCTAVE).fill(-Infinity);
  scores.forEach((score, row) => {
    const root = row % OCTAVE;
    if (score > best[root]!) best[root] = score;
  });
  return best;
}

/** The best that leads to each root from those before it (`way` 1), or on from it (−1). */
function carried(scores: Float64Array, beyond: Float64Array, way: 1 | -1): Float64Array<ArrayBuffer> {
  const best = byRoot(scores);
  const reached = new Float64Array(OCTAVE).fill(-Infinity);
  for (let root = 0; root < OCTAVE; root++) {
    for (let other = 0; other < OCTAVE; other++) {
      const up = (way === 1 ? root - other : other - root) + OCTAVE;
      const score = best[other]! + beyond[other]! + (MOTION[up % OCTAVE] ?? 0);
      if (score > reached[root]!) reached[root] = score;
    }
  }
  return reached;
}

/** What was made of the notes of one window, and how the rest of the line bears on it, by its root. */
interface Listened {
  readonly scores: Float64Array | null;
  readonly shown: number;
  /** The pitch class that comes first, from which chords of the same notes are named. */
  readonly first: PitchClass;
  readonly before: Float64Array;
  readonly after: Float64Array;
}

/** A line that has been listened to from end to end. */
export interface Listening {
  readonly windows: readonly Window[];
  readonly listened: readonly Listened[];
}

const NOTHING = new Float64Array(OCTAVE);

function listenIn(notes: readonly LineNote[], at: readonly number[], window: Window) {
  const weighed = weigh(notes, at, window);
  return {
    scores: weighed && explain(weighed),
    shown: weighed?.shown ?? 0,
    first: at.length ? nth(notes, firstOf(at)).midi % OCTAVE : 0
  };
}

/** Listens to notes (in the order of a line) through windows that follow one another. */
export function listenTo(notes: readonly LineNote[], windows: readonly Window[]): Listening {
  const counted = countedIn(notes, windows);
  const own = windows.map((window, i) => listenIn(notes, nth(counted, i), window));
  // Silence says nothing: what comes after it follows what came before.
  const along = (from: number, way: 1 | -1) => {
    const messages = own.map(() => NOTHING);
    let message = NOTHING;
    for (let i = from; i >= 0 && i < own.length; i += way) {
      messages[i] = message;
      const { scores } = nth(own, i);
      if (scores) message = carried(scores, message, way);
    }
    return messages;
  };
  const before = along(0, 1);
  const after = along(own.length - 1, -1);
  return {
    windows,
    listened: own.map((one, i) => ({ ...one, before: nth(before, i), after: nth(after, i) }))
  };
}

/** What is heard in a window of a line. */
export function heardIn({ listened }: Listening, at: number): HeardWindow {
  return heardFrom(nth(listened, at));
}

function heardFrom({ scores, shown, first, before, after }: Listened): HeardWindow {
  if (!scores) return { inSequence: [], alone: [], shown, shareOf: () => 0 };
  const joined = scores.map((score, row) => score + before[row % OCTAVE]! + after[row % OCTAVE]!);
  const { top, shareOf } = ranked(joined, first);
  return { inSequence: top, alone: ranked(scores, first).top, shown, shareOf };
}

/**
 * What would be heard in a window if some of the notes near it, `touched` by their places in `notes`, were as they are there now. Its
 * neighbours are listened to anew where that changes them as well.
 */
export function heardAgain(
  { windows, listened }: Listening,
  notes: readonly LineNote[],
  touched: ReadonlySet<number>,
  at: number
): HeardWindow {
  const sounds = ({ scores }: Listened) => scores !== null;
  const last = listened.slice(0, at).findLastIndex(sounds);
  const next = listened.findIndex((one, i) => i > at && sounds(one));
  const asked = [last, at, next].filter((i) => i >= 0);
  const counted = countedIn(
    notes,
    asked.map((i) => nth(windows, i))
  );
  const countedAt = (i: number) => counted[asked.indexOf(i)] ?? [];
  // A note tells by what follows it, too.
  const isTouched = (i: number) => countedAt(i).some((n) => [0, 1, 2, 3].some((on) => touched.has(n + on)));
  const message = (i: number, beyond: 'before' | 'after', way: 1 | -1) => {
    if (i < 0 || !isTouched(i)) return nth(listened, at)[beyond];
    const { scores } = listenIn(notes, countedAt(i), nth(windows, i));
    return scores ? carried(scores, nth(listened, i)[beyond], way) : nth(listened, at)[beyond];
  };
  return heardFrom({
    ...listenIn(notes, countedAt(at), nth(windows, at)),
    before: message(last, 'before', 1),
    after: message(next, 'after', -1)
  });
}

/** Chords told of a window. */
const MOST_TOLD = 5;
/** Scores nearer than this are the same. */
const EQUAL = 1e-9;

/** The sounds of a window by their likelihood. Equally likely names are taken in the order of the table, and on the root nearest above the first note. */
function ranked(scores: Float64Array, first: PitchClass) {
  const order = (row: number) => row - (row % OCTAVE) + (((row % OCTAVE) - first + OCTAVE) % OCTAVE);
  const isBefore = (a: number, b: number) => {
    const ahead = scores[a]! - scores[b]!;
    return ahead > EQUAL || (ahead > -EQUAL && order(a) < order(b));
  };
  const best = new Int16Array(SOUNDS.length).fill(-1);
  for (let row = 0; row < ROWS.length; row++) {
    const { sound } = ROWS[row]!;
    if (best[sound]! < 0 || isBefore(row, best[sound]!)) best[sound] = row;
  }
  const top: number[] = [];
  for (const row of best) {
    let place = top.length;
    while (place > 0 && isBefore(row, top[place - 1]!)) place--;
    if (place < MOST_TOLD) top.splice(place, 0, row);
    if (top.length > MOST_TOLD) top.pop();
  }
  const most = scores[firstOf(top)]!;
  const all = best.reduce((sum, row) => sum + Math.exp(scores[row]! - most), 0);
  const share = (row: number) => Math.exp(scores[row]! - most) / all;
  return {
    top: top.map((row): HeardChord => {
      const { root, quality, sound } = ROWS[row]!;
      const { pitchSet, names } = SOUNDS[sound]!;
      const symbol = plainName(root) + quality.suffix;
      return { symbol, root, pitchSet, share: share(row), same: names.filter((name) => name !== symbol) };
    }),
    shareOf: (pitchSets: ReadonlySet<number>) =>
      best.reduce((sum, row, sound) => sum + (pitchSets.has(SOUNDS[sound]!.pitchSet) ? share(row) : 0), 0)
  };
}
