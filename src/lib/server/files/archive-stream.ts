/** An archive as it goes out and comes in, piece by piece; what is in it is worked on in a thread. */
import { createReadStream, createWriteStream, mkdirSync, mkdtempSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { ZipFile } from 'yazl';
import { fail } from '../../api/errors';
import { songbookPath } from '../store/database-path';
import { workFolder } from './work-folder';

/** Bytes that an archive holds at most. */
export const MOST_ARCHIVE_BYTES = 2 ** 36;
const ABOUT = `This is everything that Corvel keeps: songbook.db is an SQLite file with charts, plans, lines, licks, practice and takes;
sounds holds what was recorded, one WAV file a take. Bring it into Corvel by "Backups" below the list of charts.
`;

/** A folder for one archive, and what removes it. */
export function ownFolder(base = workFolder(songbookPath())): {
  readonly folder: string;
  readonly remove: () => void;
} {
  mkdirSync(base, { recursive: true });
  const folder = mkdtempSync(join(base, 'archive-'));
  return { folder, remove: () => rmSync(folder, { recursive: true, force: true }) };
}

export interface ArchiveParts {
  readonly songbook: string;
  readonly sounds: readonly { readonly take: string; readonly path: string }[];
}

/**
 * The archive as it is written. A sound that was deleted meanwhile is left out. Whatever else goes wrong ends this stream alone; `done` is
 * called once, when it has ended in any way, and nothing it opened is left open.
 */
export function archiveStream(
  { songbook, sounds }: ArchiveParts,
  done: () => void
): ReadableStream<Uint8Array> {
  const zip = new ZipFile();
  let open: Readable | undefined;
  const from = (path: string) => (give: (error: unknown, stream: Readable) => void) => {
    open = createReadStream(path);
    // A sound that is not there any more is one of no length.
    const missing = (error: NodeJS.ErrnoException) =>
      error.code === 'ENOENT' ? give(null, Readable.from([])) : out.destroy(error);
    open.once('error', missing);
    open.once('open', () => give(null, open!));
  };
  const out = zip.outputStream as Readable;
  const end = () => {
    open?.destroy();
    done();
  };
  zip.on('error', (error: Error) => out.destroy(error));
  // The reader is told by the stream's own end; a listener keeps the error from ending the program.
  out.on('error', () => {});
  out.once('close', end);
  zip.addBuffer(Buffer.from(ABOUT), 'about.txt');
  zip.addReadStreamLazy('songbook.db', {}, from(songbook));
  // Sound hardly grows smaller.
  for (const { take, path } of sounds)
    zip.addReadStreamLazy(`sounds/${take}.wav`, { compress: false }, from(path));
  zip.end();
  return Readable.toWeb(out) as ReadableStream<Uint8Array>;
}

/** Writes what comes in to a file. */
export async function receive(body: ReadableStream<Uint8Array> | null, path: string): Promise<void> {
  let size = 0;
  async function* bounded() {
    for await (const piece of (body ?? []) as unknown as AsyncIterable<Uint8Array>) {
      size += piece.length;
      if (size > MOST_ARCHIVE_BYTES)
        fail(413, {
          code: 'too-large',
          message: 'This archive is larger than any songbook; nothing was changed.'
        });
      yield piece;
    }
  }
  await pipeline(bounded, createWriteStream(path));
}
