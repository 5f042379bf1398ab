<!-- One change in Threads: its chord tones at their pitch heights, the target among them. Drawn into the drawing. -->
<script lang="ts">
  import type { NamedCell } from '$lib/core/neck/shape';
  import type { Target } from '$lib/core/targets/path';
  import type { Mark } from '$lib/core/moment/moment';
  import { settings } from '$lib/state/settings.svelte';
  import { placesOf, standAside, TONE_INSET, type Column, type ThreadsLayout } from './layout';

  interface Props {
    layout: ThreadsLayout;
    column: Column;
    tones: readonly NamedCell[];
    target: Target | undefined;
    /** The tone that the player holds the line to. */
    aimed: number | null;
    /** The change of the moment or the next one. */
    isNear: boolean;
    /** What is played beside the chord tones, on the change of the moment. */
    colours: readonly Mark[];
  }
  let { layout, column, tones, target, aimed, isNear, colours }: Props = $props();
  const places = $derived(placesOf(tones));
  const side = $derived(
    standAside(
      tones.map(({ midi }) => midi),
      target?.cell.midi,
      layout.pitch
    )
  );
</script>

<!--
  By string: where the hand moves, notes are moved rather than made anew, and those that stay are left alone. Placed by coordinates: a transform
  of its own makes every tone a layer that the browser has to keep apart with each picture.
-->
{#each tones as tone, i (places[i])}
  {@const isTarget = target?.cell.midi === tone.midi}
  {@const isAimed = aimed === tone.midi}
  {@const x = column.x + TONE_INSET + side[i]!}
  {@const y = layout.pitch(tone.midi)}
  <g
    aria-hidden="true"
    data-drag
    data-tone={tone.midi}
    data-degree={tone.degree}
    data-string={tone.string}
    data-fret={tone.fret}
    data-target={isTarget || undefined}
  >
    {#if isTarget && target.isFixed}
      <rect
        x={x - 15}
        y={y - 15}
        width="30"
        height="30"
        rx="5"
        fill="none"
        class="stroke-target"
        stroke-width="2"
      />
    {/if}
    <!-- With a rim that is not seen, as large as a finger. -->
    <circle
      cx={x}
      cy={y}
      r={isTarget ? 12 : isAimed ? 11 : 8}
      class={isTarget || isAimed ? 'fill-target' : 'fill-tone'}
      fill-opacity={isTarget || isAimed || isNear ? undefined : 0.8}
      stroke="transparent"
      stroke-width={isTarget ? 20 : 8}
    />
    <text
      {x}
      y={y + (isTarget ? 4 : 3.4)}
      text-anchor="middle"
      font-size={isTarget ? 12 : 9.5}
      class="pointer-events-none font-bold {isTarget || isAimed ? 'fill-on-target' : 'fill-on-tone'}"
    >
      {settings.label(tone)}
    </text>
  </g>
{/each}
{#each colours as mark, i (i)}
  <circle
    cx={column.x + column.width - 9}
    cy={layout.pitch(mark.midi)}
    r={mark.role === 'tension' ? 3.6 : 2}
    class={mark.role === 'tension' ? 'fill-surface stroke-tone' : 'fill-soft'}
    stroke-width="1.3"
    data-colour={mark.degree}
  />
{/each}
{#if target && !tones.some(({ midi }) => midi === target.cell.midi)}
  <circle
    cx={column.x + TONE_INSET}
    cy={layout.pitch(target.cell.midi)}
    r="11"
    class="fill-surface stroke-target"
    stroke-width="3"
  />
  <text
    x={column.x + TONE_INSET}
    y={layout.pitch(target.cell.midi) + 3.8}
    text-anchor="middle"
    font-size="11"
    class="pointer-events-none fill-ink font-bold">{settings.label(target.cell)}</text
  >
{/if}
