/** Collections: what can be proposed over a change. A scale, a pentatonic, an arpeggio or a triad, by name. */
import { chordNotes, readChord, type Chord } from '../theory/chord';
import { pitchClass, semitonesUp, type NoteName, type PitchClass } from '../theory/note';
import { parentOf, readScale, scaleOf, type Scale } from '../theory/scale';

export interface Parent {
  readonly tonic: NoteName;
  readonly scale: string;
  /** Which mode of the parent it is, from 1. */
  readonly degree: number;
}

export interface Collection {
  /** With its root, as in JSON: "F dorian", "Ebmaj7 arpeggio", "G minor triad". */
  readonly name: string;
  readonly root: NoteName;
  readonly notes: readonly NoteName[];
  readonly parent?: Parent;
  /** Passing notes of a blues scale. */
  readonly blueNotes?: readonly PitchClass[];
}

const pitchesOf = ({ notes }: { notes: readonly NoteName[] }): PitchClass[] => notes.map(pitchClass);

/** Passing notes of the scales that have them, in semitones above the root. */
const BLUE_NOTES: Readonly<Record<string, readonly number[]>> = {
  'minor blues': [6],
  'major blues': [3],
  'blended blues': [3, 6]
};

export function scaleCollection(scale: Scale): Collection {
  const parent = parentOf(scale);
  const blue = BLUE_NOTES[scale.name];
  const root = pitchClass(scale.root);
  return {
    name: `${scale.root} ${scale.name}`,
    root: scale.root,
    notes: scale.notes,
    ...(parent ? { parent } : {}),
    ...(blue ? { blueNotes: blue.map((semitones) => (root + semitones) % 12) } : {})
  };
}

/** A scale of the table as a collection. The name has to be in the table. */
export function scaleNamed(root: NoteName, name: string): Collection {
  return scaleCollection(scaleOf(root, name)!);
}

/** The arpeggio of a chord, as "Fm7 arpeggio". */
export function arpeggioOf(chord: Chord): Collection {
  return { name: `${chord.root}${chord.suffix} arpeggio`, root: chord.root, notes: chordNotes(chord) };
}

export function chordNamed(symbol: string): Chord | null {
  const reading = readChord(symbol);
  return reading.kind === 'chord' ? reading.chord : null;
}

const TRIADS: Readonly<Record<string, string>> = {
  major: '',
  minor: 'm',
  diminished: 'dim',
  augmented: 'aug'
};

/** The triad on three notes that stack in thirds, or null where they make none. */
export function triadOf(notes: readonly NoteName[]): Collection | null {
  const [root, third, fifth] = pitchesOf({ notes });
  const heights = `${semitonesUp(root!, third!)} ${semitonesUp(root!, fifth!)}`;
  const kind = ({ '4 7': 'major', '3 7': 'minor', '3 6': 'diminished', '4 8': 'augmented' } as const)[
    heights
  ];
  return kind ? { name: `${notes[0]} ${kind} triad`, root: notes[0]!, notes } : null;
}

/** Seventh chords by the semitones of their third, fifth and seventh. */
const SEVENTH_CHORDS: Readonly<Record<string, string>> = {
  '4 7 11': 'maj7',
  '4 7 10': '7',
  '3 7 10': 'm7',
  '3 6 10': 'm7b5',
  '3 6 9': 'dim7',
  '3 7 11': 'm(maj7)',
  '4 8 11': 'maj7#5',
  '4 8 10': '7#5',
  '4 6 10': '7b5',
  '4 6 11': 'maj7b5',
  '3 6 11': 'dim(maj7)'
};

/** The seventh chord on four notes that stack in thirds; null where they make none of the usual ones. */
export function seventhChordOn(notes: readonly NoteName[]): Chord | null {
  const [root, ...upper] = pitchesOf({ notes });
  const suffix = SEVENTH_CHORDS[upper.map((pc) => semitonesUp(root!, pc)).join(' ')];
  return suffix === undefined ? null : chordNamed(notes[0]! + suffix);
}

/** Reads a collection back from its name; null where the name says none. */
export function readCollection(name: string): Collection | null {
  const scale = readScale(name);
  if (scale) return scaleCollection(scale);
  const arpeggio = /^(\S+) arpeggio(?: from (\S+))?$/.exec(name);
  const chord = arpeggio && chordNamed(arpeggio[1]!);
  if (chord) return startingFrom(arpeggioOf(chord), arpeggio[2]);
  const triad = /^(\S+) (major|minor|diminished|augmented) triad$/.exec(name);
  const three = triad && chordNamed(triad[1]! + TRIADS[triad[2]!]!);
  if (three) return { name, root: three.root, notes: chordNotes(three) };
  const guide = /^(\S+) guide tones$/.exec(name);
  const guided = guide && chordNamed(guide[1]!);
  return guided ? guideTonesOf(guided) : null;
}

/** The same notes, from another of them upward. */
export function startingFrom(collection: Collection, note: NoteName | undefined): Collection {
  const at = note ? collection.notes.indexOf(note) : 0;
  if (!note || at <= 0) return collection;
  const notes = [...collection.notes.slice(at), ...collection.notes.slice(0, at)];
  return { ...collection, name: `${collection.name} from ${note}`, root: note, notes };
}

/** The two tones that say a chord: its third (or what suspends it) and its seventh (or sixth). */
export function guideTonesOf(chord: Chord): Collection | null {
  const notes = chordNotes(chord);
  const at = (...degrees: string[]) => chord.tones.findIndex((tone) => degrees.includes(tone));
  const third = [at('3', 'b3'), at('11')].find((i) => i >= 0);
  const seventh = [at('7', 'b7', 'bb7'), at('6')].find((i) => i >= 0);
  const found = [third, seventh].flatMap((i) => (i === undefined ? [] : [notes[i]!]));
  return found.length
    ? { name: `${chord.root}${chord.suffix} guide tones`, root: found[0]!, notes: found }
    : null;
}
