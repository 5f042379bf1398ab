<!-- Chords spelled in columns: a row a chord, a column a degree; read downward it gives the guide-tone lines. -->
<script lang="ts">
  import { columnTone, COLUMNS, guideColumns, type ColumnDegree } from '$lib/core/harmony/guide-tones';
  import { romanText } from '$lib/core/harmony/numeral';
  import { pitchClass } from '$lib/core/theory/note';
  import { prettyDegree, prettyNumeral } from '$lib/core/theory/typeset';
  import { settings } from '$lib/state/settings.svelte';
  import type { Workspace } from '$lib/state/chart/workspace.svelte';
  import ChordSymbol from '../chord/ChordSymbol.svelte';
  import { untrack } from 'svelte';
  import Button from '../kit/Button.svelte';
  import { Deferred } from '../kit/deferred.svelte';
  import { stepWords } from '../threads/layout';

  interface Props {
    workspace: Workspace;
    /** The changes that are shown: from the first to before the last. */
    from: number;
    to: number;
    /** Sends a column to Threads. */
    onpick?: ((column: ColumnDegree) => void) | undefined;
    /** The first rows come with the first picture, the others behind it. */
    isGradual?: boolean;
  }
  let { workspace, from, to, onpick, isGradual = false }: Props = $props();
  const drawn = new Deferred(untrack(() => (isGradual ? 20 : Infinity)));

  const NAMES = { '1': 'Roots', '3': 'Thirds', '5': 'Fifths', '7': 'Sevenths' } as const;
  const columns = $derived(guideColumns(workspace.changes));

  /** Whether the chord before holds the note as well. */
  function isHeld(index: number, note: string): boolean {
    return workspace.changes[index - 1]?.chord?.pitchClasses.includes(pitchClass(note)) ?? false;
  }
</script>

<table class="w-full border-collapse text-left">
  <thead class="sticky top-0 bg-surface">
    <tr>
      <th class="py-1 pr-3 font-normal">Chord</th>
      {#each COLUMNS as column (column)}
        <th class="px-2 py-1"
          >{#if onpick}<Button hint="Follow this column as the target line" onclick={() => onpick(column)}
              >{NAMES[column]}</Button
            >{:else}{NAMES[column]}{/if}</th
        >
      {/each}
      <th class="px-2 py-1 font-normal">more</th>
    </tr>
  </thead>
  <tbody>
    {#each workspace.changes.slice(from, Math.min(to, from + drawn.count)) as change (change.index)}
      <tr class="border-t border-line {change.index === workspace.selected ? 'bg-lit' : ''}">
        <th class="py-1 pr-3 font-normal whitespace-nowrap">
          <span class="text-lg"><ChordSymbol symbol={change.symbol} /></span>
          <span class="text-xs text-soft"
            >bar {change.bar}{change.numeral ? ` · ${prettyNumeral(romanText(change.numeral))}` : ''}</span
          >
        </th>
        {#each COLUMNS as column, c (column)}
          {@const tone = change.chord ? columnTone(change.chord, column) : null}
          {@const step = columns[c]?.steps[change.index]}
          <td class="px-2 py-1">
            {#if tone}
              <span
                class="inline-block min-w-7 text-center {isHeld(change.index, tone.note)
                  ? 'border-b-2 border-next font-bold'
                  : ''}">{settings.note(tone.note)}</span
              >
              <span class="text-2xs text-soft">{prettyDegree(tone.degree)}</span>
              {#if step !== null && step !== undefined}<span class="ml-1 text-xs text-next"
                  >{stepWords(step)}</span
                >{/if}
            {:else}<span class="text-soft">–</span>{/if}
          </td>
        {/each}
        <td class="px-2 py-1 text-sm">
          {#if change.chord}
            {change.chord.tones
              .map((tone, i) => ({ tone, note: change.chord!.notes[i]! }))
              .filter(({ tone }) => /9|11|13|6/.test(tone))
              .map(({ tone, note }) => `${settings.note(note)} (${prettyDegree(tone)})`)
              .join(', ')}
          {/if}
        </td>
      </tr>
    {/each}
  </tbody>
</table>
