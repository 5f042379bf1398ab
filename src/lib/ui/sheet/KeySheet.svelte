<!--
  A sheet for one key: every chord with its numeral, what is played over it, the hand and the target; then the kept lines on staff and
  tab, and room for notes. To be filled, and read from a stand.
-->
<script lang="ts">
  import { nth } from '$lib/core/base/list';
  import { remarksOf } from '$lib/core/chart/writing/remarks';
  import { romanText } from '$lib/core/harmony/numeral';
  import { prettyDegree, prettyNumeral } from '$lib/core/theory/typeset';
  import { settings } from '$lib/state/settings.svelte';
  import type { Workspace } from '$lib/state/chart/workspace.svelte';
  import ChordSymbol from '../chord/ChordSymbol.svelte';
  import Paper from '../export/Paper.svelte';
  import HandCard from '../hands/HandCard.svelte';
  import Score from '../score/Score.svelte';
  import { barsText, distinctMoments } from './distinct';
  import { PAPER } from './paper';
  import Ruled from './Ruled.svelte';

  let { workspace }: { workspace: Workspace } = $props();

  const rows = $derived(distinctMoments(workspace));
  const columns = $derived(rows.length > 6 ? 2 : 1);
  const remarks = $derived(remarksOf(workspace.sheet.reading.chart, workspace.sheet.form));
  const lines = $derived(
    workspace.storedLines.flatMap(({ id, name, data }) => (data ? [{ id, name, notes: data.notes }] : []))
  );
</script>

<Paper {workspace} says="chords, what to play, the hand, the target; {workspace.system.title.toLowerCase()}">
  <ol style:--columns={columns} class:wide={columns === 1}>
    {#each rows as { index, bars } (index)}
      {@const change = nth(workspace.changes, index)}
      {@const choice = workspace.chosen[index]}
      {@const target = workspace.paths.targets.get(index)}
      {@const moment = workspace.moments[index]}
      <li>
        <div class="words">
          <p class="chord"><ChordSymbol symbol={change.symbol} /></p>
          <p class="soft">
            {change.numeral ? `${prettyNumeral(romanText(change.numeral))} · ` : ''}{barsText(bars)}
          </p>
          {#if choice}
            <p><b>{settings.collection(choice)}</b></p>
            <p class="soft">{choice.notes.map((note) => settings.note(note)).join(' ')}</p>
          {/if}
          {#if target}
            <p class="target">
              land on {prettyDegree(target.cell.degree)}
              {settings.note(target.cell.note)}, {target.cell.string}:{target.cell.fret}
            </p>
          {/if}
        </div>
        {#if moment}
          <div class="hand">
            <HandCard
              {moment}
              neck={workspace.neck}
              wanted={nth(workspace.positions, index)}
              {target}
              width={columns === 1 ? 260 : 190}
            />
          </div>
        {/if}
      </li>
    {/each}
  </ol>
  {#if remarks.length}
    <ul class="remarks" data-remarks>
      {#each remarks as { bar, text }, i (i)}<li><b>bar {bar}</b> {text}</li>{/each}
    </ul>
  {/if}
  {#each lines as { id, name, notes } (id)}
    <h2 class="font-display">{name}</h2>
    <Score {workspace} {notes} degrees={null} paperWidth={PAPER} label={name} />
  {/each}
  <Ruled title="Notes" lines={6} />
</Paper>

<style>
  ol {
    display: grid;
    grid-template-columns: repeat(var(--columns), 1fr);
    gap: 2.5mm 5mm;
  }

  li {
    display: flex;
    gap: 3mm;
    align-items: center;
    padding-bottom: 2mm;
    border-bottom: 0.2mm solid var(--line);
    break-inside: avoid;
  }

  .words {
    flex: 1;
    min-width: 0;
    font-size: 3.2mm;
    line-height: 1.35;
  }

  .wide .words {
    font-size: 4mm;
  }

  .chord {
    font-size: 6.5mm;
    line-height: 1.15;
  }

  .wide .chord {
    font-size: 9mm;
  }

  .soft {
    color: var(--soft);
  }

  .remarks {
    margin-top: 3mm;
    font-size: 3.2mm;
    columns: 2;
  }

  .remarks li {
    display: block;
    padding: 0;
    border: 0;
  }

  .target {
    font-weight: 700;
    color: var(--target);
  }

  .hand {
    flex: none;
  }

  h2 {
    margin-top: 5mm;
    font-size: 5mm;
    break-after: avoid;
  }
</style>
