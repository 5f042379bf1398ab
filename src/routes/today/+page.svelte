<script lang="ts">
  import TodayPage from '$lib/ui/today/TodayPage.svelte';

  let { data } = $props();
</script>

<svelte:head><title>Today · Corvel</title></svelte:head>
<TodayPage today={data.today} />
