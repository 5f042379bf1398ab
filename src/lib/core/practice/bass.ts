/**
 * The bass: the written bass at every change and tones of the chord after it, found as the line of least cost: by steps where
 * there are any, no leap over a fifth but the octave, into the next chord by a step where the pattern says so. Which of the
 * lines that are as good is a matter of chance. Source: docs/music-rules.md, The band.
 */
import { firstOf, nth } from '../base/list';
import type { Midi } from '../base/units';
import { cheapestWay } from '../line/cheapest';
import type { Chord } from '../theory/chord';
import { DEGREES, type Degree } from '../theory/degree';
import { pitchClass, type PitchClass } from '../theory/note';
import type { SoundEvent } from './events';
import { walkedNotes } from './walk';
import { isQuiet, loudnessAt } from './intensity';
import { pattern, type Pattern } from './pattern';
import { strokesByChange, type ChangeStroke, type Stage } from './stage';
import { soundedTones } from './tones';

const PLAYER = 1;
const LOWEST = 28;
const HIGHEST = 50;
/** Where the line begins, and where it likes to be. */
const CENTRE = 37;

/** What a leap costs, by semitones; more than a fifth is forbidden but for the octave. */
const LEAPS = [2.5, 0, 0, 0.3, 0.4, 0.6, 1.2, 0.8] as const;
const OCTAVE = 0.8;
const FORBIDDEN = 1000;
const OTHER_THAN_FIFTH = 20;

/** What a walking bass plays where it is quiet: halves, with a step into the next chord now and then. */
const TWO_FEEL: readonly Pattern[] = ['R= == 5= ==', 'R= == 5= =A', 'R= == T= A=', 'R= == T= =='].map(
  pattern
);

interface Slot {
  readonly stroke: ChangeStroke;
  readonly chord: Chord;
  /** Pitch class that the chord to come has in the bass, where this is the last note before it. */
  readonly goal: PitchClass | null;
}

/** What the bass plays in a round, by its feel. Source: docs/music-rules.md, The band. */
export function bassEvents(stage: Stage): SoundEvent[] {
  const isWalking = stage.feel.walks && !isQuiet(stage.intensity);
  if (isWalking) return walkEvents(stage);
  const slots = slotsOf(stage);
  const loudness = loudnessAt(stage.intensity);
  const pitches = linePitches(stage, slots);
  const isHeld = stage.feel.bass.length === 0;
  const chance = stage.chance(PLAYER, -1);
  return slots.map(({ stroke }, i): SoundEvent => {
    const late = stroke.isFirst || stroke.isOnPulse ? 0 : 0.015 * chance();
    const weight = stroke.isFirst ? 0.85 : stroke.isOnPulse ? 0.74 : 0.64;
    return {
      part: 'bass',
      start: stroke.start + late,
      beats: (stroke.end - stroke.start - late) * 0.97,
      midi: nth(pitches, i),
      velocity: Math.min(1, loudness * weight * (0.94 + 0.1 * chance())),
      ...(isHeld ? { isHeld } : {})
    };
  });
}

/** Struck notes of a walk are long, what stands between the pulses softer, a touch hardly heard. */
function walkEvents(stage: Stage): SoundEvent[] {
  const roots = stage.excerpt.changes.flatMap(({ source: { chord } }) => (chord ? [bassOf(chord)] : []));
  if (roots.length === 0) return [];
  const chance = stage.chance(PLAYER, -1);
  const loudness = loudnessAt(stage.intensity);
  return walkedNotes(stage, firstPitch(roots), stage.chance(PLAYER, -2)).map(
    ({ start, end, midi, isFirst, isOnPulse, isGhost }): SoundEvent => {
      const weight = isGhost ? 0.36 : isFirst ? 0.84 : isOnPulse ? 0.76 : 0.62;
      return {
        part: 'bass',
        start,
        beats: (end - start) * (isGhost ? 0.5 : 0.97),
        midi,
        velocity: Math.min(1, loudness * weight * (0.94 + 0.1 * chance()))
      };
    }
  );
}

const bassOf = (chord: Chord) => pitchClass(chord.bass ?? chord.root);

function slotsOf(stage: Stage): Slot[] {
  const { changes } = stage.excerpt;
  const { feel } = stage;
  const played = strokesByChange(stage, feel.walks ? TWO_FEEL : feel.bass, PLAYER, 'R');
  const strokes = isQuiet(stage.intensity) ? played.map(withoutRepeats) : played;
  return changes.flatMap((change, i): Slot[] => {
    const { chord } = change.source;
    if (!chord) return [];
    const next = nth(changes, (i + 1) % changes.length).source.chord;
    const goal = next && bassOf(next) !== bassOf(chord) ? bassOf(next) : null;
    const isLead = (n: number) => n > 0 && n === nth(strokes, i).length - 1;
    return nth(strokes, i).map((stroke, n) => ({ stroke, chord, goal: isLead(n) ? goal : null }));
  });
}

/** Quietly a root is not struck twice in a pulse: it is held. */
function withoutRepeats(strokes: readonly ChangeStroke[]): ChangeStroke[] {
  return strokes.reduce<ChangeStroke[]>((kept, stroke) => {
    const last = kept.at(-1);
    const isRepeat = last?.letter === 'R' && stroke.letter === 'R' && last.isOnPulse && !stroke.isOnPulse;
    if (!isRepeat || stroke.start - last.end > 0.01) return [...kept, stroke];
    return [...kept.slice(0, -1), { ...last, end: stroke.end }];
  }, []);
}

