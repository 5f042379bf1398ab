/**
 * The outline test: whether a line alone would tell a listener the chords of its chart, change by change, and the smallest
 * change of a note that would. Source: docs/music-rules.md, The outline test.
 */
import { firstOf, nth } from '../base/list';
import type { Change } from '../chart/unroll';
import type { Chord } from '../theory/chord';
import { DEGREES, type Degree } from '../theory/degree';
import { prettyDegree, prettySymbol } from '../theory/typeset';
import {
  countedIn,
  heardAgain,
  heardIn,
  isKnownSound,
  listenTo,
  type HeardChord,
  type HeardWindow,
  type Listening,
  type Window
} from './listener';
import { endOf, TICKS, ticksOf, type LineNote } from './model';

export type Verdict = 'clear' | 'partly' | 'not' | 'silence';

export interface OutlinedWindow extends Window {
  /** The change whose chord it is held against; absent where there is none. */
  readonly change?: number;
  /** The most likely first; nothing where it is silent. */
  readonly heard: readonly HeardChord[];
  /** Absent where no chord is asked for. */
  readonly verdict?: Verdict;
}

export interface Outline {
  readonly listening: Listening;
  readonly windows: readonly OutlinedWindow[];
  /** Share of the changes that are heard: those in part count half; null where all is silent or nothing is asked. */
  readonly share: number | null;
}

/** Beats of a window where nothing else is said. */
const BAR = 4 * TICKS;
/** So many times as likely as the next must a chord be that is clear. */
const TWICE = 2;
/** A chord among so many first ones is heard in part. */
const AMONG = 3;

/** Windows of four beats over a line, for one without a chart. */
export function plainWindows(notes: readonly LineNote[]): Window[] {
  const end = notes.reduce((last, note) => Math.max(last, endOf(note)), 0);
  return Array.from({ length: Math.ceil(end / BAR) }, (_, i) => ({ from: i * BAR, to: (i + 1) * BAR }));
}

/** The window of a change, in ticks. */
export function windowOf({ start, beats }: Pick<Change, 'start' | 'beats'>): Window {
  return { from: ticksOf(start), to: ticksOf(start + beats) };
}

/** A window with the change it is to be held against. */
export interface Asked extends Window {
  readonly change?: Pick<Change, 'index' | 'chord'>;
}

/** Every change of a chart is a window. */
export function askedOf(changes: readonly Change[]): Asked[] {
  return changes.map((change) => ({ ...windowOf(change), change }));
}

/** What is heard in each window, held against what is asked. Notes are in the order of a line. */
export function outlineLine(notes: readonly LineNote[], asked: readonly Asked[]): Outline {
  const listening = listenTo(notes, asked);
  const windows = asked.map(({ from, to, change }, i): OutlinedWindow => {
    const chord = change?.chord;
    const own = heardIn(listening, i);
    return {
      from,
      to,
      heard: own.inSequence,
      ...(change ? { change: change.index } : {}),
      ...(chord ? { verdict: verdictOn(chord, own) } : own.shown === 0 ? { verdict: 'silence' as const } : {})
    };
  });
  const judged = windows.flatMap(({ change, verdict }) =>
    change !== undefined && verdict && verdict !== 'silence' ? [verdict] : []
  );
  const points = judged.reduce((sum, verdict) => sum + POINTS[verdict], 0);
  return { listening, windows, share: judged.length === 0 ? null : points / judged.length };
}

const POINTS: Readonly<Record<Verdict, number>> = { clear: 1, partly: 0.5, not: 0, silence: 0 };

function verdictOn(chord: Chord, heard: HeardWindow): Verdict {
  if (heard.shown === 0) return 'silence';
  const wanted = wantedSounds(chord);
  // By itself or among its neighbours: what is heard either way is heard.
  const readings = [heard.inSequence, heard.alone];
  if (readings.some((reading) => isClear(reading, wanted))) return 'clear';
  const isPart = readings.some(
    (reading) =>
      reading.slice(0, AMONG).some(({ pitchSet }) => wanted.has(pitchSet)) ||
      isPartOf(chord, firstOf(reading), heard.shown)
  );
  return isPart ? 'partly' : 'not';
}

function isClear([first, second]: readonly HeardChord[], wanted: ReadonlySet<number>): boolean {
  return (
    first !== undefined && wanted.has(first.pitchSet) && (!second || first.share >= TWICE * second.share)
  );
}

const setOf = (root: number, tones: readonly Degree[]) =>
  tones.reduce((set, tone) => set | (1 << ((root + DEGREES[tone].semitones) % 12)), 0);
const slotted = (tones: readonly Degree[], slot: string) =>
  tones.filter((tone) => DEGREES[tone].slot === slot);

