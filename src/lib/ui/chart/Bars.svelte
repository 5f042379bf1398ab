<!-- The form as rendered bars, four to a line, each chord at its beat. -->
<script lang="ts">
  import type { Workspace } from '$lib/state/workspace.svelte';
  import ChordSymbol from '../chord/ChordSymbol.svelte';

  let { workspace }: { workspace: Workspace } = $props();
  const bars = $derived(
    workspace.sheet.form.bars.map((bar, i, all) => ({
      ...bar,
      opens: bar.section !== '' && bar.section !== all[i - 1]?.section,
      changes: workspace.changes.filter((change) => change.bar === bar.number)
    }))
  );
</script>

<div
  class="grid content-start overflow-y-auto"
  style="grid-template-columns: repeat(4, minmax(0, 1fr))"
  aria-label="Rendered bars"
  role="group"
>
  {#each bars as bar (bar.number)}
    <div
      class="relative min-h-12 border-b border-l border-line px-1.5 pt-3.5 pb-1 {bar.opens
        ? 'border-l-2 border-l-soft'
        : ''}"
    >
      <span class="absolute top-0 left-1.5 text-[10.5px] text-soft"
        >{bar.number}{#if bar.opens}&nbsp;&nbsp;<b>{bar.section}</b>{/if}</span
      >
      <div class="flex">
        {#each bar.changes as change (change.index)}
          <button
            class="min-h-6 min-w-0 rounded text-left text-[16px] leading-6 {change.index ===
            workspace.selected
              ? 'bg-lit inset-ring-2 inset-ring-target'
              : ''}"
            style:margin-left={change === bar.changes[0]
              ? `${((change.beat - 1) / bar.meter.beats) * 100}%`
              : '0'}
            style:flex="{Math.min(change.beats, bar.meter.beats - change.beat + 1)} 1 0"
            onclick={() => workspace.select(change.index)}><ChordSymbol symbol={change.symbol} /></button
          >
        {:else}
          <span class="text-soft">–</span>
        {/each}
      </div>
    </div>
  {/each}
</div>
