/** Collections: what can be proposed over a change. A scale, an arpeggio, a triad or guide tones, as facts and as notes. */
import { firstOf, nth, sure } from '../base/list';
import { readChord } from '../theory/chord-reader';
import type { Chord } from '../theory/chord';
import {
  noteAbove,
  pitchClass,
  semitonesUp,
  simpleSpelling,
  type NoteName,
  type PitchClass
} from '../theory/note';
import { parentOf, scaleOf, type Scale } from '../theory/scale';
import { prettySuffix } from '../theory/typeset';

export interface Parent {
  readonly tonic: NoteName;
  readonly scale: string;
  /** Which mode of the parent it is, from 1. */
  readonly degree: number;
}

/** What a collection is: enough to make it again, from this root or another. */
export interface CollectionFacts {
  readonly kind: 'scale' | 'arpeggio' | 'triad' | 'triad pair' | 'guide tones';
  /** The scale's or the chord's root. */
  readonly root: NoteName;
  /**
   * The scale's name, the triad's quality, or the chord's suffix as typed: "dorian", "minor", "m7b5". Of a pair the two qualities and
   * the semitones between their roots: "major 2 minor".
   */
  readonly type: string;
  /** For an arpeggio that starts on another tone: which one, 1 the next above the root. */
  readonly inversion?: number | undefined;
}

export interface Collection {
  readonly facts: CollectionFacts;
  /** With its root, as in JSON: "F dorian", "Ebmaj7 arpeggio", "G minor triad". */
  readonly name: string;
  /** The note it starts on. */
  readonly root: NoteName;
  readonly notes: readonly NoteName[];
  readonly parent?: Parent;
  /** Passing notes of a blues scale. */
  readonly blueNotes?: readonly PitchClass[];
}

/** Passing notes of the scales that have them, in semitones above the root. */
const BLUE_NOTES: Readonly<Record<string, readonly number[]>> = {
  'minor blues': [6],
  'major blues': [3],
  'blended blues': [3, 6]
};

/** A collection from its facts; null where they name none. */
export function collectionOf(facts: CollectionFacts): Collection | null {
  const { kind, root, type, inversion = 0 } = facts;
  if (kind === 'scale') {
    const scale = scaleOf(root, type);
    return scale && scaleCollection(scale);
  }
  if (kind === 'triad pair') return triadPairFrom(root, type);
  const suffix = kind === 'triad' ? TRIADS[type as TriadQuality] : type;
  const chord = suffix === undefined ? null : chordNamed(root + suffix);
  if (!chord) return null;
  if (kind === 'triad') return triadCollection(chord.notes, type as TriadQuality);
  return kind === 'guide tones' ? guideTonesOf(chord) : inverted(arpeggioOf(chord), inversion);
}

/**
 * A collection as a player reads it: "F Dorian", "Fm7 arpeggio from A♭", "D m7♭5 pentatonic". `noteName` spells notes the
 * player's way; `root` is the note it starts on.
 */
export function collectionTitle(
  { kind, root, type, inversion }: CollectionFacts,
  start: NoteName,
  noteName: (note: NoteName) => string
): string {
  if (kind === 'scale') {
    const name = TITLES[type] ?? capitalised(prettyScaleName(type));
    return `${noteName(root)} ${name}`;
  }
  if (kind === 'triad') return `${noteName(root)} ${type} triad`;
  if (kind === 'triad pair') return pairName(root, type, noteName) ?? `${noteName(root)} triads`;
  const name = `${noteName(root)}${prettySuffix(type)} ${kind}`;
  return inversion ? `${name} from ${noteName(plainRoot(start))}` : name;
}

/** Scales that players call otherwise than the routes do. */
const TITLES: Readonly<Record<string, string>> = { 'flat-five pentatonic': 'm7♭5 pentatonic' };

const capitalised = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

/** "locrian natural 2" → "locrian ♮2". */
function prettyScaleName(name: string): string {
  return prettySuffix(name).replaceAll('natural ', '♮');
}

/** Whether two collections are the same thing from roots of their own. */
export function sameKind(a: CollectionFacts, b: CollectionFacts): boolean {
  return a.kind === b.kind && a.type === b.type && (a.inversion ?? 0) === (b.inversion ?? 0);
}

/** Whether two facts name one collection: kind, type and root. */
export function sameCollection(a: CollectionFacts, b: CollectionFacts): boolean {
  return a.root === b.root && sameKind(a, b);
}

/** A scale as a collection, with its facts. */
export function scaleCollection(scale: Scale): Collection {
  const parent = parentOf(scale);
  const blue = BLUE_NOTES[scale.name];
  const root = pitchClass(scale.root);
  return {
    facts: { kind: 'scale', root: scale.root, type: scale.name },
    name: `${scale.root} ${scale.name}`,
    root: scale.root,
    notes: scale.notes,
    ...(parent ? { parent: { ...parent, tonic: plainRoot(parent.tonic) } } : {}),
    ...(blue ? { blueNotes: blue.map((semitones) => (root + semitones) % 12) } : {})
  };
}

/** The same few scales are asked for again and again; there are no more than these many. */
const MOST_REMEMBERED = 2000;
const scales = new Map<string, Collection>();

/** A scale of the table as a collection. The name has to be in the table. */
export function scaleNamed(root: NoteName, name: string): Collection {
  const id = `${root} ${name}`;
  const known = scales.get(id);
  if (known) return known;
  const collection = scaleCollection(sure(scaleOf(root, name), 'scaleOf'));
  if (scales.size < MOST_REMEMBERED) scales.set(id, collection);
  return collection;
}

