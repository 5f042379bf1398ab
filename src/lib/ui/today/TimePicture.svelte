<!-- Time feel over weeks: where the player lies against the beat, and how far the notes scatter about it. -->
<script lang="ts">
  import { scaleLinear } from 'd3-scale';
  import { area, curveMonotoneX, line } from 'd3-shape';
  import type { Pictures } from '$lib/api/practice';
  import { lastOf } from '$lib/core/base/list';
  import type { TimeDay } from '$lib/core/takes/judge/time-days';
  import { signedMs } from '../takes/words';
  import { dayAxis } from './day-axis';
  import DayTicks from './DayTicks.svelte';
  import Picture from './Picture.svelte';

  let { time }: { time: Pictures['time'] } = $props();
  const [WIDTH, HEIGHT] = [1060, 190];
  const MARGIN = { left: 74, right: 96, top: 12, bottom: 26 };
  /** Seconds to either side at least. */
  const LEAST = 0.06;
  const axis = $derived(
    dayAxis(
      time.map(({ day }) => day),
      [MARGIN.left, WIDTH - MARGIN.right]
    )
  );
  const most = $derived(Math.max(LEAST, ...time.map(({ mean, spread }) => Math.abs(mean) + spread)));
  /** Behind the beat lies above, as in a take. */
  const y = $derived(scaleLinear([-most, most], [HEIGHT - MARGIN.bottom, MARGIN.top]));
  const band = $derived(
    area<TimeDay>()
      .x(({ day }) => axis.x(day))
      .y0(({ mean, spread }) => y(mean - spread))
      .y1(({ mean, spread }) => y(mean + spread))
      .curve(curveMonotoneX)([...time]) ?? ''
  );
  const path = $derived(
    line<TimeDay>()
      .x(({ day }) => axis.x(day))
      .y(({ mean }) => y(mean))
      .curve(curveMonotoneX)([...time]) ?? ''
  );
  const last = $derived(lastOf(time));
  const ms = (seconds: number) => Math.round(seconds * 1000);
</script>

<Picture
  question="Do I lie ahead of the beat or behind it?"
  columns={['day', 'ms behind the beat', 'spread, ms', 'takes']}
  rows={time.map(({ day, mean, spread, takes }) => [day, signedMs(mean), ms(spread), takes])}
>
  <svg
    viewBox="0 0 {WIDTH} {HEIGHT}"
    class="w-full min-w-[640px]"
    role="img"
    aria-label="Where you lay against the beat in {time.length} days of takes; last {signedMs(
      last.mean
    )} ms, give or take {ms(last.spread)}"
    data-time-feel
  >
    <DayTicks {axis} y={HEIGHT - 6} />
    <line
      x1={MARGIN.left}
      x2={WIDTH - MARGIN.right}
      y1={y(0)}
      y2={y(0)}
      class="stroke-ink"
      stroke-width="1.5"
    />
    <text x={MARGIN.left - 8} y={y(0) + 4} text-anchor="end" class="fill-ink text-xs">on the beat</text>
    <text x={MARGIN.left - 8} y={MARGIN.top + 8} text-anchor="end" class="fill-soft text-xs">behind</text>
    <text x={MARGIN.left - 8} y={HEIGHT - MARGIN.bottom} text-anchor="end" class="fill-soft text-xs"
      >ahead</text
    >
    <path d={band} class="fill-next" opacity="0.18" />
    <path d={path} class="fill-none stroke-target" stroke-width="2.5" />
    {#each time as { day, mean, spread, takes } (day)}
      <circle cx={axis.x(day)} cy={y(mean)} r="4" class="fill-target"
        ><title>{day}: {signedMs(mean)} ms, give or take {ms(spread)}; {takes}</title></circle
      >
    {/each}
    <text x={WIDTH - MARGIN.right + 10} y={y(last.mean) + 4} class="fill-target text-sm font-bold"
      >{signedMs(last.mean)} ms</text
    >
  </svg>
  <p class="text-sm text-soft">
    The line is the middle of your notes, the band around it how far they scatter.
  </p>
</Picture>
