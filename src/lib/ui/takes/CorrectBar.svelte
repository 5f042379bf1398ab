<!-- What was heard, corrected by hand: the selected note and what can be done with it, as keys as wide as a finger. -->
<script lang="ts">
  import ChevronLeft from '@lucide/svelte/icons/chevron-left';
  import ChevronRight from '@lucide/svelte/icons/chevron-right';
  import ChevronDown from '@lucide/svelte/icons/chevron-down';
  import ChevronUp from '@lucide/svelte/icons/chevron-up';
  import Check from '@lucide/svelte/icons/check';
  import Combine from '@lucide/svelte/icons/combine';
  import Plus from '@lucide/svelte/icons/plus';
  import Scissors from '@lucide/svelte/icons/scissors';
  import Trash2 from '@lucide/svelte/icons/trash-2';
  import type { TakeData } from '$lib/api/take';
  import { isUncertain } from '$lib/core/takes/correct';
  import { counted } from '$lib/core/theory/words';
  import { beatOf } from '$lib/core/takes/align';
  import { prettyNote } from '$lib/core/theory/typeset';
  import { midiName } from '$lib/core/theory/note';
  import type { Correcting } from '$lib/state/takes/correcting.svelte';
  import Button from '../kit/Button.svelte';
  import { eventWords } from './words';

  interface Props {
    correcting: Correcting;
    data: TakeData;
    /** Starts of the bars of the form, in beats, and its length. */
    bars: readonly number[];
    beats: number;
    /** The second of the sound that is heard now; null at rest. */
    second: number | null;
  }
  let { correcting, data, bars, beats, second }: Props = $props();

  const barAt = (at: number) => {
    const beat = beatOf(data, at) + 0.1;
    return Math.max(1, bars.findLastIndex((start) => start <= beat - beats * Math.floor(beat / beats)) + 1);
  };
  const note = $derived(correcting.selected === null ? undefined : data.notes[correcting.selected]);
  const described = $derived(
    note
      ? [
          `Note ${correcting.selected! + 1} of ${data.notes.length}`,
          prettyNote(midiName(note.midi)),
          `bar ${barAt(note.at)}`,
          ...note.events.map(eventWords),
          ...(isUncertain(note) ? ['uncertain'] : [])
        ].join(', ')
      : 'No note selected'
  );
</script>

<!-- It takes the focus, so that the arrows are its own whatever was pressed before. -->
<section
  class="card p-2 outline-none"
  aria-label="Correct the notes"
  tabindex="-1"
  data-correct
  {@attach (section) => section.focus({ preventScroll: true })}
>
  <p class="mb-1.5 flex flex-wrap items-baseline gap-x-3 text-sm">
    <b aria-live="polite" data-corrected-note>{described}</b>
    <span class="text-soft"
      >Drag a note, or press an empty place to add one. The take is judged again at once.</span
    >
  </p>
  <div class="flex flex-wrap gap-1.5">
    <Button label="The note before" hint="←" onclick={() => correcting.walk(-1)}
      ><ChevronLeft size={18} /></Button
    >
    <Button label="The next note" hint="→" onclick={() => correcting.walk(1)}
      ><ChevronRight size={18} /></Button
    >
    <Button label="A semitone up" hint="↑" disabled={!note} onclick={() => correcting.transpose(1)}
      ><ChevronUp size={18} /></Button
    >
    <Button label="A semitone down" hint="↓" disabled={!note} onclick={() => correcting.transpose(-1)}
      ><ChevronDown size={18} /></Button
    >
    <Button hint="20 ms earlier (Shift ←)" disabled={!note} onclick={() => correcting.nudge(-1)}
      >Earlier</Button
    >
    <Button hint="20 ms later (Shift →)" disabled={!note} onclick={() => correcting.nudge(1)}>Later</Button>
    <Button
      hint="Split the note where the replay is, or in its middle (S)"
      disabled={!note}
      onclick={() => correcting.split(second)}><Scissors size={16} /> Split</Button
    >
    <Button
      hint="Join the note with the next one (J)"
      disabled={!note || correcting.selected === data.notes.length - 1}
      onclick={() => correcting.join()}><Combine size={16} /> Join</Button
    >
    <Button hint="A note after this one (A)" onclick={() => correcting.addAfter()}
      ><Plus size={16} /> Add</Button
    >
    <Button hint="Delete the note (Del)" disabled={!note} onclick={() => correcting.remove()}
      ><Trash2 size={16} /> Delete</Button
    >
    {#if correcting.uncertain > 0}
      <Button hint="The next note that is uncertain (U)" onclick={() => correcting.toUncertain()}
        >{counted(correcting.uncertain, 'uncertain note')}</Button
      >
    {/if}
    <Button tone="strong" hint="Esc" class="ml-auto" onclick={() => correcting.stop()}
      ><Check size={16} /> Done</Button
    >
  </div>
</section>
