/** What a take can be saved or kept as: a row each. */
import { wavFile } from '$lib/audio/wav';
import type { LineNote } from '$lib/core/line/model';
import { keepLine } from '$lib/state/lines-client';
import type { Takes } from '$lib/state/takes.svelte';
import { saveFile } from '../export/file';
import { LINE_FORMATS } from '../exports';

interface Keeping {
  readonly takes: Takes;
  /** The round that is shown, as a line of the chart, with places. */
  readonly line: readonly LineNote[];
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
  const sound = await takes.sound();
  if (!sound) return null;
  const { document } = takes.workspace;
  const blob = new Blob([wavFile(sound.samples, sound.rate)], { type: 'audio/wav' });
  saveFile(blob, `${document.title} ${takes.opened!.name}`, 'wav');
  return DONE;
}

const saveNotes =
  (id: string) =>
  async ({ takes, line }: Keeping): Promise<string | null> => {
    const { arranged, opened, workspace } = takes;
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

/** The passage goes among the lines of the chart. */
async function keepAsLine({ takes, line }: Keeping): Promise<string | null> {
  const { arranged, opened, workspace } = takes;
  if (!arranged || !opened || line.length === 0) return null;
  const over = arranged.analysis.changes.map(({ symbol, start, beats }) => ({ symbol, start, beats }));
  await keepLine(workspace.document.id, crypto.randomUUID(), opened.name, { notes: line, over });
  await workspace.fetchLines();
  return `“${opened.name}” is kept among the lines of this chart.`;
}

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
    hint: 'The round that is shown, to mend and drill it',
    run: keepAsLine
  }
];
