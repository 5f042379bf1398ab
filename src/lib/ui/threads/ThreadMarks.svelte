<!-- What is written over the target line: targets inside a change, what leads in, how they were met, how far it moves. -->
<script lang="ts">
  import { nth } from '$lib/core/base/list';
  import type { ApproachNote } from '$lib/core/line/approach-notes';
  import type { Target } from '$lib/core/targets/path';
  import { settings } from '$lib/state/settings.svelte';
  import type { MetChange } from '$lib/state/stand/landings.svelte';
  import MeetingMark from '../takes/MeetingMark.svelte';
  import { stepWords, TONE_INSET, type Column, type ThreadsLayout } from './layout';

  interface Props {
    layout: ThreadsLayout;
    height: number;
    columns: readonly Column[];
    targets: readonly Target[];
    approachNotes: Iterable<readonly [number, readonly ApproachNote[]]>;
    met: ReadonlyMap<number, MetChange> | undefined;
    /** x of a beat within a change. */
    timeOf: (change: number, beat: number) => number;
    isSeen: (change: number) => boolean;
  }
  let { layout, height, columns, targets, approachNotes, met, timeOf, isSeen }: Props = $props();

  /** Where in its column a mark stands: beside the lowest tone. */
  const BESIDE = TONE_INSET + 22;

  /** Targets inside a change, where there are several. */
  const later = $derived(targets.filter(({ change, beat }) => beat > 1 && isSeen(change)));

  /** The step into each target, written where the line bends. */
  const steps = $derived(
    targets.flatMap(({ change, beat, cell, step }, i) => {
      const before = targets[i - 1];
      if (!before || !step || beat > 1 || !isSeen(change)) return [];
      const x = nth(layout.columns, change).x - 8;
      const y = (layout.pitch(before.cell.midi) + layout.pitch(cell.midi)) / 2;
      return [
        { change, x, y: y + (Math.abs(step.semitones) < 3 ? -13 : 0), words: stepWords(step.semitones) }
      ];
    })
  );
</script>

{#each later as { change, beat, cell, isFixed } (`${change}:${beat}`)}
  {@const x = timeOf(change, beat) + TONE_INSET}
  <g class="pointer-events-none" data-later="{change}:{beat}">
    <circle
      cx={x}
      cy={layout.pitch(cell.midi)}
      r="9.5"
      class="fill-target {isFixed ? 'stroke-ink' : ''}"
      stroke-width={isFixed ? 2 : 0}
    />
    <text
      {x}
      y={layout.pitch(cell.midi) + 3.6}
      text-anchor="middle"
      font-size="10"
      class="fill-on-target font-bold">{settings.label(cell)}</text
    >
  </g>
{/each}

{#each approachNotes as [i, notes] (i)}
  {#each notes.filter(({ change }) => isSeen(change)) as note (note.beat)}
    {@const x = timeOf(note.change, note.beat) + 4}
    {@const y = layout.pitch(note.midi)}
    <path
      d="M{x - 4} {y - 5}L{x + 6} {y}L{x - 4} {y + 5}Z"
      class="pointer-events-none fill-target"
      data-approach={note.kind}
    />
  {/each}
{/each}

{#if met}
  {#each columns as { index, x } (index)}
    {@const own = met.get(index)}
    {#if own}
      <g class="pointer-events-none" opacity={own.isPast ? 0.4 : 1} data-met-at={index}>
        <MeetingMark met={own.met} x={x + BESIDE} y={height - 10} r={7} />
      </g>
    {/if}
  {/each}
{/if}

{#each steps as step (step.change)}
  <g class="pointer-events-none">
    <rect x={step.x - 17} y={step.y - 9} width="34" height="16" rx="8" class="fill-surface stroke-line" />
    <text x={step.x} y={step.y + 3} text-anchor="middle" font-size="11" class="fill-ink font-bold">
      {step.words}
    </text>
  </g>
{/each}
