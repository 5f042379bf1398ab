<!-- How each change was met: its target where it was struck, and how far before or after the change. -->
<script lang="ts">
  import { nth } from '$lib/core/base/list';
  import type { AnalysedChange } from '$lib/core/harmony/analysis';
  import type { JudgedChange } from '$lib/core/takes/judge/judge';
  import type { Column } from '../threads/layout';
  import MeetingMark from './MeetingMark.svelte';

  interface Props {
    columns: readonly Column[];
    changes: readonly AnalysedChange[];
    byChange: ReadonlyMap<number, JudgedChange>;
    time: (beat: number) => number;
    pitch: (midi: number) => number;
    radius: number;
    /** Bars were traded: Corvel's own are left alone. */
    isTraded: boolean;
    /** What is corrected is seen below. */
    isFaint: boolean;
  }
  let { columns, changes, byChange, time, pitch, radius, isTraded, isFaint }: Props = $props();

  /** Where the landing stands: its target in the octave in which it was played. */
  function landing({ target, landed }: JudgedChange) {
    if (!target) return null;
    const midi = target.wanted + 12 * (target.octave ?? 0);
    return { midi, late: target.late ?? landed?.late ?? null };
  }
</script>

{#each columns as column (column.index)}
  {@const one = byChange.get(column.index)}
  {@const place = one && landing(one)}
  {#if one?.target && place && !(isTraded && one.isLeftAlone)}
    {@const y = pitch(place.midi)}
    {@const moved = one.target.met === 'late' || one.target.met === 'early'}
    {@const exact = time(nth(changes, column.index).start + (moved ? (place.late ?? 0) : 0)) + 1}
    <!-- The first one would be cut by the edge. -->
    {@const x = Math.max(radius + 2, exact)}
    {#if moved}
      <line
        x1={column.x + 1}
        x2={x}
        y1={y}
        y2={y}
        class="stroke-target"
        stroke-width="2"
        stroke-dasharray="3 2.5"
      />
      <line
        x1={column.x + 1}
        x2={column.x + 1}
        y1={y - 8}
        y2={y + 8}
        class="stroke-target"
        stroke-width="2"
      />
    {/if}
    <!-- What is corrected lies under it. -->
    <g class="pointer-events-none" opacity={isFaint ? 0.3 : undefined}>
      <MeetingMark met={one.target.met} {x} {y} r={radius} />
    </g>
  {/if}
{/each}
