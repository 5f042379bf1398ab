<!-- Two charts bar by bar: what is alike, what differs, what one has alone. -->
<script lang="ts">
  import { toast } from 'svelte-sonner';
  import { untrack } from 'svelte';
  import type { StoredChart } from '$lib/api/songbook';
  import { compareForms, type ComparedBar } from '$lib/core/chart/compare';
  import { readSheet } from '$lib/core/harmony/sheet';
  import { counted } from '$lib/core/theory/words';
  import type { Workspace } from '$lib/state/chart/workspace.svelte';
  import { OtherCharts } from '$lib/state/songbook/other-charts.svelte';
  import ChordSymbol from '../chord/ChordSymbol.svelte';
  import Dialog from '../kit/Dialog.svelte';
  import Pager from '../kit/Pager.svelte';

  let { open = $bindable(), workspace }: { open: boolean; workspace: Workspace } = $props();
  const others = new OtherCharts(() => workspace.document.id);
  let other: StoredChart | null = $state.raw(null);

  const find = () => others.find().catch(() => toast.error('The songbook cannot be read just now.'));
  $effect(() => {
    if (open) untrack(() => void find());
  });
  async function pick(id: string) {
    const response = await fetch(`/api/v1/songbook/${id}`).catch(() => null);
    if (!response?.ok) return void toast.error('This chart cannot be read just now.');
    other = (await response.json()) as StoredChart;
  }
  const sheet = $derived.by(() => other && readSheet(other.source));
  const pairs = $derived(sheet ? compareForms(workspace.sheet.form, sheet.form) : []);
  const different = $derived(pairs.filter(({ isSame }) => !isSame).length);
</script>

{#snippet bar(own: ComparedBar | null, isSame: boolean)}
  <td class="w-1/2 border-b border-line px-2 py-1 {isSame ? 'text-soft' : 'bg-lit'}">
    {#if own}
      <span class="mr-2 text-2xs text-soft tabular-nums">{own.number}</span>
      {#each own.symbols as symbol, i (i)}<span class="mr-2 text-lg"><ChordSymbol {symbol} /></span
        >{:else}–{/each}
    {:else}<span class="text-soft">not there</span>{/if}
  </td>
{/snippet}

<Dialog
  bind:open
  title="Compare with another chart"
  says={sheet
    ? different
      ? `${counted(different, 'bar')} of ${pairs.length} ${different === 1 ? 'differs' : 'differ'}.`
      : 'Both go the same way.'
    : 'Which chart stands beside this one?'}
>
  {#if sheet && other}
    <Pager count={pairs.length} at={0} name="bars" size={96}>
      {#snippet children(from, to)}
        <table class="w-full" data-compared={different}>
          <thead>
            <tr>
              <th class="px-2 py-1 text-left">{workspace.document.title}</th>
              <th class="px-2 py-1 text-left">{sheet.head.title ?? 'Untitled chart'}</th>
            </tr>
          </thead>
          <tbody>
            {#each pairs.slice(from, to) as { left, right, isSame }, i (i)}
              <tr aria-label={isSame ? 'alike' : 'different'}
                >{@render bar(left, isSame)}{@render bar(right, isSame)}</tr
              >
            {/each}
          </tbody>
        </table>
      {/snippet}
    </Pager>
    <button type="button" class="mt-2 underline pointer-coarse:min-h-11" onclick={() => (other = null)}
      >Another chart</button
    >
  {:else}
    <input
      type="search"
      class="mb-2 h-10 w-full rounded-md border border-edge bg-paper px-3"
      placeholder="Title, key or chord"
      aria-label="Find a chart to compare"
      bind:value={others.search}
      oninput={() => void find()}
    />
    <ul>
      {#each others.found as { id, title } (id)}
        <li>
          <button
            type="button"
            class="min-h-9 w-full rounded px-2 text-left font-display text-lg hover:bg-lit pointer-coarse:min-h-11"
            data-other={title}
            onclick={() => void pick(id)}>{title}</button
          >
        </li>
      {:else}
        <li class="text-soft">
          {others.search ? `No chart matches “${others.search}”.` : 'There is no other chart yet.'}
        </li>
      {/each}
    </ul>
  {/if}
</Dialog>
