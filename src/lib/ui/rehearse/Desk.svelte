<!-- The desk of a rehearsal: what is played, how, how loud, and what leaves as a file. -->
<script lang="ts">
  import type { Rehearsal } from '$lib/state/rehearsal.svelte';
  import DeskDrill from './DeskDrill.svelte';
  import DeskMix from './DeskMix.svelte';
  import DeskTempo from './DeskTempo.svelte';

  let { rehearsal }: { rehearsal: Rehearsal } = $props();
</script>

<div class="flex flex-col gap-2 card p-3" data-desk>
  <DeskTempo {rehearsal} />
  <DeskDrill {rehearsal} />
  <DeskMix {rehearsal} />
</div>
