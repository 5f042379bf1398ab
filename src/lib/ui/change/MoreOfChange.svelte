<!-- One quiet step behind the change: what leads into its target, and a reading of one's own. -->
<script lang="ts">
  import type { Workspace } from '$lib/state/chart/workspace.svelte';
  import LedInto from './LedInto.svelte';
  import OwnReading from './OwnReading.svelte';

  let { workspace }: { workspace: Workspace } = $props();
</script>

<div class="flex flex-col gap-1 border-t border-line pt-1.5 text-sm">
  {#if workspace.paths.targets.has(workspace.selected)}<LedInto {workspace} />{/if}
  <OwnReading {workspace} />
</div>
