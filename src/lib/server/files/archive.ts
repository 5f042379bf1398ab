/**
 * Everything that is kept as one file: a zip with the songbook's own file and the sounds of takes. It comes in again elsewhere or here,
 * beside what is there or instead of it, after a copy of that.
 */
import { createWriteStream, mkdirSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { crc32 } from 'node:zlib';
import { openPromise, type Entry, type ZipFile } from 'yauzl';
import type { ArchiveImported, ArchiveLook, Merge } from '../../api/archive';
import { fail } from '../../api/errors';
import { copyBefore, writeFileOf } from '../store/copies';
import { closeFile, openDatabase, type Database } from '../store/database';
import { admit } from './door';
import { compare, mergeIn, replaceAll } from './merge';
import { announceArrival, finishArrival, halfOf } from '../takes/arrival';
import { hasSound, soundsOf } from '../takes/sounds';

const SONGBOOK = 'songbook.db';
const SOUND = /^sounds\/([0-9a-f-]{36})\.wav$/i;
/** What an archive holds at most: entries, bytes of the songbook, bytes in all. */
const MOST = { entries: 50_000, songbook: 2 ** 31, bytes: 2 ** 36 } as const;

/** What an archive is written of: a copy of the songbook in a folder of its own, and the sounds there are. */
export async function copyForArchive(
  db: Database,
  { folder, sounds }: { readonly folder: string; readonly sounds: 'yes' | 'no' }
): Promise<{ songbook: string; sounds: { readonly take: string; readonly path: string }[] }> {
  const songbook = join(folder, SONGBOOK);
  await writeFileOf(db, songbook);
  return { songbook, sounds: sounds === 'yes' ? soundsOf(db) : [] };
}

/**
 * Takes in the archive at a path, which lies in a folder of its own; `look` only tells what would come. Nothing is changed where it cannot
 * be read.
 */
export async function importArchiveInto(
  db: Database,
  path: string,
  merge: Merge | 'look',
  now: Date
): Promise<ArchiveLook | ArchiveImported> {
  const zip = await opened(path);
  try {
    const { songbook, sounds } = await entriesOf(zip);
    const file = join(dirname(path), SONGBOOK);
    await unpack(zip, songbook, file);
    const { path: admitted, left } = await admit(file, dirname(path), {
      code: 'damaged-archive',
      message: 'The songbook in this archive cannot be read by this Corvel; nothing was changed.'
    });
    const look = { compared: await compare(db, admitted), sounds: sounds.size, left };
    if (merge === 'look') return look;
    // All of it is unpacked before anything is changed.
    const arriving = await unpackSounds(db, zip, await wanted(admitted, sounds), merge === 'replace');
    try {
      const before = await copyBefore(db, 'an archive', now);
      const announce = (trx: Database) => announceArrival(trx, arriving);
      if (merge === 'replace') await replaceAll(db, admitted, announce);
      else await mergeIn(db, admitted, merge, announce);
      return { ...look, before };
    } finally {
      // What was announced together with the rows is put in its place, also after a kill; all else is let go.
      await finishArrival(db);
    }
  } finally {
    zip.close();
  }
}

const tooLarge = (): never =>
  fail(413, { code: 'too-large', message: 'This archive is larger than any songbook; nothing was changed.' });
const noArchive = (): never =>
  fail(400, {
    code: 'no-archive',
    message: 'This is not an archive of Corvel, or a part of it is missing; nothing was changed.'
  });

const opened = (path: string): Promise<ZipFile> => openPromise(path, { autoClose: false }).catch(noArchive);

/** The entries that Corvel knows; others are left where they are. */
async function entriesOf(zip: ZipFile): Promise<{ songbook: Entry; sounds: Map<string, Entry> }> {
  // The reader gives no more entries than an archive says it has.
  if (zip.entryCount > MOST.entries) return tooLarge();
  let songbook: Entry | undefined;
  const sounds = new Map<string, Entry>();
  let bytes = 0;
  try {
    for await (const entry of zip.eachEntry()) {
      const take = SOUND.exec(entry.fileName)?.[1];
      if (entry.fileName === SONGBOOK) songbook = entry;
      // A sound that was deleted while the archive was written has no length.
      else if (take && entry.uncompressedSize === 0) continue;
      else if (take) sounds.set(take.toLowerCase(), entry);
      else continue;
      bytes += entry.uncompressedSize;
      if (bytes > MOST.bytes) return tooLarge();
    }
  } catch (thrown) {
    if (thrown instanceof Error && 'status' in thrown) throw thrown;
    return noArchive();
  }
  if (!songbook) return noArchive();
  if (songbook.uncompressedSize > MOST.songbook) return tooLarge();
  return { songbook, sounds };
}

/** Sounds of takes that are in the songbook that came; nothing is unpacked that no row needs. */
async function wanted(
  admitted: string,
  sounds: ReadonlyMap<string, Entry>
): Promise<ReadonlyMap<string, Entry>> {
  const db = await openDatabase(admitted);
  const takes = await db.selectFrom('take').select('id').where('bytes', '>', 0).execute();
  closeFile(db);
  return new Map(
    takes.flatMap(({ id }) => {
      const entry = sounds.get(id.toLowerCase());
      return entry ? [[id.toLowerCase(), entry] as const] : [];
    })
  );
}

/** How much larger an entry may be than it is packed: sound and tables are far below. */
const MOST_RATIO = 1100;

/** One entry into a file; it is refused where it is longer than it says, packed beyond reason, or not what its check sum says. */
async function unpack(zip: ZipFile, entry: Entry, path: string): Promise<void> {
  if (entry.uncompressedSize > MOST_RATIO * (entry.compressedSize + 1024)) noArchive();
  let sum = 0;
  async function* checked(pieces: AsyncIterable<Buffer>) {
    for await (const piece of pieces) {
      sum = crc32(piece, sum);
      yield piece;
    }
  }
  try {
    await pipeline(await zip.openReadStreamPromise(entry), checked, createWriteStream(path));
  } catch (thrown) {
    if ((thrown as NodeJS.ErrnoException).code === 'ENOSPC') throw thrown;
    noArchive();
  }
  if (sum !== entry.crc32) noArchive();
}

/** Unpacks sounds beside their places, and tells of which takes. A sound that is here already stays, but where everything is replaced. */
async function unpackSounds(
  db: Database,
  zip: ZipFile,
  sounds: ReadonlyMap<string, Entry>,
  isReplaced: boolean
): Promise<string[]> {
  const arriving: string[] = [];
  try {
    for (const [take, entry] of sounds) {
      if (!isReplaced && hasSound(db, take)) continue;
      const half = halfOf(db, take);
      mkdirSync(dirname(half), { recursive: true });
      await unpack(zip, entry, half);
      arriving.push(take);
    }
    return arriving;
  } catch (thrown) {
    await finishArrival(db);
    throw thrown;
  }
}
