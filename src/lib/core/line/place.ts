/**
 * Placing notes on the neck: string, fret and finger for each note of a line at the least cost to the hand, found exactly.
 * Source: docs/music-rules.md, Placing notes on the neck.
 */
import { entryOf, firstOf, lastOf, nth } from '../base/list';
import type { Fret, StringNumber } from '../base/units';
import { fingerAt, positionFill } from '../neck/position';
import { lowestFret, soundAt, type Instrument } from '../neck/tuning';
import { solvePaths, stepTable, type StepTable } from '../targets/solve';
import { midiName } from '../theory/note';
import { beatsOf, endOf, ordered, type LineNote } from './model';

/** What the hand is charged for. */
export interface PlaceWeights {
  /** A shift of the hand, per fret; `easyShift` after a rest or on an open string. */
  readonly shift: number;
  readonly easyShift: number;
  /** A finger stretched out of the position. */
  readonly stretch: number;
  /** From one string to another, and for each string between them. */
  readonly cross: number;
  readonly skip: number;
  /** The same finger on two frets running. */
  readonly sameFinger: number;
}

export const PLACE_WEIGHTS: PlaceWeights = {
  shift: 1,
  easyShift: 0.5,
  stretch: 1,
  cross: 0.25,
  skip: 0.5,
  sameFinger: 2
};

export interface PlaceWish {
  readonly neck: Instrument;
  /** The hand stays in this position; places and fingers are those of position fill. */
  readonly position?: number | undefined;
  /** Frets, both in. */
  readonly window?: { readonly from: number; readonly to: number } | undefined;
  readonly strings?: readonly number[] | undefined;
  /** Notes that have a place stay there; what is found is where the hand is. */
  readonly keepsPlaces?: boolean | undefined;
  /** Number of ways wanted. */
  readonly alternatives: number;
  readonly weights?: PlaceWeights | undefined;
}

/** A note where it is played. */
export interface PlacedNote extends LineNote {
  readonly place: { readonly string: StringNumber; readonly fret: Fret; readonly finger: number };
  /** Where the hand is. */
  readonly position: number;
}

export interface Placing {
  readonly notes: readonly PlacedNote[];
  readonly cost: number;
  /** How often the hand moves. */
  readonly shifts: number;
}

export interface PlaceAnswer {
  /** The best first, all different in their places. */
  readonly places: readonly Placing[];
  /** Why there is none: the note, by its place in the line, and a sentence. */
  readonly noPlace?: { readonly note: number; readonly message: string };
}

/** A finger on a string. */
interface Touch {
  readonly string: StringNumber;
  readonly fret: Fret;
  readonly finger: number;
  readonly isStretch: boolean;
}

/** Where the hand is while the notes of one moment sound: a touch for each of them. */
interface Hold {
  readonly position: number;
  readonly touches: readonly Touch[];
  /** The hand is free where a string sounds open. */
  readonly hasOpen: boolean;
}

/** Notes that start together. */
interface Moment {
  readonly notes: readonly { readonly note: LineNote; readonly index: number }[];
  /** Silence before them. */
  readonly isAfterRest: boolean;
}

/** What a step into a moment is charged by, besides the two ways of holding. */
interface Step {
  readonly isAfterRest: boolean;
  readonly isSlid: boolean;
  /** By a slide or slur, which stays on its string. */
  readonly isJoined: boolean;
}

/** Below this fret a string cannot be bent by a whole tone. */
const BEND_FROM = 3;
const WHOLE_TONE = 2;
/** Frets that the hand covers in one position without a stretch, less one: how far two held notes may lie apart. */
const WIDEST_DOUBLE_STOP = 4;
/** Ways that differ only in where the hand rests are counted once, so that more of them are asked for. */
const SPARE = 6;

/** The pitch that is fretted: a bend starts from a lower one. */
export function frettedPitch({ midi, bend }: LineNote): number {
  return bend?.from ?? midi;
}

