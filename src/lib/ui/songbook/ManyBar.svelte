<!-- What is done to the charts that are selected: tagged, saved as files, deleted with undo. It stays in sight. -->
<script lang="ts">
  import Package from '@lucide/svelte/icons/package';
  import Tag from '@lucide/svelte/icons/tag';
  import Trash2 from '@lucide/svelte/icons/trash-2';
  import { counted } from '$lib/core/theory/words';
  import type { Facet } from '$lib/api/songbook';
  import Button from '../kit/Button.svelte';
  import Progress from '../kit/Progress.svelte';

  interface Props {
    selected: number;
    /** Charts that are found, beyond those shown. */
    total: number;
    tags: readonly Facet[];
    /** How far long work is, 0 to 1. */
    progress: number | null;
    onall: () => void;
    ontag: (what: 'tag' | 'untag', tag: string) => void;
    onsave: () => void;
    ondelete: () => void;
    onstop: () => void;
    ondone: () => void;
  }
  let { selected, total, tags, progress, onall, ontag, onsave, ondelete, onstop, ondone }: Props = $props();
  let tag = $state('');
  const isIdle = $derived(progress === null && selected > 0);
</script>

<div
  class="sticky bottom-2 z-20 mt-3 flex flex-wrap items-center gap-2 card p-2 shadow-lg"
  role="group"
  aria-label="Selected charts"
  data-selected={selected}
>
  <b class="px-1">{selected} selected</b>
  {#if selected < total}
    <Button disabled={progress !== null} onclick={onall}>all {total} found</Button>
  {/if}
  {#if progress !== null}
    <span class="flex items-center gap-2" role="status">
      <Progress label="Charts done" value={progress} class="w-32" />
      <Button onclick={onstop}>Stop</Button>
    </span>
  {:else}
    <form
      class="flex items-center gap-1"
      onsubmit={(event) => {
        event.preventDefault();
        if (tag.trim()) ontag('tag', tag);
      }}
    >
      <input
        class="h-8.5 w-32 rounded-md border border-edge bg-surface px-2 pointer-coarse:h-11"
        aria-label="Tag"
        placeholder="a tag"
        maxlength="40"
        list="known-tags"
        bind:value={tag}
      />
      <datalist id="known-tags">
        {#each tags as { value } (value)}<option {value}></option>{/each}
      </datalist>
      <Button type="submit" disabled={!isIdle || !tag.trim()}><Tag size={15} /> tag</Button>
      <Button disabled={!isIdle || !tag.trim()} onclick={() => ontag('untag', tag)}>remove it</Button>
    </form>
    <Button disabled={!isIdle} hint="Each with plan, lines and drills, in one zip" onclick={onsave}
      ><Package size={15} /> save as files</Button
    >
    <Button disabled={!isIdle} aria-label="Delete {counted(selected, 'chart')}" onclick={ondelete}
      ><Trash2 size={15} /> delete</Button
    >
  {/if}
  <span class="flex-1"></span>
  <Button tone="strong" onclick={ondone}>done</Button>
</div>
