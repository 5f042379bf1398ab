/** What stands between a guitar and a microphone: chorus, delay, room. Pure, on one channel, full scale −1 to 1. */

export const EFFECTS = ['chorus', 'delay', 'room'] as const;
export type Effect = (typeof EFFECTS)[number];

/** A copy whose delay swings, in seconds, so many times a second, as loud as the sound itself. */
const CHORUS = { delay: 0.018, swing: 0.003, hertz: 0.8, mix: 0.7 } as const;
/** Echoes: seconds from one to the next, the level of the first, and of each against the one before. */
const DELAY = { seconds: 0.34, level: 0.4, again: 0.4 } as const;
/** Loops of delay that are added up, in seconds, and how long they ring; the usual model of a small room. */
const ROOM = { loops: [0.0297, 0.0371, 0.0411, 0.0437], rings: 0.7, mix: 0.25 } as const;

/** A sound through an effect. @param rate samples a second */
export function through(effect: Effect, sound: Float32Array, rate: number): Float32Array<ArrayBuffer> {
  return { chorus: chorused, delay: delayed, room: inRoom }[effect](sound, rate);
}

function chorused(sound: Float32Array, rate: number): Float32Array<ArrayBuffer> {
  return Float32Array.from(sound, (own, i) => {
    const place =
      i - rate * (CHORUS.delay + CHORUS.swing * Math.sin((2 * Math.PI * CHORUS.hertz * i) / rate));
    const low = Math.floor(place);
    const [before, after] = [sound[low] ?? 0, sound[low + 1] ?? 0];
    return (own + CHORUS.mix * (before + (place - low) * (after - before))) / (1 + CHORUS.mix);
  });
}

function delayed(sound: Float32Array, rate: number): Float32Array<ArrayBuffer> {
  const lag = Math.round(DELAY.seconds * rate);
  const echoes = new Float32Array(sound.length);
  for (let i = lag; i < sound.length; i++) {
    echoes[i] = DELAY.level * sound[i - lag]! + DELAY.again * echoes[i - lag]!;
  }
  return Float32Array.from(sound, (own, i) => own + echoes[i]!);
}

function inRoom(sound: Float32Array, rate: number): Float32Array<ArrayBuffer> {
  const wet = new Float32Array(sound.length);
  for (const seconds of ROOM.loops) {
    const lag = Math.round(seconds * rate);
    const again = 0.001 ** (seconds / ROOM.rings);
    const loop = new Float32Array(sound.length);
    for (let i = lag; i < sound.length; i++) {
      loop[i] = sound[i - lag]! + again * loop[i - lag]!;
      wet[i]! += loop[i]! / ROOM.loops.length;
    }
  }
  return Float32Array.from(sound, (own, i) => own + ROOM.mix * wet[i]!);
}
