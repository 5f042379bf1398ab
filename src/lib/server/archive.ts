/**
 * Everything that is kept as one file: a zip with the songbook's own file and the sounds of takes. It comes in again elsewhere or here,
 * beside what is there or instead of it, after a copy of that.
 */
import { createWriteStream, mkdirSync, mkdtempSync, renameSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { openPromise, type Entry, type ZipFile } from 'yauzl';
import { ZipFile as Zip } from 'yazl';
import type { ArchiveBrought, ArchiveLook, Merge } from '../api/archive';
import { fail } from '../api/errors';
import { copyBefore, inTodaysFormat, writeFileOf } from './copies';
import type { Database } from './database';
import { compare, mergeIn, replaceAll } from './merge';
import { hasSound, placeForSound, soundsOf } from './takes/sounds';

const SONGBOOK = 'songbook.db';
const SOUND = /^sounds\/([0-9a-f-]{36})\.wav$/i;
/** What an archive holds at most: entries, bytes of the songbook, bytes in all. */
const MOST = { entries: 50_000, songbook: 2 ** 31, bytes: 2 ** 36 } as const;
const ABOUT = `This is everything that Corvel keeps: songbook.db is an SQLite file with charts, plans, lines, licks, practice and takes;
sounds holds what was recorded, one WAV file a take. Bring it into Corvel by "Copies of the songbook" below the list of charts.
`;

/** The archive as it is written, piece by piece. */
export async function archiveOf(db: Database, withSounds: boolean): Promise<ReadableStream<Uint8Array>> {
  const folder = mkdtempSync(join(tmpdir(), 'corvel-archive-'));
  const gone = () => rmSync(folder, { recursive: true, force: true });
  try {
    const songbook = join(folder, SONGBOOK);
    await writeFileOf(db, songbook);
    const zip = new Zip();
    zip.addBuffer(Buffer.from(ABOUT), 'about.txt');
    zip.addFile(songbook, SONGBOOK);
    // Sound hardly grows smaller.
    if (withSounds)
      for (const { take, path } of soundsOf(db)) zip.addFile(path, `sounds/${take}.wav`, { compress: false });
    zip.end();
    const out = Readable.from(zip.outputStream as Readable, { objectMode: false });
    out.once('close', gone);
    return Readable.toWeb(out) as ReadableStream<Uint8Array>;
  } catch (thrown) {
    gone();
    throw thrown;
  }
}

/** Takes an archive in; `look` only tells what would come. Nothing is changed where it cannot be read. */
export async function bringArchiveIn(
  db: Database,
  body: ReadableStream<Uint8Array> | null,
  merge: Merge | 'look',
  now: Date
): Promise<ArchiveLook | ArchiveBrought> {
  const folder = mkdtempSync(join(tmpdir(), 'corvel-archive-'));
  try {
    const path = join(folder, 'archive.zip');
    await receive(body, path);
    const zip = await opened(path);
    try {
      const { songbook, sounds } = await entriesOf(zip);
      const file = join(folder, SONGBOOK);
      await unpack(zip, songbook, file);
      await inTodaysFormat(file, {
        code: 'damaged-archive',
        message: 'The songbook in this archive cannot be read by this Corvel; nothing was changed.'
      });
      const look = { compared: await compare(db, file), sounds: sounds.size };
      if (merge === 'look') return look;
      // All of it is unpacked before anything is changed.
      const placeSounds = await unpackSounds(db, zip, sounds, merge === 'replace');
      const before = await copyBefore(db, 'an archive', now);
      try {
        if (merge === 'replace') await replaceAll(db, file);
        else await mergeIn(db, file, merge);
      } catch (thrown) {
        await placeSounds(false);
        throw thrown;
      }
      await placeSounds(true);
      return { ...look, before };
    } finally {
      zip.close();
    }
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

async function receive(body: ReadableStream<Uint8Array> | null, path: string): Promise<void> {
  let size = 0;
  async function* bounded() {
    for await (const piece of (body ?? []) as unknown as AsyncIterable<Uint8Array>) {
      size += piece.length;
      if (size > MOST.bytes) tooLarge();
      yield piece;
    }
  }
  await pipeline(bounded, createWriteStream(path));
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
