<!-- The chord table: a row a chord, a column a degree; read downward it gives the guide-tone lines. -->
<script lang="ts">
  import { Dialog } from 'bits-ui';
  import { columnTone, COLUMNS, guideColumns, guideThreads } from '$lib/core/harmony/guide-tones';
  import { prettyNumeral } from '$lib/core/harmony/numeral';
  import { chordNotes } from '$lib/core/theory/chord';
  import { prettyDegree } from '$lib/core/theory/degree';
  import { pitchClass } from '$lib/core/theory/note';
  import type { Workspace } from '$lib/state/workspace.svelte';
  import { settings } from '$lib/state/settings.svelte';
  import ChordSymbol from '../chord/ChordSymbol.svelte';
  import Pager from '../kit/Pager.svelte';
  import { stepWords } from '../threads/layout';

  let { open = $bindable(), workspace }: { open: boolean; workspace: Workspace } = $props();

  const NAMES = { '1': 'Roots', '3': 'Thirds', '5': 'Fifths', '7': 'Sevenths' } as const;
  const columns = $derived(open ? guideColumns(workspace.changes) : []);
  const threads = $derived(open ? guideThreads(workspace.changes) : []);

  /** Whether the chord before holds the note as well. */
  function isHeld(index: number, note: string): boolean {
    const before = workspace.changes[index - 1]?.chord;
    return !!before && chordNotes(before).some((other) => pitchClass(other) === pitchClass(note));
  }

  function send(work: () => void) {
    work();
    open = false;
  }
  /** Notes of a thread that stand in its line. */
  const SHOWN_NOTES = 64;
</script>

<Dialog.Root bind:open>
  <Dialog.Portal>
    <Dialog.Overlay class="fixed inset-0 z-40 bg-black/50" />
    <Dialog.Content
      class="fixed top-[6vh] left-1/2 z-50 flex max-h-[88vh] w-[min(860px,94vw)] -translate-x-1/2 flex-col card p-5"
    >
      <Dialog.Title class="font-display text-2xl">Chord table</Dialog.Title>
      <p class="mt-1 text-[13.5px] text-soft">
        Read down a column: the words between say how far it moves. A bar under a note: the chord before holds
        it too. Send a column or a thread to Threads to follow it.
      </p>
      <div class="mt-3 min-h-0 overflow-y-auto">
        <Pager count={workspace.changes.length} at={workspace.selected} name="changes" size={128}>
          {#snippet children(from, to)}
            <table class="w-full border-collapse text-left">
              <thead class="sticky top-0 bg-surface">
                <tr>
                  <th class="py-1 pr-3 font-normal">Chord</th>
                  {#each COLUMNS as column (column)}
                    <th class="px-2 py-1"
                      ><button
                        class="btn text-[13px]"
                        onclick={() => send(() => workspace.pickThread(column))}>{NAMES[column]}</button
                      ></th
                    >
                  {/each}
                  <th class="px-2 py-1 font-normal">more</th>
                </tr>
              </thead>
              <tbody>
                {#each workspace.changes.slice(from, to) as change (change.index)}
                  <tr class="border-t border-line {change.index === workspace.selected ? 'bg-lit' : ''}">
                    <th class="py-1 pr-3 font-normal whitespace-nowrap">
                      <span class="text-[18px]"><ChordSymbol symbol={change.symbol} /></span>
                      <span class="text-[12px] text-soft"
                        >bar {change.bar}{change.roman ? ` · ${prettyNumeral(change.roman)}` : ''}</span
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
                          <span class="text-[11.5px] text-soft">{prettyDegree(tone.degree)}</span>
                          {#if step !== null && step !== undefined}<span class="ml-1 text-[12px] text-next"
                              >{stepWords(step)}</span
                            >{/if}
                        {:else}<span class="text-soft">–</span>{/if}
                      </td>
                    {/each}
                    <td class="px-2 py-1 text-[13px]">
                      {#if change.chord}
                        {change.chord.tones
                          .map((tone, i) => ({ tone, note: chordNotes(change.chord!)[i]! }))
                          .filter(({ tone }) => /9|11|13|6/.test(tone))
                          .map(({ tone, note }) => `${settings.note(note)} (${prettyDegree(tone)})`)
                          .join(', ')}
                      {/if}
                    </td>
                  </tr>
                {/each}
              </tbody>
            </table>
          {/snippet}
        </Pager>
        <h3 class="mt-4 font-display text-[17px]">Nearest motion from each tone of the first chord</h3>
        <ul class="mt-1">
          {#each threads as thread (thread.notes[0])}
            <li class="flex items-center justify-between gap-3 border-t border-line py-1">
              <span class="min-w-0 truncate"
                >{thread.notes
                  .slice(0, SHOWN_NOTES)
                  .map((note) => (note ? settings.note(note) : '·'))
                  .join(' – ')}{thread.notes.length > SHOWN_NOTES ? ' …' : ''}</span
              >
              <span class="flex shrink-0 items-center gap-2"
                ><span class="text-[13px] text-soft">{thread.total} semitones in all</span>
                <button
                  class="btn text-[13px]"
                  onclick={() => send(() => workspace.followThread(thread.notes))}>Follow</button
                ></span
              >
            </li>
          {/each}
        </ul>
      </div>
      <div class="mt-4 flex justify-end"><Dialog.Close class="btn btn-strong">Close</Dialog.Close></div>
    </Dialog.Content>
  </Dialog.Portal>
</Dialog.Root>
