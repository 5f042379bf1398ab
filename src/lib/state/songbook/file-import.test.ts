import { describe, expect, it } from 'vitest';
import { chartIn } from './file-import';

const file = (name: string, bytes: readonly number[] | string) =>
  new File([typeof bytes === 'string' ? bytes : new Uint8Array(bytes)], name);
/** A MIDI header, and a track that is cut off. */
const CUT = [0x4d, 0x54, 0x68, 0x64, 0, 0, 0, 6, 0, 0, 0, 1, 0, 96, 0x4d, 0x54, 0x72, 0x6b, 0, 0, 1, 0, 0];
const NOISE = Array.from({ length: 600 }, (_, i) => (i * 7919) % 251);

describe('a file that cannot be read', () => {
  it.each([
    ['storm.mid', CUT, /damaged or cut off/],
    ['storm.mid', NOISE, /does not begin as a MIDI file/],
    ['storm.mid', [], /does not begin as a MIDI file/],
    ['quay.musicxml', '<score-partwise><part', /no XML that can be read/],
    ['quay.xml', NOISE, /no text/],
    ['quay.mxl', NOISE, /damaged or cut off/],
    [
      'gull.png',
      [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a, 0, 0, 0, 13, 0x49, 0x48, 0x44, 0x52],
      /no text/
    ]
  ])('%s is told by its name and by what is wrong with it', async (name, bytes, why) => {
    await expect(chartIn(file(name, bytes))).rejects.toThrow(`“${name}” cannot be read.`);
    await expect(chartIn(file(name, bytes))).rejects.toThrow(why);
  });

  it('a text without chords is read, and holds none', async () => {
    const { chart } = await chartIn(file('notes.txt', 'Buy strings. Call the purser.'));
    expect(chart).toBeNull();
  });

  it('a chart stays a chart, whatever its file is called', async () => {
    const { chart } = await chartIn(file('old.dat', '| Fm7 | B♭7 |\n'));
    expect(chart).toContain('Fm7');
  });
});
