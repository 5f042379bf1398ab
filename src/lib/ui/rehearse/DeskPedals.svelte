<!-- What each pedal does: learnt by pressing it, kept for this browser. -->
<script lang="ts">
  import X from '@lucide/svelte/icons/x';
  import { PEDAL_ACTIONS, pedalName, type Pedals } from '$lib/state/stand/pedals.svelte';
  import Button from '../kit/Button.svelte';

  let { pedals }: { pedals: Pedals } = $props();
</script>

<div class="flex flex-wrap items-center gap-x-5 gap-y-2" role="group" aria-label="Pedals">
  {#each PEDAL_ACTIONS as { id, name } (id)}
    {@const pedal = pedals.board[id]}
    <span class="inline-flex items-center gap-1.5">
      <span>{name}</span>
      <Button
        size="stand"
        pressed={pedals.learning === id}
        aria-label="Pedal for {name}"
        hint="Press this, then the pedal: a key it sends, or its MIDI"
        onclick={() => pedals.learn(id)}
        >{pedals.learning === id ? 'press the pedal …' : pedal ? pedalName(pedal) : 'none'}</Button
      >
      {#if pedal && pedals.learning !== id}
        <Button size="stand" label="No pedal for {name}" onclick={() => pedals.assign(id, null)}
          ><X size={15} /></Button
        >
      {/if}
    </span>
  {/each}
  {#if pedals.problem}<p class="text-xs text-soft" role="status">{pedals.problem}</p>{/if}
</div>
