/**
 * Reading a line against the chart: what every note is on its chord, how each change is landed on, and figures over the
 * whole. Source: docs/music-rules.md, Reading a line.
 */
import type { ScaleChoice } from '../approaches/choice';
import { contextOf } from '../approaches/context';
import { outsideRole } from '../approaches/judge';
import { nth, sure } from '../base/list';
import type { Ticks } from '../base/units';
import type { Form } from '../chart/unroll';
import type { AnalysedChange, Analysis } from '../harmony/analysis';
import { DEGREES, degreeOf, type Degree } from '../theory/degree';
import { pitchClass, semitonesUp } from '../theory/note';
import { beatsOf, endOf, TICKS, ticksOf, type Line, type LineNote } from './model';

export type NoteRole =
  | 'approach'
  | 'chord tone'
  | 'leaning'
  | 'blue'
  | 'passing'
  | 'avoid'
  | 'tension'
  | 'outside';

/** A note as it is heard. */
export interface ReadNote {
  /** Its place in the line. */
  readonly index: number;
  /** The change it is heard against. */
  readonly change: number;
  /** Null where no chord sounds. */
  readonly degree: Degree | null;
  readonly role: NoteRole;
  /** It comes up to half a pulse before its change and lasts into it. */
  readonly anticipates: boolean;
  /** For an approach and a note that leans: the note it leads to, by its place in the line. */
  readonly leadsTo?: number;
}

export type LandedBy =
  | 'held'
  | 'semitone below'
  | 'semitone above'
  | 'step'
  | 'enclosure'
  | 'leap'
  | 'leaning'
  | 'silence';

/** The first note that sounds at a change. */
export interface Landing {
  readonly change: number;
  /** Its place in the line; absent where nothing sounds. */
  readonly note?: number;
  readonly degree?: Degree;
  readonly by: LandedBy;
  /** From the note before, in semitones; absent after silence. */
  readonly semitones?: number;
  /** Beats after the change's start; negative where it anticipates. */
  readonly late?: number;
}

/** Figures over a line; shares are 0 to 1, null where there is nothing to count. */
export interface LineFigures {
  readonly notes: number;
  readonly chordTonesOnBeats: number | null;
  readonly landingsOnThirdOrSeventh: number | null;
  readonly landingsByStep: number | null;
  readonly directionChanges: number;
  /** In semitones. */
  readonly largestLeap: number;
  /** MIDI numbers. */
  readonly range: { readonly low: number; readonly high: number } | null;
  /** In beats. */
  readonly longestSilence: number;
  /** Share of the changes played on that begin on their root, and on the lowest note of the line there. */
  readonly beginsOnRoot: number | null;
  readonly beginsOnLowest: number | null;
  /** Notes that clash: `avoid` and `outside`. */
  readonly clashes: number;
}

export interface LineReading {
  readonly notes: readonly ReadNote[];
  readonly landings: readonly Landing[];
  readonly figures: LineFigures;
}

/** What a line is read against. */
export interface Ground {
  readonly form: Form;
  readonly analysis: Analysis;
  /** What is played over each change; its notes are no strangers there. */
  readonly chosen: readonly (ScaleChoice | null)[];
}

/** Half a beat. */
const HALF = TICKS / 2;
/** Silence of this many ticks before a note parts it from what came before. */
const SILENCE = TICKS;
const TONE = 2;

/** Roles, degrees and landings of a line against its chart. Source: docs/music-rules.md, Reading a line. */
export function readLine(line: Line, ground: Ground): LineReading {
  const push = pushOf(ground.form);
  const heard = hear(line.notes, ground, push);
  const roles = line.notes.map((_, i) => roleOf(i, heard, ground));
  const notes = asRead(heard, roles);
  let sounding = 0;
  const landings: Landing[] = [];
  for (const change of ground.analysis.changes) {
    // One walk over the notes serves all changes: what has ended before one does not sound at a later one.
    const start = ticksOf(change.start);
    while (sounding < heard.length && endOf(nth(heard, sounding).note) <= start) sounding++;
    if (change.chord) landings.push(landingOn(change, sounding, heard, roles, push));
  }
  return { notes, landings, figures: figuresOf(line.notes, heard, notes, landings) };
}

/** Places on both sides of a note that its reading may depend on: an enclosure's goal, and what is struck together. */
const MARGIN = 12;

