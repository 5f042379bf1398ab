<!-- What is needed now and then: style, labels, chord table, guitar, tuner, theme, earlier versions, files, print, help. -->
<script lang="ts">
  import { Popover } from 'bits-ui';
  import CircleQuestionMark from '@lucide/svelte/icons/circle-question-mark';
  import Table2 from '@lucide/svelte/icons/table-2';
  import Tag from '@lucide/svelte/icons/tag';
  import BookOpen from '@lucide/svelte/icons/book-open';
  import AudioLines from '@lucide/svelte/icons/audio-lines';
  import Ellipsis from '@lucide/svelte/icons/ellipsis';
  import GuitarIcon from '@lucide/svelte/icons/guitar';
  import History from '@lucide/svelte/icons/history';
  import Moon from '@lucide/svelte/icons/moon';
  import Package from '@lucide/svelte/icons/package';
  import PackagePlus from '@lucide/svelte/icons/package-plus';
  import Printer from '@lucide/svelte/icons/printer';
  import Sun from '@lucide/svelte/icons/sun';
  import { toast } from 'svelte-sonner';
  import { readStyle, STYLES } from '$lib/core/harmony/style';
  import { settings } from '$lib/state/settings.svelte';
  import type { Workspace } from '$lib/state/workspace.svelte';
  import { button } from '../kit/button';
  import Button from '../kit/Button.svelte';
  import Select from '../kit/Select.svelte';
  import type { DialogName } from './Dialogs.svelte';

  interface Props {
    workspace: Workspace;
    onopen: (dialog: DialogName) => void;
    onprint: () => void;
  }
  let { workspace, onopen, onprint }: Props = $props();
  const chart = $derived(workspace.document);
  const style = $derived(workspace.analysis.style);
  const saidStyle = $derived(workspace.sheet.head.style);
  const isStyleSaid = $derived(saidStyle !== null && readStyle(saidStyle) !== null);
  const HEARD = 'heard';
  const LABELS = { degree: 'degrees', name: 'names', finger: 'fingers' } as const;
  let isOpen = $state(false);

  async function save(isWhole: boolean) {
    try {
      const { saveWholeChart } = await import('../export/whole-chart');
      await saveWholeChart(chart.id, chart.title, isWhole);
    } catch (error) {
      toast.error(error instanceof Error ? error.message : 'That could not be saved.');
    }
  }

  function close(work: () => void) {
    isOpen = false;
    work();
  }
</script>

<Popover.Root bind:open={isOpen}>
  <Popover.Trigger
    class={button({ isIcon: true })}
    aria-label="More"
    data-hint="Style, chord table, labels, guitar, tuner, theme, versions, files, print, help"
    ><Ellipsis size={17} /></Popover.Trigger
  >
  <Popover.Portal>
    <Popover.Content
      class="z-50 flex max-h-[85vh] w-64 flex-col gap-1 overflow-y-auto card p-2 shadow-lg"
      sideOffset={6}
      collisionPadding={8}
      aria-label="More"
    >
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
      <Button tone="quiet" class="justify-start" onclick={() => close(() => settings.toggleTheme())}
        >{#if settings.now.theme === 'day'}<Moon size={17} /> Stage theme{:else}<Sun size={17} /> Day theme{/if}</Button
      >
      <Button tone="quiet" class="justify-start" onclick={() => close(() => onopen('versions'))}
        ><History size={17} /> Earlier versions</Button
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
      <Button tone="quiet" class="justify-start" onclick={() => close(onprint)}
        ><Printer size={17} /> Print what is shown</Button
      >
      <a
        href="/charts/{chart.id}/book"
        class={button({ tone: 'quiet', class: 'justify-start' })}
        data-hint="Every key on an opening of its own, or blank necks and tables to fill in"
        ><BookOpen size={17} /> Practice book, worksheet</a
      >
      <Button tone="quiet" class="justify-start" onclick={() => close(() => onopen('help'))}
        ><CircleQuestionMark size={17} /> Keys and signs <kbd class="ml-auto text-soft">?</kbd></Button
      >
    </Popover.Content>
  </Popover.Portal>
</Popover.Root>
