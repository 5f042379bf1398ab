<!-- The chord table in a dialog: columns and lines can be sent to Threads. -->
<script lang="ts">
  import { guideThreads } from '$lib/core/harmony/guide-tones';
  import { counted } from '$lib/core/theory/words';
  import { settings } from '$lib/state/settings.svelte';
  import type { Workspace } from '$lib/state/chart/workspace.svelte';
  import Button from '../kit/Button.svelte';
  import Dialog from '../kit/Dialog.svelte';
  import Pager from '../kit/Pager.svelte';
  import SpelledChords from './SpelledChords.svelte';

  let { open = $bindable(), workspace }: { open: boolean; workspace: Workspace } = $props();

  const threads = $derived(open ? guideThreads(workspace.changes) : []);
  /** Notes of a line that are written out. */
  const SHOWN_NOTES = 64;

  function send(work: () => void) {
    work();
    open = false;
  }
</script>

<Dialog
  bind:open
  size="wide"
  title="Chord table"
  says="Read down a column: the words between say how far it moves. A bar under a note: the chord before holds it too. Send a column or a line to Threads to follow it."
>
  <Pager count={workspace.changes.length} at={workspace.selected} name="changes" size={128}>
    {#snippet children(from, to)}
      <SpelledChords
        {workspace}
        {from}
        {to}
        isGradual
        onpick={(column) => send(() => workspace.targetLine.pickThread(column))}
      />
    {/snippet}
  </Pager>
  <h3 class="mt-4 font-display text-lg">Nearest motion from each tone of the first chord</h3>
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
          ><span class="text-sm text-soft">{counted(thread.total, 'semitone')} in all</span>
          <Button onclick={() => send(() => workspace.targetLine.followLine(thread.notes))}>Follow</Button
          ></span
        >
      </li>
    {/each}
  </ul>
</Dialog>
