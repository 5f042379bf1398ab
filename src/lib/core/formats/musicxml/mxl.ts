/**
 * Compressed MusicXML: a zip archive whose container names the score. Bounded: archives can be made that grow without end when they are
 * opened, or that hold more than anybody wrote.
 */
import { numberAt } from '../../base/list';
import { strFromU8, unzipSync, type Unzipped } from 'fflate';
import { NotReadable } from '../not-readable';
import type { ReadPiece } from '../piece';
import { readMusicXml } from './read';

/** Bytes of the score when it is opened, entries of the archive, and bytes of the container. */
const MOST_BYTES = 10 * 1024 * 1024;
const MOST_ENTRIES = 500;
const MOST_CONTAINER = 64 * 1024;
const CONTAINER = 'META-INF/container.xml';
const DAMAGED = 'This compressed MusicXML file is damaged or cut off.';

/** The piece inside a compressed MusicXML file. Throws `NotReadable` where there is none, or where it is larger than is read. */
export function readMxl(bytes: Uint8Array): ReadPiece {
  const path = rootOf(bytes) ?? firstScore(bytes);
  if (path === null) throw new NotReadable('There is no MusicXML score in this archive.');
  const score = entry(bytes, path, MOST_BYTES);
  if (!score) throw new NotReadable(`The archive names “${path}” as its score, but does not hold it.`);
  return readMusicXml(textFrom(score));
}

/** Text of eight bits, or of sixteen where it begins with their mark. */
function textFrom(bytes: Uint8Array): string {
  const isLittle = bytes[0] === 0xff && bytes[1] === 0xfe;
  const isBig = bytes[0] === 0xfe && bytes[1] === 0xff;
  if (!isLittle && !isBig) return strFromU8(bytes);
  let text = '';
  for (let i = 2; i + 1 < bytes.length; i += 2) {
    const [low, high] = isLittle
      ? [numberAt(bytes, i), numberAt(bytes, i + 1)]
      : [numberAt(bytes, i + 1), numberAt(bytes, i)];
    text += String.fromCharCode(low | (high << 8));
  }
  return text;
}

/** The score that the container names; null where it names none. */
function rootOf(bytes: Uint8Array): string | null {
  const container = entry(bytes, CONTAINER, MOST_CONTAINER);
  if (!container) return null;
  const [, path] = /<rootfile\b[^>]*?\bfull-path\s*=\s*["']([^"']+)["']/.exec(strFromU8(container)) ?? [];
  return path ?? null;
}

/** Some programs leave the container out. */
function firstScore(bytes: Uint8Array): string | null {
  const names: string[] = [];
  opened(bytes, ({ name }) => {
    names.push(name);
    return false;
  });
  return names.find((name) => /^[^/]+\.(?:musicxml|xml)$/i.test(name)) ?? null;
}

function entry(bytes: Uint8Array, path: string, most: number): Uint8Array | undefined {
  const files = opened(bytes, ({ name, originalSize }) => {
    if (name !== path) return false;
    if (originalSize > most)
      throw new NotReadable(
        `“${path}” would be larger than ${Math.round(most / 1024 / 1024) || 1} MiB when it is opened; save a part of it.`
      );
    return true;
  });
  return files[path];
}

/** What passes a filter, opened. The package opens no entry to more than it says it has. */
function opened(
  bytes: Uint8Array,
  filter: (file: { readonly name: string; readonly originalSize: number }) => boolean
): Unzipped {
  let entries = 0;
  try {
    return unzipSync(bytes, {
      filter: (file) => {
        if (++entries > MOST_ENTRIES)
          throw new NotReadable(`This archive has more than ${MOST_ENTRIES} files in it.`);
        return filter(file);
      }
    });
  } catch (thrown) {
    if (thrown instanceof NotReadable) throw thrown;
    throw new NotReadable(DAMAGED);
  }
}
