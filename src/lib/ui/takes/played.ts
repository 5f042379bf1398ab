/** What of a take is drawn in one time through the form: the player's notes, and Corvel's where bars were traded. */
import type { TakeData } from '$lib/api/take';
import type { Form } from '$lib/core/chart/unroll';
import type { AnalysedChange } from '$lib/core/harmony/analysis';
import { beatsOf } from '$lib/core/line/model';
import { beatOf } from '$lib/core/takes/align';
import { isUncertain } from '$lib/core/takes/correct';
import { STEP_SECONDS } from '$lib/core/takes/model';
import { turnsIn } from '$lib/core/takes/trade';
import { eventWords, EVENT_SIGNS } from './words';

/** A note of the take; times in beats of the form. */
export interface Played {
  readonly at: number;
  readonly beats: number;
  readonly midi: number;
  /** Cents above or below the note, step by step; null where it is not known. */
  readonly curve: readonly (number | null)[];
  /** The change that sounds with it. */
  readonly change: number;
  /** Its place among the notes of the take. */
  readonly index: number;
  readonly isUncertain: boolean;
  /** Loudness from 0 to 1; absent where it is not known. */
  readonly level: number | undefined;
  /** What the hand did to its pitch: in a few words, and as signs. */
  readonly words: string;
  readonly signs: string;
}

/** So long before the form begins a note is a pickup into this round, and so near its end one belongs to the next; in beats. */
const PICKUP = 0.7;
const NEXT = 0.1;
/** A note this little ahead of a change is heard with it, in beats. */
const AHEAD = 0.2;

/** The notes that were played in a round, counted from 0; `beats` is the length of the form. */
export function playedIn(
  data: TakeData,
  round: number,
  beats: number,
  changes: readonly AnalysedChange[]
): Played[] {
  return data.notes.flatMap((note, index): Played[] => {
    const at = beatOf(data, note.at) - round * beats;
    if (at < -PICKUP || at >= beats - NEXT) return [];
    return [
      {
        at,
        beats: (note.seconds * data.tempo) / 60,
        midi: note.midi,
        curve: note.curve,
        change: Math.max(
          0,
          changes.findLastIndex(({ start }) => start <= at + AHEAD)
        ),
        index,
        isUncertain: isUncertain(note),
        level: note.level,
        words: note.events.map(eventWords).join(', '),
        signs: note.events.map(({ kind }) => EVENT_SIGNS[kind]).join('')
      }
    ];
  });
}

/** What Corvel played in a round of traded bars, in beats of the form. */
export const callIn = (data: TakeData, round: number, beats: number) =>
  (data.trade?.call ?? []).flatMap(({ start, length, midi }) => {
    const at = beatsOf(start) - round * beats;
    return at >= 0 && at < beats ? [{ at, beats: beatsOf(length), midi }] : [];
  });
export type Called = ReturnType<typeof callIn>[number];

/** Corvel's turns in a round of traded bars, in beats of the form. */
export const callTurnsIn = (data: TakeData, round: number, form: Form) =>
  data.trade
    ? turnsIn(form, data.trade.bars, round + 1)
        .filter((turn) => turn.round === round && !turn.isOwn)
        .map(({ from, to }) => ({ from: from - round * form.beats, to: to - round * form.beats }))
    : [];

/** Cents that a pitch moves at least where its way is drawn: a straight one says nothing that its bar does not. */
const MOVES = 35;

/** The way of a pitch as a path; empty where it does not move. `semitone` is its height in pixels. */
export function curvePath(
  { at, midi, curve }: Played,
  tempo: number,
  {
    time,
    pitch,
    semitone
  }: { time: (beat: number) => number; pitch: (midi: number) => number; semitone: number }
): string {
  const known = curve.filter((cents) => cents !== null);
  if (known.length < 3 || Math.max(...known) - Math.min(...known) < MOVES) return '';
  let isOn = false;
  return curve
    .map((cents, i) => {
      if (cents === null) {
        isOn = false;
        return '';
      }
      const x = time(at + (i * STEP_SECONDS * tempo) / 60);
      const point = `${isOn ? 'L' : 'M'}${x.toFixed(1)} ${(pitch(midi) - (cents / 100) * semitone).toFixed(1)}`;
      isOn = true;
      return point;
    })
    .join('');
}
