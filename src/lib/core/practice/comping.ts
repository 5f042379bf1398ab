/** The chords of the band: how the symbol is voiced, and when it is struck. */
import { firstOf, lastOf, nth, sure } from '../base/list';
import type { SoundEvent } from './events';
import { strokesByChange, type Stage } from './stage';
import { compStrokes } from './comp-strokes';
import type { Comping } from './feel';
import { powerVoicing, voicingsFor, type Voicing } from './voicing';
import type { Chance } from '../line/chance';
import { isFull, loudnessAt } from './intensity';
import { DEGREES } from '../theory/degree';

const PLAYER = 2;
const WEIGHTS: Readonly<Record<string, number>> = { X: 0.78, o: 0.5 };
const weightOf = (letter: string) => WEIGHTS[letter] ?? 0.66;
/** The voices that say the chord are played this much louder. */
const TELLING = 1.15;
/** The moment of change is always heard. */
const AT_CHANGE = 'x';

/** What the chords play in a round, by its feel. Source: docs/music-rules.md, The band. */
export function chordEvents(stage: Stage): SoundEvent[] {
  const { excerpt, feel } = stage;
  const isHeld = feel.chords.length === 0;
  const chance = stage.chance(PLAYER, -1);
  const led = voicingsFor(
    excerpt.changes.map(({ source }) => source),
    feel.isColoured,
    stage.chance(PLAYER, -2)
  );
  const voicings = feel.powers
    ? led.map((voicing, i) => {
        const { chord } = nth(excerpt.changes, i).source;
        return (chord && powerVoicing(chord)) ?? voicing;
      })
    : led;
  if (feel.comping) return compedEvents(stage, feel.comping, voicings, chance);
  const loudness = loudnessAt(stage.intensity) * (feel.levels?.chords ?? 1);
  const { behind = 0 } = feel;
  const strokes = strokesByChange(stage, feel.chords, PLAYER, AT_CHANGE);
  const endOf = (change: number) => nth(excerpt.changes, change).start + nth(excerpt.changes, change).beats;
  return voicings.flatMap((voicing, i): SoundEvent[] => {
    if (!voicing) return [];
    return nth(strokes, i).flatMap((stroke) => {
      const late = Math.min(
        behind + (stroke.isFirst ? 0 : 0.015 * chance()),
        (stroke.end - stroke.start) / 4
      );
      const weight = loudness * weightOf(stroke.letter) * (0.94 + 0.1 * chance());
      return voicing.map(({ midi, degree }): SoundEvent => {
        const isTelling = ['3', '7'].includes(DEGREES[degree].slot);
        return {
          part: 'chords',
          start: stroke.start + late,
          // Under a pedal every stroke rings for as long as its chord.
          beats: ((feel.pedals ? endOf(i) : stroke.end) - stroke.start - late) * 0.97,
          midi,
          velocity: Math.min(1, weight * (isTelling ? TELLING : 1)),
          ...(isHeld ? { isHeld } : {})
        };
      });
    });
  });
}

/** Strokes that answer and push; the grips of a chord are taken in turn, so that the top voice moves. */
function compedEvents(
  stage: Stage,
  comping: Comping,
  voicings: readonly (Voicing | null)[],
  chance: Chance
): SoundEvent[] {
  const struck = new Map<number, number>();
  const { behind = 0, levels } = stage.feel;
  const loudness = loudnessAt(stage.intensity) * (levels?.chords ?? 1);
  // With all it has the band begins each chord an inversion higher.
  const first = isFull(stage.intensity) ? 1 : 0;
  return compStrokes(stage, comping, PLAYER).flatMap(
    ({ start, end, change, letter, isOnPulse }): SoundEvent[] => {
      const voicing = voicings[change];
      if (!voicing) return [];
      const turn = struck.get(change) ?? first;
      struck.set(change, turn + 1);
      const late = Math.min(behind + (isOnPulse ? 0 : 0.015 * chance()), (end - start) / 4);
      const weight = loudness * weightOf(letter) * (0.94 + 0.1 * chance());
      return gripIn(voicing, turn).map(({ midi, degree }): SoundEvent => {
        const isTelling = ['3', '7'].includes(DEGREES[degree].slot);
        return {
          part: 'chords',
          start: start + late,
          beats: (end - start - late) * 0.97,
          midi,
          velocity: Math.min(1, weight * (isTelling ? TELLING : 1))
        };
      });
    }
  );
}

/** Within these the grips stay that are turned. */
const LOWEST_GRIP = 48;
const HIGHEST_GRIP = 81;
/** The top voice moves by so many semitones at most from grip to grip. */
const TOP_STEP = 5;

/** The grip of a turn: as it is led, then turned up or down where the top voice moves little. */
export function gripIn(voicing: Voicing, turn: number): Voicing {
  if (turn % 2 === 0 || voicing.length < 3) return voicing;
  const [lowest, top] = [firstOf(voicing), lastOf(voicing)];
  const raised = { ...lowest, midi: lowest.midi + 12 };
  const up = raised.midi - top.midi;
  if (up > 0 && up <= TOP_STEP && raised.midi <= HIGHEST_GRIP) return [...voicing.slice(1), raised];
  const next = sure(voicing.at(-2), 'voicing');
  const lowered = { ...top, midi: top.midi - 12 };
  const isFree = voicing.every(({ midi }) => midi !== lowered.midi) && lowered.midi >= LOWEST_GRIP;
  if (isFree && top.midi - next.midi <= TOP_STEP)
    return [...voicing.slice(0, -1), lowered].sort((a, b) => a.midi - b.midi);
  return voicing;
}
