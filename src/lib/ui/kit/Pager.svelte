<!-- A long list a part at a time: the part that holds what is selected, others within a press. Short lists are shown whole. -->
<script lang="ts">
  import type { Snippet } from 'svelte';
  import ChevronLeft from '@lucide/svelte/icons/chevron-left';
  import ChevronRight from '@lucide/svelte/icons/chevron-right';
  import Button from './Button.svelte';

  interface Props {
    count: number;
    /** The item that is to be seen. */
    at: number;
    /** Items in a part. */
    size?: number;
    /** What the items are, for the words between the arrows. */
    name: string;
    children: Snippet<[from: number, to: number]>;
  }
  let { count, at, size = 64, name, children }: Props = $props();

  const parts = $derived(Math.max(1, Math.ceil(count / size)));
  /** The part that was turned to, as long as the same item is selected. */
  let turned = $state.raw<{ readonly at: number; readonly part: number } | null>(null);
  const part = $derived(
    Math.min(parts - 1, turned && turned.at === at ? turned.part : Math.max(0, Math.floor(at / size)))
  );
  const from = $derived(part * size);
  const to = $derived(Math.min(count, from + size));
  const turn = (by: number) => (turned = { at, part: part + by });
</script>

{#if parts > 1}
  <div class="mb-1.5 flex items-center gap-2 text-sm" role="group" aria-label="Part of the {name}">
    <Button label="Earlier {name}" disabled={part === 0} onclick={() => turn(-1)}
      ><ChevronLeft size={16} /></Button
    >
    <span>{name} {from + 1} to {to} of {count}</span>
    <Button label="Later {name}" disabled={part === parts - 1} onclick={() => turn(1)}
      ><ChevronRight size={16} /></Button
    >
  </div>
{/if}
{@render children(from, to)}