interface Place {
  readonly midi: Midi;
  readonly cost: number;
}

function linePitches(stage: Stage, slots: readonly Slot[]): number[] {
  if (slots.length === 0) return [];
  const first = firstPitch(slots.filter(({ stroke }) => stroke.isFirst).map(({ chord }) => bassOf(chord)));
  const chance = stage.chance(PLAYER, -2);
  const layers = slots.map((slot, i): Place[] =>
    i === 0
      ? [{ midi: first, cost: 0 }]
      : placesOf(slot).map((place) => ({ ...place, cost: place.cost + chance() }))
  );
  // Round and round: the last note leads back to the first.
  const isLast = (layer: number) => layer === slots.length - 1 && !stage.isLast;
  return cheapestWay(
    layers,
    ({ midi, cost }, layer) =>
      cost +
      0.03 * Math.abs(midi - CENTRE) +
      (isLast(layer) && layer > 0 ? leap(midi, first, nth(slots, layer)) : 0),
    (from, to, layer) => leap(from.midi, to.midi, nth(slots, layer - 1), nth(slots, layer).stroke.letter)
  ).map(({ midi }) => midi);
}

/** What it costs to go on from a slot's note to another. */
function leap(from: number, to: number, { goal, stroke }: Slot, letter = 'R'): number {
  const distance = Math.abs(to - from);
  if (goal !== null && stroke.letter === 'A') return distance === 1 || distance === 2 ? 0 : FORBIDDEN / 10;
  // A figure on the root stays where it is; a walk does not stand still; an octave figure leaps it.
  if (distance === 0) return letter === 'R' ? 0 : letter === '8' ? 3 : LEAPS[0];
  if (distance === 12) return letter === '8' ? 0 : OCTAVE;
  return LEAPS[distance] ?? FORBIDDEN;
}

/** The pitches a slot may take: by its letter, tones of its chord, or what leads into the chord to come. */
function placesOf({ chord, goal, stroke: { letter, isFirst } }: Slot): Place[] {
  if (isFirst || letter === 'R' || letter === '8') return inRegister([bassOf(chord)], 0);
  const tones = bassTones(chord);
  const fifth = fifthOf(chord);
  // Another tone where the fifth could not be reached without a wide leap.
  if (letter === '5' && fifth !== null)
    return [...inRegister([fifth], 0), ...inRegister(tones, OTHER_THAN_FIFTH)];
  const isLeading = letter === 'A' && goal !== null;
  const steps = isLeading
    ? [1, 2, 10, 11].map((by) => (goal + by) % 12).filter((pc) => !tones.includes(pc))
    : [];
  return [...inRegister(tones, 0), ...inRegister(steps, 0.8)];
}

/** The places of each pitch class in the register, lowest first. */
const REGISTER = Array.from({ length: 12 }, (_, pc) =>
  Array.from({ length: HIGHEST - LOWEST + 1 }, (_, i) => LOWEST + i).filter((midi) => midi % 12 === pc)
);

function inRegister(pitchClasses: readonly PitchClass[], cost: number): Place[] {
  return pitchClasses.flatMap((pc) => nth(REGISTER, pc).map((midi) => ({ midi, cost })));
}

/**
 * The octave in which the line begins, the same in every round: that from which the roots alone go round with no leap too
 * wide, the nearest to the middle.
 */
function firstPitch(roots: readonly PitchClass[]): number {
  const octaves = (pc: PitchClass) => inRegister([pc], 0).map(({ midi }) => midi);
  const layers = roots.map(octaves);
  const width = (from: number, to: number) => LEAPS[Math.abs(to - from)] ?? FORBIDDEN;
  const costFrom = (first: number) => {
    const round = [[first], ...layers.slice(1), [first]];
    const way = cheapestWay(round, (midi) => 0.03 * Math.abs(midi - CENTRE), width);
    return (
      way.slice(1).reduce((sum, midi, i) => sum + width(nth(way, i), midi), 0) +
      0.03 * Math.abs(first - CENTRE)
    );
  };
  const costs = firstOf(layers).map(costFrom);
  return nth(firstOf(layers), costs.indexOf(Math.min(...costs)));
}

/** Root, third or what suspends it, fifth, sixth, seventh: what a bass may stand on. */
function bassTones(chord: Chord): PitchClass[] {
  const tones = soundedTones(chord);
  const isSuspended = !tones.some((tone) => DEGREES[tone].slot === '3');
  const stands = (tone: Degree) =>
    DEGREES[tone].slot !== 'tension' || tone === '6' || (isSuspended && (tone === '11' || tone === '9'));
  return tones.filter(stands).map((tone) => pitchOf(chord, tone));
}

function fifthOf(chord: Chord): PitchClass | null {
  const fifth = soundedTones(chord).find((tone) => DEGREES[tone].slot === '5');
  return fifth === undefined ? null : pitchOf(chord, fifth);
}

const pitchOf = (chord: Chord, tone: Degree): PitchClass => (chord.rootPc + DEGREES[tone].semitones) % 12;
