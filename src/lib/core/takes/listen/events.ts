/** Whatever begins in a sound, with the pitch that begins there: strokes of the player, and of the band that leaks in, echoes, drums. */
import { levelOf, SILENT } from './frames';
import { onsetsOf, type Onset } from './onsets';
import { PitchFinder, type Begun } from './pitch';

/** Something that begins, with the pitch that it has. */
export interface Event {
  readonly onset: Onset;
  readonly begun: Begun;
  /** Root of the mean square just after it. */
  readonly level: number;
  /** Its level against the moment before. */
  readonly jump: number;
}

/** Seconds over which a level is taken after something has begun, and before. */
const AFTER = 0.03;
const BEFORE = { from: 0.02, to: 0.003 } as const;

/**
 * The events of a sound in the order of time.
 * @param rate samples a second
 * @param onShare told again and again how much is done, 0 to 1
 */
export function eventsIn(sound: Float32Array, rate: number, onShare: (share: number) => void): Event[] {
  const onsets = onsetsOf(sound, rate);
  const finder = new PitchFinder(rate);
  return onsets.map((onset, i): Event => {
    onShare(i / onsets.length);
    const { at, full } = onset;
    const level = levelOf(sound, full, full + AFTER * rate);
    const before = levelOf(sound, at - BEFORE.from * rate, at - BEFORE.to * rate);
    return {
      onset,
      begun: finder.begins(sound, at, full, onsets[i + 1]?.at ?? sound.length),
      level,
      jump: level / Math.max(before, SILENT)
    };
  });
}
