<!-- How the chart stands on disk, always in sight. -->
<script lang="ts">
  import Check from '@lucide/svelte/icons/check';
  import CloudOff from '@lucide/svelte/icons/cloud-off';
  import LoaderCircle from '@lucide/svelte/icons/loader-circle';
  import TriangleAlert from '@lucide/svelte/icons/triangle-alert';
  import type { SaveStatus } from '$lib/state/chart/autosave.svelte';

  let { status }: { status: SaveStatus } = $props();
  const WORDS = {
    saved: 'Saved',
    pending: 'Edited',
    saving: 'Saving',
    offline: 'Kept here, saving again soon',
    refused: 'Not saved',
    stale: 'Changed elsewhere',
    gone: 'Deleted elsewhere'
  } as const;
  const isFault = $derived(['offline', 'refused', 'stale', 'gone'].includes(status.kind));
</script>

<span
  class="inline-flex items-center gap-1.5 text-sm {isFault ? 'font-bold text-warn' : 'text-soft'}"
  role="status"
  data-save-state={status.kind}
>
  {#if status.kind === 'saved'}<Check size={15} />
  {:else if status.kind === 'offline'}<CloudOff size={15} />
  {:else if isFault}<TriangleAlert size={15} />
  {:else}<LoaderCircle size={15} />{/if}
  <span class={isFault ? 'max-md:sr-only' : 'max-xl:sr-only'}>{WORDS[status.kind]}</span>
</span>
