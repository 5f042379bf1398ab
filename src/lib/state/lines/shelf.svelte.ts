/** The lines that are kept with a chart: opened, kept, named, deleted, brought from files; and its melody, which stands in its text. */
import type { LineData, StoredLine } from '$lib/api/line';
import { nth, sure } from '$lib/core/base/list';
import type { AnalysedChange } from '$lib/core/harmony/analysis';
import { melodyText, withMelody, withRoomFor } from '$lib/core/line/melody-out';
import { ordered } from '$lib/core/line/model';
import { placedAnew } from '$lib/core/line/placed-anew';
import { counted } from '$lib/core/theory/words';
import { otherWindows } from '../windows';
import type { Workspace } from '../chart/workspace.svelte';
import * as client from './client';
import { MELODY, type CurrentLine } from './current.svelte';
import { takeUpDraft } from './draft';

/** Letters of a name at most. */
const LONGEST_NAME = 120;

export class LineShelf {
  all: readonly StoredLine[] = $state.raw([]);
  /** They have come, or could not. */
  isLoaded = $state(false);
  readonly #workspace: Workspace;
  readonly #current: CurrentLine;

  constructor(workspace: Workspace, current: CurrentLine) {
    this.#workspace = workspace;
    this.#current = current;
  }

  /** The kept line as it is stored, where one is shown. */
  readonly stored = $derived.by(() => this.all.find(({ id }) => id === this.#current.shown?.id) ?? null);
  /** What is shown is kept as it is. */
  readonly isKept = $derived.by(() => {
    const { stored } = this;
    const { shown } = this.#current;
    if (shown?.id === MELODY) {
      const form = withRoomFor(shown.notes, this.#workspace.sheet.form);
      const own = this.#workspace.melody?.line.notes ?? [];
      return melodyText(shown.notes, form) === melodyText(own, form);
    }
    return stored !== null && stored.data?.notes === shown?.notes && stored.name === shown?.name;
  });
  /** The chords have been edited since the line was kept. */
  readonly isOverOthers = $derived.by(() => {
    const over = this.stored?.data?.over;
    if (!over || this.stored?.data?.notes !== this.#current.shown?.notes) return false;
    const now = this.#over();
    return over.length !== now.length || over.some((one, i) => !isSameSpan(one, nth(now, i)));
  });

  #over(): LineData['over'] {
    return this.#workspace.changes.map(({ symbol, start, beats }) => ({ symbol, start, beats }));
  }

  /** Fetches the kept lines, and shows what was written and not kept, else the first; tells whether there was one. */
  async load(): Promise<boolean> {
    const { document } = this.#workspace;
    const current = this.#current;
    await this.#attempt(async () => {
      this.all = (await client.listLines(document.id)).lines;
    });
    this.isLoaded = true;
    const draft = takeUpDraft(document.id, await otherWindows());
    const first = this.all.find(({ data }) => data);
    if (!current.shown && draft) current.shown = { ...draft, finding: null };
    else if (!current.shown && first) this.open(first.id);
    return current.shown !== null;
  }

  /** What went wrong is told with the line. */
  async #attempt(work: () => Promise<void>): Promise<boolean> {
    try {
      await work();
      return true;
    } catch (error) {
      this.#current.problem = error instanceof Error ? error.message : 'That did not work.';
      return false;
    }
  }

  open(id: string): void {
    const line = this.all.find((one) => one.id === id);
    if (!line) return;
    if (!line.data) {
      this.#current.problem = `“${line.name}” cannot be read any more. It is kept as it is; delete it, or leave it for a later version.`;
      return;
    }
    this.#current.show({ notes: line.data.notes, name: line.name, id, finding: null });
    this.#workspace.say(`Line ${line.name}`);
  }

