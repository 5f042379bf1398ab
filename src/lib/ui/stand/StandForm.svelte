<!-- The form, for a player who has lost the place: its bars with their chords, the one that sounds lit; a long form by the page. -->
<script lang="ts">
  import { group } from 'd3-array';
  import type { Rehearsal } from '$lib/state/stand/rehearsal.svelte';
  import ChordSymbol from '../chord/ChordSymbol.svelte';
  import type { StandSizes } from './fit';

  interface Props {
    rehearsal: Rehearsal;
    sizes: StandSizes;
    width: number;
    height: number;
  }
  let { rehearsal, sizes, width, height }: Props = $props();

  const shown = $derived(rehearsal.picture.shown);
  const bars = $derived(shown.sheet.form.bars);
  const changesOf = $derived(group(shown.changes, ({ bar }) => bar));
  const here = $derived(rehearsal.picture.change?.source.bar ?? 1);
  /** The bar that sounds: a chord may last for several. */
  const sounding = $derived.by(() => {
    const { change, written } = rehearsal.picture;
    if (!rehearsal.transport.isPlaying || !change) return here;
    const beat =
      change.source.start + Math.min(change.source.beats - 1e-6, Math.max(0, written - change.start));
    return bars.findLast(({ start }) => start <= beat + 1e-9)?.number ?? here;
  });
  const columns = $derived(width < 520 ? 2 : width < 1500 ? 4 : 8);
  /** A row holds a chord that can be read from the stand. */
  const least = $derived(sizes.degree * 2.6);
  const rows = $derived(Math.max(1, Math.min(Math.ceil(bars.length / columns), Math.floor(height / least))));
  const page = $derived(Math.floor((sounding - 1) / (rows * columns)));
  const seen = $derived(bars.slice(page * rows * columns, (page + 1) * rows * columns));
  const rowHeight = $derived(Math.min(height / rows, sizes.degree * 4.5));
  const size = $derived(Math.min(rowHeight * 0.42, (width / columns) * 0.17, sizes.degree * 1.7));
</script>

<div
  class="grid h-full content-center"
  style="grid-template-columns: repeat({columns}, minmax(0, 1fr))"
  role="group"
  aria-label="The form, bar {sounding} of {bars.length}"
  data-stand-form={sounding}
>
  {#each seen as bar (bar.number)}
    {@const isNow = bar.number === sounding}
    {@const opens = bar.section !== '' && bar.section !== bars[bar.number - 2]?.section}
    <div
      class="relative flex items-center overflow-hidden border-l-2 px-2 {isNow
        ? 'rounded-lg border-target bg-target text-on-target'
        : opens
          ? 'border-soft'
          : 'border-line'}"
      style:height="{rowHeight}px"
      data-form-bar={bar.number}
      aria-current={isNow ? 'true' : undefined}
    >
      <span class="absolute top-0 left-2 {isNow ? '' : 'text-soft'}" style:font-size="{sizes.fret}px"
        >{bar.number}{#if opens}&nbsp;<b>{bar.section}</b>{/if}</span
      >
      {#each changesOf.get(bar.number) ?? [] as change (change.index)}
        <span
          class="min-w-0 flex-1 overflow-hidden leading-tight whitespace-nowrap"
          style:font-size="{size}px"
          style:padding-top="{sizes.fret * 0.6}px"><ChordSymbol symbol={change.symbol} /></span
        >
      {:else}
        <span class="text-soft" style:font-size="{size}px">–</span>
      {/each}
    </div>
  {/each}
</div>
