/**
 * The simulated player: takes a written line and plays it as a person would, better or worse. Hands are late where the way is far, a
 * finger lands a semitone off, a note does not sound; the better the player the less of all of it. The same seed plays the same.
 */
import { nth } from '../../base/list';
import type { Seconds } from '../../base/units';
import { chanceOf, type Chance } from '../../line/chance';
import { endOf, type LineNote } from '../../line/model';
import type { PitchEvent, PlayedNote } from '../model';

/** A note as a hand plays it. */
export interface Stroke extends PlayedNote {
  /** 0 to 1. */
  readonly loudness: number;
  /** Bent up, or slid, from another pitch (MIDI) in so many seconds. */
  readonly bend?: { readonly from: number; readonly seconds: Seconds };
  /** So many seconds after its start it is let down to a pitch (MIDI), in so many seconds. */
  readonly release?: { readonly to: number; readonly after: number; readonly seconds: Seconds };
  /** From so many seconds after its start on its pitch swings, by so many cents to either side. */
  readonly vibrato?: { readonly cents: number; readonly hertz: number; readonly after: number };
  /** The string is damped by the hand: short, dull, more rhythm than pitch. */
  readonly muted?: true;
  /** Hammered on, pulled off or slid to: without a stroke of its own. */
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
/** Of its written length a note sounds so much; a damped string sounds so long at most, in seconds. */
const SOUNDS = 0.94;
const DAMPED_SECONDS = 0.09;
const LOUDNESS = { plain: 0.8, ghost: 0.35 } as const;

/** How a hand moves a pitch: seconds of a bend, of a slide and of a release; a vibrato begins when the note is held. */
const HAND = {
  bend: 0.12,
  slide: 0.07,
  release: { after: 0.5, seconds: 0.14 },
  vibrato: { cents: 30, hertz: 5.5, after: 0.25 }
} as const;

/** What a player makes of a line, in the order of time. */
export function perform(notes: readonly LineNote[], wish: Performance): Stroke[] {
  const chance = chanceOf(wish.seed, notes.length);
  const lack = 1 - wish.skill;
  const changes = new Set(wish.changes);
  const strokes: Stroke[] = [];
  joined(notes).forEach(([note, ...others], i, all) => {
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
    const astray = nth(BEGINNER.astray, Math.floor(way * BEGINNER.astray.length));
    const off = wrong < BEGINNER.wrong * lack ** 2 ? astray : 0;
    const begin = wish.secondOf(note.start);
    const seconds = wish.secondOf(endOf(note)) - begin;
    const leap = Math.abs(note.midi - (all[i - 1]?.[0].midi ?? note.midi));
    const likely = Math.min(BEGINNER.hesitatesAtMost, BEGINNER.hesitates * (1 + leap)) * lack;
    const late =
      changes.has(note.start) && hesitates < likely
        ? seconds * (BEGINNER.pause.from + pause * (BEGINNER.pause.to - BEGINNER.pause.from))
        : 0;
    const last = strokes.at(-1);
    const at = Math.max(0, begin + spread + late, last ? last.at + QUICKEST : 0);
    const end = Math.max(at + QUICKEST, begin + seconds * SOUNDS);
    for (let j = strokes.length - 1; j >= 0 && nth(strokes, j).at === last?.at; j--) {
      strokes[j] = {
        ...nth(strokes, j),
        seconds: Math.min(nth(strokes, j).seconds, at - nth(strokes, j).at)
      };
    }
    const loudness = (note.ghost ? LOUDNESS.ghost : LOUDNESS.plain) * (1 - BEGINNER.uneven * lack * uneven);
    const slidFrom = note.slide && last && last.at + last.seconds >= at - QUICKEST ? last.midi : null;
    for (const own of [...others, note]) {
      const isAlone = others.length === 0;
      strokes.push({
        at,
        seconds: note.ghost ? Math.min(DAMPED_SECONDS, end - at) : end - at,
        midi: own.midi + off,
        loudness,
        ...(isAlone ? techniquesOf(own, off, end - at, slidFrom) : {}),
        ...(note.ghost ? { muted: true } : {})
      });
    }
  });
  return strokes;
}

/** What a listener who hears everything would tell of a stroke. */
export function eventsOf({ at, midi, bend, release, vibrato }: Stroke): PitchEvent[] {
  const fast = bend && Math.abs(midi - bend.from) / bend.seconds > SLIDES;
  return [
    ...(bend
      ? [
          {
            kind: fast || bend.from > midi ? ('slide' as const) : ('bend' as const),
            at,
            cents: Math.round(100 * (midi - bend.from))
          }
        ]
      : []),
    ...(release
      ? [{ kind: 'release' as const, at: at + release.after, cents: Math.round(100 * (release.to - midi)) }]
      : []),
    ...(vibrato ? [{ kind: 'vibrato' as const, at: at + vibrato.after, cents: vibrato.cents }] : [])
  ];
}
/** Semitones a second over which a finger slides. */
const SLIDES = 21;

/** How the pitch of a note moves that is played `off` its own and lasts so long. */
function techniquesOf(
  { bend, release, vibrato, slur, slide }: LineNote,
  off: number,
  seconds: Seconds,
  slidFrom: number | null
): Pick<Stroke, 'bend' | 'release' | 'vibrato' | 'slur'> {
  const half = seconds / 2;
  const isCurl = bend?.cents !== undefined;
  const { release: down, vibrato: shake } = HAND;
  return {
    ...(bend && !isCurl
      ? { bend: { from: bend.from + off, seconds: Math.min(HAND.bend, half) } }
      : slide && slidFrom !== null
        ? { bend: { from: slidFrom, seconds: Math.min(HAND.slide, half) }, slur: true as const }
        : {}),
    ...(release
      ? {
          release: {
            to: release.to + off,
            after: seconds * down.after,
            seconds: Math.min(down.seconds, half / 2)
          }
        }
      : {}),
    ...(vibrato && seconds > 2 * shake.after ? { vibrato: shake } : {}),
    ...(slur ? { slur: true as const } : {})
  };
}

/** Tied notes as the ones they go on from; notes that are struck together, the highest of them first. */
function joined(notes: readonly LineNote[]): [LineNote, ...LineNote[]][] {
  const out: [LineNote, ...LineNote[]][] = [];
  for (const note of notes) {
    const before = out.at(-1);
    const tied = note.tie
      ? (before?.findIndex((own) => own.midi === note.midi && endOf(own) === note.start) ?? -1)
      : -1;
    if (before && tied >= 0) {
      before[tied] = { ...nth(before, tied), length: endOf(note) - nth(before, tied).start };
    } else if (before?.[0].start === note.start) before.unshift(note);
    else out.push([note]);
  }
  return out;
}

/** A number round 0 with a spread of 1, never further than 3. */
function normal(chance: Chance): number {
  let sum = 0;
  for (let i = 0; i < 12; i++) sum += chance();
  return Math.max(-3, Math.min(3, sum - 6));
}
