<!-- A chart in the songbook: what it is, when it was practised, and what can be done with it. -->
<script lang="ts">
  import Copy from '@lucide/svelte/icons/copy';
  import Pencil from '@lucide/svelte/icons/pencil';
  import Trash2 from '@lucide/svelte/icons/trash-2';
  import type { ChartSummary } from '$lib/api/songbook';
  import { readKey } from '$lib/core/harmony/key';
  import { prettyNote } from '$lib/core/theory/typeset';
  import ChordSymbol from '../chord/ChordSymbol.svelte';
  import Button from '../kit/Button.svelte';

  interface Props {
    chart: ChartSummary;
    /** Whether it is among those that are selected; null where none are to be. */
    isSelected: boolean | null;
    onselect: (toHere: boolean) => void;
    onrename: (title: string) => void;
    onduplicate: () => void;
    onremove: () => void;
  }
  let { chart, isSelected, onselect, onrename, onduplicate, onremove }: Props = $props();

  const DAY = 86_400_000;
  let newTitle: string | null = $state(null);
  const isSelecting = $derived(isSelected !== null);

  function rename() {
    const title = newTitle?.trim();
    newTitle = null;
    if (title && title !== chart.title) onrename(title);
  }

  function ago(at: number | null): string {
    if (at === null) return 'not practised yet';
    const days = Math.floor((Date.now() - at) / DAY);
    return days === 0 ? 'practised today' : days === 1 ? 'practised yesterday' : `practised ${days} days ago`;
  }

  /** "E♭ major", "D dorian". */
  function keyName(text: string): string {
    const key = readKey(text);
    return key ? `${prettyNote(key.tonic)} ${key.mode}` : text;
  }
  const focusHere = (node: HTMLInputElement) => {
    node.focus();
    node.select();
  };
</script>

<li
  class="group relative flex items-center gap-3 px-4 py-2.5 first:rounded-t-[10px] last:rounded-b-[10px] hover:bg-lit"
>
  {#if isSelecting}
    <label class="absolute inset-0 z-20 flex cursor-pointer items-center pl-4">
      <input
        type="checkbox"
        class="size-6 accent-ink"
        aria-label="Select {chart.title}"
        checked={isSelected}
        onclick={(event) => onselect(event.shiftKey)}
      />
    </label>
  {/if}
  <div class="min-w-0 flex-1 {isSelecting ? 'pl-10' : ''}">
    {#if newTitle !== null}
      <form
        onsubmit={(event) => {
          event.preventDefault();
          rename();
        }}
      >
        <input
          class="relative z-10 h-9 w-full rounded-md border border-line bg-paper px-2 font-display text-lg"
          aria-label="New title"
          maxlength="200"
          bind:value={newTitle}
          use:focusHere
          onblur={rename}
          onkeydown={(event) => event.key === 'Escape' && (newTitle = null)}
        />
      </form>
    {:else}
      <a class="font-display text-xl leading-7 after:absolute after:inset-0" href="/charts/{chart.id}"
        >{chart.title}</a
      >
      {#each chart.tags as tag (tag)}
        <span class="ml-1.5 rounded-full border border-line px-2 py-0.5 text-xs whitespace-nowrap">{tag}</span
        >
      {/each}
    {/if}
    <p class="flex gap-2.5 truncate text-base leading-6 text-soft">
      {#each chart.opening as symbol, i (i)}<ChordSymbol {symbol} />{:else}<span>no chords yet</span>{/each}
      {#if chart.damaged}<b class="text-warn">its plan is damaged</b>{/if}
    </p>
  </div>
  <div class="w-52 shrink-0 text-right text-sm leading-5 text-soft max-sm:hidden">
    {#if chart.key}<span class="text-ink">{keyName(chart.key)}</span><br />{/if}
    {chart.bars} bars · {chart.meter}{chart.tempo ? ` · ${chart.tempo} bpm` : ''}<br />
    {ago(chart.practisedAt)}{chart.heldTempo ? `, held at ${chart.heldTempo}` : ''}
  </div>
  <div class="relative z-10 flex shrink-0 gap-1 {isSelecting ? 'hidden' : ''}">
    <Button label="Rename {chart.title}" hint="Rename" onclick={() => (newTitle = chart.title)}
      ><Pencil size={15} /></Button
    >
    <Button label="Duplicate {chart.title}" hint="Duplicate" onclick={onduplicate}><Copy size={15} /></Button>
    <Button label="Delete {chart.title}" hint="Delete" onclick={onremove}><Trash2 size={15} /></Button>
  </div>
</li>
