/**
 * How the pitch of a note moves while its string sounds: bends, releases, slides and vibrato, and where another note is hammered on or pulled
 * off. A pitch that goes on without a leap belongs to one note. Source: docs/music-rules.md, Listening.
 */
import { firstOf, nth } from '../../base/list';
import type { Seconds } from '../../base/units';
import type { PitchEvent } from '../model';
import { HOP, type Frame } from './frames';
import { quantile } from './onsets';
import { LEAP, MISTAKEN } from './strokes';

/** A stretch of frames at one pitch, in semitones. */
interface Plateau {
  readonly from: number;
  /** The frame after its last. */
  readonly to: number;
  readonly pitch: number;
}

/** A note in a stretch of frames. */
export interface Moved {
  /** Frames from the first of the stretch. */
  readonly from: number;
  readonly to: number;
  /** MIDI number with fractions: where a bend or a slide comes to, else where it stays the longest. */
  readonly pitch: number;
  /** `at` in frames from the first of the stretch. */
  readonly events: readonly PitchEvent[];
}

/** A pitch stays where for so many frames it moves no more than this, in semitones, and for as long as it keeps this near to their mean. */
const STAYS = { frames: 3, begins: 0.15, within: 0.25 } as const;
/** Places nearer than this are one, in semitones; beside a vibrato, so many times what it swings. */
const ONE = 0.45;
const BESIDE_VIBRATO = 2.4;
const CENTS = 100;
/** Frames without a pitch that are bridged. */
const BRIDGED = 2;
/**
 * A pitch that is reached within so many frames, this far at least and at most, in semitones, and by one step of this share of the way, was
 * slurred to: hammered on, pulled off.
 */
const SLUR = { within: 3, nearest: 0.6, widest: 7, step: 0.45 } as const;
/** A glide that leads into a note is seen from its middle on: it is followed back by the slope of so many frames, this far at most, in semitones. */
const BACK = { frames: 3, most: 2.5 } as const;
/** Semitones a second over which a finger slides; a string is bent more slowly, and not so far, in semitones. */
const SLIDE = { fast: 21, bent: 4.5 } as const;
/** Half swings of a vibrato: how many, of how many frames, how wide in semitones, how much wider the widest may be than the narrowest. */
const SWING = { least: 4, frames: [2, 8], wide: [0.16, 2.4], uneven: 4 } as const;
/** A pitch that is held so many frames before it moves is a note of its own right: the note is where it stays the longest. */
const HELD = 11;

/** Semitones from a pitch, octaves and other harmonics taken for the pitch itself, gaps of a frame or two filled; null where nothing is known. */
function trackOf(frames: readonly Frame[], pitch: number): (number | null)[] {
  let last = pitch;
  const known = frames.map((frame) => {
    const { pitch: own } = frame;
    if (own === null) return null;
    const heard = [0, ...MISTAKEN, ...MISTAKEN.map((interval) => -interval)]
      .map((interval) => own + interval)
      .reduce((best, one) => (Math.abs(one - last) < Math.abs(best - last) - 0.01 ? one : best));
    if (Math.abs(heard - last) > SLUR.widest) return null;
    last = heard;
    return heard;
  });
  return known.map((own, i) => {
    if (own !== null) return own;
    const before = known.slice(Math.max(0, i - BRIDGED), i).findLast((value) => value !== null);
    const after = known.slice(i + 1, i + 1 + BRIDGED).find((value) => value !== null);
    return before != null && after != null && Math.abs(before - after) < LEAP ? (before + after) / 2 : null;
  });
}

/** A vibrato in a track: from which frame to which, how far to either side, and where its middle lies. */
interface Vibrato {
  readonly from: number;
  readonly to: number;
  readonly semitones: number;
  readonly middle: number;
}

/** The vibrato of a track: where it swings up and down again and again, evenly. */
function vibratoIn(track: readonly (number | null)[]): Vibrato | null {
  const turns = turnsOf(track);
  let best: Vibrato | null = null;
  for (let from = 0; from < turns.length; from++) {
    const swings: number[] = [];
    let to = from;
    for (; to + 1 < turns.length; to++) {
      const [here, there] = [nth(turns, to), nth(turns, to + 1)];
      const [frames, wide] = [there.at - here.at, Math.abs(there.pitch - here.pitch)];
      const [widest, narrowest] = [Math.max(wide, ...swings), Math.min(wide, ...swings)];
      if (frames < SWING.frames[0] || frames > SWING.frames[1]) break;
      if (wide < SWING.wide[0] || wide > SWING.wide[1] || widest > SWING.uneven * narrowest) break;
      swings.push(wide);
    }
    if (swings.length < SWING.least || (best && swings.length <= best.to - best.from)) continue;
    const own = turns.slice(from, to + 1).map(({ pitch }) => pitch);
    const middle = (quantile(own, 0.25) + quantile(own, 0.75)) / 2;
    best = {
      from: nth(turns, from).at,
      to: nth(turns, to).at + 1,
      semitones: quantile(swings, 0.5) / 2,
      middle
    };
    from = to;
  }
  return best;
}

