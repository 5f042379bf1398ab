<!-- What the ear has made of the last round, to be confirmed by one press (K). -->
<script lang="ts">
  import Ear from '@lucide/svelte/icons/ear';
  import { counted } from '$lib/core/theory/words';
  import type { Landings } from '$lib/state/stand/landings.svelte';
  import type { Rehearsal } from '$lib/state/stand/rehearsal.svelte';
  import Button from '../kit/Button.svelte';

  let { rehearsal, landings }: { rehearsal: Rehearsal; landings: Landings } = $props();
  const heard = $derived(landings.heard);
  const isOpen = $derived(heard !== null && rehearsal.marks.given.at(-1) === null);
</script>

{#if heard && isOpen}
  <Button
    size="stand"
    class="min-h-12 whitespace-nowrap"
    hint="As it was heard: press to take it for the last round (K)"
    data-heard={heard.missed.length}
    onclick={() => landings.confirm()}
    ><Ear size={18} />
    {heard.missed.length
      ? `heard: ${counted(heard.missed.length, 'change')} missed`
      : 'heard: clean'}?</Button
  >
{/if}
