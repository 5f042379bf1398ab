<!-- After a round: how it went, and what was missed. -->
<script lang="ts">
  import { sessionRun } from '$lib/state/practice/session-run.svelte';
  import type { Trainer } from '$lib/state/practice/trainer.svelte';
  import { button } from '../kit/button';
  import Button from '../kit/Button.svelte';

  let { trainer, onstart }: { trainer: Trainer; onstart: () => void } = $props();
</script>

<section class="card p-6 text-center" aria-label="The round is over" data-over>
  <p class="font-display text-4xl">
    {trainer.right} right{trainer.wrong ? `, ${trainer.wrong} wrong` : ''}
  </p>
  {#if trainer.missed.length}
    <ul class="mx-auto mt-4 max-w-2xl text-left">
      {#each trainer.missed as { asked, why }, i (i)}
        <li class="border-t border-line py-2"><b>{asked}</b><br />{why}</li>
      {/each}
    </ul>
  {/if}
  <div class="mt-5 flex flex-wrap justify-center gap-3">
    <Button size="stand" tone="strong" onclick={onstart}>another round</Button>
    {#if !sessionRun.isOn}<a class={button({ size: 'stand' })} href="/today">to the plan</a>{/if}
  </div>
</section>
