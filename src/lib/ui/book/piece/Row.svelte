<!-- A row of the table of moments, its columns those of the head. -->
<script lang="ts">
  import { nth } from '$lib/core/base/list';
  import { prettyDegree } from '$lib/core/theory/typeset';
  import type { Workspace } from '$lib/state/chart/workspace.svelte';
  import { settings } from '$lib/state/settings.svelte';
  import ChordSymbol from '../../chord/ChordSymbol.svelte';
  import { barsText } from '../../sheet/distinct';
  import type { PieceOf } from '../pieces';
  import { numeralOf, TABLE_COLUMNS } from './words';

  let { piece, workspace }: { piece: PieceOf<'table'>; workspace: Workspace } = $props();

  const change = $derived(nth(workspace.changes, piece.moment.index));
  const choice = $derived(workspace.chosen[piece.moment.index]);
  const target = $derived(workspace.paths.targets.get(piece.moment.index)?.cell);
</script>

<span class="bars">{barsText(piece.moment.bars, 3).replace(/^bars? /, '')}</span>
<span class="chord"><ChordSymbol symbol={change.symbol} /></span>
{#if piece.isBlank}
  {#each TABLE_COLUMNS.slice(2) as column (column)}<span></span>{/each}
{:else}
  <span>{numeralOf(change)}</span>
  <span>{change.chord?.notes.map((note) => settings.note(note)).join(' ') ?? ''}</span>
  <span>{choice ? settings.collection(choice) : ''}</span>
  <span>{target ? `${prettyDegree(target.degree)} ${settings.note(target.note)}` : ''}</span>
{/if}

<style>
  .bars {
    color: var(--soft);
  }

  .chord {
    font-size: 5mm;
  }

  span:empty {
    align-self: end;
    height: 6.5mm;
    border-bottom: 0.2mm dotted var(--soft);
  }
</style>
