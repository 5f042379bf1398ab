/**
 * The scales as one table of facts. A scale is a list of intervals from its root, one letter per degree
 * (the blues and the eight-note scales have to use a letter twice). Source: docs/music-rules.md,
 * Scales.
 */
import { nth, sure } from '../base/list';
import { distance } from '@tonaljs/note';
import { degreeOf, type Degree } from './degree';
import { asciiAccidentals } from './typeset';
import { noteAbove, pitchClass, readNote, semitonesUp, type NoteName, type PitchClass } from './note';

export interface ScaleFacts {
  /** Lower case, as in JSON: "locrian natural 2". */
  readonly name: string;
  readonly intervals: readonly string[];
  /** The scale it is a mode of, and which one (1 = the parent itself). */
  readonly parent?: { readonly scale: string; readonly degree: number };
}

export interface Scale extends ScaleFacts {
  readonly root: NoteName;
  /** Spelled from the root, ascending. */
  readonly notes: readonly NoteName[];
}

const MODE_FAMILIES: Record<string, { intervals: string; modes: readonly string[] }> = {
  major: {
    intervals: '1P 2M 3M 4P 5P 6M 7M',
    modes: ['major', 'dorian', 'phrygian', 'lydian', 'mixolydian', 'aeolian', 'locrian']
  },
  'melodic minor': {
    intervals: '1P 2M 3m 4P 5P 6M 7M',
    modes: [
      'melodic minor',
      'dorian b2',
      'lydian augmented',
      'lydian dominant',
      'mixolydian b6',
      'locrian natural 2',
      'altered'
    ]
  },
  'harmonic minor': {
    intervals: '1P 2M 3m 4P 5P 6m 7M',
    modes: [
      'harmonic minor',
      'locrian natural 6',
      'ionian augmented',
      'dorian #4',
      'phrygian dominant',
      'lydian #2',
      'altered bb7'
    ]
  },
  'harmonic major': {
    intervals: '1P 2M 3M 4P 5P 6m 7M',
    modes: [
      'harmonic major',
      'dorian b5',
      'phrygian b4',
      'lydian b3',
      'mixolydian b2',
      'lydian augmented #2',
      'locrian bb7'
    ]
  },
  'major pentatonic': {
    intervals: '1P 2M 3M 5P 6M',
    modes: [
      'major pentatonic',
      'suspended pentatonic',
      'blues minor pentatonic',
      'blues major pentatonic',
      'minor pentatonic'
    ]
  }
};

const SINGLE_SCALES: readonly ScaleFacts[] = [
  { name: 'minor six pentatonic', intervals: ['1P', '3m', '4P', '5P', '6M'] },
  { name: 'flat-five pentatonic', intervals: ['1P', '3m', '4P', '5d', '7m'] },
  { name: 'dominant pentatonic', intervals: ['1P', '2M', '3M', '5P', '7m'] },
  { name: 'minor blues', intervals: ['1P', '3m', '4P', '5d', '5P', '7m'] },
  {
    name: 'major blues',
    intervals: ['1P', '2M', '3m', '3M', '5P', '6M'],
    parent: { scale: 'minor blues', degree: 2 }
  },
  // Ours: the two blues scales of a root played as one, and the dominant pentatonic with a raised fifth.
  { name: 'blended blues', intervals: ['1P', '2M', '3m', '3M', '4P', '5d', '5P', '6M', '7m'] },
  { name: 'augmented pentatonic', intervals: ['1P', '2M', '3M', '5A', '7m'] },
  { name: 'whole tone', intervals: ['1P', '2M', '3M', '4A', '5A', '7m'] },
  { name: 'half-whole diminished', intervals: ['1P', '2m', '3m', '3M', '4A', '5P', '6M', '7m'] },
  { name: 'whole-half diminished', intervals: ['1P', '2M', '3m', '4P', '5d', '6m', '6M', '7M'] },
  { name: 'bebop dominant', intervals: ['1P', '2M', '3M', '4P', '5P', '6M', '7m', '7M'] },
  { name: 'bebop major', intervals: ['1P', '2M', '3M', '4P', '5P', '5A', '6M', '7M'] },
  { name: 'bebop minor', intervals: ['1P', '2M', '3m', '3M', '4P', '5P', '6M', '7m'] }
];

/** Other names under which players ask for a scale. */
const ALIASES: Readonly<Record<string, string>> = {
  ionian: 'major',
  minor: 'aeolian',
  'natural minor': 'aeolian',
  'mixolydian b9 b13': 'phrygian dominant',
  'super locrian': 'altered',
  superlocrian: 'altered',
  'diminished whole tone': 'altered',
  'half-whole': 'half-whole diminished',
  'whole-half': 'whole-half diminished',
  'locrian #2': 'locrian natural 2',
  'lydian b7': 'lydian dominant',
  'lydian #5': 'lydian augmented',
  'mixolydian b13': 'mixolydian b6',
  'ionian #5': 'ionian augmented',
  blues: 'minor blues'
};

