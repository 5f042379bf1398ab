/** Something heard once, beside whatever else plays: asked for again it stops. */
import * as Tone from 'tone';
import type { Heard } from '../core/practice/hearing';
import { openSound } from './player';
import { loadSounds } from './sounds';
import { makeBand, TAIL, type Band } from './voices';

/** Beats a minute at which things are heard: slow enough to follow. */
const TEMPO = 96;
const BREATH = 0.05;

let sounding: { readonly band: Band; readonly timer: ReturnType<typeof setTimeout> } | null = null;

export function stopListening(): boolean {
  if (!sounding) return false;
  clearTimeout(sounding.timer);
  sounding.band.dispose();
  sounding = null;
  return true;
}

/** Plays something, and tells when it is over. Throws where the browser gives no sound. */
export async function listen({ events, beats }: Heard, onEnd: () => void): Promise<void> {
  const [sounds] = await Promise.all([loadSounds(), openSound()]);
  stopListening();
  const band = makeBand(sounds, 'piano');
  const begin = Tone.getContext().currentTime + BREATH;
  const seconds = (time: number) => (time * 60) / TEMPO;
  for (const event of events) band.play(event, begin + seconds(event.start), seconds(event.beats));
  const end = () => {
    stopListening();
    onEnd();
  };
  sounding = { band, timer: setTimeout(end, 1000 * (seconds(beats) + TAIL)) };
}
