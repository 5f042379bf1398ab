<!-- The days under a picture of practice. -->
<script lang="ts">
  import type { DayAxis } from './day-axis';

  let { axis, y }: { axis: DayAxis; y: number } = $props();
</script>

{#each axis.ticks as { x, words } (x)}
  <text {x} {y} text-anchor="middle" class="fill-soft text-xs">{words}</text>
{/each}
