/**
 * What the chords of the band sound: the symbol, without its root where the bass has it. Third and seventh first, then the
 * tensions that are written, then a 9 or 13 where the function takes one, the fifth last. Source: docs/music-rules.md, The band.
 */
import { chordOf } from '../chart/unroll';
import { firstOf, lastOf } from '../base/list';
import type { Midi } from '../base/units';
import type { AnalysedChange } from '../harmony/analysis';
import { cheapestWay } from '../line/cheapest';
import type { Chord } from '../theory/chord';
import { DEGREES, type Degree } from '../theory/degree';
import { MODES } from '../theory/mode';
import { pitchClass, semitonesUp } from '../theory/note';
import { oneOf, type Chance } from '../line/chance';
import { soundedTones } from './tones';

/** A voice of a chord. */
export interface Voice {
  readonly midi: Midi;
  readonly degree: Degree;
}

/** Lowest voice first. */
export type Voicing = readonly Voice[];

const LOWEST = 48;
const HIGHEST = 79;
const CENTRE = 62;
const FEWEST_VOICES = 3;
const MOST_VOICES = 5;

/** Whether the moment of a change is one whose own 9 and 13 are heard as its colour. */
const COLOURED = new Set<string>(['tonic', 'pre-dominant', 'dominant', 'blues I', 'blues IV', 'blues V']);

/** The degrees that are sounded of a change, most telling first. */
function voicedDegrees(change: AnalysedChange, isColoured: boolean, chance: Chance): Degree[] {
  const chord = chordOf(change);
  const tones = soundedTones(chord);
  const inSlot = (slot: '3' | '5' | '7') => tones.filter((tone) => DEGREES[tone].slot === slot);
  const thirds = inSlot('3');
  const suspended = thirds.length ? [] : tones.filter((tone) => tone === '11').slice(0, 1);
  const seconds = thirds.length || suspended.length ? [] : tones.filter((tone) => tone === '9');
  const sevenths = [...inSlot('7'), ...tones.filter((tone) => tone === '6')];
  const fifths = inSlot('5').filter((tone) => tone !== '5');
  const tensions = tones.filter(
    (tone) => DEGREES[tone].slot === 'tension' && !['6', ...suspended, ...seconds].includes(tone)
  );
  // An altered chord says both fifths and both ninths; one of each is sounded.
  const isAltered = fifths.length > 1 && tensions.length > 1;
  const said = [
    ...thirds,
    ...suspended,
    ...seconds,
    ...sevenths,
    ...(isAltered ? [oneOf(chance, fifths), oneOf(chance, tensions)] : [...fifths, ...tensions])
  ];
  const colour = isColoured && tensions.length === 0 && fifths.length === 0 ? coloursOf(change) : [];
  const isRootAbove = chord.bass !== undefined && pitchClass(chord.bass) !== chord.rootPc;
  const fill: Degree[] = [
    ...colour,
    ...(isRootAbove ? (['1'] as const) : []),
    ...(tones.includes('5') ? (['5'] as const) : []),
    '1'
  ];
  const needed = fill.filter((tone, i) => fill.indexOf(tone) === i);
  const voices = [...said];
  for (const tone of needed) {
    const isWanted = voices.length < FEWEST_VOICES || colour.includes(tone) || (tone === '1' && isRootAbove);
    if (isWanted && voices.length < MOST_VOICES) voices.push(tone);
  }
  return voices.slice(0, MOST_VOICES);
}

/** The 9 of a seventh chord, and the 13 of a dominant, where its key has them. */
function coloursOf({ chord, key, function: role, inKey }: AnalysedChange): Degree[] {
  if (!chord || !role || !inKey || !COLOURED.has(role)) return [];
  if (!chord.tones.some((tone) => DEGREES[tone].slot === '7') || !chord.tones.includes('5')) return [];
  const scale = MODES[key.mode].steps as readonly number[];
  const has = (semitones: number) =>
    scale.includes(semitonesUp(pitchClass(key.tonic), (chord.rootPc + semitones) % 12));
  const nine: Degree[] = has(DEGREES['9'].semitones) && !chord.tones.includes('9') ? ['9'] : [];
  const thirteen: Degree[] =
    chord.family === 'dominant' && nine.length && has(DEGREES['13'].semitones) ? ['13'] : [];
  return chord.tones.includes('3') || chord.tones.includes('b3') ? [...nine, ...thirteen] : [];
}

