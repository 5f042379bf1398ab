<!-- An item's tempo over time: am I getting on, or do I stand still? -->
<script lang="ts">
  import { max, min } from 'd3-array';
  import { scaleLinear } from 'd3-scale';
  import { curveMonotoneX, line } from 'd3-shape';
  import type { Pictures } from '$lib/api/practice';
  import type { TempoDay } from '$lib/core/practice/log/sums';
  import Select from '../kit/Select.svelte';
  import { dayAxis } from './day-axis';
  import DayTicks from './DayTicks.svelte';
  import Picture from './Picture.svelte';

  let { tempos }: { tempos: Pictures['tempos'] } = $props();
  const [WIDTH, HEIGHT] = [1060, 230];
  const MARGIN = { left: 44, right: 90, top: 14, bottom: 26 };
  let picked = $state('');
  /** The one last played, until the player picks another; of those of one day the one with most to tell. */
  const latest = $derived(
    [...tempos].sort(
      (a, b) =>
        (b.days.at(-1)?.day ?? '').localeCompare(a.days.at(-1)?.day ?? '') || b.days.length - a.days.length
    )[0]!
  );
  const item = $derived(tempos.find(({ id }) => id === picked) ?? latest);
  const axis = $derived(
    dayAxis(
      item.days.map(({ day }) => day),
      [MARGIN.left, WIDTH - MARGIN.right]
    )
  );
  const y = $derived(
    scaleLinear(
      [
        (min(item.days, ({ clean, played }) => clean ?? played) ?? 60) - 6,
        Math.max(item.goal, max(item.days, ({ played }) => played) ?? 0) + 4
      ],
      [HEIGHT - MARGIN.bottom, MARGIN.top]
    )
  );
  const clean = $derived(item.days.filter((one): one is TempoDay & { clean: number } => one.clean !== null));
  const path = $derived(
    line<TempoDay & { clean: number }>()
      .x(({ day }) => axis.x(day))
      .y((one) => y(one.clean))
      .curve(curveMonotoneX)(clean) ?? ''
  );
</script>

<Picture
  question="Am I getting on, or do I stand still?"
  columns={['day', 'fastest played', 'fastest clean']}
  rows={item.days.map(({ day, played, clean: own }) => [day, played, own ?? '–'])}
>
  {#snippet tools()}
    <Select
      label="What the tempo is shown of"
      value={item.id}
      options={tempos.map(({ id, name, title }) => ({
        value: id,
        name: [name, title].filter(Boolean).join(' — ')
      }))}
      onpick={(id) => (picked = id)}
    />
  {/snippet}
  <svg
    viewBox="0 0 {WIDTH} {HEIGHT}"
    class="w-full min-w-[640px]"
    role="img"
    aria-label="Tempo of {item.name}"
    data-tempo
  >
    {#each y.ticks(5) as tick (tick)}
      <line x1={MARGIN.left} x2={WIDTH - MARGIN.right} y1={y(tick)} y2={y(tick)} class="stroke-line" />
      <text x={MARGIN.left - 8} y={y(tick) + 4} text-anchor="end" class="fill-soft text-xs">{tick}</text>
    {/each}
    <DayTicks {axis} y={HEIGHT - 6} />
    <line
      x1={MARGIN.left}
      x2={WIDTH - MARGIN.right}
      y1={y(item.goal)}
      y2={y(item.goal)}
      class="stroke-target"
      stroke-width="2"
      stroke-dasharray="7 5"
    />
    <text x={WIDTH - MARGIN.right + 8} y={y(item.goal) + 4} class="fill-target text-sm font-bold"
      >goal {item.goal}</text
    >
    <path d={path} class="fill-none stroke-ink" stroke-width="2.5" />
    {#each item.days as { day, played, clean: own } (day)}
      {#if own === null}<circle
          cx={axis.x(day)}
          cy={y(played)}
          r="4"
          class="fill-none stroke-soft"
          stroke-dasharray="2 2"><title>{day}: {played}, not clean</title></circle
        >{:else}<circle cx={axis.x(day)} cy={y(own)} r="4" class="fill-ink"
          ><title>{day}: clean at {own}</title></circle
        >{/if}
    {/each}
  </svg>
  <p class="text-sm text-soft">Full dots: clean that day. Broken rings: played, not clean.</p>
</Picture>
