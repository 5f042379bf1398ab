<!-- Before a round: what waits, and how it is answered. -->
<script lang="ts">
  import Play from '@lucide/svelte/icons/play';
  import { counted } from '$lib/core/theory/words';
  import { button } from '../kit/button';
  import Button from '../kit/Button.svelte';

  interface Props {
    /** Cards that are due, and new ones. */
    waits: { readonly due: number; readonly fresh: number };
    /** Something is practised that cards could come from. */
    hasCharts: boolean;
    onstart: () => void;
  }
  let { waits, hasCharts, onstart }: Props = $props();
</script>

<section class="card p-8 text-center" aria-label="Before the round">
  {#if waits.due + waits.fresh > 0}
    <p class="font-display text-3xl" data-waits={waits.due + waits.fresh}>
      {[waits.due ? `${counted(waits.due, 'card')} due` : '', waits.fresh ? `${waits.fresh} new` : '']
        .filter(Boolean)
        .join(', ')}
    </p>
    <p class="mt-2 text-lg text-soft">
      Two minutes. Tap the neck, or use the keys: arrows and Space on the neck, digits for answers, Enter to
      go on.
    </p>
    <Button size="stand" tone="target" class="mt-5 min-h-16 min-w-48 text-2xl" data-begin onclick={onstart}
      ><Play size={24} /> Start</Button
    >
  {:else if !hasCharts}
    <p class="text-lg">
      Cards come from the charts you practise. <a class="underline" href="/today?show=items"
        >Choose one first</a
      >.
    </p>
  {:else}
    <p class="font-display text-3xl">Nothing is due.</p>
    <p class="mt-2 text-lg text-soft">A card comes back shortly before you would forget it.</p>
    <a class="{button({ size: 'stand' })} mt-4" href="/today">to the plan</a>
  {/if}
</section>