/** A voicing for each change, the top voices moving least over the whole; null where no chord sounds. */
export function voicingsFor(
  changes: readonly AnalysedChange[],
  isColoured: boolean,
  chance: Chance
): (Voicing | null)[] {
  const known = new Map<string, { readonly voicing: Voicing; readonly cost: number }[]>();
  const sounding = changes.filter(({ chord }) => chord);
  const layers = sounding.map((change) => {
    const degrees = voicedDegrees(change, isColoured, chance);
    const key = `${chordOf(change).symbol} ${degrees.join(' ')}`;
    const ways =
      known.get(key) ??
      waysToVoice(chordOf(change), degrees).map((way) => ({ ...way, cost: way.cost + 1.5 * chance() }));
    known.set(key, ways);
    return ways;
  });
  const found = cheapestWay(
    layers,
    ({ cost }) => cost,
    (from, to) => distance(from.voicing, to.voicing)
  );
  let at = 0;
  return changes.map(({ chord }) => (chord ? (found[at++]?.voicing ?? null) : null));
}

/** What has been stacked already, by chord: every round asks for the same. */
const stacked = new WeakMap<Chord, Map<string, readonly Way[]>>();

interface Way {
  readonly voicing: Voicing;
  /** What makes it poor by itself. */
  readonly cost: number;
}

function waysToVoice(chord: Chord, degrees: readonly Degree[]): readonly Way[] {
  const known = stacked.get(chord) ?? new Map<string, readonly Way[]>();
  stacked.set(chord, known);
  const key = degrees.join(' ');
  const ways =
    known.get(key) ?? stackings(chord, degrees).map((voicing) => ({ voicing, cost: cost(voicing) }));
  known.set(key, ways);
  return ways;
}

/** Every close way to stack the degrees in the middle of the keyboard, and those with the second voice from above let down. */
function stackings(chord: Chord, degrees: readonly Degree[]): Voicing[] {
  const above = degrees
    .map((degree) => ({ degree, semitones: DEGREES[degree].semitones }))
    .sort((a, b) => a.semitones - b.semitones);
  const ways = above.flatMap((_, first): Voicing[] => {
    const turned = [...above.slice(first), ...above.slice(0, first)];
    let last = -1;
    const close = turned.map(({ degree, semitones }): Voice => {
      let midi = chord.rootPc + semitones;
      while (midi <= last) midi += 12;
      last = midi;
      return { midi, degree };
    });
    const spread =
      close.length > 3
        ? close.map((voice, i) => (i === close.length - 2 ? { ...voice, midi: voice.midi - 12 } : voice))
        : close;
    return [close, ...(spread === close ? [] : [[...spread].sort((a, b) => a.midi - b.midi)])];
  });
  const placed = ways.flatMap((way) =>
    [24, 36, 48, 60].map((up) => way.map(({ midi, degree }) => ({ midi: midi + up, degree })))
  );
  return placed.filter((way) => firstOf(way).midi >= LOWEST && lastOf(way).midi <= HIGHEST);
}

/** What makes a voicing poor by itself: far from the middle, a semitone at the top, mud at the bottom. */
function cost(voicing: Voicing): number {
  const centre = voicing.reduce((sum, { midi }) => sum + midi, 0) / voicing.length;
  const at = (i: number) => voicing.at(i)?.midi ?? 0;
  const isSharp = voicing.length > 1 && at(-1) - at(-2) === 1;
  const isMuddy = voicing.length > 2 && at(1) - at(0) < 3 && at(0) < 55;
  return 0.4 * Math.abs(centre - CENTRE) + (isSharp ? 4 : 0) + (isMuddy ? 2 : 0);
}

/** How far the top voice moves, and the others from the nearest voice before them. */
function distance(from: Voicing, to: Voicing): number {
  const top = Math.abs(lastOf(from).midi - lastOf(to).midi);
  let inner = 0;
  for (const { midi } of to) {
    let nearest = Infinity;
    for (const voice of from) nearest = Math.min(nearest, Math.abs(voice.midi - midi));
    inner += nearest;
  }
  return top + 0.3 * inner;
}

/** The lowest string of a guitar. */
const LOW_STRING = 40;
const PLAIN: readonly Degree[] = ['1', '3', 'b3', '5'];

/**
 * What a rock guitar plays of a triad or a power chord: root and fifth on the low strings, the root once more, and its third above them. Null
 * for a chord that says more, or stands on another bass.
 */
export function powerVoicing({ tones, rootPc, root, bass }: Chord): Voicing | null {
  const isPlain = tones.includes('5') && tones.every((tone) => PLAIN.includes(tone));
  if (!isPlain || (bass !== undefined && pitchClass(bass) !== pitchClass(root))) return null;
  const low = LOW_STRING + semitonesUp(LOW_STRING % 12, rootPc);
  const third = tones.find((tone) => DEGREES[tone].slot === '3');
  return [
    { midi: low, degree: '1' },
    { midi: low + 7, degree: '5' },
    { midi: low + 12, degree: '1' },
    ...(third ? [{ midi: low + 12 + DEGREES[third].semitones, degree: third }] : [])
  ];
}
