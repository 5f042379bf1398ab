/** Something heard once, by itself: never over the band. */
import * as Tone from 'tone';
import type { Heard } from '../core/practice/hearing';
import { openSound } from './open';
import { loadSounds } from './sounds';
import { makeBand, TAIL, type Band } from './voices';

/** Beats a minute at which things are heard: slow enough to follow. */
const TEMPO = 96;
const BREATH = 0.05;

let sounding: { readonly band: Band; readonly timer: ReturnType<typeof setTimeout> } | null = null;
/** Counts what has been asked for; what was asked for before the newest is not played any more. */
let asked = 0;
let isHeld = false;

export function stopListening(): void {
  asked += 1;
  if (!sounding) return;
  clearTimeout(sounding.timer);
  sounding.band.dispose();
  sounding = null;
}

/** While the band plays nothing is listened to beside it. */
export function holdListening(isOn: boolean): void {
  isHeld = isOn;
  if (isOn) stopListening();
}

/**
 * Plays something, and tells when it is over. False where the band is playing. Throws where the browser plays no sound.
 */
export async function listen({ events, beats }: Heard, onEnd: () => void): Promise<boolean> {
  if (isHeld) return false;
  stopListening();
  const own = asked;
  const [sounds] = await Promise.all([loadSounds(), openSound()]);
  if (own !== asked) return true;
  const band = makeBand(sounds, 'piano');
  const begin = Tone.getContext().currentTime + BREATH;
  const seconds = (time: number) => (time * 60) / TEMPO;
  for (const event of events) band.play(event, begin + seconds(event.start), seconds(event.beats));
  const end = () => {
    stopListening();
    onEnd();
  };
  sounding = { band, timer: setTimeout(end, 1000 * (seconds(beats) + TAIL)) };
  return true;
}