/** The notes of a part of a line as the whole is read, for what is seen of a long one: `from` is in, `to` is not. */
export function readPart({ meter, notes }: Line, ground: Ground, from: number, to: number): ReadNote[] {
  const first = Math.max(0, from - MARGIN);
  const part = readNotes({ meter, notes: notes.slice(first, to + MARGIN) }, ground);
  return part.slice(from - first, to - first).map(({ leadsTo, ...read }) => ({
    ...read,
    index: read.index + first,
    ...(leadsTo === undefined ? {} : { leadsTo: leadsTo + first })
  }));
}

function readNotes(line: Line, ground: Ground): ReadNote[] {
  const heard = hear(line.notes, ground, pushOf(ground.form));
  return asRead(
    heard,
    line.notes.map((_, i) => roleOf(i, heard, ground))
  );
}

const asRead = (heard: readonly Heard[], roles: readonly Pick<ReadNote, 'role' | 'leadsTo'>[]) =>
  heard.map(({ index, change, degree, anticipates }, i): ReadNote => ({
    index,
    change: change.index,
    degree,
    anticipates,
    ...nth(roles, i)
  }));

interface Heard {
  readonly index: number;
  readonly note: LineNote;
  readonly change: AnalysedChange;
  readonly degree: Degree | null;
  readonly anticipates: boolean;
}

/** The change a note is heard against, by its index: the one at its start, or the one it anticipates. */
export function changeHeardAt(note: LineNote, changes: readonly AnalysedChange[], push = HALF): number {
  const at = Math.max(
    0,
    changes.findLastIndex(({ start }) => ticksOf(start) <= note.start)
  );
  return anticipatesAt(note, changes[at + 1], push) ? at + 1 : at;
}

/** It starts at most half a pulse before a change and lasts into it. */
function anticipatesAt(note: LineNote, next: AnalysedChange | undefined, push: number): boolean {
  if (!next) return false;
  const start = ticksOf(next.start);
  return start - note.start <= push && endOf(note) > start;
}

/** Each note with the change it is heard against: the one at its start, or the one it anticipates. */
function hear(notes: readonly LineNote[], { analysis: { changes } }: Ground, push: number): Heard[] {
  let at = 0;
  let before = 0;
  return notes.map((note, index) => {
    // Notes of a line are in order, so that one walk over the changes serves them all.
    at = note.start >= before ? at : 0;
    before = note.start;
    while (at + 1 < changes.length && ticksOf(nth(changes, at + 1).start) <= note.start) at++;
    const next = changes[at + 1];
    const anticipates = anticipatesAt(note, next, push);
    const change = anticipates && next ? next : nth(changes, at);
    const { chord } = change;
    const degree = chord ? degreeOf(semitonesUp(chord.rootPc, note.midi % 12), chord.tones) : null;
    return { index, note, change, degree, anticipates };
  });
}

const isChordTone = ({ change, note }: Heard) => change.chord?.pitchClasses.includes(note.midi % 12) ?? false;

const homes = new WeakMap<
  AnalysedChange,
  { readonly choice: ScaleChoice | null; readonly home: ReadonlySet<number> }
>();

/** The pitch classes at home on a change: its chord's and those of what is played over it. */
function atHome(change: AnalysedChange, { chosen }: Ground): ReadonlySet<number> {
  const choice = chosen[change.index] ?? null;
  const known = homes.get(change);
  if (known?.choice === choice) return known.home;
  const scale = choice?.notes ?? [];
  const home = new Set([...(change.chord?.pitchClasses ?? []), ...scale.map((name) => pitchClass(name))]);
  homes.set(change, { choice, home });
  return home;
}

/** The note that a line comes to rest on: the last one that is struck over a chord. */
export const restIn = ({ notes: read }: Pick<LineReading, 'notes'>, notes: readonly LineNote[]) =>
  read.findLast(({ index, degree }) => degree !== null && !nth(notes, index).ghost);

/** How early a note may come, or how late, and still belong to a change: half a pulse, an eighth where three of them make a pulse. */
export function pushOf({ bars }: Form): number {
  const first = bars[0];
  if (!first || first.meter.unit < 8) return HALF;
  return Math.round((TICKS * first.beats * first.meter.unit) / (8 * first.meter.beats));
}

