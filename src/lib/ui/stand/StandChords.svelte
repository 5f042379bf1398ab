<!-- This chord with its target and the beats that are left of it, and the next one, which comes to the foreground in time. -->
<script lang="ts">
  import { onMount } from 'svelte';
  import { remarksOf } from '$lib/core/chart/writing/remarks';
  import { prettyDegree } from '$lib/core/theory/typeset';
  import type { Rehearsal } from '$lib/state/stand/rehearsal.svelte';
  import type { MetChange } from '$lib/state/stand/landings.svelte';
  import { settings } from '$lib/state/settings.svelte';
  import ChordSymbol from '../chord/ChordSymbol.svelte';
  import MeetingMark from '../takes/MeetingMark.svelte';
  import { MEETING_WORDS } from '../takes/words';
  import { rowFor, type StandSizes } from './fit';

  interface Props {
    rehearsal: Rehearsal;
    sizes: StandSizes;
    width: number;
    /** How the change that sounds was met. */
    met?: MetChange | undefined;
  }
  let { rehearsal, sizes, width, met }: Props = $props();

  /** How much larger the next chord stands once it is coming. */
  const COMING = 1.28;
  /** Symbols whose width is measured: a tune has some dozens. */
  const MOST_MEASURED = 80;
  const GAP = 20;
  const PADDING = 14;

  const shown = $derived(rehearsal.picture.shown);
  const now = $derived(rehearsal.picture.change?.source ?? shown.change);
  const next = $derived(rehearsal.picture.next?.source);
  /** What the player has noted to the bar in which the change begins. */
  const remarks = $derived(remarksOf(shown.sheet.reading.chart, shown.sheet.form));
  const remark = $derived(
    remarks
      .filter(({ change }) => change === now?.index)
      .map(({ text }) => text)
      .join(' · ')
  );
  const isTold = $derived(rehearsal.picture.hides === 'nothing');
  const target = $derived(isTold && now ? shown.paths.targets.get(now.index) : undefined);
  const nextTarget = $derived(isTold && next ? shown.paths.targets.get(next.index) : undefined);
  const share = $derived(
    rehearsal.transport.isPlaying && rehearsal.picture.change
      ? rehearsal.picture.left / rehearsal.picture.change.beats
      : 1
  );
  const symbols = $derived(
    [...new Set((rehearsal.picture.now?.excerpt.changes ?? []).map(({ source }) => source.symbol))].slice(
      0,
      MOST_MEASURED
    )
  );

  let probe: HTMLElement | undefined = $state();
  /** Of the widest symbol, at a letter's height of one pixel. */
  let widest = $state(3);
  function measure() {
    const wide = [...(probe?.children ?? [])].map((child) => child.getBoundingClientRect().width);
    if (wide.length > 0) widest = Math.max(...wide) / 100;
  }
  $effect(() => {
    void symbols;
    measure();
  });
  // Letters are as wide as their face, once it is here.
  onMount(() => void document.fonts.ready.then(measure));

  const told = $derived(Math.max(sizes.degree * 1.25, sizes.chord * 0.36));
  const beats = $derived(sizes.chord * 0.9);
  const row = $derived(
    rowFor({
      width: width - 2 * PADDING,
      chord: widest * sizes.chord + GAP,
      next: (widest * sizes.next + told * 1.7) * COMING + 2 * GAP,
      beats: beats + GAP,
      target: [told * 1.5 + GAP, told * 3 + GAP, told * 5 + GAP]
    })
  );
  const letter = $derived(sizes.chord * row.shrunk);
</script>

<div
  class="relative flex overflow-hidden card {row.isStacked ? 'flex-col' : 'items-center'}"
  style:padding="0 {PADDING}px"
  style:column-gap="{GAP}px"
  aria-live="off"
  data-stand-chords
>
  <!-- Beats until the change, seen from the corner of the eye: the light runs out towards the next chord. -->
  <div
    class="absolute inset-y-0 left-0 bg-lit"
    style:width="{share * 100}%"
    data-left={rehearsal.picture.left.toFixed(2)}
  ></div>
  <div class="relative flex min-w-0 items-center" style:column-gap="{GAP}px">
    {#if rehearsal.transport.isPlaying}
      <span
        class="shrink-0 text-center font-bold tabular-nums {rehearsal.picture.counting ? 'text-target' : ''}"
        style:width="{beats}px"
        style:font-size="{sizes.chord * 0.62}px"
        style:line-height="1.2"
        role="timer"
        aria-label={rehearsal.picture.counting ? 'Beats until the start' : 'Beats until the change'}
        data-beats
        >{rehearsal.picture.counting ||
          (rehearsal.transport.isPlaying ? Math.ceil(rehearsal.picture.left - 1e-6) : '')}</span
      >
    {/if}
    <span
      class="whitespace-nowrap"
      style:font-size="{letter}px"
      style:line-height="{sizes.chord * 1.16}px"
      data-now={now?.symbol}><ChordSymbol symbol={now?.symbol ?? '—'} /></span
    >
    {#if target}
      <span class="font-bold whitespace-nowrap text-target" style:font-size="{told}px" data-stand-target
        >{prettyDegree(target.cell.degree)}{#if row.withNote}&ensp;{settings.note(
            target.cell.note
          )}{/if}{#if row.withPlace}&ensp;<span class="font-normal"
            >{target.cell.string}:{target.cell.fret}</span
          >{/if}</span
      >
    {/if}
    {#if remark}
      <span
        class="min-w-0 truncate text-soft italic"
        style:font-size="{Math.max(14, told * 0.6)}px"
        data-stand-remark>{remark}</span
      >
    {/if}
    {#if met && !met.isPast}
      <svg
        class="shrink-0"
        width={told}
        height={told}
        viewBox="0 0 16 16"
        role="img"
        aria-label={MEETING_WORDS[met.met]}
        data-met-now={met.met}><MeetingMark met={met.met} /></svg
      >
    {/if}
  </div>
  {#if next}
    <div
      class="relative ml-auto flex items-baseline whitespace-nowrap text-next transition-[font-size] duration-150 motion-reduce:transition-none"
      style:column-gap="{told * 0.5}px"
      style:font-size="{sizes.next * (rehearsal.picture.isComing ? COMING : 1)}px"
      style:line-height="{sizes.next * COMING * 1.16}px"
      data-next={next.symbol}
      data-coming={rehearsal.picture.isComing || undefined}
    >
      <ChordSymbol symbol={next.symbol} />
      {#if nextTarget && (rehearsal.picture.isComing || !rehearsal.transport.isPlaying)}
        <span class="font-bold" style:font-size="{told}px" data-next-target
          >{prettyDegree(nextTarget.cell.degree)}</span
        >
      {/if}
    </div>
  {/if}
  <div
    bind:this={probe}
    class="invisible absolute top-0 left-0 h-0 overflow-hidden text-[100px]"
    aria-hidden="true"
  >
    {#each symbols as symbol (symbol)}<span class="absolute whitespace-nowrap"><ChordSymbol {symbol} /></span
      >{/each}
  </div>
</div>
