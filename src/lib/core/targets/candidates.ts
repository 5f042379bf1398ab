/** Where each targeted change can be landed on. */
import { entryOf } from '../base/list';
import type { Fret, StringNumber } from '../base/units';
import { type Chord } from '../theory/chord';
import { DEGREES, type Degree, type Slot } from '../theory/degree';
import { pitchClass, type NoteName, type PitchClass } from '../theory/note';
import type { AnalysedChange, Analysis } from '../harmony/analysis';
import { positionFill } from '../neck/position';
import { nameOf, namingOf } from '../neck/shape';
import { soundAt, spots, type Spot } from '../neck/tuning';
import type { DegreeWish, Register, TargetOptions } from './options';

export interface Candidate extends Spot {
  readonly degree: Degree;
  readonly note: NoteName;
  readonly slot: Slot;
}

/** A targeted moment and its candidates. */
export interface Stage {
  readonly change: AnalysedChange & { readonly chord: Chord };
  /** Beat within the change; 1 is its start. */
  readonly beat: number;
  readonly candidates: readonly Candidate[];
  readonly isFixed: boolean;
}

const SLOTS = ['1', '3', '5', '7'] as const;

/** The wishes in force: a column and an alternation have their own. */
export function wishes(options: TargetOptions): readonly DegreeWish[] {
  if (options.column) return [options.column];
  return options.alternate ? ['3', '7'] : options.degrees;
}

/** A degree that may be landed on, and the slot whose weight it has. */
export interface AllowedDegree {
  readonly degree: Degree;
  readonly slot: Slot;
}

/**
 * The degrees of a chord that the wishes allow; tensions are named outright and stand on any chord. With stand-ins
 * the 6 of a sixth chord takes the place of its missing seventh where nothing else is wished there, and a chord with
 * none of the wished degrees is landed on its root or fifth.
 */
export function allowedDegrees(
  chord: Chord,
  wanted: readonly DegreeWish[],
  { standIn, alternate }: Pick<TargetOptions, 'standIn' | 'alternate'>
): AllowedDegree[] {
  const own = (slots: readonly string[]) =>
    chord.tones.filter((tone) => slots.includes(DEGREES[tone].slot)).map(withSlot);
  const slots = wanted.filter((wish) => (SLOTS as readonly string[]).includes(wish));
  const named = wanted.filter((wish) => !slots.includes(wish)) as Degree[];
  const allowed = [...own(slots), ...named.map(withSlot)];
  const lacksSeventh = alternate || allowed.length === 0;
  if (standIn && lacksSeventh && slots.includes('7') && chord.tones.includes('6')) {
    allowed.push({ degree: '6', slot: '7' });
  }
  return allowed.length === 0 && standIn ? own(['1', '5']) : allowed;
}

function withSlot(degree: Degree): AllowedDegree {
  return { degree, slot: DEGREES[degree].slot };
}

/** The changes that get a target. Repeats of the same chord inside a bar count like any other change. */
export function targetedChanges(analysis: Analysis, { which, fixed }: TargetOptions): Stage['change'][] {
  const pinned = new Set(fixed.map((f) => f.change));
  const inCadence = new Set(analysis.cadences.flatMap(({ from, to }) => range(from, to)));
  const barsSeen = new Set<number>();
  const isWanted = (change: AnalysedChange): boolean => {
    if (which === 'all') return true;
    if (which === 'cadences') return inCadence.has(change.index);
    if (typeof which === 'object' && 'only' in which) return which.only.includes(change.index);
    if (which === 'first-of-bar') {
      if (barsSeen.has(change.bar)) return false;
      barsSeen.add(change.bar);
      return true;
    }
    return change.beats > which.longerThan;
  };
  return analysis.changes.filter(
    (change): change is Stage['change'] =>
      change.chord !== null && (isWanted(change) || pinned.has(change.index))
  );
}

function range(from: number, to: number): number[] {
  return Array.from({ length: to - from + 1 }, (_, i) => from + i);
}

/** The position of the hand at a change; null where it is free. */
export function positionAt({ position }: Pick<TargetOptions, 'position'>, change: number): number | null {
  return typeof position === 'number' || position === null ? position : (position[change] ?? null);
}

/** The places inside the player's limits that sound one of the pitch classes. */
function reachable(options: TargetOptions, wanted: ReadonlySet<PitchClass>, position: number | null): Spot[] {
  const { neck, window, strings, range: register, avoid } = options;
  const found: readonly Spot[] =
    position !== null
      ? positionFill(neck, wanted, position)
      : spots(neck, window?.from ?? 0, window?.to ?? neck.frets).filter((spot) => wanted.has(spot.midi % 12));
  return found.filter(
    (spot) =>
      (!window || (spot.fret >= window.from && spot.fret <= window.to)) &&
      (!strings || strings.includes(spot.string)) &&
      (!register || isIn(register, spot)) &&
      !avoid.some((avoided) => isIn(avoided, spot))
  );
}

function isIn({ low, high }: Register, { midi }: Spot): boolean {
  return midi >= low && midi <= high;
}

/** The beats of a change that get a target: its start, and every so many beats on. */
function beatsOf(change: AnalysedChange, every: number | null): number[] {
  if (every === null) return [1];
  return Array.from({ length: Math.max(1, Math.ceil(change.beats / every)) }, (_, i) => 1 + i * every);
}

/** The stages of a path: each targeted change with every place it can be landed on, lowest pitch first. */
export function stagesOf(analysis: Analysis, options: TargetOptions): Stage[] {
  const fixed = new Map(options.fixed.map((pin) => [momentKey(pin.change, pin.beat), pin]));
  const byChord = new Map<string, Candidate[]>();
  const candidatesOf = ({ chord, index }: Stage['change']): Candidate[] => {
    const position = positionAt(options, index);
    const key = `${position} ${chord.symbol}`;
    const known = byChord.get(key);
    if (known) return known;
    const root = pitchClass(chord.root);
    const allowed = allowedDegrees(chord, wishes(options), options);
    const byPitch = new Map(allowed.map((one) => [(root + DEGREES[one.degree].semitones) % 12, one]));
    const naming = namingOf(chord, null);
    const candidates = reachable(options, new Set(byPitch.keys()), position)
      .map((spot): Candidate => {
        const { degree, slot } = entryOf(byPitch, spot.midi % 12);
        const { note } = nameOf(spot.midi % 12, naming);
        return { string: spot.string, fret: spot.fret, midi: spot.midi, degree, note, slot };
      })
      .sort((a, b) => a.midi - b.midi || a.string - b.string);
    byChord.set(key, candidates);
    return candidates;
  };
  return targetedChanges(analysis, options).flatMap((change) =>
    beatsOf(change, options.every).map((beat): Stage => {
      const pin = fixed.get(momentKey(change.index, beat));
      return pin
        ? { change, beat, candidates: [pinned(change.chord, pin.string, pin.fret, options)], isFixed: true }
        : { change, beat, candidates: candidatesOf(change), isFixed: false };
    })
  );
}

function momentKey(change: number, beat = 1): string {
  return `${change}:${beat}`;
}

/** A fixed target is honoured wherever it lies, even outside the limits or the chord. */
function pinned(chord: Chord, string: StringNumber, fret: Fret, { neck }: TargetOptions): Candidate {
  const midi = soundAt(neck, string, fret);
  const { degree, note } = nameOf(midi % 12, namingOf(chord, null));
  const isChordTone = chord.pitchClasses.includes(midi % 12);
  return { string, fret, midi, degree, note, slot: isChordTone ? DEGREES[degree].slot : 'tension' };
}
