<script lang="ts" module>
  import type { Verdict } from '$lib/core/line/outline';

  /** What a listener hears at a change. */
  export interface HeardChange {
    readonly verdict?: Verdict | undefined;
    /** The chord, as the key names it; empty where none is heard. */
    readonly symbol: string;
    /** How its target was met, in words. */
    readonly met?: string;
  }
</script>

<!-- Below a drawing in time: what a listener hears at each change, to be pressed. Tab comes to one of them, arrows walk from there. -->
<script lang="ts">
  import { nth } from '$lib/core/base/list';
  import type { AnalysedChange } from '$lib/core/harmony/analysis';
  import { prettySymbol } from '$lib/core/theory/typeset';
  import ChordSymbol from '../chord/ChordSymbol.svelte';
  import type { Column } from '../threads/layout';
  import { VERDICT_WORDS } from './looks';
  import VerdictMark from './VerdictMark.svelte';

  interface Props {
    columns: readonly Column[];
    /** Of the whole drawing, and of what stands before the first change, in pixels. */
    width: number;
    lead?: number;
    changes: readonly AnalysedChange[];
    /** Null where the change was not reached. */
    heardAt: (change: number) => HeardChange | null;
    selected: number;
    onselect: (change: number) => void;
  }
  let { columns, width, lead = 0, changes, heardAt, selected, onselect }: Props = $props();
  /** Pixels of a change in which a name stands in full size. */
  const WIDE = 90;

  const stop = $derived(
    columns.some(({ index }) => index === selected) ? selected : (columns[0]?.index ?? 0)
  );
  let strip: HTMLElement | undefined = $state();
  function walk(event: KeyboardEvent, from: number) {
    const by = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0;
    if (by === 0 || !changes[from + by]) return;
    event.preventDefault();
    event.stopPropagation();
    onselect(from + by);
    requestAnimationFrame(() => strip?.querySelector<HTMLElement>(`[data-heard="${from + by}"]`)?.focus());
  }

  function describe(change: number, heard: HeardChange | null): string {
    const { symbol, bar } = nth(changes, change);
    return [
      `${prettySymbol(symbol)}, bar ${bar}`,
      heard?.met ? `, ${heard.met}` : '',
      heard?.symbol ? `, heard as ${prettySymbol(heard.symbol)}` : '',
      heard?.verdict ? `: ${VERDICT_WORDS[heard.verdict]}` : ''
    ].join('');
  }
</script>

<div
  class="relative h-12 border-t border-line"
  style:width="{width}px"
  bind:this={strip}
  role="toolbar"
  aria-label="What is heard, change by change"
  data-outline-strip
>
  {#each columns as column (column.index)}
    {@const heard = heardAt(column.index)}
    {@const isWide = column.width >= WIDE}
    <button
      class="absolute inset-y-0 flex items-center overflow-hidden border-l border-line text-left {isWide
        ? 'gap-1.5 px-1.5'
        : 'gap-0.5 px-0.5'} {column.index === selected ? 'bg-lit' : ''}"
      style:left="{column.x + lead}px"
      style:width="{column.width}px"
      aria-label={describe(column.index, heard)}
      aria-current={column.index === selected ? 'true' : undefined}
      tabindex={column.index === stop ? 0 : -1}
      onkeydown={(event) => walk(event, column.index)}
      data-heard={column.index}
      onclick={() => onselect(column.index)}
    >
      {#if heard?.verdict}<VerdictMark verdict={heard.verdict} />{/if}
      {#if heard}
        <span
          class="truncate leading-6 {isWide ? 'text-lg' : 'text-sm'} {heard.verdict === 'clear'
            ? ''
            : 'text-soft'}"
          aria-hidden="true"
        >
          <ChordSymbol symbol={heard.symbol} />
        </span>
      {/if}
    </button>
  {/each}
</div>