/** Where a track turns: its highest and lowest places, one after the other. */
function turnsOf(track: readonly (number | null)[]): { at: number; pitch: number }[] {
  const turns: { at: number; pitch: number }[] = [];
  let way = 0;
  for (let i = 1; i < track.length; i++) {
    const [before, own] = [track[i - 1]!, track[i]!];
    if (before === null || own === null) continue;
    const now = Math.sign(own - before);
    if (now === 0) continue;
    if (way !== 0 && now !== way) turns.push({ at: i - 1, pitch: before });
    way = now;
  }
  // Turns of a few cents are no turns: the two go together, with what lies between them.
  for (let i = 0; i + 1 < turns.length;) {
    if (Math.abs(nth(turns, i + 1).pitch - nth(turns, i).pitch) < SWING.wide[0]) {
      turns.splice(i, 2);
      i = Math.max(0, i - 1);
    } else i++;
  }
  return turns;
}

/** Where a track stays. */
function plateausOf(track: readonly (number | null)[]): Plateau[] {
  const found: Plateau[] = [];
  for (let from = 0; from + STAYS.frames <= track.length;) {
    let to = from + STAYS.frames;
    const begun = track.slice(from, to);
    const isCalm = begun.every((own) => own !== null);
    const known = begun as number[];
    if (!isCalm || Math.max(...known) - Math.min(...known) > STAYS.begins) {
      from++;
      continue;
    }
    let sum = known.reduce((total, own) => total + own, 0);
    while (
      to < track.length &&
      track[to] !== null &&
      Math.abs(track[to]! - sum / (to - from)) <= STAYS.within
    ) {
      sum += track[to]!;
      to++;
    }
    found.push({ from, to, pitch: quantile(track.slice(from, to) as number[], 0.5) });
    from = to;
  }
  return found;
}

/** Whether a track goes from one frame to another without a gap or a leap. */
function isUnbroken(track: readonly (number | null)[], from: number, to: number): boolean {
  for (let i = Math.max(1, from + 1); i <= to; i++) {
    const [before, own] = [track[i - 1], track[i]];
    if (before == null || own == null || Math.abs(own - before) > LEAP) return false;
  }
  return true;
}

/** Whether the way from one frame to another is made by one step, or where nothing can be heard of it. */
function isStep(track: readonly (number | null)[], from: number, to: number, away: number): boolean {
  for (let i = from + 1; i <= to; i++) {
    const [before, own] = [track[i - 1], track[i]];
    if (before == null || own == null || Math.abs(own - before) >= SLUR.step * Math.abs(away)) return true;
  }
  return false;
}

/** The name of a glide of so many semitones in so many seconds, after what was done to the note before: what was bent up is let down. */
function glideKind(
  semitones: number,
  seconds: Seconds,
  before: readonly PitchEvent[] = []
): PitchEvent['kind'] {
  const bent = before.reduce(
    (sum, { kind, cents }) => sum + (kind === 'vibrato' || kind === 'slide' ? 0 : cents),
    0
  );
  if (semitones < 0 && bent >= -CENTS * (semitones + ONE)) return 'release';
  if (Math.abs(semitones) > SLIDE.bent || Math.abs(semitones) / seconds > SLIDE.fast) return 'slide';
  return semitones > 0 ? 'bend' : 'release';
}

/** What the caller of `movementsIn` knows of the sound beside the pitch of its frames; frames count from the first of the stretch. */
export interface Ear {
  /** Whether a pitch begins anew at a frame. */
  readonly begins: (pitch: number, frame: number) => boolean;
  /** Whether a pitch that sounds from a frame on is one that was not there before the stroke. */
  readonly isNew: (pitch: number, frame: number) => boolean;
}

/**
 * The notes in the frames of one stroke: the one that was struck, and those that were slurred to, with what moves their pitch.
 * @param pitch the pitch that was struck, as MIDI number with fractions
 * @param unseen frames from the stroke to the first of the stretch
 * @param rate samples a second
 */
