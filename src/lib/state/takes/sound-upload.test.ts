import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { asBytes, SoundUpload } from './sound-upload';

/** A server that keeps the bytes of one sound, and can lose what came last or be away. */
let sound = new Uint8Array();
let isAway = false;

beforeEach(() => {
  [sound, isAway] = [new Uint8Array(), false];
  vi.stubGlobal('fetch', (path: string, { body }: { body: Uint8Array }) => {
    const { searchParams } = new URL(path, 'http://here');
    // Files share their process: only pieces of a sound are meant.
    if (!searchParams.has('from')) return Promise.resolve(Response.json({}));
    if (isAway) return Promise.reject(new Error('away'));
    const from = Number(searchParams.get('from'));
    if (from > sound.length)
      return Promise.resolve(
        Response.json({ error: { message: 'A piece is missing.' }, bytes: sound.length }, { status: 409 })
      );
    const next = new Uint8Array(Math.max(sound.length, from + body.length));
    next.set(sound);
    next.set(body, from);
    sound = next;
    return Promise.resolve(Response.json({ bytes: sound.length }));
  });
});
afterEach(() => vi.unstubAllGlobals());

const samples = (...values: number[]) => Float32Array.from(values);

describe('the sound of a take on its way', () => {
  it('goes on from where the server says that its sound ends', async () => {
    const upload = new SoundUpload('chart', 'take', 44_100);
    upload.add(samples(0.1, 0.2, 0.3, 0.4));
    expect(await upload.send()).toBe(true);
    // The disk took a part of the last piece, and the rest was lost with the power.
    sound = sound.slice(0, 4);
    upload.add(samples(0.5, 0.6));
    expect(await upload.send()).toBe(true);
    expect([...sound]).toEqual([...asBytes(samples(0.1, 0.2, 0.3, 0.4, 0.5, 0.6))]);
    expect(upload.problem).toBe('');
  });

  it('says so where what is missing is not here any more, and does not go round in circles', async () => {
    const upload = new SoundUpload('chart', 'take', 44_100);
    for (const value of [0.1, 0.2]) {
      upload.add(samples(value));
      expect(await upload.send()).toBe(true);
    }
    sound = new Uint8Array();
    upload.add(samples(0.3));
    expect(await upload.send()).toBe(false);
    expect(upload.problem).toBe('A piece is missing.');
  });

  it('waits while the server is away', async () => {
    const upload = new SoundUpload('chart', 'take', 44_100);
    isAway = true;
    upload.add(samples(0.1));
    expect(await upload.send()).toBe(false);
    isAway = false;
    expect(await upload.send()).toBe(true);
    expect(sound).toHaveLength(2);
  });
});
