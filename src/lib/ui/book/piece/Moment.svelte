<!-- One moment on paper: the chord, what is played on it and where it lands, and its neck. -->
<script lang="ts">
  import { nth } from '$lib/core/base/list';
  import { prettyDegree } from '$lib/core/theory/typeset';
  import type { Workspace } from '$lib/state/chart/workspace.svelte';
  import { settings } from '$lib/state/settings.svelte';
  import ChordSymbol from '../../chord/ChordSymbol.svelte';
  import { barsText, type DistinctMoment } from '../../sheet/distinct';
  import PrintedNeck from '../PrintedNeck.svelte';
  import { numeralOf } from './words';

  interface Props {
    moment: DistinctMoment;
    workspace: Workspace;
    /** In millimetres. */
    width: number;
    /** The words stand beside the neck, not above it. */
    isBeside: boolean;
    /** To be filled in by hand. */
    isBlank: boolean;
  }
  let { moment, workspace, width, isBeside, isBlank }: Props = $props();

  const change = $derived(nth(workspace.changes, moment.index));
  const choice = $derived(workspace.chosen[moment.index]);
  const target = $derived(workspace.paths.targets.get(moment.index));
</script>

<div class="moment" class:beside={isBeside} style:width="{width}mm">
  <div class="words">
    <p class="chord">
      <ChordSymbol symbol={change.symbol} />&ensp;<small
        >{isBlank ? barsText(moment.bars, 2) : numeralOf(change)}</small
      >
    </p>
    {#if !isBlank}
      {#if choice}
        <p class="choice">
          <b>{settings.collection(choice)}</b>
          {#if isBeside}<br />{choice.notes.map((note) => settings.note(note)).join(' ')}{/if}
        </p>
      {/if}
      {#if target}
        <p class="land">land on {prettyDegree(target.cell.degree)} {settings.note(target.cell.note)}</p>
      {/if}
    {/if}
    {#if isBeside}
      {#if target && !isBlank}<p class="soft">string {target.cell.string}, fret {target.cell.fret}</p>{/if}
      <p class="soft">{barsText(moment.bars)}</p>
    {/if}
  </div>
  <PrintedNeck
    moment={nth(workspace.moments, moment.index)}
    neck={workspace.neck}
    wanted={nth(workspace.positions, moment.index)}
    {target}
    width={isBeside ? width * 0.6 : width}
    height={isBeside ? 32 : 27}
    {isBlank}
  />
</div>

<style>
  .moment {
    flex: none;
  }

  .beside {
    display: flex;
    gap: 2mm;
    align-items: flex-start;
  }

  .soft,
  small {
    color: var(--soft);
  }

  .words {
    flex: 1;
    min-width: 0;
    font-size: 3.3mm;
    line-height: 4.1mm;
  }

  .chord {
    font-size: 6.4mm;
    line-height: 7.4mm;
    white-space: nowrap;
  }

  .chord small {
    margin-left: 1mm;
    font-size: 3.3mm;
  }

  .moment:not(.beside) .words {
    display: grid;
    grid-template-columns: auto 1fr;
    column-gap: 3mm;
    height: 12mm;
    font-size: 3.2mm;
    line-height: 3.7mm;
  }

  .moment:not(.beside) .chord {
    grid-row: span 2;
  }

  .moment:not(.beside) :is(.choice, .land) {
    overflow: hidden;
    text-align: right;
    text-overflow: ellipsis;
    white-space: nowrap;
  }

  .land {
    font-weight: 700;
  }
</style>
