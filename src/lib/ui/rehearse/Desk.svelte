<!-- The desk of a rehearsal, grouped: what is practised, how fast, the band; the mix and what is seldom turned behind one press each. -->
<script lang="ts" module>
  /** What was opened stays open while the page lives. */
  const opened = $state({ mix: false, more: false });
</script>

<script lang="ts">
  import ChevronDown from '@lucide/svelte/icons/chevron-down';
  import type { Landings } from '$lib/state/stand/landings.svelte';
  import type { Rehearsal } from '$lib/state/stand/rehearsal.svelte';
  import Button from '../kit/Button.svelte';
  import DeskBand from './DeskBand.svelte';
  import DeskMix from './DeskMix.svelte';
  import DeskMore from './DeskMore.svelte';
  import DeskPedals from './DeskPedals.svelte';
  import DeskRecording from './DeskRecording.svelte';
  import DeskTempo from './DeskTempo.svelte';
  import DeskWhat from './DeskWhat.svelte';

  interface Props {
    rehearsal: Rehearsal;
    landings: Landings;
    ontune: () => void;
  }
  let { rehearsal, landings, ontune }: Props = $props();
  const { backing, pedals } = $derived(rehearsal);
</script>

<div class="flex flex-col gap-2 card p-3" data-desk>
  <div class="flex flex-wrap gap-x-8 gap-y-2">
    <DeskWhat {rehearsal} />
    <DeskTempo {rehearsal} />
    <DeskBand {rehearsal} {landings} isMixing={opened.mix} onmix={() => (opened.mix = !opened.mix)} />
    <Button
      size="stand"
      class="ml-auto"
      aria-expanded={opened.more}
      pressed={opened.more}
      data-open-more
      onclick={() => (opened.more = !opened.more)}><ChevronDown size={17} /> More</Button
    >
  </div>
  {#if opened.mix}<DeskMix {rehearsal} {ontune} />{/if}
  {#if opened.more}<DeskMore {rehearsal} />{/if}
  {#if backing.problem}<p class="text-warn" role="alert">{backing.problem}</p>{/if}
  {#if backing.recording}<DeskRecording {rehearsal} recording={backing.recording} />{/if}
  {#if pedals.isShown}<DeskPedals {pedals} />{/if}
</div>
