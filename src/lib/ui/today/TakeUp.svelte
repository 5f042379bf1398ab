<!-- Takes a chart up to be practised. -->
<script lang="ts">
  import { toast } from 'svelte-sonner';
  import { counted } from '$lib/core/theory/words';
  import type { TodayState } from '$lib/state/practice/today.svelte';
  import Button from '../kit/Button.svelte';
  import Select from '../kit/Select.svelte';

  let { today }: { today: TodayState } = $props();
  const charts = $derived(today.now.charts);
  let picked = $state('');
  const chart = $derived(charts.find(({ id }) => id === picked)?.id ?? charts[0]?.id ?? '');

  async function take() {
    const added = await today.takeUp(chart);
    if (added) toast(`${counted(added, 'thing')} to practise, in the order in which they are learnt.`);
    else if (!today.problem) toast('All of it is there already.');
  }
</script>

{#if charts.length}
  <div class="mt-2 flex flex-wrap items-center gap-2">
    <Select
      size="stand"
      label="Chart to practise"
      value={chart}
      options={charts.map(({ id, title }) => ({ value: id, name: title }))}
      onpick={(id) => (picked = id)}
    />
    <Button size="stand" tone="strong" disabled={today.isBusy} onclick={() => void take()}
      >Practise this chart</Button
    >
  </div>
{:else}
  <p class="mt-2 text-soft">The songbook is empty; <a class="underline" href="/">write a chart first</a>.</p>
{/if}
