<script lang="ts">
  import Book from '$lib/ui/book/Book.svelte';

  let { data } = $props();
</script>

{#key data.chart.id}
  <Book chart={data.chart} />
{/key}
