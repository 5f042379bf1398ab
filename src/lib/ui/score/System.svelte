<!-- One system: staff and tab as they were engraved; over them chords, degrees, targets, the beat, and what is being written. -->
<script lang="ts">
  import { firstOf, lastOf, nth } from '$lib/core/base/list';
  import { prettyDegree } from '$lib/core/theory/typeset';
  import ChordText from '../chord/ChordText.svelte';
  import { engrave, type Engraved, type Engraving } from './engrave';
  import { TAB_GAP, type System } from './layout';
  import type { ScoreMarks } from './marks';
  import { timeAt, xAt } from './times';

  interface Props {
    system: System;
    engraving: Engraving;
    marks: ScoreMarks;
    onpick?: ((ticks: number, string: number) => void) | undefined;
  }
  let { system, engraving, marks, onpick }: Props = $props();

  let engraved: Engraved | null = $state.raw(null);
  const from = $derived(firstOf(system.bars).start);
  const end = $derived(lastOf(system.bars).start + lastOf(system.bars).length);
  const width = $derived(system.widths.reduce((a, b) => a + b, 0));
  const isHere = (ticks: number | null) => ticks !== null && ticks >= from && ticks < end;
  const chords = $derived(marks.chords.filter(({ start }) => isHere(start)));
  const tabEnd = $derived(system.tabAt + (engraving.strings - 1) * TAB_GAP);
  const top = $derived(system.chordsAt + 8);
  /** A stretch of time as it is seen here; null where it is elsewhere. */
  function span(stretch: { readonly from: number; readonly to: number } | null, drawn: Engraved) {
    if (!stretch || stretch.to <= from || stretch.from >= end) return null;
    const left = xAt(drawn, Math.max(from, stretch.from)) - 9;
    return { x: left, width: Math.max(14, xAt(drawn, Math.min(end, stretch.to)) - 9 - left) };
  }

  function pick(event: MouseEvent & { currentTarget: Element }) {
    if (!engraved || !onpick) return;
    const box = event.currentTarget.getBoundingClientRect();
    const string = 1 + Math.round((event.clientY - box.top - system.tabAt) / TAB_GAP);
    onpick(timeAt(engraved, event.clientX - box.left), Math.min(engraving.strings, Math.max(1, string)));
  }
</script>

<!-- svelte-ignore a11y_no_static_element_interactions, a11y_click_events_have_key_events -->
<div class="relative" style:height="{system.height}px" style:width="{width}px" onclick={pick}>
  <div
    class="engraved absolute inset-0"
    {@attach (element) => {
      engraved = engrave(element, system, engraving);
    }}
  ></div>
  {#if engraved}
    {@const drawn = engraved}
    {@const selected = span(marks.selected, drawn)}
    <svg class="pointer-events-none absolute inset-0 block" {width} height={system.height} aria-hidden="true">
      {#if selected}
        <rect
          x={selected.x}
          width={selected.width}
          y={top}
          height={tabEnd + 8 - top}
          rx="4"
          class="fill-next/15 stroke-next"
          data-selected
        />
      {/if}
      {#each drawn.bars as bar, i (bar.start)}
        {#if (i === 0 || marks.numbersAll) && nth(system.bars, i).number > 0}
          <text x={i === 0 ? 2 : bar.from - 20} y={system.staffAt - 6} font-size="11" class="fill-soft"
            >{nth(system.bars, i).number}</text
          >
        {/if}
      {/each}
      {#each chords as chord (chord.index)}
        {@const x = xAt(drawn, chord.start)}
        {#if chord.index === marks.change}
          <rect
            x={x - 9}
            y="2"
            width={Math.max(22, chord.symbol.length * 12)}
            height="26"
            rx="4"
            class="fill-lit"
          />
          <rect
            x={x - 9}
            y="0"
            width={Math.max(22, chord.symbol.length * 12)}
            height="3"
            class="fill-target"
          />
        {/if}
        <ChordText symbol={chord.symbol} x={x - 6} y={system.chordsAt + 3} size={19} class="fill-ink" />
      {/each}
      {#each drawn.anchors as anchor (anchor.start)}
        {#if anchor.isFirst}
          {@const isTarget = anchor.notes.some(engraving.isTarget)}
          {@const degrees = anchor.indexes.map((index) => marks.degrees?.[index] ?? '')}
          {#if marks.degrees}
            {#if isTarget}
              <rect
                x={anchor.x - 12}
                y={system.degreesAt - 12}
                width="24"
                height={degrees.length > 1 ? 30 : 17}
                rx="5"
                class="fill-target"
              />
            {/if}
            {#each degrees as degree, i (i)}
              <text
                x={anchor.x}
                y={system.degreesAt + 13 * (degrees.length - 1 - i)}
                font-size="12"
                text-anchor="middle"
                class="font-bold {isTarget ? 'fill-on-target' : 'fill-soft'}"
                >{degree ? prettyDegree(degree) : '–'}</text
              >
            {/each}
          {:else if isTarget}
            <path
              d="M{anchor.x - 5} {tabEnd + 14}L{anchor.x} {tabEnd + 7}L{anchor.x + 5} {tabEnd + 14}Z"
              class="fill-target"
            />
          {/if}
          {#if marks.lit === anchor.start}
            <rect
              x={anchor.x - 11}
              y={system.tabAt - 9}
              width="22"
              height={tabEnd - system.tabAt + 18}
              rx="6"
              class="fill-none stroke-ink"
              stroke-width="2"
              data-lit
            />
          {/if}
        {/if}
      {/each}
      {#if isHere(marks.time)}
        {@const x = xAt(drawn, marks.time!)}
        <line x1={x} x2={x} y1={top} y2={tabEnd + 6} class="stroke-ink" stroke-width="2" data-playhead />
      {/if}
      {#if marks.caret && isHere(marks.caret.at)}
        {@const x = xAt(drawn, marks.caret.at)}
        {@const y = system.tabAt + (marks.caret.string - 1) * TAB_GAP}
        <line x1={x} x2={x} y1={top} y2={tabEnd + 6} class="stroke-next" stroke-width="1.5" />
        <rect
          x={x - 10}
          y={y - 9}
          width="20"
          height="18"
          rx="4"
          class="fill-none stroke-next"
          stroke-width="2.5"
          data-caret="{marks.caret.string}:{marks.caret.at}"
        />
      {/if}
    </svg>
  {/if}
</div>

<style>
  /* What the engraver paints in its own black and grey takes the theme's ink; what it was told to paint otherwise stays. */
  .engraved :global(.vf-stem path),
  .engraved :global(.vf-flag path) {
    stroke: var(--ink);
  }

  .engraved :global(path[stroke^='#']) {
    stroke: var(--soft);
  }
</style>
