<!-- Areas by keys: where is the neck held, and how fast? Filled as far as the tempo goes that is held; a ring where it was clean once. -->
<script lang="ts">
  import { max } from 'd3-array';
  import { scaleBand, scaleLinear } from 'd3-scale';
  import { keyShort } from '$lib/core/practice/items/words';
  import { agoText } from '$lib/core/practice/log/day';
  import type { Covered } from '$lib/core/practice/log/sums';
  import { readKey } from '$lib/core/harmony/key';
  import { pitchClass } from '$lib/core/theory/note';
  import Picture from './Picture.svelte';

  let { coverage, day }: { coverage: readonly Covered[]; day: string } = $props();
  const [LEFT, TOP, CELL, ROW] = [74, 26, 64, 44];

  /** Round in fourths from C, minor keys beside the major of the same tonic. */
  const fourths = (key: string) => {
    const read = readKey(key);
    return read ? ((pitchClass(read.tonic) * 5) % 12) + (read.mode === 'major' ? 0 : 0.5) : 99;
  };
  const keys = $derived([...new Set(coverage.map(({ key }) => key))].sort((a, b) => fourths(a) - fourths(b)));
  const areas = $derived([...new Set(coverage.map(({ area }) => area))].sort((a, b) => b - a));
  const x = $derived(scaleBand(keys, [LEFT, LEFT + CELL * keys.length]).padding(0.08));
  const y = $derived(scaleBand(areas.map(String), [TOP, TOP + ROW * areas.length]).padding(0.1));
  const most = $derived(max(coverage, ({ held, clean }) => held ?? clean) ?? 100);
  const height = $derived(scaleLinear([0, most], [0, y.bandwidth()]));
  const said = ({ held, clean, seconds, lastDay }: Covered) =>
    `${held === null ? (clean === null ? 'not clean yet' : `clean once at ${clean}`) : `held at ${held}`}, ${Math.round(seconds / 60)} minutes, last ${agoText(lastDay, day)}`;
  const rows = $derived(
    [...coverage]
      .sort((a, b) => a.area - b.area || fourths(a.key) - fourths(b.key))
      .map((one) => [
        one.area,
        keyShort(one.key),
        one.held ?? '–',
        one.clean ?? '–',
        Math.round(one.seconds / 60),
        one.lastDay
      ])
  );
</script>

<Picture
  question="Where on the neck, and in which keys, am I at home?"
  columns={['position', 'key', 'held at', 'clean at', 'minutes', 'last played']}
  {rows}
>
  {#if coverage.length}
    <svg
      width={LEFT + CELL * keys.length + 8}
      height={TOP + ROW * areas.length + 8}
      role="img"
      aria-label="Tempo held by position and key"
      data-coverage
    >
      {#each keys as key (key)}
        <text
          x={x(key)! + x.bandwidth() / 2}
          y={TOP - 9}
          text-anchor="middle"
          class="fill-ink font-display text-lg">{keyShort(key)}</text
        >
      {/each}
      {#each areas as area (area)}
        <text
          x={LEFT - 12}
          y={y(String(area))! + y.bandwidth() / 2 + 5}
          text-anchor="end"
          class="fill-soft text-sm">pos. {area}</text
        >
        {#each keys as key (key)}
          {@const own = coverage.find((one) => one.area === area && one.key === key)}
          <g
            transform="translate({x(key)}, {y(String(area))})"
            data-cell={own ? `${area} ${key}` : undefined}
          >
            <rect
              width={x.bandwidth()}
              height={y.bandwidth()}
              rx="5"
              class="fill-none {own ? 'stroke-edge' : 'stroke-line'}"
              stroke-dasharray={own ? undefined : '2 4'}
            />
            {#if own}
              <title>{said(own)}</title>
              {#if own.held !== null}
                <rect
                  y={y.bandwidth() - height(own.held)}
                  width={x.bandwidth()}
                  height={height(own.held)}
                  rx="5"
                  class="fill-ink"
                />
                <text
                  x={x.bandwidth() / 2}
                  y={y.bandwidth() - 8}
                  text-anchor="middle"
                  class="fill-paper text-sm font-bold">{own.held}</text
                >
              {:else}
                {#if own.clean !== null}<line
                    x2={x.bandwidth()}
                    y1={y.bandwidth() - height(own.clean)}
                    y2={y.bandwidth() - height(own.clean)}
                    class="stroke-target"
                    stroke-width="3"
                    stroke-dasharray="5 3"
                  />{/if}
                <text
                  x={x.bandwidth() / 2}
                  y={y.bandwidth() - 8}
                  text-anchor="middle"
                  class="fill-soft text-sm">{own.clean ?? '·'}</text
                >
              {/if}
            {/if}
          </g>
        {/each}
      {/each}
    </svg>
    <p class="mt-1 text-sm text-soft">
      Filled as high as the tempo that is held (clean on two days); a broken line where it was clean once; an
      empty frame where nothing was played.
    </p>
  {:else}
    <p class="text-soft">Nothing was played in one place of the neck yet.</p>
  {/if}
</Picture>
