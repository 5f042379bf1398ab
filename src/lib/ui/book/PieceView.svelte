<!-- One piece of a page, as high as it said. -->
<script lang="ts">
  import { ticksOf } from '$lib/core/line/model';
  import type { Workspace } from '$lib/state/chart/workspace.svelte';
  import SystemDrawing from '../score/System.svelte';
  import Bars from './piece/Bars.svelte';
  import Head from './piece/Head.svelte';
  import Moment from './piece/Moment.svelte';
  import Row from './piece/Row.svelte';
  import { TABLE_COLUMNS } from './piece/words';
  import type { Piece } from './pieces';

  interface Props {
    piece: Piece;
    workspace: Workspace;
    /** Width of the page inside its margins, in millimetres. */
    width: number;
  }
  let { piece, workspace, width }: Props = $props();

  /** Between moments beside each other, in millimetres. */
  const GAP = 6;
</script>

<div class="piece {piece.kind}" style:height="{piece.height}mm" data-piece={piece.kind}>
  {#if piece.kind === 'head'}
    <Head {piece} {workspace} />
  {:else if piece.kind === 'title'}
    <h3 class="font-display">{piece.text}</h3>
    {#if piece.says}<p>{piece.says}</p>{/if}
  {:else if piece.kind === 'bars'}
    <Bars {piece} {workspace} />
  {:else if piece.kind === 'moments'}
    {#each piece.moments as moment (moment.index)}
      <Moment
        {moment}
        {workspace}
        width={(width - GAP * (piece.columns - 1)) / piece.columns}
        isBeside={piece.columns === 2}
        isBlank={piece.isBlank}
      />
    {/each}
  {:else if piece.kind === 'tableHead'}
    {#each TABLE_COLUMNS as name (name)}<span>{name}</span>{/each}
  {:else if piece.kind === 'table'}
    <Row {piece} {workspace} />
  {:else}
    <SystemDrawing
      system={piece.system}
      engraving={{
        notes: piece.line.notes,
        fifths: piece.fifths,
        strings: workspace.neck.strings.length,
        isTarget: ({ purpose }) => purpose === 'target'
      }}
      marks={{
        chords: workspace.changes.map(({ index, symbol, start }) => ({
          index,
          symbol,
          start: ticksOf(start)
        })),
        change: -1,
        degrees: null,
        time: null,
        lit: null,
        caret: null,
        selected: null
      }}
    />
  {/if}
</div>

<style>
  .piece {
    display: flex;
    overflow: hidden;
  }

  .head {
    gap: 6mm;
    align-items: flex-start;
  }

  .title {
    gap: 4mm;
    align-items: flex-end;
    padding-bottom: 1mm;
  }

  h3 {
    font-size: 5mm;
    line-height: 6mm;
    white-space: nowrap;
  }

  .title p {
    font-size: 3.2mm;
    line-height: 4.6mm;
    color: var(--soft);
  }

  .moments {
    gap: 6mm;
    align-items: flex-start;
    padding-top: 1.5mm;
  }

  .tableHead,
  .table {
    display: grid;
    grid-template-columns: 20mm 26mm 18mm 1.1fr 1.5fr 20mm;
    gap: 0 3mm;
    align-items: center;
    border-bottom: 0.2mm solid var(--line);
    font-size: 3.4mm;
  }

  .tableHead {
    align-items: end;
    border-bottom: 0.3mm solid var(--ink);
    font-size: 3.2mm;
    color: var(--soft);
  }
</style>
