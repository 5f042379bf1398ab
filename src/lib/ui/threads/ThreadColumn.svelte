<!-- One change in Threads: its chord tones at their pitch heights, the target among them. Drawn into the drawing. -->
<script lang="ts">
  import type { NamedCell } from '$lib/core/neck/shape';
  import type { Target } from '$lib/core/targets/path';
  import type { Mark } from '$lib/core/moment/moment';
  import { settings } from '$lib/state/settings.svelte';
  import { circlePath } from '../kit/circles';
  import { layOutTones, TONE_INSET, type Column, type ThreadsLayout } from './layout';

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
  /** By itself: where a new line lands here as the one before did, nothing is laid out again. */
  const landing = $derived(target?.cell.midi);
  /** Worked out together: a reading of its own for each note and each of its sides would cost more than the drawing. */
  const drawn = $derived(
    layOutTones(tones, landing, layout.pitch).map(({ tone, place, aside, y }) => {
      const isTarget = tone.midi === landing;
      return {
        tone,
        place,
        x: column.x + TONE_INSET + aside,
        y,
        isTarget,
        isLit: isTarget || tone.midi === aimed,
        label: settings.label(tone)
      };
    })
  );
  const lit = $derived(drawn.filter(({ isLit }) => isLit));
  const discs = $derived(circlePath(drawn.flatMap(({ isLit, x, y }) => (isLit ? [] : [{ x, y, r: 8 }]))));
  const pinned = $derived(target?.isFixed ? lit.find(({ isTarget }) => isTarget) : undefined);
  const lacking = $derived(
    target && !tones.some(({ midi }) => midi === target.cell.midi) ? target.cell : null
  );
</script>

<!--
  The discs of a column are one path: a shape for each of them would be asked for its style and laid out by itself whenever the
  hand moves. With a rim that is not seen, so that each is as large as a finger.
-->
<path
  d={discs}
  class="fill-tone"
  fill-opacity={isNear ? undefined : 0.8}
  stroke="transparent"
  stroke-width="8"
  data-drag
/>
{#each lit as { x, y, isTarget }, i (i)}
  <circle
    cx={x}
    cy={y}
    r={isTarget ? 12 : 11}
    class="fill-target"
    stroke="transparent"
    stroke-width={isTarget ? 20 : 8}
    data-drag
  />
{/each}
{#if pinned}
  <rect
    x={pinned.x - 15}
    y={pinned.y - 15}
    width="30"
    height="30"
    rx="5"
    class="pointer-events-none fill-none stroke-target"
    stroke-width="2"
    data-pinned
  />
{/if}
<!-- By string: where the hand moves, what is written is moved rather than made anew, and what stays is left alone. -->
{#each drawn as { tone, place, x, y, isTarget, isLit, label } (place)}
  <text
    {x}
    y={y + (isTarget ? 4 : 3.4)}
    text-anchor="middle"
    font-size={isTarget ? 12 : 9.5}
    class="font-bold {isLit ? 'fill-on-target' : 'fill-on-tone'}"
    data-drag
    data-tone={tone.midi}
    data-degree={tone.degree}
    data-target={isTarget || undefined}>{label}</text
  >
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
{#if lacking}
  <circle
    cx={column.x + TONE_INSET}
    cy={layout.pitch(lacking.midi)}
    r="11"
    class="fill-surface stroke-target"
    stroke-width="3"
  />
  <text
    x={column.x + TONE_INSET}
    y={layout.pitch(lacking.midi) + 3.8}
    text-anchor="middle"
    font-size="11"
    class="pointer-events-none fill-ink font-bold">{settings.label(lacking)}</text
  >
{/if}
