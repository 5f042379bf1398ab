<script lang="ts">
  import TrainerPage from '$lib/ui/trainer/TrainerPage.svelte';

  let { data } = $props();
</script>

<svelte:head><title>Cards · Corvel</title></svelte:head>
<TrainerPage trainer={data.trainer} />
