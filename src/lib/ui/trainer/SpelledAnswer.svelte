<!-- An answer in note names. -->
<script lang="ts">
  import { readWritten } from '$lib/core/theory/letters';
  import { readNote, type NoteName } from '$lib/core/theory/note';
  import { asciiAccidentals } from '$lib/core/theory/typeset';
  import Button from '../kit/Button.svelte';

  interface Props {
    onanswer: (notes: readonly NoteName[]) => void;
    /** What was typed are no note names, said in a sentence. */
    onproblem: (problem: string) => void;
  }
  let { onanswer, onproblem }: Props = $props();
  let names = $state('');

  const capital = (word: string) => word.charAt(0).toUpperCase() + word.slice(1);
  function answer(event: SubmitEvent) {
    event.preventDefault();
    const typed = names.split(/[\s,]+/).filter(Boolean);
    const notes = typed.map((word) => readNote(capital(readWritten(asciiAccidentals(word)))));
    const read = notes.filter((note) => note !== null);
    if (read.length === 0 || read.length < notes.length)
      return onproblem('Write note names with spaces between: Ab C Eb Gb.');
    names = '';
    onanswer(read);
  }
  const focusHere = (node: HTMLElement) => node.focus();
</script>

<form class="mx-auto flex w-full max-w-md gap-2" onsubmit={answer}>
  <input
    class="h-14 min-w-0 flex-1 rounded-md border border-edge bg-paper px-3 text-2xl"
    aria-label="The notes of the chord"
    placeholder="Ab C Eb Gb"
    autocapitalize="off"
    autocomplete="off"
    spellcheck="false"
    bind:value={names}
    use:focusHere
  />
  <Button size="stand" tone="strong" type="submit" class="min-w-20">Check</Button>
</form>
