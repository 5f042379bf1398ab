<script lang="ts">
  import Workspace from '$lib/ui/app/Workspace.svelte';

  let { data } = $props();
</script>

{#key data.chart.id}
  <Workspace chart={data.chart} />
{/key}
