/** Opening the sound of the browser. */
import * as Tone from 'tone';

/** Opens the sound; to be called from a gesture of the player. Throws where the browser refuses or never answers. */
export async function openSound(): Promise<void> {
  await Promise.race([
    Tone.start(),
    new Promise((_, refuse) => setTimeout(() => refuse(new Error('The browser plays no sound.')), 4000))
  ]);
  if (Tone.getContext().state !== 'running') throw new Error('The browser plays no sound.');
}

/** The audio clock, in seconds. */
export const audioSecond = (): number => Tone.getContext().currentTime;
