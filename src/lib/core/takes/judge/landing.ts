/** How a change was landed on: the note it began with, against the one that was meant. Source: docs/music-rules.md, Judging a take. */
import type { Beats, Midi } from '../../base/units';
import type { AnalysedChange } from '../../harmony/analysis';
import { degreeOf, type Degree } from '../../theory/degree';
import { semitonesUp } from '../../theory/note';
import type { BeatNote } from '../align';
import { THRESHOLDS } from './thresholds';

/** How a landing met its target. */
export const MEETINGS = ['hit', 'late', 'early', 'chord tone', 'outside', 'silent'] as const;
export type Meeting = (typeof MEETINGS)[number];

export interface MetTarget {
  /** MIDI number. */
  readonly wanted: number;
  readonly met: Meeting;
  /** Beats after the time that was meant; negative before it. Null where nothing was played there. */
  readonly late: number | null;
  /** Octaves above the one that was meant, where the target itself was played. */
  readonly octave?: number;
}

/** The note that a change was landed on, whatever was meant. */
export interface Landing {
  readonly midi: Midi;
  readonly degree: Degree;
  /** Beats after the change. */
  readonly late: number;
}

/** A change in its place in a take, in beats. */
export interface Place {
  readonly start: number;
  readonly end: number;
  readonly chord: NonNullable<AnalysedChange['chord']>;
}

const { onTime, early, late, held, landing } = THRESHOLDS;
/** When a played note ends, in beats. */
export const endOf = ({ at, beats }: BeatNote) => at + beats;

/** It sounds in a change by more than it takes to leave it. */
export function isWithin(note: BeatNote, { start, end }: Place): boolean {
  return note.at < end - onTime && endOf(note) > start + held;
}

/** Whether a note is held over the start of a change. */
const isHeldOver = (note: BeatNote, { start }: Place) =>
  note.at < start - onTime && endOf(note) >= start + held;

/** The notes that may be what a change is landed on: those that begin at it, in the order of time, else one that is held over it. */
function landingsIn(played: readonly BeatNote[], place: Place): BeatNote[] {
  const { start, end } = place;
  const until = Math.min(end - onTime, start + landing);
  const begun = played.filter(({ at }) => at >= start - onTime && at < Math.max(until, start + onTime));
  const isCovered = begun.some(({ at }) => at <= start + onTime);
  const over = played.filter((note) => isHeldOver(note, place));
  return isCovered ? begun : [...over, ...begun];
}

/** The note on which a change is met, and how late, in beats; null where nothing is struck or sounds. */
export function landingIn(played: readonly BeatNote[], place: Place): Landing | null {
  const [note] = landingsIn(played, place);
  if (!note) return null;
  const { rootPc, tones } = place.chord;
  return {
    midi: note.midi,
    degree: degreeOf(semitonesUp(rootPc, note.midi % 12), tones),
    late: rounded(note.at - place.start)
  };
}

/** Times are told to a hundredth of a beat. */
export const rounded = (beats: Beats) => Math.round(beats * 100) / 100;

/** How what was played met the target of a change. `lateFrom`: beats from which on a landing is late. */
export function meet(
  wanted: number,
  played: readonly BeatNote[],
  place: Place,
  lateFrom: number = onTime
): MetTarget {
  const { start, end, chord } = place;
  const isTarget = ({ midi }: BeatNote) => midi % 12 === wanted % 12;
  const told = (met: Meeting, note: BeatNote): MetTarget => ({
    wanted,
    met,
    late: rounded(note.at - start),
    ...(isTarget(note) ? { octave: Math.round((note.midi - wanted) / 12) } : {})
  });
  const from = (first: number, last: number) =>
    played.filter((note) => isTarget(note) && note.at >= first && note.at <= last);
  const [onIt] = from(start - onTime, start + lateFrom).sort(
    (a, b) => Math.abs(a.at - start) - Math.abs(b.at - start)
  );
  if (onIt) return told('hit', onIt);
  const [note] = landingsIn(played, place);
  if (note && isTarget(note) && isHeldOver(note, place)) return told('hit', note);
  const [after] = from(start + lateFrom, Math.min(start + late, end - onTime));
  if (after) return told('late', after);
  const before = from(start - early - onTime, start - onTime).at(-1);
  if (before) return told('early', before);
  if (!note) return { wanted, met: 'silent', late: null };
  return told(chord.pitchClasses.includes(note.midi % 12) ? 'chord tone' : 'outside', note);
}

/**
 * How a change is met as far as it can be told while it is played: a hit at once, all else once nothing can mend it any more. Null until then.
 * @param wanted MIDI number; null where no target is meant, and any tone of the chord is landed on
 * @param now beats, as the place is
 */
export function metSoFar(
  wanted: number | null,
  played: readonly BeatNote[],
  place: Place,
  now: number
): Meeting | null {
  if (now < place.start - onTime) return null;
  const met = wanted === null ? landedOn(played, place) : meet(wanted, played, place).met;
  const settles = Math.min(place.end - onTime, place.start + (wanted === null ? landing : late));
  return met === 'hit' || now >= settles ? met : null;
}

/** The same where no target is meant: the first note tells. */
function landedOn(played: readonly BeatNote[], place: Place): Meeting {
  const [note] = landingsIn(played, place);
  if (!note) return 'silent';
  return place.chord.pitchClasses.includes(note.midi % 12) ? 'hit' : 'outside';
}
