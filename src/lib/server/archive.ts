/**
 * Everything that is kept as one file: a zip with the songbook's own file and the sounds of takes. It comes in again elsewhere or here,
 * beside what is there or instead of it, after a copy of that.
 */
import { createWriteStream, mkdirSync, renameSync, rmSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { openPromise, type Entry, type ZipFile } from 'yauzl';
import type { ArchiveBrought, ArchiveLook, Merge } from '../api/archive';
import { fail } from '../api/errors';
import { copyBefore, writeFileOf } from './copies';
import type { Database } from './database';
import { admit } from './door';
import { compare, mergeIn, replaceAll } from './merge';
import { hasSound, placeForSound, soundsOf } from './takes/sounds';

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
export async function bringArchiveIn(
  db: Database,
  path: string,
  merge: Merge | 'look',
  now: Date
): Promise<ArchiveLook | ArchiveBrought> {
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
    const placeSounds = await unpackSounds(db, zip, sounds, merge === 'replace');
    const before = await copyBefore(db, 'an archive', now);
    try {
      if (merge === 'replace') await replaceAll(db, admitted);
      else await mergeIn(db, admitted, merge);
    } catch (thrown) {
      await placeSounds(false);
      throw thrown;
    }
    await placeSounds(true);
    return { ...look, before };
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
  let songbook: Entry | undefined;
  const sounds = new Map<string, Entry>();
  let [bytes, count] = [0, 0];
  try {
    for await (const entry of zip.eachEntry()) {
      if (++count > MOST.entries) return tooLarge();
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

/** One entry into a file; it ends where it is longer than it says. */
async function unpack(zip: ZipFile, entry: Entry, path: string): Promise<void> {
  try {
    await pipeline(await zip.openReadStreamPromise(entry), createWriteStream(path));
  } catch (thrown) {
    if ((thrown as NodeJS.ErrnoException).code === 'ENOSPC') throw thrown;
    noArchive();
  }
}

/**
 * Unpacks the sounds beside their places; what it gives puts those of takes that are here then in place, or lets go of all of them. A
 * sound that is here already stays, but where everything is replaced.
 */
async function unpackSounds(
  db: Database,
  zip: ZipFile,
  sounds: ReadonlyMap<string, Entry>,
  isReplaced: boolean
): Promise<(isTaken: boolean) => Promise<void>> {
  const waiting = new Map<string, string>();
  const letGo = () => {
    for (const half of waiting.values()) rmSync(half, { force: true });
  };
  try {
    for (const [take, entry] of sounds) {
      if (!isReplaced && hasSound(db, take)) continue;
      const half = `${placeForSound(db, take)}.half`;
      waiting.set(take, half);
      mkdirSync(join(half, '..'), { recursive: true });
      await unpack(zip, entry, half);
    }
  } catch (thrown) {
    letGo();
    throw thrown;
  }
  return async (isTaken) => {
    if (isTaken) {
      const takes = await db.selectFrom('take').select(['id', 'bytes']).execute();
      for (const { id, bytes } of takes) {
        const half = waiting.get(id.toLowerCase());
        if (half) renameSync(half, placeForSound(db, id));
        if (bytes > 0 && !hasSound(db, id))
          await db.updateTable('take').set({ bytes: 0 }).where('id', '=', id).execute();
      }
    }
    letGo();
  };
}
