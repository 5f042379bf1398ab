<!-- The chord over each column of a drawing in time. -->
<script lang="ts">
  import { nth } from '$lib/core/base/list';
  import ChordText from '../chord/ChordText.svelte';
  import { HEAD, type Column } from './layout';

  interface Props {
    columns: readonly Column[];
    /** The changes of the chart, by the index of their column. */
    changes: readonly { readonly symbol: string }[];
  }
  let { columns, changes }: Props = $props();
</script>

{#each columns as column (column.index)}
  <ChordText
    symbol={nth(changes, column.index).symbol}
    x={column.x + 7}
    y={HEAD - 8}
    size={column.width < 70 ? 15 : 20}
    room={column.width - 9}
    class="fill-ink"
  />
{/each}
