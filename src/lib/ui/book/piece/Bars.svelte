<!-- A row of bars of the form: chords where they begin, with the targets where the page has them. -->
<script lang="ts">
  import { prettyDegree } from '$lib/core/theory/typeset';
  import type { Workspace } from '$lib/state/chart/workspace.svelte';
  import { settings } from '$lib/state/settings.svelte';
  import ChordSymbol from '../../chord/ChordSymbol.svelte';
  import type { PieceOf } from '../pieces';

  let { piece, workspace }: { piece: PieceOf<'bars'>; workspace: Workspace } = $props();
</script>

{#each piece.bars as bar (bar.number)}
  <div class="bar" class:opens={bar.section !== ''}>
    <small
      >{bar.number}{#if bar.section}&ensp;<b>{bar.section}</b>{/if}</small
    >
    {#each bar.changes as change (change.index)}
      {@const target = workspace.paths.targets.get(change.index)?.cell}
      <span
        class="change"
        style:left="{((change.beat - 1) / bar.beats) * 100}%"
        style:font-size="{bar.changes.length > 2 ? 4.1 : 5}mm"
        ><ChordSymbol symbol={change.symbol} />{#if piece.hasTargets && target}<i
            >{prettyDegree(target.degree)} {settings.note(target.note)}</i
          >{/if}</span
      >
    {/each}
  </div>
{/each}

<style>
  .bar {
    position: relative;
    flex: 0 0 25%;
    border-bottom: 0.2mm solid var(--line);
    border-left: 0.25mm solid var(--ink);
  }

  .bar:last-child {
    border-right: 0.25mm solid var(--ink);
  }

  .opens {
    border-left-width: 0.9mm;
  }

  small {
    position: absolute;
    top: 0;
    left: 1mm;
    font-size: 3.2mm;
    line-height: 3.4mm;
    color: var(--soft);
  }

  .change {
    position: absolute;
    top: 3.7mm;
    padding-left: 1mm;
    line-height: 5mm;
    white-space: nowrap;
  }

  i {
    position: absolute;
    top: 5mm;
    left: 1mm;
    font-size: 3.2mm;
    font-style: normal;
    line-height: 3.4mm;
    color: var(--soft);
  }
</style>
