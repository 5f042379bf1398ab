<!-- All charts: find, sort, open, duplicate, rename, delete with undo; a new one from pasted text. -->
<script lang="ts" module>
  import { Part } from '../app/part';

  const firstMinutePart = new Part(() => import('./FirstMinute.svelte'));
</script>

<script lang="ts">
  import { onMount, tick, untrack } from 'svelte';
  import ListChecks from '@lucide/svelte/icons/list-checks';
  import ListFilter from '@lucide/svelte/icons/list-filter';
  import History from '@lucide/svelte/icons/history';
  import Plus from '@lucide/svelte/icons/plus';
  import Search from '@lucide/svelte/icons/search';
  import { toast } from 'svelte-sonner';
  import { goto, replaceState } from '$app/navigation';
  import type { ChartList, ChartSummary } from '$lib/api/songbook';
  import { counted } from '$lib/core/theory/words';
  import { FILTERS, NO_FILTER, queryIn, queryOf, type Filter, type Sort } from '$lib/state/songbook/filter';
  import { Many } from '$lib/state/songbook/many.svelte';
  import { keepLines, NewChart } from '$lib/state/songbook/new-chart.svelte';
  import {
    restoreChart,
    importChartFile,
    createChart,
    deleteChart,
    duplicateChart,
    listCharts,
    renameChart
  } from '$lib/state/songbook/client';
  import { Importing, type Take } from '$lib/state/songbook/importing.svelte';
  import Arriving from '../app/Arriving.svelte';
  import { bindKeys, layKeys } from '../keys/keys';
  import Head from '../shell/Head.svelte';
  import { SONGBOOK_KEYS } from './songbook-keys';
  import Button from '../kit/Button.svelte';
  import Select from '../kit/Select.svelte';
  import ImportMany from './ImportMany.svelte';
  import ChartRow from './ChartRow.svelte';
  import Copies from './Copies.svelte';
  import Filters from './Filters.svelte';
  import ManyBar from './ManyBar.svelte';
  import NewChartPanel from './NewChart.svelte';

  interface Props {
    list: ChartList;
    /** What the address asked for. */
    query: Partial<Filter> & { readonly search: string; readonly sort: Sort };
  }
  let { list, query }: Props = $props();

  let shown = $state.raw(untrack(() => list));
  let search = $state(untrack(() => query.search));
  let sort = $state(untrack(() => query.sort));
  let filter: Filter = $state.raw(
    untrack(() => ({
      ...NO_FILTER,
      ...Object.fromEntries(FILTERS.flatMap((one) => (query[one] ? [[one, query[one]]] : [])))
    }))
  );
  const asked = $derived(queryOf(search, sort, filter));
  const isNarrowed = $derived(FILTERS.some((one) => filter[one] !== ''));
  /** Filters are of use once there is more than one looks over. */
  const MANY_CHARTS = 8;
  let wantsFilters = $state(false);
  const showsFilters = $derived(isNarrowed || wantsFilters);
  function toggleFilters() {
    wantsFilters = !showsFilters;
    if (!isNarrowed) return;
    filter = NO_FILTER;
    void refresh();
  }
  const many = new Many();
  const fresh = new NewChart();
  let latest = 0;
  const SORTS = [
    { value: 'practised', name: 'last practised' },
    { value: 'title', name: 'title' },
    { value: 'changed', name: 'last changed' }
  ] as const;

  function tell(error: unknown) {
    toast.error(error instanceof Error ? error.message : String(error));
  }

  async function refresh(offset = 0) {
    const call = ++latest;
    const said = new URLSearchParams(asked).toString();
    // An undo may be pressed when the player is elsewhere by now.
    if (location.pathname === '/') replaceState(said ? `/?${said}` : '/', {});
    try {
      const found = await listCharts({ ...asked, offset: String(offset) });
      if (call !== latest) return;
      shown = offset ? { ...found, charts: [...shown.charts, ...found.charts] } : found;
    } catch (error) {
      tell(error);
    }
  }

  async function attempt(work: () => Promise<unknown>) {
    try {
      await work();
    } catch (error) {
      tell(error);
    }
  }

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
  function closeImport(taken: readonly { readonly id: string }[]) {
    if (taken.length === 0) return;
    void refresh();
    toast(`${counted(taken.length, 'chart')} came into the songbook.`, {
      action: {
        label: 'Undo',
        onClick: () =>
          void attempt(async () => {
            for (const { id } of taken) await deleteChart(id);
            await refresh();
          })
      }
    });
  }
  let isDropping = $state(false);
  let showsCopies = $state(false);

  onMount(() => {
    fresh.restore();
    // In an empty songbook there is one thing to do.
    if (shown.total === 0 && !search && matchMedia('(width >= 64rem)').matches) chartText?.focus();
    // Back comes to the address as it was narrowed down last, with what the server was asked first.
    const said = queryIn(new URLSearchParams(location.search));
    if (new URLSearchParams(asked).toString() === new URLSearchParams(said.asked).toString()) return;
    ({ search, sort, filter } = said);
    void refresh();
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

  const duplicate = (chart: ChartSummary) =>
    attempt(async () => {
      await duplicateChart(chart.id);
      await refresh();
      toast.success(`“${chart.title}” was duplicated.`);
    });

  const remove = (chart: ChartSummary) =>
    attempt(async () => {
      await deleteChart(chart.id);
      await refresh();
      toast(`“${chart.title}” was deleted.`, {
        action: {
          label: 'Undo',
          onClick: () =>
            void attempt(async () => {
              await restoreChart(chart.id);
              await refresh();
            })
        }
      });
    });

  /** What it was done to keeps it, also where the rest failed. */
  const changeThem: Many['change'] = async (...change) => {
    const done = await many.change(...change);
    if (many.failure) tell(many.failure);
    return done;
  };
  const tagMany = (what: 'tag' | 'untag', tag: string) =>
    attempt(async () => {
      const done = await changeThem(what, tag);
      await refresh();
      if (done.length === 0) return;
      const words = what === 'tag' ? `tagged “${tag.trim()}”` : `no longer tagged “${tag.trim()}”`;
      toast(`${counted(done.length, 'chart')} ${done.length === 1 ? 'is' : 'are'} ${words}.`, {
        action: {
          label: 'Undo',
          onClick: () =>
            void attempt(async () => {
              await changeThem(what === 'tag' ? 'untag' : 'tag', tag, done);
              await refresh();
            })
        }
      });
    });
  const deleteMany = () =>
    attempt(async () => {
      const done = await changeThem('delete');
      if (!many.failure) many.end();
      await refresh();
      if (done.length === 0) return;
      toast(`${counted(done.length, 'chart')} ${done.length === 1 ? 'was' : 'were'} deleted.`, {
        action: {
          label: 'Undo',
          onClick: () =>
            void attempt(async () => {
              await changeThem('bring back', undefined, done);
              await refresh();
            })
        }
      });
    });
  const saveMany = () =>
    attempt(async () => {
      const { saveFile } = await import('../export/file');
      const zip = await many.asFiles();
      if (zip) saveFile(zip, 'Corvel charts', 'zip');
    });

  const rename = (chart: ChartSummary, title: string) =>
    attempt(async () => {
      await renameChart(chart.id, title);
      await refresh();
    });
</script>

<svelte:window
  ondragover={(event) => {
    if (!event.dataTransfer?.types.includes('Files')) return;
    event.preventDefault();
    isDropping = true;
  }}
  ondragleave={(event) => event.relatedTarget === null && (isDropping = false)}
  ondrop={(event) => {
    isDropping = false;
    if (!event.dataTransfer?.files.length) return;
    event.preventDefault();
    importAll(event.dataTransfer.files);
  }}
/>
{#if isDropping}
  <div
    class="pointer-events-none fixed inset-3 z-40 flex items-center justify-center rounded-2xl border-4 border-dashed border-target bg-paper/80"
    data-drop
  >
    <p class="font-display text-4xl">Drop to import</p>
  </div>
{/if}
<Copies bind:open={showsCopies} onback={() => void refresh()} />
<ImportMany {importing} take={takeImported} onclose={closeImport} />

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
      <div class="flex flex-wrap items-center gap-2">
        <label class="relative min-w-40 flex-1 basis-48">
          <span class="sr-only">Find a chart</span>
          <Search size={16} class="absolute top-1/2 left-3 -translate-y-1/2 text-soft" />
          <input
            type="search"
            class="h-10 w-full rounded-md border border-edge bg-surface pr-3 pl-9"
            placeholder="Title, key or chord"
            bind:this={searchField}
            bind:value={search}
            oninput={() => void refresh()}
          />
        </label>
        <div class="flex max-w-full flex-wrap items-center gap-2">
          <span class="text-sm whitespace-nowrap text-soft max-sm:hidden">Sort by</span>
          <Select
            class="h-10"
            label="Sort by"
            value={sort}
            options={SORTS}
            onpick={(next) => {
              sort = next;
              void refresh();
            }}
          />
          {#if shown.total > MANY_CHARTS || isNarrowed}
            <Button
              class="h-10"
              pressed={showsFilters}
              hint="By key, form, style, tag, and what was practised"
              onclick={toggleFilters}><ListFilter size={16} /> Filter</Button
            >
          {/if}
          {#if shown.total > 1}
            <Button
              class="h-10"
              pressed={many.isOn}
              hint="Several charts at once: tag, save, delete"
              onclick={() => (many.isOn ? many.end() : many.begin())}><ListChecks size={16} /> Select</Button
            >
          {/if}
        </div>
      </div>
      {#if showsFilters}
        <Filters
          facets={shown.facets}
          {filter}
          onfilter={(next) => {
            filter = next;
            void refresh();
          }}
        />
      {/if}

      <ul class="mt-3 divide-y divide-[var(--line)] card" data-charts>
        {#each shown.charts as chart (chart.id)}
          <ChartRow
            {chart}
            isSelected={many.isOn ? many.ids.has(chart.id) : null}
            onselect={(toHere) => many.press(chart.id, shown.charts, toHere)}
            onrename={(title) => void rename(chart, title)}
            onduplicate={() => void duplicate(chart)}
            onremove={() => void remove(chart)}
          />
        {:else}
          <li class="px-4 py-8 text-center text-soft">
            {#if search || isNarrowed}
              {search
                ? `No chart matches “${search}”${isNarrowed ? ' within the filter' : ''}.`
                : 'No chart is like this.'}
            {:else}
              <Arriving isQuiet part={firstMinutePart}
                >{#snippet children(FirstMinute)}<FirstMinute
                    onmade={() => void refresh()}
                  />{/snippet}</Arriving
              >
            {/if}
          </li>
        {/each}
      </ul>
      {#if many.isOn}
        <ManyBar
          selected={many.ids.size}
          total={shown.total}
          tags={shown.facets.tag}
          progress={many.progress}
          onall={() => void attempt(() => many.all(asked, shown.total))}
          ontag={(what, tag) => void tagMany(what, tag)}
          onsave={() => void saveMany()}
          ondelete={() => void deleteMany()}
          onstop={() => many.stop()}
          ondone={() => many.end()}
        />
      {/if}
      {#if shown.charts.length < shown.total}
        <Button class="mt-3" onclick={() => refresh(shown.charts.length)}>
          Show more ({shown.total - shown.charts.length} left)
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
