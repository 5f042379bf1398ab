/** Many files brought at once: each is read and looked at before anything is stored; what is wanted is then taken, one after another. */
import type { Imported } from './file-import';

export interface ImportedFile {
  readonly id: string;
  readonly file: string;
  /** As far as it was read. */
  readonly imported: Imported | null;
  readonly title: string;
  /** "12 bars in G minor", or why it cannot be taken. */
  readonly says: string;
  readonly canBeTaken: boolean;
  readonly isWanted: boolean;
  readonly isTaken: boolean;
}

/** Files at once. */
export const MOST_FILES = 500;

/** What taking a chart is: its id is given, so that one sent twice is one chart. */
export type Take = (id: string, imported: Imported, title: string) => Promise<void>;

export class Importing {
  files: readonly ImportedFile[] = $state.raw([]);
  /** How many are done of how many, while something is under way; null at rest. */
  progress: { readonly doing: 'read' | 'taken'; readonly done: number; readonly of: number } | null =
    $state.raw(null);
  problem = $state('');
  #isStopped = false;

  readonly wanted = $derived.by(() =>
    this.files.filter(({ canBeTaken, isWanted, isTaken }) => canBeTaken && isWanted && !isTaken)
  );
  readonly taken = $derived.by(() => this.files.filter(({ isTaken }) => isTaken));

  /** Reads files, one after another; the page stays alive between them. */
  async read(files: readonly File[]): Promise<void> {
    this.#isStopped = false;
    this.files = [];
    this.problem =
      files.length > MOST_FILES
        ? `${MOST_FILES} files at once are the most; the first ${MOST_FILES} are read.`
        : '';
    const some = files.slice(0, MOST_FILES);
    const { chartIn, listIn } = await import('./file-import');
    const { lookAt } = await import('./import-summary');
    for (const [i, file] of some.entries()) {
      if (this.#isStopped) break;
      this.progress = { doing: 'read', done: i, of: some.length };
      await new Promise((next) => setTimeout(next));
      const looks = await listIn(file)
        .then(async (list) => list ?? [await chartIn(file)])
        .then((found) => found.map((imported) => ({ imported, ...lookAt(imported, file.name) })))
        .catch((error: unknown) => [
          {
            imported: null,
            title: file.name,
            says: error instanceof Error ? error.message : 'This file cannot be read.',
            canBeTaken: false
          }
        ]);
      this.files = [
        ...this.files,
        ...looks.map((look) => ({
          id: crypto.randomUUID(),
          file: file.name,
          isWanted: look.canBeTaken,
          isTaken: false,
          ...look
        }))
      ];
    }
    this.progress = null;
  }

  want(id: string, isWanted: boolean): void {
    this.files = this.files.map((one) => (one.id === id ? { ...one, isWanted } : one));
  }

  /** Takes what is wanted. Where one cannot be stored it stops there, and can be gone on with. */
  async take(take: Take): Promise<void> {
    this.#isStopped = false;
    this.problem = '';
    const wanted = this.wanted;
    for (const [i, { id, imported, title }] of wanted.entries()) {
      if (this.#isStopped) break;
      this.progress = { doing: 'taken', done: i, of: wanted.length };
      try {
        await take(id, imported!, title);
      } catch (error) {
        this.problem = error instanceof Error ? error.message : 'That could not be stored.';
        break;
      }
      this.files = this.files.map((one) => (one.id === id ? { ...one, isTaken: true } : one));
    }
    this.progress = null;
  }

  stop(): void {
    this.#isStopped = true;
  }

  clear(): void {
    this.stop();
    this.files = [];
    this.problem = '';
  }
}
