<!-- A note of two shapes laid over one another: a disc where both have it, a square for the first, a diamond for the second. -->
<script lang="ts">
  import type { Share } from '$lib/core/moment/moment';

  interface Props {
    x: number;
    y: number;
    share: Share;
    label: string;
    /** The first shape's own notes are leaving: drawn fainter, with a broken outline. */
    isLeaving?: boolean;
  }
  let { x, y, share, label, isLeaving = false }: Props = $props();
  const SQUARE = 20;
  const DIAMOND = 13.5;
</script>

{#if share === 'both'}
  <circle cx={x} cy={y} r="11" class="fill-tone" />
{:else if share === 'first'}
  <rect
    x={x - SQUARE / 2}
    y={y - SQUARE / 2}
    width={SQUARE}
    height={SQUARE}
    class="fill-surface {isLeaving ? 'stroke-soft' : 'stroke-target'}"
    stroke-width={isLeaving ? 1.6 : 2.2}
    stroke-dasharray={isLeaving ? '3 3' : undefined}
  />
{:else}
  <path
    d="M{x} {y - DIAMOND}L{x + DIAMOND} {y}L{x} {y + DIAMOND}L{x - DIAMOND} {y}Z"
    class="fill-surface stroke-next"
    stroke-width="2.2"
  />
{/if}
<text
  {x}
  y={y + 4}
  text-anchor="middle"
  font-size="11"
  class="font-bold {share === 'both'
    ? 'fill-on-tone'
    : share === 'first' && isLeaving
      ? 'fill-soft'
      : 'fill-ink'}">{label}</text
>
