<!-- What the server did not take: kept on this device, told with the reason, until the player has decided. -->
<script lang="ts" generics="T extends Sendable">
  import { onMount } from 'svelte';
  import type { Outbox, Refused, Sendable } from '$lib/state/chart/outbox';
  import { counted } from '$lib/core/theory/words';
  import Button from '../kit/Button.svelte';

  interface Props {
    box: Outbox<T>;
    /** One of them and many, as a sentence has them: "entry", "entries". */
    noun: readonly [one: string, many: string];
    /** What one of them is, in words. */
    told: (thing: T) => string;
  }
  let { box, noun, told }: Props = $props();

  let refused: readonly Refused<T>[] = $state.raw([]);
  const look = () => (refused = box.refused);
  onMount(() => {
    look();
    return box.watch(look);
  });
</script>

{#if refused.length > 0}
  <div class="mb-3 rounded-md border border-edge bg-surface p-3" role="alert" data-refused={refused.length}>
    <p>Could not be saved, and kept on this device: {counted(refused.length, ...noun)}.</p>
    <ul>
      {#each refused as { thing, why } (thing.id)}
        <li class="mt-2 flex flex-wrap items-center gap-2">
          <span class="min-w-40 flex-1"><b>{told(thing)}</b>: {why}</span>
          <Button onclick={() => box.retry(thing.id)}>Try again</Button>
          <Button onclick={() => box.drop(thing.id)}>Delete</Button>
        </li>
      {/each}
    </ul>
  </div>
{/if}
