/** Note names and pitch classes. Names are ASCII ("Bb", "F##"); pitch classes 0 (C) to 11 (B). */
import { nth } from '../base/list';
import type { Midi, PitchClass } from '../base/units';
import * as Note from '@tonaljs/note';
import { DEGREES, type Degree } from './degree';
import { asciiAccidentals } from './typeset';

export type NoteName = string;
export type { PitchClass };

/** The plainest name of each pitch class, flats and sharps as most keys of this music spell them. */
const PLAIN_NAMES: readonly NoteName[] = ['C', 'Db', 'D', 'Eb', 'E', 'F', 'F#', 'G', 'Ab', 'A', 'Bb', 'B'];

/** The few names that music uses come up again and again; there are no more than these many with their intervals. */
const MOST_REMEMBERED = 5000;
const pitchClasses = new Map<NoteName, PitchClass>();

/** The pitch class of a note name. */
export function pitchClass(name: NoteName): PitchClass {
  const known = pitchClasses.get(name);
  if (known !== undefined) return known;
  const pc = Note.get(name).chroma;
  if (pitchClasses.size < MOST_REMEMBERED) pitchClasses.set(name, pc);
  return pc;
}

/** The plainest name of a pitch class: one sign at most, flats where both are as plain. */
export function plainName(pc: PitchClass): NoteName {
  return nth(PLAIN_NAMES, pc);
}

/** A note with two accidentals by its plain neighbour; any other as it is. */
export function withoutDoubles(note: NoteName): NoteName {
  return /##|bb/.test(note) ? plainName(pitchClass(note)) : note;
}

const notesAbove = new Map<string, NoteName>();

/** The note an interval ("3m", "7d") above a root, spelled from the root as typed. */
export function noteAbove(root: NoteName, interval: string): NoteName {
  const id = root + interval;
  const known = notesAbove.get(id);
  if (known !== undefined) return known;
  const note = Note.transpose(root, interval);
  if (notesAbove.size < MOST_REMEMBERED) notesAbove.set(id, note);
  return note;
}

/** The note of a degree above a root: one letter per degree (the b7 of Db is Cb). */
export function spell(root: NoteName, degree: Degree): NoteName {
  return noteAbove(root, DEGREES[degree].interval);
}

/** The plain neighbour of a note (Cb → B, B# → C, F## → G); other names are left as they are. */
export function simpleSpelling(name: NoteName): NoteName {
  const awkward = /##|bb|^(?:Cb|Fb|B#|E#)$/.test(name);
  return awkward ? plainName(pitchClass(name)) : name;
}

/** Reads a note name as players write it ("Bb", "b♭", "F♯", "Abb"); null where it is none. */
export function readNote(text: string): NoteName | null {
  const match = /^([A-Ga-g])(##|bb|♯♯|♭♭|𝄪|𝄫|x|#|b|♯|♭)?$/u.exec(text);
  if (!match) return null;
  const accidental = asciiAccidentals(match[2] ?? '').replace('x', '##');
  return nth(match, 1).toUpperCase() + accidental;
}

/** The MIDI number of a name with octave ("E2" is 40); null where it is none. */
export function midiOf(name: string): number | null {
  // The library keeps every name it is asked for, so that it is asked for notes alone.
  return /^[A-Ga-g](?:##?|bb?)?-?\d$/.test(name) ? Note.midi(name) : null;
}

/** The plain name of a MIDI number with its octave: 40 is "E2". */
export function midiName(midi: Midi): string {
  return `${plainName(((midi % 12) + 12) % 12)}${Math.floor(midi / 12) - 1}`;
}

/** Semitones from one pitch class up to another, 0–11. */
export function semitonesUp(from: PitchClass, to: PitchClass): number {
  return (to - from + 12) % 12;
}
