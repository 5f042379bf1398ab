import { describe, expect, it } from 'vitest';
import { LiveEar } from '../../core/takes/listen/live';
import { sounded } from '../../core/takes/player/string';
import { Follower } from './follower.svelte';

const RATE = 22_050;
const TEMPO = 120;
const BASE = 0.5;
const beatOf = (second: number) => (second * TEMPO) / 60;

/** What a simulated player plays bar by bar: how many notes, how loud. */
function played(bars: readonly { readonly notes: number; readonly loudness: number }[]) {
  const notes = bars.flatMap(({ notes: count, loudness }, bar) =>
    Array.from({ length: count }, (_, i) => ({
      at: ((bar * 4 + (i * 4) / count) * 60) / TEMPO + 0.02,
      seconds: (3.4 / count) * (60 / TEMPO),
      midi: 57 + ((i * 5) % 12),
      loudness
    }))
  );
  return sounded(notes, 'bright', RATE);
}

/** The intensity after each bar, from the sound of the player. */
function followedThrough(bars: Parameters<typeof played>[0]): number[] {
  const samples = played(bars);
  const ear = new LiveEar(RATE);
  const follower = new Follower();
  const told: number[] = [];
  for (let from = 0; from < samples.length; from += 512) {
    const moment = ear.take({
      frame: from,
      samples: samples.slice(from, from + 512) as Float32Array<ArrayBuffer>
    });
    moment.began.forEach(() => follower.hearNote());
    follower.hearLevel(moment.peak);
    const bar = Math.floor(beatOf(from / RATE) / 4);
    if (follower.at(bar, 4, BASE)) told.push(follower.intensity!);
  }
  return told;
}
const times = <T>(n: number, bar: T): T[] => Array.from({ length: n }, () => bar);
const LOUD = { notes: 8, loudness: 0.9 };
const SOFT = { notes: 2, loudness: 0.2 };

describe('the band follows the simulated player', () => {
  it('up within two bars where they are dense and loud, down within two where they are sparse and soft, and back', () => {
    const told = followedThrough([
      ...times(4, LOUD),
      ...times(4, SOFT),
      ...times(4, LOUD),
      ...times(3, { notes: 0, loudness: 0 })
    ]);
    // Told at the start of the bar after the one that was heard.
    expect(Math.min(...told.slice(1, 4))).toBeGreaterThan(0.75);
    expect(Math.max(...told.slice(5, 8))).toBeLessThan(0.45);
    expect(Math.min(...told.slice(9, 12))).toBeGreaterThan(0.75);
    expect(told[5]! - told[9]!).toBeLessThan(-0.3);
  });

  it('goes its own way once nobody is heard any more', () => {
    const follower = new Follower();
    follower.at(0, 4, BASE);
    follower.hearNote();
    expect(follower.at(1, 4, BASE)).toBe(true);
    expect(follower.intensity).not.toBeNull();
    follower.forget();
    expect([follower.intensity, follower.room]).toEqual([null, 0]);
  });
});
