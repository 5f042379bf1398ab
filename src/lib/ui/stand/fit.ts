/**
 * How the stand fits a window: the least sizes at which it is read (at 1.5 m from a tablet, in the hand from a phone), and what
 * gives way where there is no room. Pixels throughout. Pure numbers.
 */

import { lastOf } from '$lib/core/base/list';

/** The least sizes, in pixels. */
export interface StandSizes {
  /** This chord, and the next. */
  readonly chord: number;
  readonly next: number;
  /** Degrees under the hand, and fret numbers. */
  readonly degree: number;
  readonly fret: number;
}

/** A window whose shorter side is this long stands on a stand; a smaller one is held. */
const ON_A_STAND = 700;
const STAND: StandSizes = { chord: 88, next: 52, degree: 22, fret: 16 };
const HELD: StandSizes = { chord: 48, next: 32, degree: 15, fret: 12 };
/** Larger windows are read from farther away. */
const LARGEST = 1.4;

/** How much larger than its distance asks for the player wants the stand. */
export const STAND_FACTORS = { normal: 1, large: 1.15, larger: 1.3 } as const;

export function sizesFor(
  width: number,
  height: number,
  wanted: keyof typeof STAND_FACTORS = 'normal'
): StandSizes {
  const shorter = Math.min(width, height);
  const [least, larger] =
    shorter < ON_A_STAND ? [HELD, 1] : [STAND, Math.min(LARGEST, Math.max(1, shorter / 800))];
  const factor = larger * STAND_FACTORS[wanted];
  return {
    chord: Math.round(least.chord * factor),
    next: Math.round(least.next * factor),
    degree: Math.round(least.degree * factor),
    fret: Math.round(least.fret * factor)
  };
}

/** Some frets of the neck, both in. */
export interface Frets {
  readonly from: number;
  readonly to: number;
}

const joined = (all: readonly Frets[]): Frets => ({
  from: Math.min(...all.map(({ from }) => from)),
  to: Math.max(...all.map(({ to }) => to))
});
const countOf = ({ from, to }: Frets) => to - from + 1;

/** A fret is at least so many times as wide as its degrees are high, and at most so many times as wide as strings are apart. */
const NARROWEST_FRET = 2;
const WIDEST_FRET = 2.3;
/** Frets beside the hands at most: an empty neck tells nothing. */
const MOST_BESIDE = 3;

/**
 * The frets that are shown. Where all hands of a loop fit side by side the picture stands still; else it shows this hand and
 * the coming one, as far as they fit, this one always.
 */
export function cropOf(
  {
    all,
    now,
    coming
  }: { readonly all: readonly Frets[]; readonly now: Frets; readonly coming: Frets | null },
  room: { readonly width: number; readonly gap: number; readonly degree: number; readonly last: number }
): Frets {
  const most = Math.max(countOf(now), Math.floor(room.width / (room.degree * NARROWEST_FRET)));
  const wishes = [joined([now, ...all]), coming ? joined([now, coming]) : now];
  const shown = wishes.find((wish) => countOf(wish) <= most) ?? now;
  // Frets that would be too wide make room for their neighbours.
  const least = Math.min(
    most,
    Math.ceil(room.width / (room.gap * WIDEST_FRET)),
    countOf(shown) + MOST_BESIDE,
    room.last + 1
  );
  return widened(shown, least, room.last);
}

/** At least so many frets, in turn towards the body and the nut. */
function widened({ from, to }: Frets, least: number, last: number): Frets {
  let [low, high] = [from, to];
  while (high - low + 1 < least && (low > 0 || high < last)) {
    if (high < last) high += 1;
    if (high - low + 1 < least && low > 0) low -= 1;
  }
  return { from: low, to: high };
}

/** What stands with the neck. */
export interface Shown {
  readonly staff: boolean;
  readonly tab: boolean;
  readonly line: boolean;
  /** It stands to the right of the neck instead of below it: a low, wide window has no room for two rows. */
  readonly isBeside: boolean;
  /** Pixels that the target line takes in height. */
  readonly lineHeight: number;
}