/** String, fret and finger for each note at the least cost, exactly; else which note cannot be placed, and why. Source: docs/music-rules.md, Placing. */
export function placeNotes(line: readonly LineNote[], wish: PlaceWish): PlaceAnswer {
  const notes = ordered(line);
  const moments = momentsOf(notes);
  if (moments.length === 0) return { places: [{ notes: [], cost: 0, shifts: 0 }] };
  const holds: (readonly Hold[])[] = [];
  const touchesOf = remembered((pitch: number) => touchesFor(pitch, wish));
  const plainHolds = new Map<number, readonly Hold[]>();
  for (const moment of moments) {
    const plain = plainPitch(moment, wish);
    const found = (plain !== null && plainHolds.get(plain)) || holdsFor(moment, wish, touchesOf);
    if (plain !== null) plainHolds.set(plain, found);
    if (found.length === 0) {
      const { index, note } =
        moment.notes.find(({ note }) => allowed(note, wish, touchesOf).length === 0) ?? firstOf(moment.notes);
      return { places: [], noPlace: { note: index, message: whyNot(note, moment, wish, touchesOf) } };
    }
    holds.push(found);
  }
  const weights = wish.weights ?? PLACE_WEIGHTS;
  const { paths, stuckAt } = solvePaths({
    nodes: holds.map((stage) => stage.map(({ touches }) => holdCost(touches, weights))),
    steps: stepsBetween(holds, moments, weights),
    close: null,
    k: wish.alternatives === 1 ? 1 : wish.alternatives * SPARE
  });
  if (stuckAt !== undefined) {
    const { index, note } = firstOf(nth(moments, stuckAt).notes);
    const message = `${midiName(note.midi)} cannot be reached on the string of the note before, as its slide or slur asks; strike it instead.`;
    return { places: [], noPlace: { note: index, message } };
  }
  const placings = paths.map(({ cost, choice }) => {
    const hands = choice.map((at, i) => nth(nth(holds, i), at));
    return {
      cost: Math.round(cost * 1e6) / 1e6,
      notes: hands.flatMap((hold, i) =>
        nth(moments, i).notes.map(({ note }, n) => placed(note, nth(hold.touches, n), hold.position))
      ),
      shifts: hands.filter(({ position }, i) => i > 0 && position !== nth(hands, i - 1).position).length
    };
  });
  const different = new Map(placings.toReversed().map((placing) => [fingerprint(placing), placing]));
  return { places: [...different.values()].toReversed().slice(0, wish.alternatives) };
}

function placed(note: LineNote, { string, fret, finger }: Touch, position: number): PlacedNote {
  return { ...note, place: { string, fret, finger }, position };
}

const fingerprint = ({ notes }: Placing) =>
  notes.map(({ place }) => `${place.string}:${place.fret}:${place.finger}`).join(' ');

function remembered<T>(make: (key: number) => T): (key: number) => T {
  const known = new Map<number, T>();
  return (key) => {
    if (!known.has(key)) known.set(key, make(key));
    return entryOf(known, key);
  };
}

function momentsOf(notes: readonly LineNote[]): Moment[] {
  const moments: { notes: { note: LineNote; index: number }[]; isAfterRest: boolean }[] = [];
  let end = 0;
  for (const [index, note] of notes.entries()) {
    const last = moments.at(-1);
    if (last && firstOf(last.notes).note.start === note.start) last.notes.push({ note, index });
    else moments.push({ notes: [{ note, index }], isAfterRest: index > 0 && note.start > end });
    end = Math.max(end, endOf(note));
  }
  return moments;
}

/** A touch in a position of the hand. */
interface Option extends Touch {
  readonly position: number;
}

/** Every place of a pitch that the wish allows, with every position of the hand that reaches it. */
function touchesFor(pitch: number, { neck, position, window, strings }: PlaceWish): Option[] {
  const isAllowed = (string: StringNumber, fret: Fret) =>
    (!strings || strings.includes(string)) && (!window || (fret >= window.from && fret <= window.to));
  if (position !== undefined) {
    return positionFill(neck, [pitch % 12], position)
      .filter(({ midi, string, fret }) => midi === pitch && isAllowed(string, fret))
      .map(({ string, fret, finger, stretch }) => ({ string, fret, finger, isStretch: stretch, position }));
  }
  const highest = neck.frets - neck.span + 1;
  const first = neck.capo + 1;
  return neck.strings.flatMap((_, i): Option[] => {
    const string = i + 1;
    const fret = pitch - soundAt(neck, string, 0);
    if (fret < lowestFret(neck) || fret > neck.frets || !isAllowed(string, fret)) return [];
    const isOpen = fret === neck.capo;
    const [from, to] = isOpen ? [first, highest] : [fret - neck.span, fret + 1];
    const low = Math.max(first, from);
    const high = Math.min(highest, to);
    return Array.from({ length: Math.max(0, high - low + 1) }, (_, n) => {
      const hand = low + n;
      return {
        string,
        fret,
        finger: fingerAt(fret, hand, neck.capo),
        isStretch: !isOpen && (fret < hand || fret >= hand + neck.span),
        position: hand
      };
    });
  });
}

/** A bend needs a finger on the string, and a whole tone a string that gives. */
function canBend({ bend, midi }: LineNote, { finger, fret }: Touch): boolean {
  if (!bend) return true;
  return finger > 0 && (midi - bend.from < WHOLE_TONE || fret >= BEND_FROM);
}

const allowed = (
  note: LineNote,
  { keepsPlaces }: PlaceWish,
  touchesOf: (pitch: number) => readonly Option[]
) =>
  touchesOf(frettedPitch(note)).filter(
    (touch) => canBend(note, touch) && (!keepsPlaces || isOwnPlace(note, touch))
  );

const isOwnPlace = ({ place }: LineNote, { string, fret }: Touch) =>
  !place || (place.string === string && place.fret === fret);

/** The ways of holding the notes of a moment: on strings of their own, by fingers of their own. */
function holdsFor(
  { notes }: Moment,
  wish: PlaceWish,
  touchesOf: (pitch: number) => readonly Option[]
): Hold[] {
  let holds: Hold[] | null = null;
  for (const { note } of notes) {
    const options = allowed(note, wish, touchesOf);
    holds = holds
      ? holds.flatMap((hold) =>
          options
            .filter((touch) => touch.position === hold.position && fits(hold.touches, touch, wish.neck.span))
            .map((touch) => holdOf(hold.position, [...hold.touches, touch]))
        )
      : options.map((touch) => holdOf(touch.position, [touch]));
  }
  return holds ?? [];
}