/** The bar at a time, the first one for what comes before it. */
function barAt(bars: Form['bars'], ticks: Ticks): Form['bars'][number] | undefined {
  let [low, high] = [0, bars.length - 1];
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (ticksOf(nth(bars, middle).start) <= ticks) low = middle;
    else high = middle - 1;
  }
  return bars[low];
}

/** On a pulse: a beat, or a dotted one where three eighths make it. */
function isOnPulse({ start }: LineNote, { bars }: Form): boolean {
  const bar = barAt(bars, start);
  if (!bar) return start % TICKS === 0;
  const isDotted = bar.meter.unit >= 8 && bar.meter.beats % 3 === 0;
  const pulse = (TICKS * bar.beats * (isDotted ? 3 : bar.meter.unit / 4)) / bar.meter.beats;
  return (start - ticksOf(bar.start)) % pulse === 0;
}

const isOnBeat = ({ start }: LineNote) => start % TICKS === 0;

/** How strong a moment is: the first beat of a bar, the middle of an even bar, a beat, half a beat, finer. */
function strength(ticks: Ticks, { form: { bars } }: Ground): number {
  const bar = barAt(bars, ticks);
  const within = bar ? ticks - ticksOf(bar.start) : ticks;
  const beats = bar?.beats ?? 4;
  if (within === 0) return 4;
  if (beats % 2 === 0 && within === (beats / 2) * TICKS) return 3;
  if (within % TICKS === 0) return 2;
  return within % HALF === 0 ? 1 : 0;
}

/** The roles in the order in which they are tried. */
function roleOf(i: number, heard: readonly Heard[], ground: Ground): Pick<ReadNote, 'role' | 'leadsTo'> {
  const own = nth(heard, i);
  const { chord } = own.change;
  const into = leadsIntoNextChange(i, heard);
  if (into !== null) return { role: 'approach', leadsTo: into };
  if (!chord) return { role: 'outside' };
  if (isChordTone(own)) return { role: 'chord tone' };
  const resolved = resolutionOf(i, heard, ground);
  if (resolved !== null) return { role: 'leaning', leadsTo: resolved };
  const choice = ground.chosen[own.change.index];
  const outside = outsideRole(chord, semitonesUp(chord.rootPc, own.note.midi % 12), {
    minorGoal: contextOf(ground.analysis, own.change.index)?.minorGoal ?? false,
    ...(choice?.blueNotes ? { blueNotes: choice.blueNotes } : {})
  });
  if (outside === 'blue') return { role: 'blue' };
  const within = leadsWithinChange(i, heard, ground);
  if (within !== null) return { role: 'approach', leadsTo: within };
  if (isPassing(i, heard, ground)) return { role: 'passing' };
  const clashes = isOnBeat(own.note) || own.note.length > HALF;
  if (outside === 'avoid' && clashes && !isLeftByStep(i, heard)) return { role: 'avoid' };
  if (outside === 'tension') return { role: 'tension' };
  const isChosen = choice?.notes.some((name) => pitchClass(name) === own.note.midi % 12) ?? false;
  return { role: outside === 'avoid' && isChosen ? 'tension' : 'outside' };
}

/** The note that follows, or that went before, in the same voice: of a double stop the one that lies nearer. */
function nearestAt(start: Ticks | undefined, i: number, heard: readonly Heard[]): Heard | undefined {
  const { midi } = nth(heard, i).note;
  const near = heard.slice(Math.max(0, i - REACH), i + REACH + 1).filter(({ note }) => note.start === start);
  return near.reduce<Heard | undefined>(
    (best, one) => (best && Math.abs(best.note.midi - midi) <= Math.abs(one.note.midi - midi) ? best : one),
    undefined
  );
}

/** Places in the line in which the neighbours of a note lie, whatever sounds with them. */
const REACH = 4;

/** The next note that starts later: the other note of a double stop is none. */
function after(i: number, heard: readonly Heard[]): Heard | undefined {
  const { start } = nth(heard, i).note;
  const next = heard.slice(i + 1, i + REACH).find(({ note }) => note.start > start);
  return nearestAt(next?.note.start, i, heard);
}

function beforeNote(i: number, heard: readonly Heard[]): Heard | undefined {
  const { start } = nth(heard, i).note;
  const last = heard.slice(Math.max(0, i - REACH + 1), i).findLast(({ note }) => note.start < start);
  return nearestAt(last?.note.start, i, heard);
}