/** Strings lie at least so many times the height of their degrees apart, and at most so far that a hand is still seen in them. */
const LEAST_GAP = 1.36;
const MOST_GAP = 3.8;
const LEAST_LINE = 4.4;
const MOST_LINE = 11;

/** Above the neck its fret numbers, below it the name of the hand; half a gap of wood on both sides. */
const ABOVE = 1.5;
const BELOW = 1.8;
const FRAME = 8;

/** Pixels from string to string in a height. */
export function gapIn(height: number, strings: number, { degree, fret }: StandSizes): number {
  const free = height - fret * (ABOVE + BELOW) - FRAME;
  return Math.min(degree * MOST_GAP, Math.max(8, free / strings));
}

/** y of the first string in a height; what is left over is shared above and below. */
export function firstString(height: number, strings: number, gap: number, { fret }: StandSizes): number {
  const left = height - fret * (ABOVE + BELOW) - FRAME - gap * strings;
  return fret * ABOVE + FRAME / 2 + gap / 2 + Math.max(0, left / 2);
}

/** The least height of a neck that can be read. */
export function leastNeck(strings: number, { degree, fret }: StandSizes): number {
  return strings * degree * LEAST_GAP + fret * (ABOVE + BELOW) + FRAME;
}

/** A window this much wider than the room is high has place for two side by side. */
const WIDE = 2.4;

/**
 * What of run and target line there is room for with the neck, in a room of some width and height. It gives way in this order:
 * the staff, the target line; the run's tab stays, beside the neck where it has no row of its own.
 */
export function shownIn(
  room: { readonly width: number; readonly height: number },
  neck: number,
  wants: { readonly run: boolean; readonly staff: number; readonly tab: number },
  { degree }: StandSizes
): Shown {
  const none = { staff: false, tab: false, line: false, isBeside: false, lineHeight: 0 };
  const left = room.height - neck;
  const isWide = room.width >= WIDE * room.height;
  if (wants.run) {
    const staff = wants.staff > 0 && left >= wants.staff;
    return { ...none, staff, tab: !staff, isBeside: !staff && left < wants.tab && isWide };
  }
  const least = degree * LEAST_LINE;
  if (left >= least)
    return { ...none, line: true, lineHeight: Math.min(degree * MOST_LINE, Math.max(least, left * 0.55)) };
  return isWide ? { ...none, line: true, isBeside: true, lineHeight: room.height } : none;
}

/** How this chord and the next stand in a width. */
export interface ChordRow {
  /** The next chord below this one. */
  readonly isStacked: boolean;
  /** The string and fret of the target. */
  readonly withPlace: boolean;
  /** The target's note, beside its degree. */
  readonly withNote: boolean;
  /** By how much the letters shrink where one symbol alone is wider than the window. */
  readonly shrunk: number;
}

export interface RowWants {
  readonly width: number;
  /** Of the widest symbols of the loop, as large as they get. */
  readonly chord: number;
  readonly next: number;
  /** Of the beats, and of the target told by its degree, with its note, and with its place too. */
  readonly beats: number;
  readonly target: readonly [number, number, number];
}

/** Where there is no room the place of the target goes first, then its note; then the next chord goes below. */
export function rowFor({ width, chord, next, beats, target }: RowWants): ChordRow {
  const [degree, note, place] = target;
  const side = chord + next + beats;
  const kinds = [
    { isStacked: false, own: side + place, withPlace: true, withNote: true },
    { isStacked: false, own: side + note, withPlace: false, withNote: true },
    { isStacked: false, own: side + degree, withPlace: false, withNote: false },
    { isStacked: true, own: chord + beats + place, withPlace: true, withNote: true },
    { isStacked: true, own: chord + beats + note, withPlace: false, withNote: true },
    { isStacked: true, own: chord + beats + degree, withPlace: false, withNote: false }
  ];
  const fits = kinds.find(({ own }) => own <= width);
  const { isStacked, withPlace, withNote } = fits ?? lastOf(kinds);
  const shrunk = fits ? 1 : Math.max(0.4, (width - beats - degree) / chord);
  return { isStacked, withPlace, withNote, shrunk };
}
