/**
 * Where a lick fits: every place of a chart whose chords are of the same families in the same motion and as long, twice as long or half
 * as long. Source: docs/music-rules.md, Where a lick fits.
 */
import { chordOf, hasChord } from '../chart/unroll';
import { firstOf, lastOf, nth, sure } from '../base/list';
import type { Beats, Midi, PitchClass } from '../base/units';
import type { AnalysedChange, Analysis } from '../harmony/analysis';
import { isMinorKey, type Key } from '../harmony/key';
import { romanText } from '../harmony/numeral';
import type { Target } from '../targets/path';
import type { Chord } from '../theory/chord';
import type { Degree } from '../theory/degree';
import { pitchClass, semitonesUp } from '../theory/note';
import { prettyDegree, prettyNumeral, prettySymbol } from '../theory/typeset';
import { counted } from '../theory/words';
import { endOf, ordered, ticksOf, type LineNote } from './model';
import { atPitch, nearestShift } from './move';
import { askedOf, outlineLine } from './outline';
import { readLine, restIn, type Ground, type LineReading } from './read';

export interface Lick {
  readonly over: readonly { readonly chord: Chord; readonly beats: Beats }[];
  /** In time from its first chord; what leads into it has times below 0. */
  readonly notes: readonly LineNote[];
  /** The key that it is kept by: it stays as it is over all chords of one. Kept by its chords where there is none. */
  readonly inKey?: Key | null | undefined;
}

/** A place where a lick fits. */
export interface LickPlace {
  /** The change it begins at, and the last one it reaches. */
  readonly change: number;
  readonly last: number;
  /** By how much it is lengthened: 1, 2 or ½. */
  readonly stretch: number;
  /** Semitones, the short way. */
  readonly transpose: number;
}

/** Longer by so much: as it is first. */
const STRETCHES = [1, 2, 0.5];

type Sounding = AnalysedChange & { readonly chord: Chord };

const isAlike = (a: Chord, b: Chord) => a.rootPc === b.rootPc && a.family === b.family;

/** Every place in a form where a lick fits. */
export function lickPlaces(
  lick: Lick,
  { changes, bluesLanguage }: Pick<Analysis, 'changes' | 'bluesLanguage'>
): LickPlace[] {
  const { over, inKey } = lick;
  const [first] = over;
  if (!first) return [];
  if (inKey) return placesInKey(lick, inKey, changes, bluesLanguage !== null);
  return changes.flatMap((change, at) =>
    STRETCHES.flatMap((stretch): LickPlace[] => {
      const last = reaches(over, changes, at, stretch);
      if (last === null || !change.chord) return [];
      return [
        { change: at, last, stretch, transpose: nearestShift(first.chord.rootPc, change.chord.rootPc) }
      ];
    })
  );
}

/** So much of a lick, by the time it sounds, may deny the chords of a place. */
const DENIED = 0.15;

/** Where a lick that is kept by its key fits: over every stretch of a key of its kind, unmoved but for the key, that it does not deny. */
function placesInKey(
  { over, notes }: Lick,
  key: Key,
  changes: readonly AnalysedChange[],
  isBlues: boolean
): LickPlace[] {
  const beats = over.reduce((sum, one) => sum + one.beats, 0);
  return changes.flatMap((change, at): LickPlace[] => {
    // Where the blues is spoken, its minor licks are at home in major too.
    const isOfKind = isMinorKey(change.key) === isMinorKey(key) || (isBlues && isMinorKey(key));
    if (!change.chord || !isOfKind) return [];
    const end = change.start + beats;
    const last = changes.findLastIndex(({ start }) => start < end);
    const covered = changes.slice(at, last + 1).filter(hasChord);
    const isHome =
      covered.length === last + 1 - at &&
      covered.every((one) => pitchClass(one.key.tonic) === pitchClass(change.key.tonic));
    if (!isHome || lastOf(covered).start + lastOf(covered).beats < end) return [];
    const transpose = nearestShift(pitchClass(key.tonic), pitchClass(change.key.tonic));
    const from = ticksOf(change.start);
    const denied = notes.filter(({ start, length, midi }) => {
      const heard =
        covered.findLast((one) => ticksOf(one.start) - from <= start + length / 2) ?? firstOf(covered);
      return denies(heard.chord, (midi + transpose + OCTAVE * 10) % OCTAVE);
    });
    const time = (some: readonly LineNote[]) => some.reduce((sum, { length }) => sum + length, 0);
    if (time(denied) > DENIED * time(notes)) return [];
    return [{ change: at, last, stretch: 1, transpose }];
  });
}

