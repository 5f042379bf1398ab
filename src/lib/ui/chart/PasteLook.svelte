<!-- A look at the bars that would be taken from a pasted text, and at what would be left out. -->
<script lang="ts">
  import type { TextImport } from '$lib/core/formats/text/import';
  import { readSheet } from '$lib/core/harmony/sheet';
  import ChordSymbol from '../chord/ChordSymbol.svelte';

  let { look }: { look: TextImport } = $props();
  /** Bars and lines that are shown; a look need not be a whole chart. */
  const SHOWN_BARS = 48;
  const SHOWN_LINES = 40;
  const form = $derived(look.chart === null ? null : readSheet(look.chart).form);
  const bars = $derived(
    (form?.bars.slice(0, SHOWN_BARS) ?? []).map((bar, i, all) => ({
      ...bar,
      opens: bar.section !== '' && bar.section !== all[i - 1]?.section,
      changes: form!.changes.filter((change) => change.bar === bar.number)
    }))
  );
</script>

<div data-paste-look>
  {#if bars.length}
    <ol class="grid grid-cols-4 border-t border-r border-line" aria-label="Bars to insert">
      {#each bars as bar (bar.number)}
        <li class="flex min-h-8 flex-wrap items-end gap-x-2 border-b border-l border-line px-1 py-0.5">
          {#if bar.opens}<span class="w-full truncate text-2xs leading-3 font-bold text-soft"
              >{bar.section}</span
            >{/if}
          {#each bar.changes as change (change.index)}<ChordSymbol symbol={change.symbol} />{:else}<span
              class="text-soft">–</span
            >{/each}
        </li>
      {/each}
    </ol>
    {#if form!.bars.length > SHOWN_BARS}
      <p class="mt-1 text-sm text-soft">and {form!.bars.length - SHOWN_BARS} bars more</p>
    {/if}
  {/if}
  {#if look.left.length}
    <h3 class="mt-2 text-sm font-bold">Left out</h3>
    <ul class="max-h-40 overflow-y-auto text-sm" aria-label="What is left out">
      {#each look.left.slice(0, SHOWN_LINES) as { line, text, why }, i (i)}
        <li class="text-soft">
          <span class="text-ink">{text ? `line ${line}: “${text}”` : `line ${line}`}</span> — {why}
        </li>
      {/each}
      {#if look.left.length > SHOWN_LINES}
        <li class="text-soft">and {look.left.length - SHOWN_LINES} lines more</li>
      {/if}
    </ul>
  {/if}
</div>
