/** The notes of a score: pitches, places and techniques; ties joined, the highest voice found. */
import { nth } from '../../base/list';
import { endOf, noteOf, type LineNote } from '../../line/model';
import { midiOf, plainName } from '../../theory/note';
import { all, attribute, childrenOf, nameOf, numberAt, one, said, textOf, type Node } from './score';

/** A note of a part before its ties are joined. */
export interface Heard {
  readonly note: LineNote;
  /** The pitch on the staff: of a bend the one that is fretted, which its held pieces have too. */
  readonly written: number;
  readonly isTied: boolean;
  /** It has a name: struck, or tied on purpose. */
  readonly isNamed: boolean;
  /** Its staff and voice. */
  readonly voice: string;
}

/** The voice that lies highest, of those that have a fair share of the notes; nothing where there is but one. */
export function upperOf(heard: readonly Heard[]): readonly Heard[] {
  const voices = new Map<string, Heard[]>();
  for (const one of heard) voices.set(one.voice, [...(voices.get(one.voice) ?? []), one]);
  if (voices.size < 2) return [];
  const height = (notes: readonly Heard[]) =>
    notes.reduce((sum, { written }) => sum + written, 0) / notes.length;
  const large = [...voices.values()].filter(({ length }) => length >= FAIR_SHARE * heard.length);
  return large.sort((a, b) => height(b) - height(a))[0] ?? [];
}
const FAIR_SHARE = 0.15;

/** A note of a measure with its techniques; null for a rest. Times in ticks; `transposed`: semitones from what is written to what sounds. */
export function readNote(item: Node, start: number, length: number, transposed: number): Heard | null {
  const node = one(item, 'pitch');
  const step = said(node, 'step').toUpperCase();
  const octave = numberAt(node, 'octave');
  const alter = Math.round(numberAt(node, 'alter') ?? 0);
  const natural = octave === null ? null : midiOf(`${step}${octave}`);
  if (natural === null || Math.abs(alter) > 2) return null;
  const written = natural + alter + transposed;
  const notations = all(item, 'notations');
  const technical = notations.flatMap((notation) => all(notation, 'technical').flatMap(childrenOf));
  const named = (name: string) => technical.filter((child) => nameOf(child) === name);
  const value = (name: string) => {
    const text = textOf(named(name)[0]).trim();
    return /^\d+$/.test(text) ? Number(text) : null;
  };
  const alters = named('bend').map((bend) => numberAt(bend, 'bend-alter') ?? 0);
  const curl = alters.find((by) => by > 0 && by <= 0.5);
  const bends = alters.map((by) => (Math.abs(by) <= 0.5 ? 0 : Math.round(by)));
  const up = bends.find((by) => by > 0);
  const down = bends.find((by) => by < 0);
  const midi = written + (up ?? 0);
  if (midi < 0 || midi > 127) return null;
  const [string, fret, finger] = [value('string'), value('fret'), value('fingering')];
  const stops = (name: string) => (child: Node) =>
    nameOf(child) === name && attribute(child, 'type') === 'stop';
  const inNotations = notations.flatMap(childrenOf);
  const ornaments = notations.flatMap((notation) => all(notation, 'ornaments').flatMap(childrenOf));
  const name = step + (alter < 0 ? 'b' : '#').repeat(Math.abs(alter));
  const note: LineNote = {
    ...noteOf(start, length, midi),
    note: transposed === 0 && up === undefined ? name : plainName(midi % 12),
    ...(string !== null && fret !== null
      ? { place: { string, fret, ...(finger !== null && finger <= 4 ? { finger } : {}) } }
      : {}),
    ...(up === undefined ? {} : { bend: { from: written } }),
    ...(up === undefined && curl !== undefined
      ? { bend: { from: written, cents: Math.round(100 * curl) } }
      : {}),
    ...(up !== undefined && down !== undefined ? { release: { to: midi + down } } : {}),
    ...(inNotations.some(stops('slide')) || inNotations.some(stops('glissando'))
      ? { slide: true as const }
      : {}),
    ...(technical.some(stops('hammer-on')) || technical.some(stops('pull-off'))
      ? { slur: true as const }
      : {}),
    ...(ornaments.some((child) => nameOf(child) === 'wavy-line') ? { vibrato: true as const } : {}),
    ...(attribute(one(item, 'notehead') ?? {}, 'parentheses') === 'yes' ? { ghost: true as const } : {})
  };
  const isTied = all(item, 'tie').some((tie) => attribute(tie, 'type') === 'stop');
  const voice = `${said(item, 'staff')}/${said(item, 'voice')}`;
  return { note, written, isTied, isNamed: attribute(item, 'id') !== '', voice };
}

/** One note for what staff and tab both say, and one for what ties hold together. */
export function joined(heard: readonly Heard[]): LineNote[] {
  const merged = new Map<string, Heard>();
  for (const one of heard) {
    const key = `${one.note.start}:${one.written}`;
    const other = merged.get(key);
    merged.set(
      key,
      other
        ? {
            // The staff says how it is spelled, the tab where it lies.
            note: {
              ...one.note,
              ...other.note,
              ...(other.note.place ? {} : one.note.place ? { place: one.note.place } : {})
            },
            written: one.written,
            isTied: other.isTied || one.isTied,
            isNamed: other.isNamed || one.isNamed,
            voice: other.voice
          }
        : one
    );
  }
  const inOrder = [...merged.values()].sort(
    (a, b) => a.note.start - b.note.start || a.note.midi - b.note.midi
  );
  const notes: LineNote[] = [];
  /** The last note of each pitch, as it is written and as it sounds. */
  const lastOf = new Map<number, number>();
  for (const { note, written, isTied, isNamed } of inOrder) {
    const before = [written, note.midi]
      .map((pitch) => lastOf.get(pitch))
      .find((index) => index !== undefined && endOf(nth(notes, index)) === note.start);
    const goesOn = isTied && before !== undefined;
    if (goesOn && !isNamed) {
      notes[before] = { ...nth(notes, before), length: nth(notes, before).length + note.length };
      continue;
    }
    lastOf.set(written, notes.length).set(note.midi, notes.length);
    notes.push(goesOn ? { ...note, tie: true } : note);
  }
  return notes;
}
