<!-- Cards by degree and area: which tones do I know where? -->
<script lang="ts">
  import { scaleBand } from 'd3-scale';
  import type { Pictures } from '$lib/api/practice';
  import { DEGREE_NAMES } from '$lib/core/theory/degree';
  import { prettyDegree } from '$lib/core/theory/typeset';
  import Picture from './Picture.svelte';

  let { cards }: { cards: Pictures['cards'] } = $props();
  const [LEFT, TOP, CELL, ROW] = [112, 24, 66, 32];
  const rank = (degree: string) => {
    const at = (DEGREE_NAMES as readonly string[]).indexOf(degree);
    return at < 0 ? 99 : at;
  };
  const areaName = (area: number | null) => (area === null ? 'any' : `pos. ${area}`);
  const degrees = $derived([...new Set(cards.map(({ degree }) => degree))].sort((a, b) => rank(a) - rank(b)));
  const areas = $derived(
    [...new Set(cards.map(({ area }) => area))].sort((a, b) => (a ?? -1) - (b ?? -1)).map(areaName)
  );
  const x = $derived(scaleBand(areas, [LEFT, LEFT + CELL * areas.length]).padding(0.08));
  const y = $derived(scaleBand(degrees, [TOP, TOP + ROW * degrees.length]).padding(0.12));
</script>

<Picture
  question="Which tones do I know, and where?"
  columns={['degree', 'where', 'known', 'of']}
  rows={cards.map(({ degree, area, known, all }) => [prettyDegree(degree), areaName(area), known, all])}
>
  <svg
    width={LEFT + CELL * areas.length + 8}
    height={TOP + ROW * degrees.length + 8}
    role="img"
    aria-label="Cards known by degree and position"
    data-cards
  >
    {#each areas as area (area)}
      <text x={x(area)! + x.bandwidth() / 2} y={TOP - 8} text-anchor="middle" class="fill-soft text-sm"
        >{area}</text
      >
    {/each}
    {#each degrees as degree (degree)}
      <text x={LEFT - 10} y={y(degree)! + y.bandwidth() / 2 + 5} text-anchor="end" class="fill-ink text-sm"
        >{prettyDegree(degree)}</text
      >
    {/each}
    {#each cards as { degree, area, known, all } (`${degree} ${area}`)}
      <g transform="translate({x(areaName(area))}, {y(degree)})">
        <rect width={x.bandwidth()} height={y.bandwidth()} rx="4" class="fill-none stroke-edge" />
        <rect width={(x.bandwidth() * known) / all} height={y.bandwidth()} rx="4" class="fill-lit" />
        <text
          x={x.bandwidth() / 2}
          y={y.bandwidth() / 2 + 5}
          text-anchor="middle"
          class="fill-ink text-sm tabular-nums">{known} / {all}</text
        >
      </g>
    {/each}
  </svg>
  <p class="mt-1 text-sm text-soft">Known: it is remembered for a week and longer.</p>
</Picture>