/**
 * At a change or on a pulse, at most half a pulse long, left by one or two semitones into a tone of the chord that sounds: what it leans on.
 */
function resolutionOf(i: number, heard: readonly Heard[], { form }: Ground): number | null {
  const own = nth(heard, i);
  const push = pushOf(form);
  const isAtChange = own.note.start === ticksOf(own.change.start);
  if (own.anticipates || own.note.length > push || !(isAtChange || isOnPulse(own.note, form))) return null;
  const next = after(i, heard);
  if (!next || next.change !== own.change || next.note.start - endOf(own.note) > 0 || !isChordTone(next))
    return null;
  const distance = Math.abs(next.note.midi - own.note.midi);
  return distance >= 1 && distance <= TONE ? next.index : null;
}

/** Off the beat, at most a beat long, left by a semitone into a chord tone of the next change on its first beat. */
function leadsIntoNextChange(i: number, heard: readonly Heard[]): number | null {
  const own = nth(heard, i);
  const next = after(i, heard);
  if (!next || own.anticipates || isOnBeat(own.note) || own.note.length > TICKS) return null;
  if (next.change.index !== own.change.index + 1 || !isChordTone(next)) return null;
  const isOnFirstBeat = next.note.start <= ticksOf(next.change.start);
  return isOnFirstBeat && Math.abs(next.note.midi - own.note.midi) === 1 ? next.index : null;
}

/** A bend's own start, or a short note that leads by a semitone or a scale step into a chord tone on a stronger beat. */
function leadsWithinChange(i: number, heard: readonly Heard[], ground: Ground): number | null {
  const own = nth(heard, i);
  if (own.note.length > TICKS) return null;
  const next = after(i, heard);
  if (!next || next.change !== own.change) return null;
  const leadsTo = (goal: Heard | undefined) =>
    goal &&
    goal.change === own.change &&
    isChordTone(goal) &&
    strength(goal.note.start, ground) > strength(own.note.start, ground) &&
    isStep(own, goal, ground)
      ? goal
      : undefined;
  if (next.note.slide && isChordTone(next) && isStep(own, next, ground)) return next.index;
  if (leadsTo(next)) return next.index;
  // Half of an enclosure: the other side of the goal comes between.
  const goal = leadsTo(after(next.index, heard));
  const isEnclosed =
    goal && Math.sign(own.note.midi - goal.note.midi) === -Math.sign(next.note.midi - goal.note.midi);
  return isEnclosed && isStep(next, goal, ground) ? goal.index : null;
}

/** A semitone, or a tone between two neighbours of what is at home there. */
function isStep(from: Heard, to: Heard, ground: Ground): boolean {
  const distance = Math.abs(to.note.midi - from.note.midi);
  if (distance === 1) return true;
  if (distance !== TONE) return false;
  const home = atHome(to.change, ground);
  const between = (Math.min(from.note.midi, to.note.midi) + 1) % 12;
  return home.has(from.note.midi % 12) && !home.has(between);
}

function isPassing(i: number, heard: readonly Heard[], ground: Ground): boolean {
  const [before, own, next] = [beforeNote(i, heard), nth(heard, i), after(i, heard)];
  if (!before || !next) return false;
  const [into, out] = [own.note.midi - before.note.midi, next.note.midi - own.note.midi];
  const isStepwise = [into, out].every((step) => step !== 0 && Math.abs(step) <= TONE);
  const home = atHome(own.change, ground);
  const isHome = (one: Heard) =>
    home.has(one.note.midi % 12) || atHome(one.change, ground).has(one.note.midi % 12);
  return isStepwise && Math.sign(into) === Math.sign(out) && isHome(before) && isHome(next);
}

function isLeftByStep(i: number, heard: readonly Heard[]): boolean {
  const next = after(i, heard);
  const distance = next ? Math.abs(next.note.midi - nth(heard, i).note.midi) : Infinity;
  return distance > 0 && distance <= TONE;
}

