<!-- Below the drawing of a take: what the line said of each change, to be pressed. -->
<script lang="ts">
  import { nth } from '$lib/core/base/list';
  import type { Key } from '$lib/core/harmony/key';
  import type { AnalysedChange } from '$lib/core/harmony/analysis';
  import { heardIn } from '$lib/core/line/heard-name';
  import type { JudgedChange } from '$lib/core/takes/judge/judge';
  import { prettySymbol } from '$lib/core/theory/typeset';
  import ChordSymbol from '../chord/ChordSymbol.svelte';
  import { VERDICT_WORDS } from '../lines/looks';
  import VerdictMark from '../lines/VerdictMark.svelte';
  import type { Column } from '../threads/layout';
  import { lateWords, MEETING_WORDS } from './words';

  interface Props {
    columns: readonly Column[];
    width: number;
    changes: readonly AnalysedChange[];
    key: Key;
    byChange: ReadonlyMap<number, JudgedChange>;
    selected: number;
    onselect: (index: number) => void;
  }
  let { columns, width, changes, key, byChange, selected, onselect }: Props = $props();
  /** Pixels of a change in which a name stands in full size. */
  const WIDE = 90;

  function heardName(one: JudgedChange): string {
    const [heard] = one.heard;
    if (one.verdict === 'clear') return nth(changes, one.change).symbol;
    return heard ? heardIn(key, heard) : '';
  }
  function describe(index: number): string {
    const { symbol, bar } = nth(changes, index);
    const one = byChange.get(index);
    const met = one?.target
      ? `, ${MEETING_WORDS[one.target.met]}${one.target.late === null ? '' : `, ${lateWords(one.target.late)}`}`
      : '';
    const heardAs = one?.heard[0] ? `, heard as ${prettySymbol(heardName(one))}` : '';
    return `${prettySymbol(symbol)}, bar ${bar}${met}${heardAs}${one ? `: ${VERDICT_WORDS[one.verdict]}` : ''}`;
  }
</script>

<div class="relative h-12 border-t border-line" style:width="{width}px" data-outline-strip>
  {#each columns as column (column.index)}
    {@const one = byChange.get(column.index)}
    <button
      class="absolute inset-y-0 flex items-center overflow-hidden border-l border-line text-left {column.width <
      WIDE
        ? 'gap-0.5 px-0.5'
        : 'gap-1.5 px-1.5'} {column.index === selected ? 'bg-lit' : ''}"
      style:left="{column.x}px"
      style:width="{column.width}px"
      aria-label={describe(column.index)}
      aria-current={column.index === selected ? 'true' : undefined}
      data-heard={column.index}
      data-verdict={one?.verdict}
      onclick={() => onselect(column.index)}
    >
      {#if one}
        <VerdictMark verdict={one.verdict} />
        <span
          class="truncate leading-6 {column.width < WIDE ? 'text-sm' : 'text-lg'} {one.verdict === 'clear'
            ? ''
            : 'text-soft'}"
          aria-hidden="true"
        >
          <ChordSymbol symbol={heardName(one)} />
        </span>
      {/if}
    </button>
  {/each}
</div>