/** The sounds that a chart's chord stands for, its extensions left off. */
export function wantedSounds({ rootPc, tones }: Chord): ReadonlySet<number> {
  const core = coreOf(tones);
  const sets = core.map((one) => setOf(rootPc, one));
  const known = sets.filter(isKnownSound);
  if (known.length > 0) return new Set(known);
  // A chord the listener has no name for is asked for by its triad, then by a plain fifth.
  const simpler = core.flatMap((one) => [
    one.slice(0, 3),
    one.map((tone) => (DEGREES[tone].slot === '5' ? '5' : tone))
  ]);
  return new Set(simpler.map((one) => setOf(rootPc, one)).filter(isKnownSound));
}

/** Root, third or what suspends it, fifth and seventh or sixth; more than one form where the symbol leaves it open. */
function coreOf(tones: readonly Degree[]): Degree[][] {
  const [third] = slotted(tones, '3');
  const suspended = tones.find((tone) => tone === '11') ?? tones.find((tone) => tone === '9');
  const sixth = tones.find((tone) => tone === '6');
  const seventh = slotted(tones, '7')[0] ?? sixth;
  const above = seventh ? [seventh] : [];
  const fifths = slotted(tones, '5');
  const middle = third ?? suspended;
  if (!middle)
    return [
      ['1', '3', '5', ...above],
      ['1', 'b3', '5', ...above]
    ];
  // Altered: whichever fifth.
  const isAltered = third === '3' && seventh === 'b7' && isAnyFifth(tones);
  const written: Degree[] = isAltered ? ['5', 'b5', '#5'] : [fifths[0] ?? '5'];
  return written.map((fifth) => ['1', middle, fifth, ...above]);
}

/** 7alt, however its tones are written out: a fifth lowered and raised, or a ♭13 beside it. */
function isAnyFifth(tones: readonly Degree[]): boolean {
  const has = (...some: Degree[]) => some.some((tone) => tones.includes(tone));
  return !has('5') && has('b5', '#11') && has('#5', 'b13');
}

/** Rootless: third, fifth and seventh, with either ninth or none. Or the triad, where the seventh is never shown. */
function isPartOf(chord: Chord, first: HeardChord, shown: number): boolean {
  const { rootPc } = chord;
  return coreOf(chord.tones).some((core) => {
    const [, third, fifth, seventh] = core as [Degree, Degree, Degree, Degree?];
    if (!seventh) return false;
    if (first.pitchSet === setOf(rootPc, [firstOf(core), third, fifth]))
      return (shown & setOf(rootPc, [seventh])) === 0;
    const upper: readonly Degree[] = [third, fifth, seventh];
    const forms: Degree[][] = [
      [...upper],
      [...upper, '9'],
      ...(third === '3' && seventh === 'b7' ? [[...upper, 'b9' as const]] : [])
    ];
    return forms.some((form) => first.pitchSet === setOf(rootPc, form));
  });
}

/** One note of a line to another pitch. */
export interface NoteChange {
  /** Its place in the line. */
  readonly note: number;
  /** Of its start, in ticks. */
  readonly start: number;
  /** MIDI numbers. */
  readonly from: number;
  readonly to: number;
}

export interface Mend {
  readonly changes: readonly NoteChange[];
  /** What the chord is heard as then; `more`: more than before. */
  readonly reaches: 'clear' | 'partly' | 'more';
  readonly why: string;
}

/** The line with some of its notes at other pitches; where they lie on the neck is to be found anew. */
export function withChanges(notes: readonly LineNote[], changes: readonly NoteChange[]): LineNote[] {
  const to = new Map(changes.map((change) => [change.note, change.to]));
  return notes.map((note, i) => {
    const midi = to.get(i);
    if (midi === undefined) return note;
    const { place: _, bend: _bend, release: _release, ...rest } = note;
    return { ...rest, midi };
  });
}

/** Notes of a window from which on two of them are sought only among the longest. */
const MOST_PAIRED = 12;

/**
 * The smallest change that makes a window clear: of one note to a neighbouring tone of its chord, else of two, else the one that
 * raises its share most; null where none does. `asked[at]` has a chord, `listening` is that of the line as it is.
 */