  /** The melody of the chart, shown and written on as a line is; one that has none begins empty. */
  openMelody(): void {
    const notes = placedAnew(this.#workspace.melody?.line.notes ?? [], this.#workspace.neck);
    this.#current.show({ notes, name: 'The melody', id: MELODY, finding: null });
    this.#workspace.say('The melody');
  }

  /** Keeps what is shown: a new line, or the one it was, with what has changed. */
  async keep(): Promise<void> {
    const { shown } = this.#current;
    const { stored } = this;
    const { document, sheet } = this.#workspace;
    if (!shown) return;
    if (shown.id === MELODY) {
      document.setSource(withMelody(document.source, shown.notes, sheet.form));
      this.#current.dropDraft();
      this.#workspace.say('Melody kept in the chart');
      return;
    }
    const data: LineData = { notes: ordered(shown.notes), over: this.#over() };
    await this.#attempt(async () => {
      // The line belongs to the chart as it stands here, which is saved first.
      await document.flush();
      const chartVersion = document.autosave.version;
      if (stored) {
        const edit = { name: shown.name, chartVersion, data };
        const { version } = await client.changeLine(document.id, stored.id, {
          base: stored.version,
          ...edit
        });
        this.#saved({ id: stored.id, version, ...edit });
      } else {
        const name = this.#freeName(shown.name);
        const line = await client.keepLine(document.id, crypto.randomUUID(), { name, chartVersion, data });
        this.#saved({ ...line, name, data });
      }
      this.#workspace.say('Line kept with the chart');
    });
  }

  #saved(line: StoredLine): void {
    const current = this.#current;
    current.dropDraft();
    const isThere = this.all.some(({ id }) => id === line.id);
    this.all = isThere ? this.all.map((one) => (one.id === line.id ? line : one)) : [...this.all, line];
    if (current.shown)
      current.shown = {
        ...current.shown,
        id: line.id,
        name: line.name,
        notes: sure(line.data, 'the notes of a line').notes
      };
    current.problem = '';
  }

  /** A name that no other kept line has. */
  #freeName(name: string): string {
    for (let n = 1; ; n++) {
      const free = n === 1 ? name : `${name} ${n}`;
      if (!this.all.some((line) => line.name === free)) return free;
    }
  }

  async rename(name: string): Promise<void> {
    const current = this.#current;
    const { shown } = current;
    const { stored } = this;
    const wanted = name.trim().slice(0, LONGEST_NAME);
    if (!shown || !wanted || wanted === shown.name) return;
    if (!stored) {
      current.shown = { ...shown, name: wanted };
      return;
    }
    await this.#attempt(async () => {
      const edit = { base: stored.version, name: wanted };
      const { version } = await client.changeLine(this.#workspace.document.id, stored.id, edit);
      this.all = this.all.map((one) => (one.id === stored.id ? { ...one, name: wanted, version } : one));
      current.shown = { ...shown, name: wanted };
    });
  }

  /** Lines from a file, kept with the chart; the last of them is shown, and what was not taken is told. */
  async readFile(file: File): Promise<void> {
    await this.#attempt(async () => {
      const { pieceIn } = await import('../songbook/file-import');
      const { lines, melody, left } = await pieceIn(file);
      const all = [...lines, ...(melody ? [{ name: 'melody', notes: melody }] : [])];
      let outside = 0;
      for (const { name, notes } of all) {
        const placed = placedAnew(notes, this.#workspace.neck);
        outside += placed.filter(({ place }) => !place).length;
        this.#current.show({ notes: placed, name: name.slice(0, LONGEST_NAME), id: null, finding: null });
        await this.keep();
      }
      const told = [
        ...left.slice(0, 3).map(({ text, why }) => `${text ? `“${text}” ` : ''}${why}.`),
        ...(outside
          ? [`${counted(outside, 'note')} cannot be played on this neck; they stand on the staff alone.`]
          : [])
      ];
      if (all.length === 0) this.#current.problem = told.join(' ') || 'There is no line in this file.';
      else if (told.length) this.#current.problem = told.join(' ');
    });
  }

  /** Deletes the kept line that is shown; gives what brings it back, null where that failed. */
  async remove(): Promise<(() => Promise<void>) | null> {
    const { stored } = this;
    const current = this.#current;
    const chart = this.#workspace.document.id;
    if (!stored || !(await this.#attempt(() => client.deleteLine(chart, stored.id).then(() => undefined))))
      return null;
    this.all = this.all.filter(({ id }) => id !== stored.id);
    current.shown = current.shown && { ...current.shown, id: null };
    return async () => {
      await this.#attempt(async () => {
        await client.restoreLine(chart, stored.id);
        this.all = [...this.all, stored];
        this.open(stored.id);
      });
    };
  }
}

type Span = Pick<AnalysedChange, 'symbol' | 'start' | 'beats'>;
const isSameSpan = (a: Span, b: Span) => a.symbol === b.symbol && a.start === b.start && a.beats === b.beats;