function fits(held: readonly Touch[], touch: Touch, span: number): boolean {
  return held.every(
    (one) =>
      one.string !== touch.string &&
      (one.finger === 0 ||
        touch.finger === 0 ||
        Math.abs(one.fret - touch.fret) <= Math.max(span, WIDEST_DOUBLE_STOP)) &&
      (one.finger !== touch.finger || one.finger === 0 || one.fret === touch.fret)
  );
}

function holdCost(touches: readonly Touch[], { stretch }: PlaceWeights): number {
  return touches.filter(({ isStretch }) => isStretch).length * stretch;
}

function holdOf(position: number, touches: readonly Touch[]): Hold {
  return { position, touches, hasOpen: touches.some(({ finger }) => finger === 0) };
}

/** The pitch of a moment that is one note by itself, not bent and free to lie anywhere: such notes are held alike. */
function plainPitch({ notes }: Moment, { keepsPlaces }: PlaceWish): number | null {
  const { note } = firstOf(notes);
  return notes.length === 1 && !note.bend && !keepsPlaces ? note.midi : null;
}

function stepInto({ isAfterRest, notes }: Moment): Step {
  const { slide, slur } = firstOf(notes).note;
  return { isAfterRest, isSlid: Boolean(slide), isJoined: Boolean(slide || slur) };
}

/** What each hold of one moment costs after each of the moment before. A line says the same few pairs of notes again and again. */
function stepsBetween(
  holds: readonly (readonly Hold[])[],
  moments: readonly Moment[],
  weights: PlaceWeights
): StepTable[] {
  const known = new Map<readonly Hold[], { into: readonly Hold[]; step: Step; table: StepTable }[]>();
  return holds.slice(1).map((stage, i) => {
    const before = nth(holds, i);
    const step = stepInto(nth(moments, i + 1));
    const own = known.get(before) ?? [];
    known.set(before, own);
    const same = own.find((one) => one.into === stage && isSameStep(one.step, step));
    if (same) return same.table;
    const table = stepTable(before.length, stage.length, (a, b) =>
      stepCost(before[a]!, stage[b]!, step, weights)
    );
    own.push({ into: stage, step, table });
    return table;
  });
}

const isSameStep = (a: Step, b: Step) =>
  a.isAfterRest === b.isAfterRest && a.isSlid === b.isSlid && a.isJoined === b.isJoined;

/** Asked for each pair of holds of each two moments: it makes nothing. */
function stepCost(
  from: Hold,
  to: Hold,
  { isAfterRest, isSlid, isJoined }: Step,
  weights: PlaceWeights
): number {
  let sharesString = false;
  let repeats = false;
  for (const a of from.touches)
    for (const b of to.touches) {
      if (a.string === b.string) sharesString = true;
      if (a.finger > 0 && a.finger === b.finger && a.fret !== b.fret) repeats = true;
    }
  if (isJoined && !sharesString) return Infinity;
  const isEasy = isAfterRest || from.hasOpen || to.hasOpen;
  const strings = Math.abs(lastOf(from.touches).string - lastOf(to.touches).string);
  return (
    Math.abs(from.position - to.position) * (isEasy ? weights.easyShift : weights.shift) +
    (strings > 0 ? weights.cross + weights.skip * (strings - 1) : 0) +
    (repeats && !isSlid ? weights.sameFinger : 0)
  );
}

function whyNot(
  note: LineNote,
  { notes }: Moment,
  wish: PlaceWish,
  touchesOf: (pitch: number) => readonly Option[]
): string {
  const { neck, position, window, strings } = wish;
  const pitch = frettedPitch(note);
  const name = midiName(pitch);
  const when = `on beat ${Number((beatsOf(note.start) + 1).toFixed(2))}`;
  const lowest = soundAt(neck, neck.strings.length, lowestFret(neck));
  const highest = Math.max(...neck.strings.map((_, i) => soundAt(neck, i + 1, neck.frets)));
  if (pitch < Math.min(lowest, ...neck.strings.map((_, i) => soundAt(neck, i + 1, lowestFret(neck))))) {
    return `${name} ${when} is lower than this instrument goes; move the line up.`;
  }
  if (pitch > highest) return `${name} ${when} is higher than this instrument goes; move the line down.`;
  if (touchesOf(pitch).length > 0 && note.bend) {
    return `${name} ${when} cannot be bent from there: not on an open string, and a whole tone only from fret ${BEND_FROM} up.`;
  }
  if (touchesOf(pitch).length === 0) {
    const where =
      position !== undefined
        ? `in position ${position}`
        : window
          ? `in frets ${window.from} to ${window.to}`
          : strings
            ? `on strings ${strings.join(', ')}`
            : 'here';
    return `${name} ${when} does not lie ${where}; allow more of the neck.`;
  }
  return `The ${notes.length} notes ${when} cannot be held together; take one of them away or move it.`;
}
