<!-- Answers to choose from, each with its key; lines can be heard before one is chosen. -->
<script lang="ts">
  import Ear from '@lucide/svelte/icons/ear';
  import type { CardKind } from '$lib/core/practice/trainer/kinds/kit';
  import { prettyDegree } from '$lib/core/theory/typeset';
  import ChordSymbol from '../chord/ChordSymbol.svelte';
  import Button from '../kit/Button.svelte';

  interface Props {
    choices: readonly string[];
    /** What the choices are. */
    are: CardKind['choosesFrom'];
    keys: readonly string[];
    /** Degrees are typed: ♭ (below 0) or ♯ first. */
    accidental: -1 | 0 | 1;
    onchoose: (choice: string) => void;
    /** Each choice is a line that can be heard. */
    onhear: ((choice: string) => void) | null;
  }
  let { choices, are, keys, accidental, onchoose, onhear }: Props = $props();
</script>

<div class="flex flex-wrap justify-center gap-2" role="group" aria-label="Answers">
  {#each choices as choice, i (choice)}
    <Button
      size="stand"
      class="min-h-14 min-w-20 text-xl"
      data-choice-of={choice}
      onclick={() => onchoose(choice)}
      >{#if are !== 'degrees'}<kbd class="text-xs text-soft pointer-coarse:hidden">{keys[i]}</kbd>{/if}
      {#if are === 'chords'}<ChordSymbol symbol={choice} />{:else}{are === 'degrees'
          ? prettyDegree(choice)
          : choice}{/if}</Button
    >
    {#if onhear}
      <Button size="stand" class="min-h-14" label="Hear line {i + 1}" onclick={() => onhear(choice)}
        ><Ear size={17} /></Button
      >
    {/if}
  {/each}
</div>
{#if are === 'degrees'}
  <p class="text-center text-soft pointer-coarse:hidden" data-typed={accidental}>
    {accidental === 0
      ? 'Or type it: b or # first, then the digit.'
      : `${accidental < 0 ? '♭' : '♯'} … now the digit.`}
  </p>
{/if}
