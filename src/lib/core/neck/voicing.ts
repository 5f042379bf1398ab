/**
 * Grips: closed triads, drop 2 and drop 3, in all inversions, on a set of strings. Source: The neck, in the music
 * rules.
 */
import { firstOf, lastOf, nth } from '../base/list';
import { withTones, type Chord } from '../theory/chord';
import { DEGREES, type Degree } from '../theory/degree';
import { pitchClass } from '../theory/note';
import { fingerGrip } from './fingering';
import { nameOf, namingOf, type NamedCell } from './shape';
import { lowestFret, type Instrument, type Spot } from './tuning';

export const VOICINGS = ['closed', 'drop2', 'drop3'] as const;
export type VoicingType = (typeof VOICINGS)[number];

interface VoicingFacts {
  readonly name: string;
  readonly voices: number;
  /** The order of a close position's voices, counted from its lowest one, from the bass up. */
  readonly order: readonly number[];
  /** Strings left out between neighbouring voices, from the bass up. */
  readonly skips: readonly number[];
}

/** Drop 2 takes the second voice from the top down an octave, drop 3 the third. */
export const VOICING_FACTS: Readonly<Record<VoicingType, VoicingFacts>> = {
  closed: { name: 'Closed triads', voices: 3, order: [0, 1, 2], skips: [0, 0] },
  drop2: { name: 'Drop 2', voices: 4, order: [2, 0, 1, 3], skips: [0, 0, 0] },
  drop3: { name: 'Drop 3', voices: 4, order: [1, 0, 2, 3], skips: [1, 0, 0] }
};

/** A chord held: its cells from the bass up. */
export interface Grip {
  /** 0 with the root in the bass, 1 with the third, 2 with the fifth, 3 with the seventh. */
  readonly inversion: number;
  readonly cells: readonly NamedCell[];
}

/** The widest grip that a hand holds, in frets from the lowest to the highest finger, both counted. */
const WIDEST = 6;

/** The string sets a voicing lies on, lowest string first: [6, 5, 4], [5, 4, 3] … */
export function stringSets(neck: Instrument, type: VoicingType): number[][] {
  const steps = VOICING_FACTS[type].skips.map((skip) => skip + 1);
  return Array.from({ length: neck.strings.length }, (_, i) => neck.strings.length - i)
    .map((lowest) => steps.reduce((set, step) => [...set, lastOf(set) - step], [lowest]))
    .filter((set) => lastOf(set) >= 1);
}

/**
 * The tones a voicing is made of, from the root up: a triad takes root, third and fifth, four voices the seventh too.
 * A suspended chord has its fourth or second for the third, a sixth chord its sixth for the seventh. Null where the
 * chord has too few.
 */
export function voicedTones(chord: Chord, voices: number): Degree[] | null {
  const first = (...wanted: ((tone: Degree) => boolean)[]): Degree | undefined =>
    wanted.map((is) => chord.tones.find(is)).find((tone) => tone !== undefined);
  const inSlot = (slot: string) => (tone: Degree) => DEGREES[tone].slot === slot;
  const named = (name: Degree) => (tone: Degree) => tone === name;
  const seventh = first(inSlot('7'), named('6'));
  const triad = [first(inSlot('1')), first(inSlot('3'), named('11'), named('9')), first(inSlot('5'))];
  const tones = [...triad, ...(voices > 3 || triad.includes(undefined) ? [seventh] : [])].filter(
    (tone) => tone !== undefined
  );
  return tones.length === voices ? tones : null;
}

/**
 * Every grip of a chord on a string set (lowest string first), from the first fret up. A grip has one voice on each
 * string, sounds in the order of its type and lies within the hand.
 */
export function voicingsOf(
  neck: Instrument,
  chord: Chord,
  type: VoicingType,
  strings: readonly number[]
): Grip[] {
  const { voices, order } = VOICING_FACTS[type];
  const tones = voicedTones(chord, voices);
  if (!tones || strings.length !== voices) return [];
  const root = pitchClass(chord.root);
  const heights = tones.map((tone) => root + DEGREES[tone].semitones).sort((a, b) => a - b);
  const grips = tones.flatMap((_, closeInversion) => {
    // A close position from one of the tones up, then its voices in the order of the type.
    const close = heights.map((_, i) => {
      const at = closeInversion + i;
      return nth(heights, at % voices) + 12 * Math.floor(at / voices);
    });
    const dropped = order.map((voice, i) => nth(close, voice) - (i === 0 && order[0] !== 0 ? 12 : 0));
    return octaves(neck, strings, dropped).map((spots) => named(neck, chord, tones, spots));
  });
  return grips.filter((grip) => grip !== null).sort(byFret);
}

/** A list of pitches in every octave in which it can be held on the strings. */
function octaves(neck: Instrument, strings: readonly number[], pitches: readonly number[]): Spot[][] {
  return Array.from({ length: 11 }, (_, octave) =>
    pitches.map((pitch, i): Spot => {
      const string = nth(strings, i);
      const midi = pitch + 12 * octave;
      return { string, fret: midi - nth(neck.strings, string - 1), midi };
    })
  ).filter((spots) => {
    const pressed = spots.map(({ fret }) => fret).filter((fret) => fret > neck.capo);
    const isOnNeck = spots.every(({ fret }) => fret >= lowestFret(neck) && fret <= neck.frets);
    return isOnNeck && Math.max(0, ...pressed) - Math.min(neck.frets, ...pressed) <= WIDEST - 1;
  });
}

function named(
  neck: Instrument,
  chord: Chord,
  tones: readonly Degree[],
  spots: readonly Spot[]
): Grip | null {
  const fingered = fingerGrip(spots, neck.capo);
  if (!fingered) return null;
  const naming = namingOf(withTones(chord, tones), null);
  const cells = fingered.map((cell): NamedCell => ({
    ...cell,
    stretch: false,
    ...nameOf(cell.midi % 12, naming)
  }));
  return { inversion: tones.indexOf(firstOf(cells).degree), cells };
}

/** The lowest fret of a grip. */
export function lowFret({ cells }: Grip): number {
  return Math.min(...cells.map(({ fret }) => fret));
}

/** Lower grips first; of two with the same lowest fret the one whose other fingers lie lower. */
export function byFret(a: Grip, b: Grip): number {
  const sum = ({ cells }: Grip) => cells.reduce((total, { fret }) => total + fret, 0);
  return lowFret(a) - lowFret(b) || sum(a) - sum(b);
}
