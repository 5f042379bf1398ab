/**
 * The simulated player: takes a written line and plays it as a person would, better or worse. Hands are late where the way is far, a
 * finger lands a semitone off, a note does not sound; the better the player the less of all of it. The same seed plays the same.
 */
import { chanceOf, type Chance } from '../../line/chance';
import { endOf, type LineNote } from '../../line/model';
import type { PlayedNote } from '../model';

/** A note as a hand plays it. */
export interface Stroke extends PlayedNote {
  /** 0 to 1. */
  readonly loudness: number;
  /** Bent up from a lower pitch (MIDI) in so many seconds. */
  readonly bend?: { readonly from: number; readonly seconds: number };
  /** Hammered on or pulled off: without a stroke of its own. */
  readonly slur?: true;
}

export interface Performance {
  /** 0 to 1: all the way from a beginner to a hand that does what is written. */
  readonly skill: number;
  readonly seed: number;
  /** When a written tick sounds, in seconds. */
  readonly secondOf: (tick: number) => number;
  /** Ticks at which the chord changes. */
  readonly changes: readonly number[];
}

/** What a beginner does; a player of some skill does `1 − skill` of it, the mistakes less than in proportion. */
const BEGINNER = {
  /** Spread of the onsets in seconds, and what remains at the best. */
  spread: 0.07,
  steadiest: 0.004,
  missed: 0.3,
  wrong: 0.4,
  /** Change of pitch of a wrong note, in semitones. */
  astray: [-2, -1, 1, 2],
  /** Chance of a hesitation into a change, for each semitone of the way there; and the most. */
  hesitates: 0.09,
  hesitatesAtMost: 0.75,
  /** Beats of a hesitation, from and to, as a share of the time to the next note after. */
  pause: { from: 0.25, to: 0.9 },
  /** Spread of loudness. */
  uneven: 0.3
} as const;

/** Seconds between two strokes of one hand. */
const QUICKEST = 0.03;
/** Of its written length a note sounds so much. */
const SOUNDS = 0.94;
const BEND_SECONDS = 0.12;

/** What a player makes of a line, in the order of time. */
export function perform(notes: readonly LineNote[], wish: Performance): Stroke[] {
  const chance = chanceOf(wish.seed, notes.length);
  const lack = 1 - wish.skill;
  const changes = new Set(wish.changes);
  const strokes: Stroke[] = [];
  joined(notes).forEach((note, i, all) => {
    // Every note takes the same draws whatever becomes of it, so that a better player makes fewer of the same mistakes.
    const [missed, wrong, way, hesitates, pause, uneven] = Array.from({ length: 6 }, chance) as [
      number,
      number,
      number,
      number,
      number,
      number
    ];
    const spread = normal(chance) * (BEGINNER.steadiest + lack * BEGINNER.spread);
    if (missed < BEGINNER.missed * lack ** 2) return;
    const astray = BEGINNER.astray[Math.floor(way * BEGINNER.astray.length)]!;
    const midi = note.midi + (wrong < BEGINNER.wrong * lack ** 2 ? astray : 0);
    const begin = wish.secondOf(note.start);
    const seconds = wish.secondOf(endOf(note)) - begin;
    const leap = Math.abs(note.midi - (all[i - 1]?.midi ?? note.midi));
    const likely = Math.min(BEGINNER.hesitatesAtMost, BEGINNER.hesitates * (1 + leap)) * lack;
    const late =
      changes.has(note.start) && hesitates < likely
        ? seconds * (BEGINNER.pause.from + pause * (BEGINNER.pause.to - BEGINNER.pause.from))
        : 0;
    const last = strokes.at(-1);
    const at = Math.max(0, begin + spread + late, last ? last.at + QUICKEST : 0);
    const end = Math.max(at + QUICKEST, begin + seconds * SOUNDS);
    if (last) strokes[strokes.length - 1] = { ...last, seconds: Math.min(last.seconds, at - last.at) };
    strokes.push({
      at,
      seconds: end - at,
      midi,
      loudness: (note.ghost ? 0.35 : 0.8) * (1 - BEGINNER.uneven * lack * uneven),
      ...(note.bend
        ? {
            bend: { from: note.bend.from + midi - note.midi, seconds: Math.min(BEND_SECONDS, (end - at) / 2) }
          }
        : {}),
      ...(note.slur ? { slur: true } : {})
    });
  });
  return strokes;
}

/** Tied notes as the ones they go on from. Of a double stop the upper note is played: this player has one voice. */
function joined(notes: readonly LineNote[]): LineNote[] {
  const out: LineNote[] = [];
  for (const note of notes) {
    const before = out.at(-1);
    if (note.tie && before?.midi === note.midi && endOf(before) === note.start) {
      out[out.length - 1] = { ...before, length: endOf(note) - before.start };
    } else if (before?.start === note.start) out[out.length - 1] = note;
    else out.push(note);
  }
  return out;
}

/** A number round 0 with a spread of 1, never further than 3. */
function normal(chance: Chance): number {
  let sum = 0;
  for (let i = 0; i < 12; i++) sum += chance();
  return Math.max(-3, Math.min(3, sum - 6));
}
