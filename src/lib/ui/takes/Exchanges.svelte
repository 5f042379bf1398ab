<!-- Where bars were traded: how each answer stood to its call, in a sentence. -->
<script lang="ts">
  import { sayExchange, type Exchange } from '$lib/core/takes/trade';
  import Button from '../kit/Button.svelte';

  interface Props {
    exchanges: readonly Exchange[];
    onshow: (exchange: Exchange) => void;
  }
  let { exchanges, onshow }: Props = $props();
</script>

<section class="card px-2.5 py-2" aria-label="Calls and answers">
  <h3 class="text-base">Calls and answers</h3>
  <ol class="mt-1 grid gap-x-6 gap-y-1 xl:grid-cols-2">
    {#each exchanges as exchange (exchange.answer.from)}
      <li class="flex items-start gap-2" data-exchange={exchange.kind}>
        <p class="min-w-0 flex-1 pt-0.5">{sayExchange(exchange)}</p>
        <Button size="small" onclick={() => onshow(exchange)}>show</Button>
      </li>
    {/each}
  </ol>
</section>