const OCTAVE = 12;

/** A note that denies what a chord says: the major third over a minor one, the major seventh over a dominant, a semitone over the root. */
function denies({ rootPc, tones }: Chord, pc: PitchClass): boolean {
  const above = semitonesUp(rootPc, pc);
  if (above === 4) return tones.includes('b3') && !tones.includes('3');
  if (above === 11) return tones.includes('b7');
  return above === 1 && !tones.includes('b9');
}

/** The last change that a lick begun at one covers; null where the chords are others, or of other lengths. */
function reaches(
  over: Lick['over'],
  changes: readonly AnalysedChange[],
  begin: number,
  stretch: number
): number | null {
  const root = changes[begin]?.chord?.rootPc;
  let at = begin;
  for (const [k, { chord, beats }] of over.entries()) {
    const wanted = beats * stretch;
    const here = changes[at]?.chord;
    const up = semitonesUp(firstOf(over).chord.rootPc, chord.rootPc);
    if (!here || root === undefined || here.family !== chord.family) return null;
    if (semitonesUp(root, here.rootPc) !== up) return null;
    let length = 0;
    // One chord of the lick may be written as several changes alike.
    while (length < wanted && changes[at]?.chord && isAlike(chordOf(nth(changes, at)), here))
      length += nth(changes, at++).beats;
    const isLast = k === over.length - 1;
    // The last chord may last longer than the lick needs it.
    if (isLast ? length < wanted : length !== wanted) return null;
  }
  return at - 1;
}

/** The notes of a lick where it fits: in time and in pitch. */
export function lickAt(
  { notes }: Lick,
  { change, stretch, transpose }: LickPlace,
  analysis: Analysis
): LineNote[] {
  const from = ticksOf(nth(analysis.changes, change).start);
  return notes.map((note) => ({
    ...atPitch(note, note.midi + transpose, from + Math.round(note.start * stretch)),
    length: Math.max(1, Math.round(note.length * stretch)),
    ...(note.place ? { place: note.place } : {})
  }));
}

/** How the last chord that a lick comes to is landed on. */
export interface LickLanding {
  readonly change: number;
  readonly degree: Degree | null;
  readonly midi: Midi | null;
  /** Against the target line there. */
  readonly meets: 'target' | 'octave' | 'degree' | 'other' | 'nothing';
}

export interface LickFit extends LickPlace {
  readonly notes: readonly LineNote[];
  readonly landing: LickLanding;
  /** Share of its chords that the lick alone tells. */
  readonly outline: number;
  /** Semitones from the note before it and to the one after, where a line is there already. */
  readonly from?: number;
  readonly to?: number;
  readonly why: string;
}

/** A lick on the neck, in the octave that it has there. */
interface Laid {
  readonly notes: readonly LineNote[];
  readonly octave: number;
}

const MEETS = { target: 0, octave: 1, degree: 2, other: 3, nothing: 4 } as const;

/**
 * Every fit of a lick over a chart, the best first: what it tells, what it lands on, how far it is moved. `line` is what is there already;
 * `lay` brings notes onto the neck.
 */
export function lickFits(
  lick: Lick,
  ground: Ground,
  targets: readonly Target[],
  line: readonly LineNote[],
  lay: (notes: readonly LineNote[]) => Laid
): LickFit[] {
  return lickPlaces(lick, ground.analysis)
    .map((place) => lickFit(lick, place, ground, targets, line, lay))
    .sort(
      (a, b) =>
        b.outline - a.outline ||
        MEETS[a.landing.meets] - MEETS[b.landing.meets] ||
        Math.abs(Math.log2(a.stretch)) - Math.abs(Math.log2(b.stretch)) ||
        Math.abs(a.transpose) - Math.abs(b.transpose) ||
        a.change - b.change
    );
}

