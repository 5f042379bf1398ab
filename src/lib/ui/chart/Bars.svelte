<!-- The form as rendered bars, four to a line, each chord at its beat. -->
<script lang="ts">
  import type { Workspace } from '$lib/state/chart/workspace.svelte';
  import { group } from 'd3-array';
  import Pager from '../kit/Pager.svelte';
  import ChordSymbol from '../chord/ChordSymbol.svelte';

  let { workspace }: { workspace: Workspace } = $props();
  const form = $derived(workspace.sheet.form);
  /** The changes of every bar, by its number. */
  const changesOf = $derived(group(workspace.changes, ({ bar }) => bar));
  /** Bars from one to another, with their changes. */
  const barsIn = (from: number, to: number) =>
    form.bars.slice(from, to).map((bar) => ({
      ...bar,
      opens: bar.section !== '' && bar.section !== form.bars[bar.number - 2]?.section,
      changes: changesOf.get(bar.number) ?? []
    }));
</script>

<Pager count={form.bars.length} at={(workspace.change?.bar ?? 1) - 1} name="bars" size={96}>
  {#snippet children(from, to)}
    <div
      class="grid content-start overflow-y-auto"
      style="grid-template-columns: repeat(4, minmax(0, 1fr))"
      aria-label="Rendered bars"
      role="group"
    >
      {#each barsIn(from, to) as bar (bar.number)}
        <div
          class="relative min-h-12 border-b border-l border-line px-1.5 pt-3.5 pb-1 {bar.opens
            ? 'border-l-2 border-l-soft'
            : ''}"
        >
          <span class="absolute top-0 left-1.5 text-2xs text-soft"
            >{bar.number}{#if bar.opens}&nbsp;&nbsp;<b>{bar.section}</b>{/if}</span
          >
          <div class="flex">
            {#each bar.changes as change (change.index)}
              <button
                class="min-h-6 min-w-0 rounded text-left text-lg leading-6 {change.index ===
                workspace.selected
                  ? 'bg-lit inset-ring-2 inset-ring-target'
                  : ''}"
                style:margin-left={change === bar.changes[0]
                  ? `${((change.beat - 1) / bar.beats) * 100}%`
                  : '0'}
                style:flex="{Math.min(change.beats, bar.beats - change.beat + 1)} 1 0"
                onclick={() => workspace.select(change.index)}><ChordSymbol symbol={change.symbol} /></button
              >
            {:else}
              <span class="text-soft">–</span>
            {/each}
          </div>
        </div>
      {/each}
    </div>
  {/snippet}
</Pager>
