<script lang="ts">
  import Songbook from '$lib/ui/songbook/Songbook.svelte';

  let { data } = $props();
</script>

<svelte:head><title>Songbook · Corvel</title></svelte:head>
<Songbook list={data.list} query={data.query} />
