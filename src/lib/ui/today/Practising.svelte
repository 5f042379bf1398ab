<!-- What goes on with practice on every page: the session under way, and what waits to be written down. Arrives behind the page. -->
<script lang="ts">
  import { onMount } from 'svelte';
  import { keepSending } from '$lib/state/practice/practice-log';
  import { sessionRun } from '$lib/state/practice/session-run.svelte';
  import SessionBar from './SessionBar.svelte';

  onMount(() => sessionRun.restore());
  onMount(() => keepSending());
</script>

{#if sessionRun.isOn}<SessionBar />{/if}
