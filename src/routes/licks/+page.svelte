<script lang="ts">
  import LickPage from '$lib/ui/licks/LickPage.svelte';

  let { data } = $props();
</script>

<svelte:head><title>Lick book · Corvel</title></svelte:head>
<LickPage licks={data.licks} />