/** The arpeggio of a chord, as "Fm7 arpeggio". */
export function arpeggioOf({ root, suffix, notes }: Chord): Collection {
  return {
    facts: { kind: 'arpeggio', root, type: suffix },
    name: `${root}${suffix} arpeggio`,
    root,
    notes
  };
}

/** The same arpeggio from another of its tones upward: 1 from the next above the root. */
export function inverted(collection: Collection, inversion: number): Collection {
  const start = collection.notes[inversion];
  if (inversion <= 0 || !start) return collection;
  const notes = [...collection.notes.slice(inversion), ...collection.notes.slice(0, inversion)];
  const facts = { ...collection.facts, inversion };
  return { ...collection, facts, name: `${collection.name} from ${plainRoot(start)}`, root: start, notes };
}

/** The chord of a symbol; null where it is none. */
export function chordNamed(symbol: string): Chord | null {
  const reading = readChord(symbol);
  return reading.kind === 'chord' ? reading.chord : null;
}

/** Suffixes of the triads by their quality. */
const TRIADS = { major: '', minor: 'm', diminished: 'dim', augmented: 'aug' } as const;
type TriadQuality = keyof typeof TRIADS;

/** Qualities of triads by the semitones of third and fifth. */
const TRIAD_QUALITIES: Readonly<Record<string, TriadQuality>> = {
  '4 7': 'major',
  '3 7': 'minor',
  '3 6': 'diminished',
  '4 8': 'augmented'
};

const heightsOf = (notes: readonly NoteName[]): string => {
  const [root = 0, ...upper] = notes.map(pitchClass);
  return upper.map((pc) => semitonesUp(root, pc)).join(' ');
};

function triadCollection(notes: readonly NoteName[], quality: TriadQuality): Collection {
  const root = firstOf(notes);
  return { facts: { kind: 'triad', root, type: quality }, name: `${root} ${quality} triad`, root, notes };
}

/** The triad on three notes that stack in thirds, or null where they make none. */
export function triadOf(notes: readonly NoteName[]): Collection | null {
  const quality = TRIAD_QUALITIES[heightsOf(notes)];
  return quality ? collectionOf({ kind: 'triad', root: plainRoot(firstOf(notes)), type: quality }) : null;
}

/** A root as it stands in a name: never with a double accidental. */
function plainRoot(root: NoteName): NoteName {
  return root.length > 2 ? simpleSpelling(root) : root;
}

/** The roots of a pair lie a step apart. */
const STEPS_APART: Readonly<Record<string, string>> = { '1': '2m', '2': '2M' };

interface Pair {
  readonly first: Collection;
  readonly second: Collection;
}

/** The two triads of a pair by its facts; null where they name none. */
function pairOf(root: NoteName, type: string): Pair | null {
  const [lower = '', semitones, upper] = type.split(' ');
  const interval = STEPS_APART[semitones ?? ''];
  if (!interval) return null;
  const first = collectionOf({ kind: 'triad', root, type: lower });
  const second = collectionOf({
    kind: 'triad',
    root: plainRoot(noteAbove(root, interval)),
    type: upper ?? ''
  });
  return first && second ? { first, second } : null;
}

/** "F and G major triads", "F major and G minor triads". */
function pairName(root: NoteName, type: string, noteName: (note: NoteName) => string): string | null {
  const pair = pairOf(root, type);
  if (!pair) return null;
  const [a, b] = [pair.first.facts, pair.second.facts];
  const [lower, upper] = [noteName(a.root), noteName(b.root)];
  return a.type === b.type
    ? `${lower} and ${upper} ${a.type} triads`
    : `${lower} ${a.type} and ${upper} ${b.type} triads`;
}

function triadPairFrom(root: NoteName, type: string): Collection | null {
  const pair = pairOf(root, type);
  const name = pairName(root, type, (note) => note);
  return (
    pair && {
      facts: { kind: 'triad pair', root, type },
      name: name!,
      root,
      notes: [...pair.first.notes, ...pair.second.notes]
    }
  );
}

const pairs = new Map<string, Collection | null>();

/** Two triads a step apart as one collection of six notes; null where they are no such pair. */
export function triadPairOf(lower: Collection, upper: Collection): Collection | null {
  const apart = semitonesUp(pitchClass(lower.root), pitchClass(upper.root));
  const type = `${lower.facts.type} ${apart} ${upper.facts.type}`;
  const id = `${lower.root} ${type}`;
  let known = pairs.get(id);
  if (known === undefined) {
    known = triadPairFrom(lower.root, type);
    if (pairs.size < MOST_REMEMBERED) pairs.set(id, known);
  }
  return known;
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
  const suffix = SEVENTH_CHORDS[heightsOf(notes)];
  return suffix === undefined ? null : chordNamed(plainRoot(firstOf(notes)) + suffix);
}

/** The two tones that say a chord: its third (or what suspends it) and its seventh (or sixth); root and fifth where it has neither. */
export function guideTonesOf(chord: Chord): Collection {
  const at = (...degrees: string[]) => chord.tones.findIndex((tone) => degrees.includes(tone));
  const third = [at('3', 'b3'), at('11'), at('9')].find((i) => i >= 0);
  const seventh = [at('7', 'b7', 'bb7'), at('6')].find((i) => i >= 0);
  const found = [third, seventh].flatMap((i) => (i === undefined ? [] : [nth(chord.notes, i)]));
  const { root, suffix } = chord;
  const notes = found.length ? found : chord.notes.slice(0, 2);
  return {
    facts: { kind: 'guide tones', root, type: suffix },
    name: `${root}${suffix} guide tones`,
    root: firstOf(notes),
    notes
  };
}
