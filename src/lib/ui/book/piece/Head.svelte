<!-- The head of a page: the key and where the hand is; beside it room to note the days it was played on, or whose sheet it is. -->
<script lang="ts">
  import { keyText } from '$lib/core/harmony/key';
  import { accidentalsOf } from '$lib/core/harmony/key-signature';
  import { keyName } from '$lib/core/practice/items/words';
  import type { Workspace } from '$lib/state/chart/workspace.svelte';
  import type { PieceOf } from '../pieces';

  let { piece, workspace }: { piece: PieceOf<'head'>; workspace: Workspace } = $props();

  const DAYS = 6;
  const key = $derived(workspace.analysis.key);
  const signature = $derived.by(() => {
    const count = accidentalsOf(key);
    return count === 0 ? 'no accidentals' : `${Math.abs(count)}${count > 0 ? '♯' : '♭'}`;
  });
  /** The positions that the hand goes through, lowest and highest. */
  const hand = $derived.by(() => {
    const [low, high] = [Math.min(...workspace.hands), Math.max(...workspace.hands)];
    return low === high ? `position ${low}` : `positions ${low} to ${high}`;
  });
</script>

<div class="min">
  <h2 class="font-display">{keyName(keyText(key))}</h2>
  <p>{piece.title} · {signature} · {hand}, {workspace.system.title.toLowerCase()}</p>
</div>
{#if piece.beside === 'played'}
  <table class="played">
    <tbody>
      {#each ['day', 'tempo', 'clean'] as what (what)}
        <tr
          ><th scope="row">{what}</th>{#each { length: DAYS } as _, i (i)}<td></td>{/each}</tr
        >
      {/each}
    </tbody>
  </table>
{:else if piece.beside === 'name'}
  <p class="name">name <span></span> day <span class="day"></span></p>
{/if}

<style>
  .min {
    flex: 1;
    min-width: 0;
  }

  h2 {
    font-size: 11mm;
    line-height: 12.5mm;
  }

  p {
    font-size: 3.4mm;
    line-height: 4.4mm;
    color: var(--soft);
  }

  .played {
    flex: none;
    border-collapse: collapse;
  }

  .played th {
    padding-right: 1.5mm;
    font-size: 3.2mm;
    font-weight: 400;
    color: var(--soft);
    text-align: right;
  }

  .played td {
    width: 11mm;
    height: 6.2mm;
    border: 0.2mm solid var(--soft);
  }

  .name {
    display: flex;
    flex: 0 0 92mm;
    gap: 2mm;
    align-items: baseline;
    padding-top: 6mm;
  }

  .name span {
    flex: 1;
    border-bottom: 0.2mm solid var(--soft);
  }

  .name .day {
    flex: 0 0 24mm;
  }
</style>
