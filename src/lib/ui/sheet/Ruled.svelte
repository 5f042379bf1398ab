<!-- Ruled lines, for what is written by hand. -->
<script lang="ts">
  let { lines, title = '' }: { lines: number; title?: string } = $props();
</script>

<div class="ruled" aria-hidden="true">
  {#if title}<p>{title}</p>{/if}
  {#each { length: lines } as _, i (i)}<hr />{/each}
</div>

<style>
  .ruled {
    margin-top: 4mm;
    break-inside: avoid;
  }

  p {
    font-size: 3mm;
    color: var(--soft);
  }

  hr {
    height: 9mm;
    margin: 0;
    border: 0;
    border-bottom: 0.2mm solid var(--line);
  }
</style>
