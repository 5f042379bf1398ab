<!-- All charts: find, sort, open, duplicate, rename, delete with undo; a new one from pasted text. -->
<script lang="ts" module>
  import { Part } from '../app/part';

  const firstMinutePart = new Part(() => import('./FirstMinute.svelte'));
</script>

<script lang="ts">
  import { onMount, tick, untrack } from 'svelte';
  import History from '@lucide/svelte/icons/history';
  import Plus from '@lucide/svelte/icons/plus';
  import { goto, replaceState } from '$app/navigation';
  import type { ChartList } from '$lib/api/songbook';
  import { importChartFile, createChart } from '$lib/state/songbook/client';
  import { Importing, type Take } from '$lib/state/songbook/importing.svelte';
  import { Listing, type Wish } from '$lib/state/songbook/listing.svelte';
  import { Many } from '$lib/state/songbook/many.svelte';
  import { keepLines, NewChart } from '$lib/state/songbook/new-chart.svelte';
  import Arriving from '../app/Arriving.svelte';
  import { bindKeys, layKeys } from '../keys/keys';
  import Button from '../kit/Button.svelte';
  import Head from '../shell/Head.svelte';
  import { attempt, chartActions, tell } from './chart-actions';
  import ChartRow from './ChartRow.svelte';
  import Copies from './Copies.svelte';
  import FileDrop from './FileDrop.svelte';
  import FindBar from './FindBar.svelte';
  import ImportMany from './ImportMany.svelte';
  import ManyBar from './ManyBar.svelte';
  import NewChartPanel from './NewChart.svelte';
  import { SONGBOOK_KEYS } from './songbook-keys';

  interface Props {
    list: ChartList;
    /** What the address asked for. */
    query: Wish;
  }
  let { list, query }: Props = $props();

  const listing = untrack(
    () =>
      new Listing(list, query, {
        // An undo may be pressed when the player is elsewhere by now.
        onasked: (said) => location.pathname === '/' && replaceState(said ? `/?${said}` : '/', {}),
        onfailure: tell
      })
  );
  const many = new Many();
  const fresh = new NewChart();
  const actions = chartActions(() => listing.refresh(), many);

  const create = () =>
    attempt(async () => {
      await goto(`/charts/${await fresh.create()}`);
    });

  /** One file is laid on the desk; of several each is looked at first. */
  const importing = new Importing();
  function importAll(files: FileList | null | undefined) {
    const [first, ...more] = files ?? [];
    if (!first) return;
    isWriting = true;
    const isWhole = first.name.endsWith('.corvel.json');
    if (more.length > 0 || isWhole) void importing.read([first, ...more]);
    else
      void attempt(async () => {
        const { listIn } = await import('$lib/state/songbook/file-import');
        if (await listIn(first)) await importing.read([first]);
        else await fresh.read(first);
      });
  }
  const takeImported: Take = async (id, one, title) => {
    if (one.whole !== undefined) {
      await importChartFile(id, one.whole);
      return;
    }
    const { declared, directivesIn, withDeclaration } = await import('$lib/core/chart/directives');
    const source = one.chart!;
    const isNamed = declared(directivesIn(source), 'title') !== null;
    await createChart(id, isNamed ? source : withDeclaration(source, 'title', title), one.plan);
    await keepLines(id, one);
  };
  let showsCopies = $state(false);

  onMount(() => {
    fresh.restore();
    // In an empty songbook there is one thing to do.
    const isEmpty = listing.found.total === 0 && !listing.search;
    if (isEmpty && matchMedia('(width >= 64rem)').matches) chartText?.focus();
    void listing.meet(new URLSearchParams(location.search));
  });
  let chartText: HTMLTextAreaElement | undefined = $state();
  let searchField: HTMLInputElement | undefined = $state();
  /** The new chart lies over the page, where the window is narrow. */
  let isWriting = $state(false);
  let isNarrow = $state(false);
  const isCovered = $derived(isWriting && isNarrow);
  async function startWriting() {
    isWriting = true;
    await tick();
    chartText?.focus();
  }
  async function stopWriting() {
    if (!isCovered) {
      chartText?.blur();
      return;
    }
    isWriting = false;
    await tick();
    document.querySelector<HTMLElement>('[data-write-chart]')?.focus();
  }
  onMount(() => {
    const narrow = matchMedia('(width < 64rem)');
    const look = () => (isNarrow = narrow.matches);
    look();
    narrow.addEventListener('change', look);
    return () => narrow.removeEventListener('change', look);
  });
  $effect(() => {
    const keys = bindKeys(SONGBOOK_KEYS, {
      write: () => void startWriting(),
      search: () => searchField?.focus()
    });
    return layKeys('Songbook', () => keys);
  });
