/** What a take can be saved or kept as: a row each. */
import { sure } from '$lib/core/base/list';
import { wavFile } from '$lib/audio/wav';
import type { ItemData } from '$lib/api/practice';
import type { AnalysedChange } from '$lib/core/harmony/analysis';
import { keyText } from '$lib/core/harmony/key';
import { lickFrom } from '$lib/core/line/lick-facts';
import { ticksOf, type LineNote } from '$lib/core/line/model';
import type { Arrangement } from '$lib/core/plan/arrange';
import { LOWEST_TEMPO } from '$lib/core/practice/ladder';
import { midiName } from '$lib/core/theory/note';
import { prettyNote, prettySymbol } from '$lib/core/theory/typeset';
import { callRoute } from '$lib/state/call';
import { LickBook } from '$lib/state/licks/licks.svelte';
import { keepLine } from '$lib/state/lines/client';
import type { Passage } from '$lib/state/takes/reading.svelte';
import { soundOf } from '$lib/state/takes/sound';
import type { Takes } from '$lib/state/takes/takes.svelte';
import { saveFile } from '../export/file';
import { LINE_FORMATS } from '../exports';

interface Keeping {
  readonly takes: Takes;
  /** The change that is selected, in the chart of the take. */
  readonly change: AnalysedChange;
  /** The round that is shown, as a line of the chart, with places. */
  readonly line: readonly LineNote[];
  /** Bars of it that were marked, both in; null where none were. */
  readonly passage: Passage | null;
}

interface TakeFile {
  readonly id: string;
  readonly name: string;
  readonly hint: string;
  /** Tells what was done, where that is not seen by itself; null where there is nothing to do it with. */
  readonly run: (keeping: Keeping) => Promise<string | null>;
}

const DONE = '';

async function saveSound({ takes }: Keeping): Promise<string | null> {
  const sound = await soundOf(takes);
  if (!sound) return null;
  const { document } = takes.workspace;
  const blob = new Blob([wavFile(sound.samples, sound.rate)], { type: 'audio/wav' });
  saveFile(blob, `${document.title} ${sure(takes.shelf.opened, 'the open take').name}`, 'wav');
  return DONE;
}

const saveNotes =
  (id: string) =>
  async ({ takes, line }: Keeping): Promise<string | null> => {
    const { workspace } = takes;
    const { arranged } = takes.judging;
    const { opened } = takes.shelf;
    const format = LINE_FORMATS.find((one) => one.id === id);
    if (!arranged || !opened?.data || !format || line.length === 0) return null;
    const { title } = workspace.document;
    const blob = await format.make({
      title,
      chart: opened.data.source,
      sheet: arranged.sheet,
      neck: arranged.neck,
      voices: [{ name: `line: ${opened.name}`, notes: line }]
    });
    saveFile(blob, `${title} ${opened.name}`, id);
    return DONE;
  };

const barsOf = ({ from, to }: Passage) => (from === to ? `bar ${from}` : `bars ${from}–${to}`);

function ticksOfBars({ sheet }: Arrangement, { from, to }: Passage) {
  const [first, last] = [from, to].map((number) => sheet.form.bars.find((bar) => bar.number === number));
  return first && last ? { from: ticksOf(first.start), to: ticksOf(last.start + last.beats) } : null;
}

/** The passage goes among the lines of the chart. */
async function keepAsLine({ takes, line, passage }: Keeping): Promise<string | null> {
  const { workspace } = takes;
  const { arranged } = takes.judging;
  const { opened } = takes.shelf;
  if (!arranged || !opened) return null;
  const within = passage && ticksOfBars(arranged, passage);
  const notes = within ? line.filter(({ start }) => start >= within.from && start < within.to) : line;
  if (notes.length === 0) return null;
  const over = arranged.analysis.changes.map(({ symbol, start, beats }) => ({ symbol, start, beats }));
  const name = (passage ? `${opened.name}, ${barsOf(passage)}` : opened.name).slice(0, 120);
  const { document } = workspace;
  await document.flush();
  // Of an older text it is not known which save it was.
  const chartVersion = opened.data?.source === document.source ? document.autosave.version : null;
  const data = { notes, over };
  await keepLine(document.id, crypto.randomUUID(), { name, chartVersion, data });
  await workspace.fetchLines();
  return `“${name}” is kept among the lines of this chart.`;
}

