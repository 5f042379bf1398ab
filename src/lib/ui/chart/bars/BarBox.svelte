<!-- One bar: its number, its chords at their beats, its marks; at the caret the field that is typed in. -->
<script lang="ts">
  import type { ChartProblem } from '$lib/core/chart/model';
  import type { WrittenBar } from '$lib/core/chart/writing/bars';
  import ChordSymbol from '../../chord/ChordSymbol.svelte';
  import { barWords } from './words';

  interface Props {
    bar: WrittenBar;
    /** Beat of the caret; null where it stands elsewhere. */
    caret: number | null;
    isSelected: boolean;
    /** A dragged thing would be dropped here, that far into the bar. */
    dropAt: number | null;
    problems: readonly ChartProblem[];
    field: import('svelte').Snippet<[label: string]>;
    onpress: (beat: number, isExtending: boolean) => void;
  }
  let { bar, caret, isSelected, dropAt, problems, field, onpress }: Props = $props();

  /** Chords, what is held over at the start, and the caret, each with its share of the bar. */
  const parts = $derived.by(() => {
    const places = bar.chords.map(({ beat, symbol }, index) => ({ beat, symbol, index }));
    const isNew = caret !== null && !places.some(({ beat }) => Math.abs(beat - caret) < 0.01);
    const all = isNew ? [...places, { beat: caret, symbol: '', index: -1 }] : places;
    const sorted = all.sort((a, b) => a.beat - b.beat);
    const held = sorted[0] && sorted[0].beat > 0 ? [{ beat: 0, symbol: '', index: -2 }] : [];
    return [...held, ...sorted].map((part, i, list) => ({
      ...part,
      share: (list[i + 1]?.beat ?? bar.meter.beats) - part.beat
    }));
  });
  const isCaret = (beat: number) => caret !== null && Math.abs(beat - caret) < 0.01;
  const words = $derived(
    barWords(bar) + (problems.length ? `. ${problems.map(({ message }) => message).join(' ')}` : '')
  );

  function press(event: MouseEvent) {
    const target = event.target as Element;
    const beat = target.closest('[data-beat]')?.getAttribute('data-beat');
    onpress(beat === null || beat === undefined ? (bar.chords[0]?.beat ?? 0) : Number(beat), event.shiftKey);
  }
</script>

<!-- The bar is pressed by its button; a press anywhere else in it, with a pointer, is the same. -->
<!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_static_element_interactions -->
<div
  class="relative flex min-h-15 min-w-0 flex-col border-b border-line pt-4 pr-1 pb-1 pl-2 {isSelected
    ? 'bg-lit'
    : ''} {problems.length ? 'inset-ring-2 inset-ring-warn' : ''} {bar.opensSection
    ? 'col-start-1 border-l-2 border-l-ink'
    : 'border-l border-l-edge'}"
  data-bar={bar.index}
  data-section={bar.opensSection ? bar.section : undefined}
  aria-current={caret !== null ? 'true' : undefined}
  onclick={press}
>
  <span
    class="pointer-events-none absolute inset-x-1.5 top-0 z-10 flex items-baseline gap-1.5 text-2xs text-soft"
  >
    <span class="pointer-events-auto cursor-grab px-0.5 tabular-nums select-none" data-grip data-drag
      >{bar.index + 1}</span
    >
    {#if bar.opensSection && bar.section}<b class="max-w-28 shrink-0 truncate rounded bg-ink px-1 text-paper"
        >{bar.section}</b
      >{/if}
    {#if bar.leftWord}<i class="font-display text-ink">{bar.leftWord}</i>{/if}
    {#if bar.changesMeter}<b class="text-ink">{bar.meter.beats}/{bar.meter.unit}</b>{/if}
    {#if bar.ending.length}<b class="border-t border-l border-ink px-1 text-ink">{bar.ending.join(', ')}.</b
      >{/if}
    {#if bar.notes.length}<span class="min-w-0 truncate text-ink italic" title={bar.notes.join('\n')}
        >{bar.notes.join(' · ')}</span
      >{/if}
    {#if bar.rightWord}<i class="ml-auto font-display text-ink">{bar.rightWord}</i>{/if}
  </span>
  {#if bar.repeatStart}<span
      class="absolute top-4 bottom-1 left-0 w-1.5 border-l-4 border-double border-ink"
      aria-hidden="true"
    ></span>{/if}
  {#if bar.repeatEnd || bar.style !== 'single'}<span
      class="absolute top-4 right-0 bottom-1 w-1.5 border-r-4 border-ink {bar.repeatEnd
        ? 'border-double'
        : bar.style === 'double'
          ? 'border-double opacity-60'
          : ''}"
      aria-hidden="true"
    ></span>{/if}
  {#if bar.repeatStart}<span class="absolute top-1/2 left-2 text-sm leading-none text-ink" aria-hidden="true"
      >:</span
    >{/if}
  {#if bar.repeatEnd}<span class="absolute top-1/2 right-2 text-sm leading-none text-ink" aria-hidden="true"
      >:</span
    >{/if}
  {#if caret === null}
    <button type="button" class="absolute inset-0 rounded" tabindex="-1" aria-label={words} data-bar-button
    ></button>
  {/if}
  <div
    class="relative z-10 flex flex-1 items-center {bar.repeatStart ? 'pl-2' : ''} {caret === null
      ? 'pointer-events-none'
      : ''}"
  >
    {#each parts as part (part.index)}
      <span
        class="min-w-0 {caret === null ? 'pointer-events-auto' : ''}"
        style:flex="{part.share} 1 0"
        data-beat={part.beat}
        data-chord={part.index >= 0 && !isCaret(part.beat) ? part.index : undefined}
        data-drag={part.index >= 0 && !isCaret(part.beat) ? '' : undefined}
      >
        {#if isCaret(part.beat)}
          {@render field(`Bar ${bar.index + 1}, beat ${Math.round((part.beat + 1) * 100) / 100}: chord`)}
        {:else if part.symbol}
          <span class="block cursor-pointer text-lg leading-7 select-none"
            ><ChordSymbol symbol={part.symbol} /></span
          >
        {:else if part.index === -2}<span class="text-soft" aria-hidden="true">·</span>{/if}
      </span>
    {:else}
      <span class="text-lg text-soft" aria-hidden="true">{bar.repeats ? '%'.repeat(bar.repeats) : '–'}</span>
    {/each}
  </div>
  {#if dropAt !== null}<span
      class="pointer-events-none absolute inset-y-0 w-1 rounded bg-target"
      style:left="{dropAt * 100}%"
      data-drop-mark
    ></span>{/if}
</div>
