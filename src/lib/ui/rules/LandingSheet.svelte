<!-- The landing sheet: every target of a chart on one page: chord, degree, note, string and fret, and what leads in. -->
<script lang="ts">
  import { firstOf, nth } from '$lib/core/base/list';
  import { APPROACH_FACTS } from '$lib/core/line/approach-notes';
  import { prettyDegree } from '$lib/core/theory/typeset';
  import { settings } from '$lib/state/settings.svelte';
  import type { Workspace } from '$lib/state/chart/workspace.svelte';
  import { counted } from '$lib/core/theory/words';
  import ChordSymbol from '../chord/ChordSymbol.svelte';
  import Paper from '../export/Paper.svelte';
  import { stepWords } from '../threads/layout';

  let { workspace }: { workspace: Workspace } = $props();

  /** Height left for the rows on a page of A4, in millimetres, and rows that can be read from a stand. */
  const ROOM = 255;
  const EASY = 22;
  /** Tallest rows that leave a column of so many beside it the width for its words, in millimetres. */
  const TALLEST = [13, 8.2, 5.6, 4.2];
  const targets = $derived(workspace.paths.path?.targets ?? []);
  const columns = $derived(Math.min(4, Math.max(1, Math.ceil(targets.length / EASY))));
  const rows = $derived(Math.ceil(targets.length / columns));
  /** Rows shrink so that the chart stays on its page. */
  const height = $derived(Math.min(nth(TALLEST, columns - 1), ROOM / Math.max(1, rows)));
  const figures = $derived(workspace.paths.figures);
</script>

<Paper
  {workspace}
  says="{figures
    ? `${counted(figures.targets, 'target')}, ${counted(figures.semitones, 'semitone')} in all, ${counted(figures.shifts, 'shift')} of the hand; `
    : ''}string and fret as 3:7"
>
  <ol style:--row="{height}mm" style:--columns={columns}>
    {#each targets as { change, beat, cell, step }, i (`${change}:${beat}`)}
      {@const at = nth(workspace.changes, change)}
      {@const lead = workspace.paths.approachNotes.get(i)}
      <li>
        <span class="bar">{beat === 1 ? at.bar : ''}</span>
        <span class="chord"
          >{#if beat === 1}<ChordSymbol symbol={at.symbol} />{:else}beat {beat}{/if}</span
        >
        <b>{prettyDegree(cell.degree)}</b>
        <span class="note">{settings.note(cell.note)}</span>
        <span>{cell.string}:{cell.fret}</span>
        <span class="step">{step ? stepWords(step.semitones) : ''}</span>
        <span class="lead"
          >{lead
            ? `${lead.map(({ note, string, fret }) => `${settings.note(note)} ${string}:${fret}`).join(', ')} (${APPROACH_FACTS[firstOf(lead).kind].short})`
            : ''}</span
        >
      </li>
    {/each}
  </ol>
</Paper>

<style>
  ol {
    columns: var(--columns);
    column-gap: 4mm;
  }

  li {
    display: flex;
    gap: calc(var(--row) * 0.55);
    align-items: baseline;
    height: var(--row);
    overflow: hidden;
    border-bottom: 0.2mm solid var(--line);
    font-size: calc(var(--row) * 0.5);
    line-height: var(--row);
    white-space: nowrap;
    break-inside: avoid;
  }

  li > span,
  li > b {
    flex: none;
  }

  .bar {
    width: 1.6em;
    text-align: right;
    color: var(--soft);
  }

  .chord {
    width: 5.2em;
  }

  b {
    width: 1.7em;
    color: var(--target);
  }

  .note {
    width: 1.8em;
  }

  .step {
    width: 2.6em;
    color: var(--next);
  }

  li > .lead {
    flex: 1;
    min-width: 0;
    overflow: hidden;
    color: var(--soft);
  }
</style>