</script>

<FileDrop onfiles={importAll} />
<Copies bind:open={showsCopies} onback={() => void listing.refresh()} />
<ImportMany {importing} take={takeImported} onclose={(taken) => actions.cameIn(taken.map(({ id }) => id))} />

<div class="page-head" inert={isCovered}>
  <Head at="songbook" title="Songbook">
    {#snippet more(close)}
      <Button tone="quiet" class="justify-start" onclick={() => close(() => (showsCopies = true))}
        ><History size={17} /> Backups</Button
      >
    {/snippet}
  </Head>
</div>
<main class="page max-w-[1500px]">
  <div
    class="grid grid-cols-[minmax(0,1fr)] gap-6 lg:grid-cols-[minmax(0,1fr)_340px] 2xl:grid-cols-[minmax(0,1fr)_420px]"
  >
    <section class="min-w-0" aria-label="Charts" inert={isCovered}>
      <FindBar {listing} {many} bind:field={searchField} />
      <ul class="mt-3 divide-y divide-[var(--line)] card" data-charts>
        {#each listing.found.charts as chart (chart.id)}
          <ChartRow
            {chart}
            isSelected={many.isOn ? many.ids.has(chart.id) : null}
            onselect={(toHere) => many.press(chart.id, listing.found.charts, toHere)}
            onrename={(title) => void actions.rename(chart, title)}
            onduplicate={() => void actions.duplicate(chart)}
            onremove={() => void actions.remove(chart)}
          />
        {:else}
          <li class="px-4 py-8 text-center text-soft">
            {#if listing.search || listing.isNarrowed}
              {listing.search
                ? `No chart matches “${listing.search}”${listing.isNarrowed ? ' within the filter' : ''}.`
                : 'No chart is like this.'}
            {:else}
              <Arriving isQuiet part={firstMinutePart}
                >{#snippet children(FirstMinute)}<FirstMinute
                    onmade={() => void listing.refresh()}
                  />{/snippet}</Arriving
              >
            {/if}
          </li>
        {/each}
      </ul>
      {#if many.isOn}
        <ManyBar
          selected={many.ids.size}
          total={listing.found.total}
          tags={listing.found.facets.tag}
          progress={many.progress}
          onall={() => void attempt(() => many.all(listing.asked, listing.found.total))}
          ontag={(what, tag) => void actions.tagMany(what, tag)}
          onsave={() => void actions.saveMany()}
          ondelete={() => void actions.removeMany()}
          onstop={() => many.stop()}
          ondone={() => many.end()}
        />
      {/if}
      {#if listing.found.charts.length < listing.found.total}
        <Button class="mt-3" onclick={() => void listing.more()}>
          Show more ({listing.found.total - listing.found.charts.length} left)
        </Button>
      {/if}
    </section>

    <!-- Beside the charts; where there is no room for that, over the page when it is asked for. -->
    <NewChartPanel
      {fresh}
      bind:field={chartText}
      isOver={isWriting}
      oncreate={() => void create()}
      onfiles={importAll}
      onclose={() => void stopWriting()}
    />
  </div>
  <!-- On a phone it would stand below all charts. -->
  <div class="fixed right-3 bottom-15 z-20 sm:bottom-3 lg:hidden" hidden={isWriting || many.isOn}>
    <Button
      size="stand"
      tone="target"
      class="rounded-full px-5 text-lg shadow-lg"
      data-write-chart
      onclick={() => void startWriting()}><Plus size={20} /> New chart</Button
    >
  </div>
</main>