export function movementsIn(
  frames: readonly Frame[],
  pitch: number,
  unseen: number,
  rate: number,
  ear: Ear
): Moved[] {
  const track = trackOf(frames, pitch);
  const vibrato = vibratoIn(track);
  const calm = vibrato
    ? track.map((own, i) => (own !== null && i >= vibrato.from && i < vibrato.to ? vibrato.middle : own))
    : track;
  const seconds = (count: number) => (Math.max(1, count) * HOP) / rate;
  const notes: { plateaus: Plateau[]; events: PitchEvent[]; from: number }[] = [
    { plateaus: [], events: [], from: 0 }
  ];
  for (const plateau of plateausOf(calm)) {
    const own = notes.at(-1)!;
    const last = own.plateaus.at(-1);
    if (!last) {
      const led = notes.length === 1 ? ledInto(calm, plateau, pitch, unseen, ear) : null;
      if (led) {
        const { from, cents } = led;
        const kind = glideKind(cents / CENTS, seconds(plateau.from - from + 1));
        own.events.push({ kind, at: from, cents });
      }
      own.plateaus.push(plateau);
      continue;
    }
    const away = plateau.pitch - last.pitch;
    if (Math.abs(away) >= Math.max(ONE, BESIDE_VIBRATO * (vibrato?.semitones ?? 0))) {
      const gap = plateau.from - last.to;
      const isFar = Math.abs(away) > SLUR.nearest;
      if (gap <= SLUR.within && isFar && isStep(calm, last.to - 1, plateau.from, away)) {
        const middle = (last.to + plateau.from) / 2;
        if (ear.begins(plateau.pitch, middle))
          notes.push({ plateaus: [plateau], events: [], from: Math.round(middle) });
        continue;
      }
      if (!isUnbroken(calm, last.to - 1, plateau.from)) continue;
      // A slow bend passes for a place that stays: it began where its track did.
      const first = calm[last.from] ?? last.pitch;
      const begun = Math.sign(last.pitch - first) === Math.sign(away) ? first : last.pitch;
      const cents = Math.round(CENTS * (plateau.pitch - begun));
      own.events.push({ kind: glideKind(away, seconds(gap + 1), own.events), at: last.to - 1, cents });
    }
    own.plateaus.push(plateau);
  }
  return notes.map(({ plateaus, events, from }, i): Moved => {
    const to = notes[i + 1]?.from ?? frames.length;
    const shaken =
      vibrato && vibrato.from >= from && vibrato.from < to
        ? [{ kind: 'vibrato' as const, at: vibrato.from, cents: Math.round(CENTS * vibrato.semitones) }]
        : [];
    const all = [...events, ...shaken].sort((a, b) => a.at - b.at);
    return {
      from,
      to,
      pitch: pitchAmong(plateaus, events, i === 0 ? pitch : firstOf(plateaus).pitch),
      events: all
    };
  });
}

/**
 * The glide that leads from the stroke into the first place where a pitch stays: the frame from which it is seen, and how far it goes. The first
 * of it is hidden by the stroke; it came from the fret that its slope points back to. Null where there is none: a string that rings on is no glide.
 */
function ledInto(
  track: readonly (number | null)[],
  plateau: Plateau,
  struck: number,
  unseen: number,
  { isNew }: Ear
): { from: number; cents: number } | null {
  const differs = Math.abs(plateau.pitch - struck) >= SLUR.nearest;
  // Of the glide is seen what goes on without a break, and in one direction.
  let from = plateau.from;
  while (from > 0 && isUnbroken(track, from - 1, from) && isOnItsWay(track, from, plateau.pitch)) from--;
  const seen = track[from] ?? plateau.pitch;
  const moves =
    Math.abs(plateau.pitch - seen) >= SLUR.nearest && (differs || plateau.from - from >= LED.seen);
  if (!moves && (!differs || plateau.from > LED.within)) return null;
  if (Math.max(Math.abs(plateau.pitch - struck), Math.abs(plateau.pitch - seen)) > SLUR.widest) return null;
  if (differs && !isNew(plateau.pitch, plateau.from)) return null;
  const way = Math.sign(plateau.pitch - (moves ? seen : struck));
  const next = track[Math.min(plateau.from, from + BACK.frames)] ?? plateau.pitch;
  const slope = moves ? Math.abs(next - seen) / Math.min(BACK.frames, plateau.from - from) : 0;
  const back = Math.min(BACK.most, slope * (unseen + from));
  const start =
    plateau.pitch - way * Math.max(Math.abs(plateau.pitch - seen) + back, Math.abs(plateau.pitch - struck));
  const semitones = Math.max(1, Math.round(Math.abs(plateau.pitch - start)));
  // A bend may end short of its fret: what is heard of the goal counts, what it came from lies on a fret.
  const whole = Math.round(plateau.pitch) - way * semitones;
  return { from: Math.max(0, from), cents: Math.round(CENTS * (plateau.pitch - whole)) };
}

/** The frame before one lies further from where the pitch will stay. */
function isOnItsWay(track: readonly (number | null)[], at: number, goal: number): boolean {
  const [before, own] = [track[at - 1], track[at]];
  return before != null && own != null && Math.abs(before - goal) > Math.abs(own - goal) + 0.02;
}

/**
 * A pitch that is not the struck one leads on from it where it is reached within so many frames; where it is the struck one it moves in so
 * many before: one alone may still be the note before.
 */
const LED = { within: 6, seen: 3 } as const;

/** The pitch of a note that stays here and there: where its first glide comes to, but where it was held longer before. */
function pitchAmong(plateaus: readonly Plateau[], events: readonly PitchEvent[], struck: number): number {
  const [first, second] = plateaus;
  if (!first) return struck;
  const [glide] = events;
  // Without a glide what was struck is what sounds; another string may ring louder.
  if (!glide) return Math.abs(first.pitch - struck) < SLUR.nearest ? first.pitch : struck;
  if (glide.at < first.from || !second || glide.kind === 'release') return first.pitch;
  const lasts = ({ from, to }: Plateau) => to - from;
  return lasts(first) >= HELD && lasts(first) > lasts(second) ? first.pitch : second.pitch;
}
