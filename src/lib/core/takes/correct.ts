/**
 * What was heard, corrected by hand: a note moved, parted, joined, taken out, put in. Each gives the notes anew, in the order of their starts,
 * and the place of the one that was touched. What a hand has said is certain.
 */
import type { Midi, Seconds } from '../base/units';
import { STEP_SECONDS, type HeardNote } from './model';

export interface Corrected {
  readonly notes: readonly HeardNote[];
  /** The note to go on with; null where none is left. */
  readonly at: number | null;
}

/** Seconds that a note lasts at least. */
export const SHORTEST = 0.03;
/** MIDI numbers of the piano. */
const PITCHES = { low: 21, high: 108 } as const;
/** A curve further off its note tells nothing, in cents. */
const FURTHEST = 1200;

const pitched = (midi: Midi) => Math.max(PITCHES.low, Math.min(PITCHES.high, midi));

/** Below this a note is told as uncertain: about every second one of them is wrong, or not there. */
export const UNCERTAIN = 0.75;
/** Whether a heard note is drawn as uncertain. */
export const isUncertain = ({ confidence }: Pick<HeardNote, 'confidence'>): boolean => confidence < UNCERTAIN;

/** Notes in order, and the place of one of them. */
function sorted(notes: readonly HeardNote[], own: HeardNote | null): Corrected {
  const all = [...notes].sort((a, b) => a.at - b.at || a.midi - b.midi);
  return { notes: all, at: own ? all.indexOf(own) : null };
}

const without = (notes: readonly HeardNote[], ...places: readonly number[]) =>
  notes.filter((_, i) => !places.includes(i));

/** A note at another pitch, in semitones up, and another time, in seconds later. Its pitch curve stays where the sound was. */
export function moveNote(
  notes: readonly HeardNote[],
  at: number,
  { semitones = 0, seconds = 0 }: { readonly semitones?: number; readonly seconds?: Seconds }
): Corrected {
  const note = notes[at];
  if (!note) return { notes, at: null };
  const midi = pitched(note.midi + semitones);
  const cents = 100 * (note.midi - midi);
  const steps = Math.round(seconds / STEP_SECONDS);
  const from = steps >= 0 ? note.curve.slice(steps) : [...Array<null>(-steps).fill(null), ...note.curve];
  const curve = from.map((own) => (own === null || Math.abs(own + cents) > FURTHEST ? null : own + cents));
  const own = {
    ...note,
    midi,
    at: note.at + seconds,
    cents: midi === note.midi ? note.cents : 0,
    curve,
    confidence: 1
  };
  return sorted([...without(notes, at), own], own);
}

/** A note as two, the second from `second` on, at the pitch that sounds there. */
export function splitNote(notes: readonly HeardNote[], at: number, second: number): Corrected {
  const note = notes[at];
  if (!note) return { notes, at: null };
  const end = note.at + note.seconds;
  const cut = Math.max(note.at + SHORTEST, Math.min(end - SHORTEST, second));
  if (cut <= note.at || cut >= end) return { notes, at };
  const steps = Math.round((cut - note.at) / STEP_SECONDS);
  const first: HeardNote = {
    ...note,
    seconds: cut - note.at,
    confidence: 1,
    curve: note.curve.slice(0, steps),
    events: note.events.filter((event) => event.at < cut)
  };
  const rest = note.curve.slice(steps);
  const known = rest.filter((cents) => cents !== null).sort((a, b) => a - b);
  const away = Math.round((known[known.length >> 1] ?? 0) / 100);
  const other: HeardNote = {
    ...note,
    at: cut,
    seconds: end - cut,
    midi: pitched(note.midi + away),
    confidence: 1,
    curve: rest.map((cents) => (cents === null ? null : cents - 100 * away)),
    events: note.events.filter((event) => event.at >= cut)
  };
  return sorted([...without(notes, at), first, other], other);
}

/** A note and the next as one, at the pitch of the first. */
export function joinNote(notes: readonly HeardNote[], at: number): Corrected {
  const [note, next] = [notes[at], notes[at + 1]];
  if (!note || !next) return { notes, at: note ? at : null };
  const gap = Math.max(0, Math.round((next.at - note.at) / STEP_SECONDS));
  const away = 100 * (next.midi - note.midi);
  const own: HeardNote = {
    ...note,
    seconds: Math.max(note.seconds, next.at + next.seconds - note.at),
    confidence: 1,
    curve: [
      ...note.curve.slice(0, gap),
      ...Array<null>(Math.max(0, gap - note.curve.length)).fill(null),
      ...next.curve.map((cents) =>
        cents === null || Math.abs(cents + away) > FURTHEST ? null : cents + away
      )
    ],
    events: [...note.events, ...next.events]
  };
  return sorted([...without(notes, at, at + 1), own], own);
}

/** A note taken out; the one before is next. */
export function deleteNote(notes: readonly HeardNote[], at: number): Corrected {
  const left = without(notes, at);
  return { notes: left, at: left.length ? Math.max(0, at - 1) : null };
}

/** A note put in, at most until the next begins. */
export function addNote(
  notes: readonly HeardNote[],
  { at, seconds, midi }: { readonly at: number; readonly seconds: Seconds; readonly midi: Midi }
): Corrected {
  const next = notes.find((note) => note.at > at + SHORTEST);
  const own: HeardNote = {
    at,
    seconds: Math.max(SHORTEST, Math.min(seconds, next ? next.at - at : seconds)),
    midi: pitched(midi),
    level: notes.length ? notes.reduce((sum, { level = 1 }) => sum + level, 0) / notes.length : 1,
    cents: 0,
    confidence: 1,
    curve: [],
    events: []
  };
  return sorted([...notes, own], own);
}
