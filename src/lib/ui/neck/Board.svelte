<!-- A fretboard without notes: wires, strings, and on the large neck wood, inlays and numbers. Shared by every neck. -->
<script lang="ts">
  import { DOUBLE_INLAYS, INLAYS, net, type NeckGeometry } from './geometry';

  interface Props {
    geometry: NeckGeometry;
    strings: number;
    /** First and last fret shown. */
    from: number;
    to: number;
    /** With inlays and strings of their own weight. */
    isLarge?: boolean;
    capo?: number;
    /** Height of the fret numbers, and the frets that have one; those with an inlay where nothing is said. */
    numbers?: number;
    numbered?: readonly number[];
  }
  let {
    geometry,
    strings,
    from,
    to,
    isLarge = false,
    capo = 0,
    numbers = 11,
    numbered = INLAYS
  }: Props = $props();

  const first = $derived(from - 1);
  const wires = $derived(Array.from({ length: to - first + 1 }, (_, i) => first + i));
  const [left, right] = $derived(
    [geometry.wire(first), geometry.wire(to)].sort((a, b) => a - b) as [number, number]
  );
  const rows = $derived(Array.from({ length: strings }, (_, i) => i + 1));
  const top = $derived(geometry.string(1));
  const bottom = $derived(geometry.string(strings));
</script>

{#if isLarge}
  {#each wires as fret (fret)}
    <line
      x1={geometry.wire(fret)}
      x2={geometry.wire(fret)}
      y1={top - 10}
      y2={bottom + 10}
      stroke={fret === 0 ? 'var(--ink)' : 'var(--string)'}
      stroke-opacity={fret === 0 ? 1 : 0.55}
      stroke-width={fret === 0 ? 4 : 1}
    />
    {#if fret > first && INLAYS.includes(fret)}
      {#each DOUBLE_INLAYS.includes(fret) ? [0.3, 0.7] : [0.5] as at (at)}
        <circle
          cx={geometry.finger(fret)}
          cy={top + at * (bottom - top)}
          r="4"
          fill="var(--string)"
          fill-opacity="0.28"
        />
      {/each}
    {/if}
    {#if fret > first && numbered.includes(fret)}
      <text
        x={geometry.finger(fret)}
        y={numbers * 0.92}
        text-anchor="middle"
        font-size={numbers}
        class="fill-soft"
        data-fret-number>{fret}</text
      >
    {/if}
  {/each}
  {#each rows as string (string)}
    <line
      x1={left}
      x2={right}
      y1={geometry.string(string)}
      y2={geometry.string(string)}
      stroke="var(--string)"
      stroke-width={0.8 + (string - 1) * 0.28}
    />
  {/each}
{:else}
  <!-- Drawn by the dozen: two strokes instead of eleven. -->
  <g fill="none" stroke="var(--string)" stroke-opacity="0.6">
    <path d={net(geometry, strings, from, to)} />
    {#if from === 1}<path d="M{geometry.wire(0)} {top}V{bottom}" stroke-width="3" />{/if}
  </g>
{/if}
{#if capo > 0}
  <rect
    x={geometry.finger(capo) - 4}
    y={top - 12}
    width="8"
    height={bottom - top + 24}
    rx="4"
    class="fill-ink"
    data-capo={capo}
  />
{/if}
