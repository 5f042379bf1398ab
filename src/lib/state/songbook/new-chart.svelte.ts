/** A chart that is typed, pasted or brought from a file, before it is one: what it would give, and what would be left out. */
import { byteLength, MAX_CHART_BYTES, tooLargeMessage } from '$lib/api/limits';
import { importText } from '$lib/core/formats/text/import';
import { readSheet } from '$lib/core/harmony/sheet';
import { prettyNote } from '$lib/core/theory/typeset';
import { counted } from '$lib/core/theory/words';
import { Drafts } from '../chart/drafts';
import type { Imported } from './file-import';
import { createChart } from './client';

export class NewChart {
  /** As it is typed; it survives leaving and a reload. */
  text = $state('');
  /** Whether B and H are German names, where the player has said so; else an H tells. */
  german: boolean | undefined = $state();
  /** What a file held that was brought; its chart is what is typed, as long as nothing else is. */
  imported: Imported | null = $state.raw(null);
  importedName = $state('');
  /** The chart's own name from the start: pressed twice, or sent again, it is one chart. */
  #id = '';
  readonly #drafts = new Drafts();

  readonly isTooLarge = $derived(byteLength(this.text) > MAX_CHART_BYTES);
  /** What the typed or pasted text gives. */
  readonly look = $derived(this.text.trim() && !this.isTooLarge ? importText(this.text, this.german) : null);
  /** It was no chart as it stood: the bars are shown before they are taken. */
  readonly isTurned = $derived(this.look !== null && this.look.chart !== this.text);
  readonly sheet = $derived(this.look?.chart ? readSheet(this.look.chart) : null);
  /** What is in it, or what is wrong with it, as a sentence. */
  readonly verdict = $derived.by(() => {
    const { look, sheet } = this;
    if (this.isTooLarge) return tooLargeMessage(this.text);
    if (look && !sheet) return 'No chord is found in this text. Write bars like | Dm7 | G7 | Cmaj7 |.';
    if (!sheet || !look) return '';
    const { form, problems, analysis } = sheet;
    if (form.changes.length === 0) return problems[0]?.message ?? '';
    const { tonic, mode } = analysis.key;
    const key = `${counted(form.bars.length, 'bar')} in ${prettyNote(tonic)} ${mode}`;
    if (problems[0]) return `${key}; ${problems[0].message}`;
    const left = look.left.length;
    return left
      ? `${key}. ${counted(left, 'line or word', 'lines or words')} ${left === 1 ? 'is' : 'are'} left out, see below.`
      : `${key}. All chords recognised.`;
  });

  /** What was being typed when the page was left. */
  restore(): void {
    this.text ||= this.#drafts.newChart;
  }

  /** What is typed is another chart than the one that may have been sent. */
  typed(): void {
    this.#id = '';
    this.#drafts.newChart = this.text;
  }

  /** The file whose chart is what is typed; null where the player has typed on. */
  get file(): Imported | null {
    return this.imported?.chart === this.text ? this.imported : null;
  }

  /** Lays a file on the desk: its chart as text, with its lines. Rejects with a sentence where it cannot be read. */
  async read(file: File): Promise<void> {
    const { chartIn } = await import('./file-import');
    this.importedName = file.name;
    this.imported = null;
    this.imported = await chartIn(file);
    if (this.imported.chart === null) return;
    this.text = this.imported.chart;
    this.typed();
  }

  /** Makes the chart, with the lines of its file; gives its id. */
  async create(): Promise<string> {
    this.#id ||= crypto.randomUUID();
    const { file } = this;
    const { id } = await createChart(this.#id, this.look?.chart ?? this.text, file?.plan);
    if (file) await keepLines(id, file);
    this.#drafts.newChart = '';
    return id;
  }
}

/** Keeps the lines of a file with its chart. */
export async function keepLines(chart: string, { lines, over }: Imported): Promise<void> {
  const { keepLine } = await import('../lines/client');
  for (const { name, notes } of lines)
    await keepLine(chart, crypto.randomUUID(), { name, data: { notes, over } });
}