/** `sounding`: the first note that has not ended when the change comes, by its place; beyond the last where there is none. */
function landingOn(
  change: AnalysedChange,
  sounding: number,
  heard: readonly Heard[],
  roles: readonly Pick<ReadNote, 'role' | 'leadsTo'>[],
  push: number
): Landing {
  const start = ticksOf(change.start);
  const end = Math.min(start + push, ticksOf(change.start + change.beats) - 1);
  // A note that leans is not the landing; what it leans on is.
  const leans = heard[sounding]?.change === change && nth(roles, sounding).role === 'leaning';
  const at = leans ? sure(nth(roles, sounding).leadsTo, 'the goal of a leaning note') : sounding;
  const first = heard[at];
  if (!first || first.note.start > end) return { change: change.index, by: 'silence' };
  const { chord } = change;
  const degree = chord ? degreeOf(semitonesUp(chord.rootPc, first.note.midi % 12), chord.tones) : undefined;
  const landed = {
    change: change.index,
    note: first.index,
    ...(degree ? { degree } : {}),
    late: beatsOf(first.note.start - start)
  };
  if (leans) return { ...landed, semitones: first.note.midi - nth(heard, sounding).note.midi, by: 'leaning' };
  const isHeld = first.note.start < start && !(first.anticipates && first.change === change);
  const before = beforeNote(at, heard);
  if (isHeld || first.note.tie) return { ...landed, by: 'held', semitones: 0, late: 0 };
  if (!before || first.note.start - endOf(before.note) >= SILENCE) return { ...landed, by: 'silence' };
  const semitones = first.note.midi - before.note.midi;
  return { ...landed, semitones, by: reachedBy(semitones, first, before, beforeNote(before.index, heard)) };
}

function reachedBy(semitones: number, landed: Heard, before: Heard, earlier: Heard | undefined): LandedBy {
  const isNear = (one: Heard) => Math.abs(one.note.midi - landed.note.midi) <= TONE;
  const side = (one: Heard) => Math.sign(one.note.midi - landed.note.midi);
  if (earlier && side(earlier) * side(before) === -1 && isNear(earlier) && isNear(before)) return 'enclosure';
  if (semitones === 0) return 'held';
  if (semitones === 1) return 'semitone below';
  if (semitones === -1) return 'semitone above';
  return Math.abs(semitones) === TONE ? 'step' : 'leap';
}

const share = (count: number, all: number) => (all === 0 ? null : count / all);

function figuresOf(
  line: readonly LineNote[],
  heard: readonly Heard[],
  notes: readonly ReadNote[],
  landings: readonly Landing[]
): LineFigures {
  const top = line.filter((note, i) => line[i + 1]?.start !== note.start);
  const moves = top.slice(1).map((note, i) => note.midi - nth(top, i).midi);
  const turns = moves.filter((move) => move !== 0);
  const onBeats = heard.filter(({ note, change }) => isOnBeat(note) && change.chord);
  const landed = landings.filter(({ note }) => note !== undefined);
  const silences = top.map((note, i) => note.start - (i === 0 ? 0 : endOf(nth(top, i - 1))));
  const pitches = line.map(({ midi }) => midi);
  const starts = [...new Map(heard.toReversed().map((one) => [one.change.index, one])).values()];
  const lowest = new Map<number, number>();
  for (const { change, note } of heard)
    lowest.set(change.index, Math.min(note.midi, lowest.get(change.index) ?? Infinity));
  return {
    notes: line.length,
    chordTonesOnBeats: share(onBeats.filter(isChordTone).length, onBeats.length),
    landingsOnThirdOrSeventh: share(
      landed.filter(({ degree }) => degree && ['3', '7'].includes(DEGREES[degree].slot)).length,
      landed.length
    ),
    landingsByStep: share(landed.filter(({ by }) => by !== 'leap' && by !== 'silence').length, landed.length),
    directionChanges: turns.filter((move, i) => i > 0 && Math.sign(move) !== Math.sign(nth(turns, i - 1)))
      .length,
    largestLeap: Math.max(0, ...moves.map(Math.abs)),
    range: pitches.length ? { low: Math.min(...pitches), high: Math.max(...pitches) } : null,
    longestSilence: beatsOf(Math.max(0, ...silences)),
    beginsOnRoot: share(starts.filter(({ degree }) => degree === '1').length, starts.length),
    beginsOnLowest: share(
      starts.filter(({ note, change }) => note.midi === lowest.get(change.index)).length,
      starts.length
    ),
    clashes: notes.filter(({ role }) => role === 'avoid' || role === 'outside').length
  };
}
