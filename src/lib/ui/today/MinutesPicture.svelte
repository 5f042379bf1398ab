<!-- Minutes by week: how much do I play? -->
<script lang="ts">
  import { max } from 'd3-array';
  import { scaleBand, scaleLinear } from 'd3-scale';
  import type { Sum } from '$lib/core/practice/log/sums';
  import { shortDay } from './days';
  import Picture from './Picture.svelte';

  let { weeks }: { weeks: readonly Sum[] } = $props();
  const [WIDTH, HEIGHT, BOTTOM] = [520, 190, 22];
  const minutes = ({ seconds }: Sum) => Math.round(seconds / 60);
  const x = $derived(
    scaleBand(
      weeks.map(({ day }) => day),
      [0, WIDTH]
    ).padding(0.22)
  );
  const y = $derived(scaleLinear([0, Math.max(30, max(weeks, minutes) ?? 0)], [HEIGHT - BOTTOM, 22]));
</script>

<Picture
  question="How much do I play, week by week?"
  columns={['week from', 'minutes']}
  rows={weeks.map((week) => [week.day, minutes(week)])}
>
  <svg viewBox="0 0 {WIDTH} {HEIGHT}" class="w-full" role="img" aria-label="Minutes by week" data-minutes>
    <line x2={WIDTH} y1={HEIGHT - BOTTOM} y2={HEIGHT - BOTTOM} class="stroke-edge" />
    {#each weeks as week, i (week.day)}
      <rect
        x={x(week.day)}
        y={y(minutes(week))}
        width={x.bandwidth()}
        height={HEIGHT - BOTTOM - y(minutes(week))}
        class={i === weeks.length - 1 ? 'fill-target' : 'fill-ink'}
      />
      <text
        x={x(week.day)! + x.bandwidth() / 2}
        y={y(minutes(week)) - 5}
        text-anchor="middle"
        class="fill-ink text-xs tabular-nums">{minutes(week)}</text
      >
      {#if i % 2 === 1}<text
          x={x(week.day)! + x.bandwidth() / 2}
          y={HEIGHT - 6}
          text-anchor="middle"
          class="fill-soft text-xs">{shortDay(week.day)}</text
        >{/if}
    {/each}
  </svg>
</Picture>
