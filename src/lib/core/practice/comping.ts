/** The chords of the band: how the symbol is voiced, and when it is struck. */
import type { SoundEvent } from './events';
import { strokesByChange, type Stage } from './stage';
import { voicingsFor } from './voicing';
import { DEGREES } from '../theory/degree';

const PLAYER = 2;
const WEIGHTS: Readonly<Record<string, number>> = { X: 0.78, x: 0.66, o: 0.5 };
/** The voices that say the chord are played this much louder. */
const TELLING = 1.15;
/** The moment of change is always heard. */
const AT_CHANGE = 'x';

export function chordEvents(stage: Stage): SoundEvent[] {
  const { excerpt, feel } = stage;
  const strokes = strokesByChange(stage, feel.chords, PLAYER, AT_CHANGE);
  const isHeld = feel.chords.length === 0;
  const chance = stage.chance(PLAYER, -1);
  const voicings = voicingsFor(
    excerpt.changes.map(({ source }) => source),
    feel.isColoured,
    stage.chance(PLAYER, -2)
  );
  return voicings.flatMap((voicing, i): SoundEvent[] =>
    (voicing ? strokes[i]! : []).flatMap((stroke) => {
      const late = stroke.isFirst ? 0 : 0.015 * chance();
      const weight = (WEIGHTS[stroke.letter] ?? WEIGHTS.x!) * (0.94 + 0.1 * chance());
      return voicing!.map(({ midi, degree }): SoundEvent => {
        const isTelling = ['3', '7'].includes(DEGREES[degree].slot);
        return {
          part: 'chords',
          start: stroke.start + late,
          beats: (stroke.end - stroke.start - late) * 0.97,
          midi,
          velocity: Math.min(1, weight * (isTelling ? TELLING : 1)),
          ...(isHeld ? { isHeld } : {})
        };
      });
    })
  );
}
