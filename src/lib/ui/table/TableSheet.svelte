<!-- The chord table on paper, whole. -->
<script lang="ts">
  import type { Workspace } from '$lib/state/chart/workspace.svelte';
  import Paper from '../export/Paper.svelte';
  import SpelledChords from './SpelledChords.svelte';

  let { workspace }: { workspace: Workspace } = $props();
</script>

<Paper {workspace} says="a bar under a note: the chord before holds it too">
  <SpelledChords {workspace} from={0} to={workspace.changes.length} />
</Paper>