/** The intervals of the mode on the n-th degree (0 = first) of a scale. */
function modeIntervals(intervals: readonly string[], n: number): string[] {
  const root = noteAbove('C', nth(intervals, n));
  const rotated = [...intervals.slice(n), ...intervals.slice(0, n)];
  return rotated.map((interval) => distance(root, noteAbove('C', interval)));
}

const FAMILY_SCALES: ScaleFacts[] = Object.entries(MODE_FAMILIES).flatMap(([scale, family]) => {
  const intervals = family.intervals.split(' ');
  return family.modes.map((name, n) => ({
    name,
    intervals: modeIntervals(intervals, n),
    parent: { scale, degree: n + 1 }
  }));
});

const BY_NAME: ReadonlyMap<string, ScaleFacts> = new Map(
  [...FAMILY_SCALES, ...SINGLE_SCALES].map((scale) => [scale.name, scale])
);

export const SCALE_NAMES: readonly string[] = [...BY_NAME.keys()];

/** A scale from a root; null where the name is unknown. */
export function scaleOf(root: NoteName, name: string): Scale | null {
  const facts = BY_NAME.get(name) ?? BY_NAME.get(plainScaleName(name));
  if (!facts) return null;
  return { ...facts, root, notes: facts.intervals.map((interval) => noteAbove(root, interval)) };
}

function plainScaleName(name: string): string {
  const plain = asciiAccidentals(name.trim().toLowerCase());
  return ALIASES[plain] ?? plain;
}

/** Reads a scale as written in JSON, root first: "Bb lydian dominant"; null where it is none. */
export function readScale(text: string): Scale | null {
  const match = /^\s*(\S+)\s+(.+?)\s*$/.exec(text);
  const root = match && readNote(nth(match, 1));
  return root ? scaleOf(root, nth(match, 2)) : null;
}

/** The pitch classes of a scale, from its root up. */
export function scalePitchClasses(scale: Scale): PitchClass[] {
  return scale.notes.map(pitchClass);
}

/**
 * The parent of a mode with its tonic spelled ("F dorian" → Eb major, degree 2); null for a scale that is its
 * own parent or has none.
 */
export function parentOf(scale: Scale): { tonic: NoteName; scale: string; degree: number } | null {
  if (!scale.parent || scale.parent.degree === 1) return null;
  const size = scale.intervals.length;
  const tonic = nth(scale.notes, (size - (scale.parent.degree - 1)) % size);
  return { tonic, scale: scale.parent.scale, degree: scale.parent.degree };
}

/** All modes of the collection a scale belongs to, each from its own root, in the order of the parent. */
export function modesOf(scale: Scale): Scale[] {
  const parent = parentOf(scale);
  const home = parent ? sure(scaleOf(parent.tonic, parent.scale), 'scaleOf') : scale;
  const modes = [...BY_NAME.values()].filter((facts) => facts.parent?.scale === home.name);
  const others = modes.filter((facts) => facts.name !== home.name);
  return [
    home,
    ...others.map((facts) =>
      sure(
        scaleOf(nth(home.notes, sure(facts.parent, 'the parent of a scale').degree - 1), facts.name),
        'scaleOf'
      )
    )
  ];
}

/**
 * The tones of the chord that a scale builds on its own root, by stacking every other note: what its degrees
 * are counted against where no chord is given. Six- and eight-note scales and pentatonics take the third,
 * fifth and seventh they hold.
 */
export function homeChordTones(scale: Scale): Degree[] {
  const root = pitchClass(scale.root);
  const held = new Set(scale.notes.map((note) => semitonesUp(root, pitchClass(note))));
  const pick = (candidates: readonly Degree[], semitones: readonly number[]): Degree[] => {
    const index = semitones.findIndex((s) => held.has(s));
    return index < 0 ? [] : [nth(candidates, index)];
  };
  return [
    '1',
    ...pick(['3', 'b3'], [4, 3]),
    ...(held.has(4) ? pick(['5', '#5', 'b5'], [7, 8, 6]) : pick(['5', 'b5', '#5'], [7, 6, 8])),
    ...(held.has(3) && !held.has(4) && !held.has(7)
      ? pick(['b7', 'bb7', '7'], [10, 9, 11])
      : pick(['b7', '7'], [10, 11]))
  ];
}

/** The degree of each note of a scale against the chord on its own root. */
export function scaleDegrees(scale: Scale): Degree[] {
  const tones = homeChordTones(scale);
  const root = pitchClass(scale.root);
  return scale.notes.map((note) => degreeOf(semitonesUp(root, pitchClass(note)), tones));
}
