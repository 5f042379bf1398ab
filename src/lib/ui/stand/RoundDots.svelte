<!-- How the rounds went so far, one dot each: clean, not clean, not marked; by shape as well as by hue. -->
<script lang="ts">
  import Check from '@lucide/svelte/icons/check';
  import X from '@lucide/svelte/icons/x';
  import type { Rehearsal } from '$lib/state/stand/rehearsal.svelte';

  let { rehearsal, most }: { rehearsal: Rehearsal; most: number } = $props();
  const marks = $derived(rehearsal.marks.given.slice(-most));
  const said = (mark: boolean | null) => (mark === null ? 'not marked' : mark ? 'clean' : 'not clean');
</script>

<ol class="flex items-center gap-1" aria-label="Rounds so far">
  {#each marks as mark, i (i)}
    <li
      class="flex size-6 items-center justify-center rounded-full border text-xs {mark
        ? 'border-ink bg-ink text-paper'
        : mark === false
          ? 'border-target text-target'
          : 'border-dashed border-edge'}"
      data-mark={said(mark)}
      aria-label={said(mark)}
    >
      {#if mark}<Check size={14} />{:else if mark === false}<X size={14} />{/if}
    </li>
  {/each}
</ol>
