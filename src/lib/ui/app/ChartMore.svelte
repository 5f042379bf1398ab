<!-- What a chart adds to More: undo, style, labels, chord table, guitar, tuner, earlier versions, files, print. -->
<script lang="ts">
  import Table2 from '@lucide/svelte/icons/table-2';
  import Columns2 from '@lucide/svelte/icons/columns-2';
  import Tag from '@lucide/svelte/icons/tag';
  import BookOpen from '@lucide/svelte/icons/book-open';
  import AudioLines from '@lucide/svelte/icons/audio-lines';
  import GuitarIcon from '@lucide/svelte/icons/guitar';
  import Redo2 from '@lucide/svelte/icons/redo-2';
  import Undo2 from '@lucide/svelte/icons/undo-2';
  import History from '@lucide/svelte/icons/history';
  import Package from '@lucide/svelte/icons/package';
  import PackagePlus from '@lucide/svelte/icons/package-plus';
  import Printer from '@lucide/svelte/icons/printer';
  import { toast } from 'svelte-sonner';
  import { factsOf, type FormatId } from '$lib/core/formats/facts';
  import { readStyle, STYLES } from '$lib/core/harmony/style';
  import { settings } from '$lib/state/settings.svelte';
  import type { Workspace } from '$lib/state/chart/workspace.svelte';
  import { button } from '../kit/button';
  import Button from '../kit/Button.svelte';
  import Select from '../kit/Select.svelte';
  import type { DialogName } from './dialogs';

  interface Props {
    workspace: Workspace;
    onopen: (dialog: DialogName) => void;
    onprint: () => void;
    /** Puts the menu away, then does the work. */
    close: (work: () => void) => void;
  }
  let { workspace, onopen, onprint, close }: Props = $props();
  const chart = $derived(workspace.document);
  const style = $derived(workspace.analysis.style);
  const saidStyle = $derived(workspace.sheet.head.style);
  const isStyleSaid = $derived(saidStyle !== null && readStyle(saidStyle) !== null);
  const HEARD = 'heard';
  const LABELS = { degree: 'degrees', name: 'names', finger: 'fingers' } as const;

  const NONE = 'none';
  const FOREIGN = (['musicxml', 'inline', 'chordpro'] as const).map(factsOf);
  /** The chart alone, as a file of another program. */
  async function saveFor(id: FormatId) {
    try {
      const [{ saveFile }, { notesFile }] = await Promise.all([
        import('../export/file'),
        import('../export/notes')
      ]);
      const { sheet, neck } = workspace;
      const piece = { title: chart.title, chart: chart.source, sheet, neck, voices: [] };
      saveFile(notesFile(piece, id), chart.title, factsOf(id).endings[0]);
    } catch (error) {
      toast.error(error instanceof Error ? error.message : 'That could not be saved.');
    }
  }

  async function save(isWhole: boolean) {
    try {
      const { saveWholeChart } = await import('../export/whole-chart');
      await saveWholeChart(chart.id, chart.title, isWhole);
    } catch (error) {
      toast.error(error instanceof Error ? error.message : 'That could not be saved.');
    }
  }
</script>

<div class="flex gap-1 lg:hidden">
  <Button tone="quiet" class="flex-1" disabled={!workspace.canUndo} onclick={() => workspace.undo()}
    ><Undo2 size={17} /> Undo</Button
  >
  <Button tone="quiet" class="flex-1" disabled={!workspace.canRedo} onclick={() => workspace.redo()}
    ><Redo2 size={17} /> Redo</Button
  >
</div>
<div class="flex items-center gap-2 px-2 pb-1 text-sm" data-style={style}>
  <span class="text-soft">Style</span>
  <Select
    label="Style of the chart"
    class="grow"
    value={isStyleSaid ? style : HEARD}
    options={[
      { value: HEARD, name: isStyleSaid ? 'as it is heard' : `${style} (detected)` },
      ...STYLES.map(({ id, name }) => ({ value: id as string, name }))
    ]}
    hint="Kept with the chart"
    onpick={(id) => workspace.document.declare('style', id === HEARD ? null : id)}
  />
</div>
<Button tone="quiet" class="justify-start" onclick={() => close(() => onopen('table'))}
  ><Table2 size={17} /> Chord table <kbd class="ml-auto text-soft">B</kbd></Button
>
<Button tone="quiet" class="justify-start" onclick={() => settings.cycleLabels()}
  ><Tag size={17} /> Notes show {LABELS[settings.now.labels]}
  <kbd class="ml-auto text-soft">L</kbd></Button
>
<Button tone="quiet" class="justify-start" onclick={() => close(() => onopen('guitar'))}
  ><GuitarIcon size={17} /> Your guitar</Button
>
<Button tone="quiet" class="justify-start" onclick={() => close(() => onopen('tuner'))}
  ><AudioLines size={17} /> Tune</Button
>
<Button tone="quiet" class="justify-start" onclick={() => close(() => onopen('versions'))}
  ><History size={17} /> Earlier versions</Button
>
<Button tone="quiet" class="justify-start" onclick={() => close(() => onopen('compare'))}
  ><Columns2 size={17} /> Compare with another chart</Button
>
<Button
  tone="quiet"
  class="justify-start"
  hint="Text, plan, lines and drills, for a student or a friend. Open it with Import files in the songbook"
  onclick={() => close(() => void save(false))}><Package size={17} /> Save as one file</Button
>
<Button
  tone="quiet"
  class="justify-start"
  hint="The same with your takes (without their sound) and your log, for your other computer"
  onclick={() => close(() => void save(true))}><PackagePlus size={17} /> … with what I played</Button
>
<Select
  label="Save the chart for other programs"
  class="w-full border-transparent bg-transparent"
  value={NONE}
  options={[
    { value: NONE, name: 'Save for other programs' },
    ...FOREIGN.map(({ id, name, hint }) => ({ value: id as string, name, hint }))
  ]}
  onpick={(id) => id !== NONE && close(() => void saveFor(id as FormatId))}
/>
<Button tone="quiet" class="justify-start" onclick={() => close(onprint)}
  ><Printer size={17} /> Print what is shown</Button
>
<a
  href="/charts/{chart.id}/book"
  class={button({ tone: 'quiet', class: 'justify-start' })}
  data-hint="Every key on an opening of its own, or blank necks and tables to fill in"
  ><BookOpen size={17} /> Practice book, worksheet</a
>
