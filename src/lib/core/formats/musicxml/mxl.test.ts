import { strToU8, zipSync } from 'fflate';
import { describe, expect, it } from 'vitest';
import { NotReadable } from '../not-readable';
import { CHART, pieceOf } from '../testing';
import { readMxl } from './mxl';
import { writeMusicXml } from './write';

const score = strToU8(writeMusicXml(pieceOf([])));
const container = (path: string) =>
  strToU8(
    `<?xml version="1.0"?><container><rootfiles><rootfile full-path="${path}"/></rootfiles></container>`
  );
const refused = (bytes: Uint8Array) => {
  try {
    readMxl(bytes);
  } catch (thrown) {
    expect(thrown).toBeInstanceOf(NotReadable);
    return (thrown as Error).message;
  }
  throw new Error('it was read');
};

describe('compressed MusicXML', () => {
  it('is read by what its container names, wherever that lies', () => {
    const bytes = zipSync({
      'META-INF/container.xml': container('deep/tune.xml'),
      'deep/tune.xml': score,
      'other.xml': strToU8('<a/>')
    });
    expect(readMxl(bytes).chart).toBe(CHART);
  });

  it('is read without a container by its first score', () => {
    expect(readMxl(zipSync({ 'notes.txt': strToU8('x'), 'tune.musicxml': score })).chart).toBe(CHART);
  });

  it('says what is wrong with one that is empty, damaged, cut off, or names what it has not', () => {
    expect(refused(zipSync({ 'notes.txt': strToU8('x') }))).toContain('no MusicXML score');
    expect(refused(zipSync({ 'META-INF/container.xml': container('gone.xml') }))).toContain(
      'does not hold it'
    );
    const whole = zipSync({ 'tune.xml': score });
    expect(refused(whole.slice(0, whole.length >> 1))).toContain('damaged or cut off');
    const torn = whole.slice();
    torn.fill(7, 60, 120);
    expect(refused(torn)).toMatch(/damaged|no XML/);
  });

  it('opens no bomb: neither one that says how large it is, nor one that lies, nor a thousand files', () => {
    const bomb = zipSync({ 'tune.xml': new Uint8Array(20 * 1024 * 1024) });
    expect(bomb.length).toBeLessThan(100_000);
    expect(refused(bomb)).toContain('larger than 10 MiB');
    // The same, with sizes that say a kilobyte.
    const liar = bomb.slice();
    const view = new DataView(liar.buffer);
    for (let i = 0; i + 4 <= liar.length; i++)
      if (view.getUint32(i, true) === 20 * 1024 * 1024) view.setUint32(i, 1024, true);
    expect(refused(liar)).toMatch(/damaged|no XML|no MusicXML/);
    const many = zipSync(
      Object.fromEntries(Array.from({ length: 600 }, (_, i) => [`${i}.txt`, strToU8('x')]))
    );
    expect(refused(many)).toContain('more than 500 files');
  });
});
