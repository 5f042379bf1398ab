<!-- Bars and beats of a drawing whose time goes from left to right: a line and a number for each bar, dots for its beats. -->
<script lang="ts">
  import type { PlayedBar } from '$lib/core/chart/unroll';
  import { HEAD } from './layout';

  interface Props {
    bars: readonly PlayedBar[];
    /** x of a beat of the form. */
    time: (beat: number) => number;
    height: number;
  }
  let { bars, time, height }: Props = $props();
</script>

{#each bars as bar (bar.number)}
  {@const x = time(bar.start)}
  <line x1={x} x2={x} y1="0" y2={height} class="stroke-line" stroke-width="1" />
  <text x={x + 5} y="11" font-size="10" class="fill-soft">{bar.number}</text>
  {#each { length: Math.max(0, Math.ceil(bar.beats) - 1) } as _, beat (beat)}
    {@const at = time(bar.start + beat + 1)}
    <line
      x1={at}
      x2={at}
      y1={HEAD + 4}
      y2={height}
      class="stroke-line"
      stroke-width="1"
      stroke-dasharray="1 5"
    />
  {/each}
{/each}