/** How a lick fits at a place: what it tells, what it lands on, how far it is moved. Far dearer than to find the place. */
export function lickFit(
  lick: Lick,
  found: LickPlace,
  ground: Ground,
  targets: readonly Target[],
  line: readonly LineNote[],
  lay: (notes: readonly LineNote[]) => Laid
): LickFit {
  const { analysis } = ground;
  const { notes, octave } = lay(ordered(lickAt(lick, found, analysis)));
  const place = { ...found, transpose: found.transpose + OCTAVE * octave };
  const covered = analysis.changes.slice(place.change, place.last + 1);
  const outline = outlineLine(notes, askedOf(covered)).share ?? 0;
  const landing = landingOf(notes, place, ground, targets);
  return {
    ...place,
    notes,
    landing,
    outline,
    ...seams(notes, line),
    why: whyHere(place, covered, landing, outline)
  };
}

/** The landing on its last chord; of a lick over one chord on the change that follows, where it reaches it, else on its own. */
function landingOf(
  notes: readonly LineNote[],
  { change, last }: LickPlace,
  ground: Ground,
  targets: readonly Target[]
): LickLanding {
  const reading = readLine({ meter: { beats: 4, unit: 4 }, notes }, ground);
  const changes = ground.analysis.changes;
  const isNew = (index: number) =>
    index > 0 &&
    !(
      changes[index - 1]?.chord &&
      changes[index]?.chord &&
      isAlike(chordOf(nth(changes, index - 1)), chordOf(nth(changes, index)))
    );
  const reached = reading.landings.filter(
    ({ change: at, note }) => at >= change && at <= last + 1 && note !== undefined
  );
  const own = reached.findLast(({ change: at }) => at > change && isNew(at));
  if (!own) return restOf(notes, reading, change, targets);
  const midi = nth(notes, sure(own.note, 'the note of a landing')).midi;
  const target = targets.find((one) => one.change === own.change && one.beat === 1);
  return { change: own.change, degree: own.degree ?? null, midi, meets: meeting(midi, own.degree, target) };
}

/** Over one chord a lick comes to rest on its last note, not on its first. */
function restOf(
  notes: readonly LineNote[],
  reading: LineReading,
  change: number,
  targets: readonly Target[]
): LickLanding {
  const last = restIn(reading, notes);
  if (!last) return { change, degree: null, midi: null, meets: 'nothing' };
  const { midi } = nth(notes, last.index);
  const target = targets.find((one) => one.change === last.change && one.beat === 1);
  return {
    change: last.change,
    degree: last.degree,
    midi,
    meets: meeting(midi, last.degree ?? undefined, target)
  };
}

function meeting(midi: Midi, degree: Degree | undefined, target: Target | undefined): LickLanding['meets'] {
  if (!target) return 'other';
  if (midi === target.cell.midi) return 'target';
  if (midi % 12 === target.cell.midi % 12) return 'octave';
  return degree === target.cell.degree ? 'degree' : 'other';
}

function seams(notes: readonly LineNote[], line: readonly LineNote[]): Pick<LickFit, 'from' | 'to'> {
  const [first, last] = [notes[0], notes.at(-1)];
  const before = first && line.findLast((note) => note.start < first.start);
  const after = last && line.find((note) => note.start >= endOf(last));
  return {
    ...(before ? { from: first.midi - before.midi } : {}),
    ...(after ? { to: after.midi - last.midi } : {})
  };
}

function whyHere(
  { stretch, transpose }: LickPlace,
  covered: readonly AnalysedChange[],
  { degree, meets, change }: LickLanding,
  outline: number
): string {
  const sounding = covered.filter((one): one is Sounding => one.chord !== null);
  const romans = sounding
    .filter((one, i) => i === 0 || !isAlike(nth(sounding, i - 1).chord, one.chord))
    .map(({ numeral, symbol }) => (numeral ? prettyNumeral(romanText(numeral)) : prettySymbol(symbol)));
  const moved =
    transpose === 0
      ? 'as it is'
      : `${counted(Math.abs(transpose), 'semitone')} ${transpose > 0 ? 'up' : 'down'}`;
  const longer = stretch === 1 ? '' : stretch > 1 ? ', twice as long' : ', in half the time';
  const landed =
    degree === null
      ? 'it lands on nothing'
      : `it lands on the ${prettyDegree(degree)}${meets === 'target' ? ', the target' : meets === 'octave' ? ', the target in another octave' : ''}`;
  const at = covered.find(({ index }) => index === change)?.symbol;
  const told = `${Math.round(100 * outline)} % of its chords are told`;
  return `${romans.join('–')}, ${moved}${longer}: ${landed}${at && degree !== null ? ` of ${prettySymbol(at)}` : ''}; ${told}.`;
}
