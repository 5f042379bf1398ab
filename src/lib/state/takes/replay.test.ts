/** A replay that is on its way when the player thinks better of it. */
import { describe, expect, it, vi } from 'vitest';

const audio = vi.hoisted(() => ({ sounding: 0, arrives: [] as (() => void)[] }));
vi.mock('$lib/audio/replay', () => ({
  replay: () =>
    new Promise((resolve) => {
      audio.arrives.push(() => {
        audio.sounding += 1;
        resolve({ second: () => 0, stop: () => void (audio.sounding -= 1) });
      });
    })
}));
vi.mock('./sound', () => ({
  soundWithCall: () => Promise.resolve({ samples: new Float32Array(44_100), rate: 44_100 })
}));
vi.stubGlobal('requestAnimationFrame', () => 0);
vi.stubGlobal('cancelAnimationFrame', () => undefined);
const { Replaying } = await import('./replay.svelte');

const opened = { data: { tempo: 120, start: 0 } };
const replaying = () =>
  new Replaying({ shelf: { opened }, notices: { problem: '' } } as unknown as ConstructorParameters<
    typeof Replaying
  >[0]);
const arrived = async () => {
  await vi.waitUntil(() => audio.arrives.length > 0);
  audio.arrives.shift()!();
};

describe('a replay', () => {
  it('that is stopped before its sound has come stays silent', async () => {
    const own = replaying();
    const begun = own.play();
    expect(own.isPlaying).toBe(true);
    own.stop();
    if (audio.arrives.length) await arrived();
    await begun;
    expect([own.isPlaying, own.beat, audio.sounding]).toEqual([false, null, 0]);
  });

  it('gives way to the one asked for after it, and sounds once', async () => {
    const own = replaying();
    const first = own.play();
    await vi.waitUntil(() => audio.arrives.length > 0);
    const second = own.loop(0, 1);
    await arrived();
    await first;
    await arrived();
    await second;
    expect([own.isPlaying, own.beat !== null, audio.sounding]).toEqual([true, true, 1]);
    own.stop();
    expect(audio.sounding).toBe(0);
  });
});
