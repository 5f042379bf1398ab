<!-- What stands at the caret, read: tones and numeral, or what is wrong; and what may stand there, likeliest first. -->
<script lang="ts">
  import TriangleAlert from '@lucide/svelte/icons/triangle-alert';
  import { prettyDegree, prettyNumeral } from '$lib/core/theory/typeset';
  import type { Writing } from '$lib/state/writing/writing.svelte';
  import { settings } from '$lib/state/settings.svelte';
  import ChordSymbol from '../../chord/ChordSymbol.svelte';

  interface Props {
    writing: Writing;
    /** Something was taken here: the field has the focus again. */
    ontaken: () => void;
  }
  let { writing, ontaken }: Props = $props();
  /** The field keeps the focus while something here is pressed: what is typed there is not done with, and the caret stays. */
  const staying = (event: MouseEvent) => event.preventDefault();
  const read = $derived(writing.proposals.reading);
  const wrong = $derived(
    read?.kind === 'problem' ? null : (writing.problems.get(writing.caret.bar)?.[0] ?? null)
  );
</script>

<div class="flex min-h-9 flex-wrap items-center gap-x-4 gap-y-1 py-1 text-sm" data-bar-reading>
  <p id="bar-reading" class="min-w-52" aria-live="polite">
    {#if read?.kind === 'chord'}
      <span class="font-bold">{read.chord.notes.map((note) => settings.note(note)).join(' ')}</span>
      <span class="text-soft">{read.chord.tones.map(prettyDegree).join(' ')}</span>
      {#if read.numeral && read.key}
        · {prettyNumeral(read.numeral)} in {settings.note(read.key.tonic)}
        {read.key.mode}
      {/if}
    {:else if read?.kind === 'problem'}
      <span class="text-warn"
        ><TriangleAlert size={14} class="inline" />
        {read.problem.message}
        {#if read.problem.suggestion}
          {@const suggestion = read.problem.suggestion}
          <button
            type="button"
            class="font-bold underline pointer-coarse:min-h-11"
            data-mend
            onmousedown={staying}
            onclick={() => {
              writing.mend(suggestion);
              ontaken();
            }}>Use {suggestion}</button
          >
        {/if}</span
      >
    {:else if wrong}
      <span class="text-warn"><TriangleAlert size={14} class="inline" /> {wrong.message}</span>
    {:else if read?.kind === 'none'}
      No chord sounds here.
    {:else}
      <span class="text-soft">Type a chord, or take one of these.</span>
    {/if}
  </p>
  <div
    class="flex min-w-0 flex-wrap gap-1 max-sm:w-full max-sm:flex-nowrap max-sm:overflow-x-auto"
    role="group"
    aria-label="Suggestions"
  >
    {#each writing.proposals.suggestions as { symbol, why }, i (symbol)}
      <button
        type="button"
        class="inline-flex min-h-8 shrink-0 items-baseline gap-1 rounded-md border px-1.5 pointer-coarse:min-h-11 pointer-coarse:min-w-11 pointer-coarse:items-center pointer-coarse:px-3 {writing
          .proposals.walked === i
          ? 'border-ink bg-lit'
          : 'border-edge bg-surface'}"
        data-suggestion={symbol}
        data-hint={why}
        tabindex="-1"
        onmousedown={staying}
        onclick={() => {
          writing.take(i);
          ontaken();
        }}
        >{#if !writing.isTyping}<span class="text-2xs text-soft pointer-coarse:hidden">{i + 1}</span
          >{/if}<span class="text-base"><ChordSymbol {symbol} /></span></button
      >
    {/each}
  </div>
</div>