export function mendOf(
  notes: readonly LineNote[],
  asked: readonly Asked[],
  at: number,
  listening: Listening = listenTo(notes, asked)
): Mend | null {
  const chord = asked[at]?.change?.chord;
  if (!chord) return null;
  const wanted = wantedSounds(chord);
  const judge = (heard: HeardWindow) => ({ verdict: verdictOn(chord, heard), share: heard.shareOf(wanted) });
  const before = judge(heardIn(listening, at));
  if (before.verdict === 'clear' || before.verdict === 'silence') return null;
  const singles = changesIn(notes, asked, at, chord);
  // Only what is near can tell in that window: the rest of the line need not be gone through again and again.
  const [from, to] = nearby(notes, asked, at);
  const near = notes.slice(from, to);
  const tryOut = (changes: readonly NoteChange[]) => {
    const here = changes.map((change) => ({ ...change, note: change.note - from }));
    return {
      changes,
      ...judge(heardAgain(listening, withChanges(near, here), new Set(here.map(({ note }) => note)), at))
    };
  };
  const tried = singles.map((change) => tryOut([change]));
  const best =
    tried.filter(isMended).sort(bySize)[0] ??
    pairsOf(heaviest(singles, notes)).map(tryOut).filter(isMended).sort(bySize)[0] ??
    tried
      // Likelier, but never told less clearly than it is.
      .filter(
        ({ share, verdict }) =>
          share > before.share + LIKELIER && !(before.verdict === 'partly' && verdict === 'not')
      )
      .sort((a, b) => b.share - a.share)[0];
  if (!best) return null;
  const isRisen = best.verdict === 'partly' && before.verdict === 'not';
  const reaches = best.verdict === 'clear' ? 'clear' : isRisen ? 'partly' : 'more';
  return { changes: best.changes, reaches, why: whyMended(chord, best.changes, reaches) };
}

/** The notes round a window, by their places in the line: those of it and of the sounding windows beside it, and a few that follow. */
function nearby(notes: readonly LineNote[], windows: readonly Window[], at: number): [number, number] {
  const counted = countedIn(notes, windows);
  const sounds = (own: readonly number[]) => own.length > 0;
  const before = counted.slice(0, at).findLast(sounds);
  const after = counted.slice(at + 1).find(sounds);
  const all = [before, counted[at], after].flatMap((own) => own ?? []);
  return [Math.min(...all), Math.max(...all) + FOLLOWING];
}

/** Notes after a window whose steps tell how its last one was left. */
const FOLLOWING = 5;

/** A share that rises by less has not risen. */
const LIKELIER = 1e-6;

function pairsOf(changes: readonly NoteChange[]): NoteChange[][] {
  return changes.flatMap((a, i) => changes.slice(i + 1).flatMap((b) => (a.note === b.note ? [] : [[a, b]])));
}

const isMended = ({ verdict }: { readonly verdict: Verdict }) => verdict === 'clear';
const sizeOf = (changes: readonly NoteChange[]) =>
  changes.reduce((sum, { from, to }) => sum + Math.abs(to - from), 0);
const bySize = (
  a: { readonly changes: readonly NoteChange[]; readonly share: number },
  b: { readonly changes: readonly NoteChange[]; readonly share: number }
) => sizeOf(a.changes) - sizeOf(b.changes) || b.share - a.share;

/** Every change of a note in a window to the chord tone next above or below it. Notes that are tied stay. */
function changesIn(
  notes: readonly LineNote[],
  windows: readonly Window[],
  at: number,
  chord: Chord
): NoteChange[] {
  return nth(countedIn(notes, windows), at).flatMap((i): NoteChange[] => {
    const note = nth(notes, i);
    if (note.tie || notes[i + 1]?.tie) return [];
    return ([1, -1] as const).flatMap((way) => {
      const steps = Array.from({ length: 11 }, (_, n) => note.midi + way * (n + 1));
      const to = steps.find((midi) => chord.pitchClasses.includes((midi + 120) % 12));
      return to === undefined ? [] : [{ note: i, start: note.start, from: note.midi, to }];
    });
  });
}

function heaviest(changes: readonly NoteChange[], notes: readonly LineNote[]): NoteChange[] {
  const places = [...new Set(changes.map(({ note }) => note))];
  const longest = new Set(
    places.sort((a, b) => nth(notes, b).length - nth(notes, a).length || a - b).slice(0, MOST_PAIRED)
  );
  return changes.filter(({ note }) => longest.has(note));
}

const TONE_NAMES: Readonly<Record<string, string>> = {
  '1': 'root',
  '3': 'third',
  '5': 'fifth',
  '7': 'seventh'
};

function whyMended(chord: Chord, changes: readonly NoteChange[], reaches: Mend['reaches']): string {
  const tones = changes.map(({ to }) => {
    const tone = nth(chord.tones, chord.pitchClasses.indexOf(to % 12));
    return `the ${TONE_NAMES[DEGREES[tone].slot] ?? prettyDegree(tone)} of ${prettySymbol(chord.symbol)}`;
  });
  const shown = [...new Set(tones)].join(' and ');
  const Shown = shown.charAt(0).toUpperCase() + shown.slice(1);
  if (reaches === 'clear') return `${Shown} then says which chord it is.`;
  return reaches === 'partly' ? `${Shown} then tells part of it.` : `${Shown} then makes it likelier.`;
}
