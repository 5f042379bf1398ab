<!-- Another take beside the opened one: its figures against those above, and its drawing. -->
<script lang="ts">
  import type { Takes } from '$lib/state/takes/takes.svelte';
  import Button from '../kit/Button.svelte';
  import TakeDrawing from './TakeDrawing.svelte';
  import { percent } from './words';

  interface Props {
    takes: Takes;
    round: number;
    selected: number;
    onselect: (change: number) => void;
  }
  let { takes, round, selected, onselect }: Props = $props();
  const take = $derived(takes.shelf.beside);
  const read = $derived(takes.judging.beside);
  const above = $derived(takes.judging.judgement?.figures);
</script>

{#if take?.data && read && above}
  {@const { figures } = read.judgement}
  <div class="flex flex-wrap items-baseline gap-x-3 text-sm" data-beside={take.id}>
    <b>{take.name}</b>
    <span class="text-soft">
      {percent(figures.hits)} hit, {percent(figures.outlined)} heard; above {percent(above.hits)} and {percent(
        above.outlined
      )}
    </span>
    <Button size="small" onclick={() => takes.shelf.closeBeside()}>close</Button>
  </div>
  <TakeDrawing
    arranged={read.arranged}
    data={take.data}
    judgement={read.judgement}
    round={Math.min(round, figures.rounds - 1)}
    {selected}
    time={null}
    {onselect}
    isSmall
  />
{/if}
