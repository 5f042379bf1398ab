/**
 * The sounds of takes: WAV files in a folder beside the database, written piece by piece while they are recorded, so that a take that was
 * torn off is there up to its last piece.
 */
import {
  closeSync,
  existsSync,
  fdatasyncSync,
  fstatSync,
  mkdirSync,
  openSync,
  readdirSync,
  readSync,
  rmSync,
  statSync,
  writeSync
} from 'node:fs';
import { join } from 'node:path';
import { fail } from '../../api/errors';
import { LONGEST_TAKE } from '../../api/take';
import { pathOf, type Database } from '../store/database';

const HEADER = 44;
/** Samples are whole numbers of 16 bits. */
const BYTES = 2;
const RATES = { least: 8000, most: 192_000 } as const;
const MOST_BYTES = LONGEST_TAKE * 96_000 * BYTES;

/** The folder in which sounds lie. */
export function soundFolder(db: Database): string {
  return `${pathOf(db)}-takes`;
}

/** Ids are uuids, so that none leads out of the folder. */
export const isTakeId = (take: unknown): take is string =>
  typeof take === 'string' && /^[0-9a-f-]{36}$/i.test(take);

function fileOf(db: Database, take: string): string {
  if (!isTakeId(take)) fail(404, { code: 'no-take', message: 'There is no such take.' });
  return join(soundFolder(db), `${take}.wav`);
}

/** Where a take's sound lies, or would lie. */
export const placeForSound = fileOf;
export const hasSound = (db: Database, take: string): boolean => existsSync(fileOf(db, take));

/** All the sounds that are kept. */
export function soundsOf(db: Database): { readonly take: string; readonly path: string }[] {
  if (!existsSync(soundFolder(db))) return [];
  return readdirSync(soundFolder(db))
    .flatMap((name) => /^([0-9a-f-]{36})\.wav$/i.exec(name)?.[1] ?? [])
    .map((take) => ({ take, path: fileOf(db, take) }));
}

/** Bytes of a take's sound; 0 where it has none. */
export function soundBytes(db: Database, take: string): number {
  const file = fileOf(db, take);
  return existsSync(file) ? statSync(file).size : 0;
}

/**
 * Writes a piece of samples at its place, in bytes of samples since the sound began; sent twice it is the same. A piece that does not
 * join what is there is refused, with how far that goes.
 */
export function writeSound(
  db: Database,
  take: string,
  { from, rate, samples }: { readonly from: number; readonly rate: number; readonly samples: Uint8Array }
): { readonly bytes: number } {
  if (rate < RATES.least || rate > RATES.most) {
    fail(400, {
      code: 'bad-rate',
      message: `“rate” is ${RATES.least} to ${RATES.most} samples a second.`,
      path: 'rate'
    });
  }
  if (samples.length % BYTES !== 0 || from % BYTES !== 0) {
    fail(400, { code: 'bad-sound', message: 'A piece of sound is made of whole samples of 16 bits.' });
  }
  if (from + samples.length > MOST_BYTES) {
    fail(413, {
      code: 'too-long',
      message: `A take lasts up to ${LONGEST_TAKE / 60} minutes; what came before is kept.`
    });
  }
  mkdirSync(soundFolder(db), { recursive: true });
  const path = fileOf(db, take);
  const file = openSync(path, existsSync(path) ? 'r+' : 'w+');
  try {
    const there = writtenIn(file);
    if (from > there) {
      fail(
        409,
        { code: 'gap', message: `A piece of the sound is missing before this one.` },
        { bytes: there }
      );
    }
    // The sound first, on the disk; then the head, which is true to what is there.
    writeAll(file, samples, HEADER + from);
    fdatasyncSync(file);
    const bytes = Math.max(there, from + samples.length);
    writeAll(file, headerOf(bytes, rate), 0);
    fdatasyncSync(file);
    return { bytes };
  } finally {
    closeSync(file);
  }
}

/** Bytes of samples that were acknowledged: what the head tells, and never more than there is. */
function writtenIn(file: number): number {
  const head = Buffer.alloc(HEADER);
  const { size } = fstatSync(file);
  if (size < HEADER || readSync(file, head, 0, HEADER, 0) < HEADER) return 0;
  return Math.min(head.readUInt32LE(40), size - HEADER);
}

/** Writes all of it or throws: a disk that is full takes a part, and says so only in the number that it gives back. */
export function writeAll(
  file: number,
  bytes: Uint8Array,
  at: number,
  write: (file: number, bytes: Uint8Array, from: number, length: number, at: number) => number = writeSync
): void {
  for (let done = 0; done < bytes.length;) {
    const written = write(file, bytes, done, bytes.length - done, at + done);
    if (written <= 0) throw Object.assign(new Error('The disk takes no more.'), { code: 'ENOSPC' });
    done += written;
  }
}

/** The head of a WAV file of so many bytes: one channel, 16 bits. */
function headerOf(bytes: number, rate: number): Uint8Array {
  const head = Buffer.alloc(HEADER);
  head.write('RIFF', 0, 'latin1');
  head.writeUInt32LE(HEADER - 8 + bytes, 4);
  head.write('WAVEfmt ', 8, 'latin1');
  head.writeUInt32LE(16, 16);
  head.writeUInt16LE(1, 20);
  head.writeUInt16LE(1, 22);
  head.writeUInt32LE(rate, 24);
  head.writeUInt32LE(rate * BYTES, 28);
  head.writeUInt16LE(BYTES, 32);
  head.writeUInt16LE(8 * BYTES, 34);
  head.write('data', 36, 'latin1');
  head.writeUInt32LE(bytes, 40);
  return head;
}

/** The WAV file of a take: where it lies, and how long it is. */
export function soundFile(db: Database, take: string): { readonly path: string; readonly bytes: number } {
  const path = fileOf(db, take);
  if (!existsSync(path)) {
    fail(404, { code: 'no-sound', message: 'The sound of this take is not kept; its notes are.' });
  }
  return { path, bytes: statSync(path).size };
}

export function removeSound(db: Database, take: string): void {
  rmSync(fileOf(db, take), { force: true });
}
