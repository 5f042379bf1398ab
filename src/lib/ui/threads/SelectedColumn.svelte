<!-- The column of the change that is looked at: moved, not made anew. -->
<script lang="ts">
  import type { Column } from './layout';

  let { column, height }: { column: Column | undefined; height: number } = $props();
</script>

{#if column}
  <rect x={column.x} y="15" width={column.width} height={height - 15} class="fill-lit" />
  <rect x={column.x} y="15" width={column.width} height="3" class="fill-target" />
{/if}
