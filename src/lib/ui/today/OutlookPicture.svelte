<!-- The tempo of a tune by a day: what is clean now, the interval that is to be expected, and the goal. -->
<script lang="ts">
  import { scaleLinear } from 'd3-scale';
  import type { TuneOutlook } from '$lib/api/practice';

  let { outlook }: { outlook: TuneOutlook } = $props();
  const [WIDTH, HEIGHT, EDGE] = [170, 30, 6];
  const goal = $derived(outlook.goal ?? 100);
  const low = $derived(outlook.low ?? 0);
  const high = $derived(outlook.high ?? 0);
  const middle = $derived(outlook.middle ?? 0);
  const x = $derived(
    scaleLinear([Math.min(goal * 0.6, low, outlook.now ?? low), goal], [EDGE, WIDTH - EDGE]).clamp(true)
  );
</script>

<svg
  viewBox="0 0 {WIDTH} {HEIGHT}"
  width={WIDTH}
  height={HEIGHT}
  role="img"
  aria-label="By then {low} to {high}, most likely {middle}; goal {goal}"
  data-outlook="{low}-{high}"
>
  <line x1={EDGE} x2={WIDTH - EDGE} y1="10" y2="10" class="stroke-edge" stroke-width="1.5" />
  {#if outlook.now}<line
      x1={EDGE}
      x2={x(outlook.now)}
      y1="10"
      y2="10"
      class="stroke-ink"
      stroke-width="4"
    />{/if}
  <rect
    x={x(low)}
    width={Math.max(3, x(high) - x(low))}
    y="4"
    height="12"
    rx="6"
    class="fill-target/25 stroke-target"
  />
  <line x1={x(middle)} x2={x(middle)} y1="2" y2="18" class="stroke-target" stroke-width="2.5" />
  <line x1={WIDTH - EDGE} x2={WIDTH - EDGE} y1="2" y2="18" class="stroke-ink" stroke-width="2" />
  <text
    x={Math.min(x(middle), WIDTH - 44)}
    y="29"
    text-anchor="middle"
    class="fill-ink text-[11px] tabular-nums">{middle}</text
  >
  <text x={WIDTH - EDGE} y="29" text-anchor="end" class="fill-soft text-[11px] tabular-nums">{goal}</text>
</svg>
