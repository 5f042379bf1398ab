<!-- A neck for those who hear it: one sentence a string, the highest first. -->
<script lang="ts">
  let { strings }: { strings: readonly string[] } = $props();
</script>

<div class="sr-only">
  <h2>Notes on the neck by string</h2>
  <ul>
    {#each strings as words, i (i)}<li>{words}</li>{/each}
  </ul>
</div>