/** The notes over the passage, or over the bar of the selected change, go into the lick book. */
async function keepAsLick({ takes, line, change, passage }: Keeping): Promise<string | null> {
  const { workspace } = takes;
  const { arranged } = takes.judging;
  const { opened } = takes.shelf;
  if (!arranged || !opened) return null;
  const { head } = arranged.sheet;
  const own = passage ?? { from: change.bar, to: change.bar };
  const within = ticksOfBars(arranged, own);
  const lick = within && lickFrom(line, arranged.analysis.changes, head.meter, within);
  if (!lick) return null;
  const book = new LickBook();
  await book.keep(`${opened.name}, ${barsOf(own)}`.slice(0, 120), {
    ...lick,
    key: keyText(change.key),
    tags: ['take'],
    source: `${workspace.document.title}: ${opened.name}`.slice(0, 300),
    rating: 0,
    played: 0
  });
  if (book.problem) throw new Error(book.problem);
  return `${opened.name}, ${barsOf(own)}: kept in the lick book.`;
}

/** What was landed on at the selected change becomes its target. */
async function pinAsTarget({ takes, line, change }: Keeping): Promise<string | null> {
  const { workspace } = takes;
  const { opened } = takes.shelf;
  const landed = line.find(({ start }) => start >= ticksOf(change.start) - ticksOf(0.5));
  const isOwn = opened?.data?.source === workspace.document.source;
  if (!landed?.place || !isOwn || landed.start > ticksOf(change.start + 1)) return null;
  workspace.targetLine.pin(change.index, landed.place);
  return `${prettyNote(midiName(landed.midi))} is the target of bar ${change.bar} now.`;
}

/** The change into the selected one is practised from now on, with its approach note. */
async function practise({ takes, change }: Keeping): Promise<string | null> {
  const { workspace } = takes;
  const into = workspace.changes[change.index - 1];
  const symbols = [into, change].flatMap((one) => (one ? prettySymbol(one.symbol) : []));
  const goal = takes.rehearsal.tempo.value;
  const item: ItemData = {
    what: 'approach',
    name: `${symbols.join(' to ')}, bar ${change.bar}`,
    over: into ? { kind: 'pair', change: into.index } : { kind: 'change', change: change.index },
    area: workspace.arrangement.home,
    key: keyText(workspace.analysis.key),
    minutes: 5,
    after: [],
    tempo: { start: Math.max(LOWEST_TEMPO, Math.round(goal * SLOWER)), goal }
  };
  const id = `${workspace.document.id}:take:${change.index}`;
  const items = [{ id, chart: workspace.document.id, data: item }];
  await callRoute('practice/items', 'nothing was added', 'POST', { items });
  return `“${item.name}” is among what you practise.`;
}
/** What is mended begins this much slower. */
const SLOWER = 0.7;

export const TAKE_FILES: readonly TakeFile[] = [
  { id: 'wav', name: 'save the sound', hint: 'WAV', run: saveSound },
  {
    id: 'mid',
    name: 'save as MIDI',
    hint: 'The round that is shown, chords as markers',
    run: saveNotes('mid')
  },
  { id: 'musicxml', name: 'save as notation', hint: 'MusicXML: staff and tab', run: saveNotes('musicxml') },
  {
    id: 'line',
    name: 'keep as a line',
    hint: 'The passage, or the round that is shown; to mend and drill it',
    run: keepAsLine
  },
  {
    id: 'lick',
    name: 'keep as a lick',
    hint: 'The passage, or the bar of the selected change',
    run: keepAsLick
  },
  {
    id: 'target',
    name: 'make it the target',
    hint: 'What you landed on at the selected change',
    run: pinAsTarget
  },
  {
    id: 'item',
    name: 'practise this change',
    hint: 'From the chord before into the selected one, in Today',
    run: practise
  }
];
