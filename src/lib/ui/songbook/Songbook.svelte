<!-- All charts: find, sort, open, duplicate, rename, delete with undo; a new one from pasted text. -->
<script lang="ts">
  import { prettyNote } from '$lib/core/theory/typeset';
  import { onMount, tick, untrack } from 'svelte';
  import Copy from '@lucide/svelte/icons/copy';
  import Pencil from '@lucide/svelte/icons/pencil';
  import FileMusic from '@lucide/svelte/icons/file-music';
  import ListChecks from '@lucide/svelte/icons/list-checks';
  import ListFilter from '@lucide/svelte/icons/list-filter';
  import History from '@lucide/svelte/icons/history';
  import Plus from '@lucide/svelte/icons/plus';
  import Search from '@lucide/svelte/icons/search';
  import X from '@lucide/svelte/icons/x';
  import Trash2 from '@lucide/svelte/icons/trash-2';
  import { toast } from 'svelte-sonner';
  import { goto, replaceState } from '$app/navigation';
  import { byteLength, MAX_CHART_BYTES, tooLargeMessage } from '$lib/api/limits';
  import type { ChartList, ChartSummary } from '$lib/api/songbook';
  import { counted } from '$lib/core/theory/words';
  import type { Brought } from '$lib/state/songbook/bring';
  import { Bringing, type Take } from '$lib/state/songbook/bringing.svelte';
  import { importText } from '$lib/core/formats/text/import';
  import { readKey } from '$lib/core/harmony/key';
  import { readSheet } from '$lib/core/harmony/sheet';
  import { Drafts } from '$lib/state/chart/drafts';
  import PasteLook from '../chart/PasteLook.svelte';
  import ChordSymbol from '../chord/ChordSymbol.svelte';
  import { bindKeys, layKeys } from '../keys/keys';
  import Head from '../shell/Head.svelte';
  import { SONGBOOK_KEYS } from './songbook-keys';
  import Button from '../kit/Button.svelte';
  import Select from '../kit/Select.svelte';
  import BringMany from './BringMany.svelte';
  import Copies from './Copies.svelte';
  import { FILTERS, NO_FILTER, queryIn, queryOf, type Filter, type Sort } from './filter';
  import Filters from './Filters.svelte';
  import { Many } from './many.svelte';
  import ManyBar from './ManyBar.svelte';
  import {
    bringBackChart,
    bringChartFile,
    createChart,
    deleteChart,
    duplicateChart,
    listCharts,
    renameChart
  } from './client';

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
  let draft = $state('');
  let renaming: string | null = $state(null);
  let newTitle = $state('');
  let latest = 0;
  const SORTS = [
    { value: 'practised', name: 'last practised' },
    { value: 'title', name: 'title' },
    { value: 'changed', name: 'last changed' }
  ] as const;

  const isTooLarge = $derived(byteLength(draft) > MAX_CHART_BYTES);
  /** Whether B and H are German names, where the player has said so; else an H tells. */
  let german: boolean | undefined = $state();
  /** What the typed or pasted text gives. */
  const look = $derived(draft.trim() && !isTooLarge ? importText(draft, german) : null);
  /** It was no chart as it stood: the bars are shown before they are taken. */
  const isTurned = $derived(look !== null && look.chart !== draft);
  const sheet = $derived(look?.chart ? readSheet(look.chart) : null);
  const verdict = $derived.by(() => {
    if (isTooLarge) return tooLargeMessage(draft);
    if (look && !sheet) return 'No chord is found in this text. Write bars like | Dm7 | G7 | Cmaj7 |.';
    if (!sheet) return '';
    const { form, problems, analysis } = sheet;
    if (form.changes.length === 0) return problems[0]?.message ?? '';
    const { tonic, mode } = analysis.key;
    const count = form.bars.length;
    const key = `${count} ${count === 1 ? 'bar' : 'bars'} in ${prettyNote(tonic)} ${mode}`;
    if (problems.length) return `${key}; ${problems[0]!.message}`;
    const left = look!.left.length;
    return left
      ? `${key}. ${left} ${left === 1 ? 'line or word is' : 'lines or words are'} left out, see below.`
      : `${key}. All chords recognised.`;
  });

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

  /** The chart's own name from the start: pressed twice, or sent again, it is one chart. */
  let newId = '';
  const create = () =>
    attempt(async () => {
      newId ||= crypto.randomUUID();
      const plan = brought?.chart === draft ? brought.plan : undefined;
      const { id } = await createChart(newId, look?.chart ?? draft, plan);
      if (brought?.chart === draft) await keepLines(id, brought);
      drafts.newChart = '';
      await goto(`/charts/${id}`);
    });

  /** What a file held that was brought; its chart is what is typed, as long as nothing else is. */
  let brought: Brought | null = $state.raw(null);
  let broughtName = $state('');
  const FILES = '.cho,.txt,.tab,.csv,.tsv,.mid,.midi,.musicxml,.xml,.mxl,.pro,.json';
  const bring = (file: File) =>
    attempt(async () => {
      const { chartIn } = await import('$lib/state/songbook/bring');
      broughtName = file.name;
      brought = null;
      brought = await chartIn(file);
      if (brought.chart === null) return;
      draft = brought.chart;
      type();
    });
  /** One file is laid on the desk; of several each is looked at first. */
  const bringing = new Bringing();
  function bringAll(files: FileList | null | undefined) {
    const [first, ...more] = files ?? [];
    if (!first) return;
    isWriting = true;
    const isWhole = first.name.endsWith('.corvel.json');
    if (more.length > 0 || isWhole) void bringing.read([first, ...more]);
    else
      void attempt(async () => {
        const { listIn } = await import('$lib/state/songbook/bring');
        if (await listIn(first)) await bringing.read([first]);
        else await bring(first);
      });
  }
  const takeBrought: Take = async (id, one, title) => {
    if (one.whole !== undefined) {
      await bringChartFile(id, one.whole);
      return;
    }
    const { declared, directivesIn, withDeclaration } = await import('$lib/core/chart/directives');
    const source = one.chart!;
    const isNamed = declared(directivesIn(source), 'title') !== null;
    await createChart(id, isNamed ? source : withDeclaration(source, 'title', title), one.plan);
    await keepLines(id, one);
  };
  function closeBringing(taken: readonly { readonly id: string }[]) {
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

  async function keepLines(chart: string, { lines, over }: Brought) {
    const { keepLine } = await import('$lib/state/lines/client');
    for (const { name, notes } of lines)
      await keepLine(chart, crypto.randomUUID(), { name, data: { notes, over } });
  }

  /** What is being typed survives leaving and a reload. */
  const drafts = new Drafts();
  onMount(() => {
    draft ||= drafts.newChart;
    // Back comes to the address as it was narrowed down last, with what the server was asked first.
    const said = queryIn(new URLSearchParams(location.search));
    if (new URLSearchParams(asked).toString() === new URLSearchParams(said.asked).toString()) return;
    ({ search, sort, filter } = said);
    void refresh();
  });
  function type() {
    newId = '';
    drafts.newChart = draft;
  }

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
              await bringBackChart(chart.id);
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

  const rename = (chart: ChartSummary) =>
    attempt(async () => {
      const title = newTitle.trim();
      renaming = null;
      if (!title || title === chart.title) return;
      await renameChart(chart.id, title);
      await refresh();
    });

  function startRenaming(chart: ChartSummary) {
    renaming = chart.id;
    newTitle = chart.title;
  }

  function ago(at: number | null): string {
    if (at === null) return 'not practised yet';
    const days = Math.floor((Date.now() - at) / 86_400_000);
    return days === 0 ? 'practised today' : days === 1 ? 'practised yesterday' : `practised ${days} days ago`;
  }

  /** "E♭ major", "D dorian". */
  function keyName(text: string): string {
    const key = readKey(text);
    return key ? `${prettyNote(key.tonic)} ${key.mode}` : text;
  }
  const focusHere = (node: HTMLInputElement) => {
    node.focus();
    node.select();
  };
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
    bringAll(event.dataTransfer.files);
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
<BringMany {bringing} take={takeBrought} onclose={closeBringing} />

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
          <li
            class="group relative flex items-center gap-3 px-4 py-2.5 first:rounded-t-[10px] last:rounded-b-[10px] hover:bg-lit"
          >
            {#if many.isOn}
              <label class="absolute inset-0 z-20 flex cursor-pointer items-center pl-4">
                <input
                  type="checkbox"
                  class="size-6 accent-ink"
                  aria-label="Select {chart.title}"
                  checked={many.ids.has(chart.id)}
                  onclick={(event) => many.press(chart.id, shown.charts, event.shiftKey)}
                />
              </label>
            {/if}
            <div class="min-w-0 flex-1 {many.isOn ? 'pl-10' : ''}">
              {#if renaming === chart.id}
                <form
                  onsubmit={(event) => {
                    event.preventDefault();
                    void rename(chart);
                  }}
                >
                  <input
                    class="relative z-10 h-9 w-full rounded-md border border-line bg-paper px-2 font-display text-lg"
                    aria-label="New title"
                    maxlength="200"
                    bind:value={newTitle}
                    use:focusHere
                    onblur={() => void rename(chart)}
                    onkeydown={(event) => event.key === 'Escape' && (renaming = null)}
                  />
                </form>
              {:else}
                <a
                  class="font-display text-xl leading-7 after:absolute after:inset-0"
                  href="/charts/{chart.id}">{chart.title}</a
                >
                {#each chart.tags as tag (tag)}
                  <span class="ml-1.5 rounded-full border border-line px-2 py-0.5 text-xs whitespace-nowrap"
                    >{tag}</span
                  >
                {/each}
              {/if}
              <p class="flex gap-2.5 truncate text-base leading-6 text-soft">
                {#each chart.opening as symbol, i (i)}<ChordSymbol {symbol} />{:else}<span>no chords yet</span
                  >{/each}
                {#if chart.damaged}<b class="text-warn">its plan is damaged</b>{/if}
              </p>
            </div>
            <div class="w-52 shrink-0 text-right text-sm leading-5 text-soft max-sm:hidden">
              {#if chart.key}<span class="text-ink">{keyName(chart.key)}</span><br />{/if}
              {chart.bars} bars · {chart.meter}{chart.tempo ? ` · ${chart.tempo} bpm` : ''}<br />
              {ago(chart.practisedAt)}{chart.heldTempo ? `, held at ${chart.heldTempo}` : ''}
            </div>
            <div class="relative z-10 flex shrink-0 gap-1 {many.isOn ? 'hidden' : ''}">
              <Button label="Rename {chart.title}" hint="Rename" onclick={() => startRenaming(chart)}
                ><Pencil size={15} /></Button
              >
              <Button label="Duplicate {chart.title}" hint="Duplicate" onclick={() => duplicate(chart)}
                ><Copy size={15} /></Button
              >
              <Button label="Delete {chart.title}" hint="Delete" onclick={() => remove(chart)}
                ><Trash2 size={15} /></Button
              >
            </div>
          </li>
        {:else}
          <li class="px-4 py-8 text-center text-soft">
            {search || isNarrowed
              ? search
                ? `No chart matches “${search}”${isNarrowed ? ' within the filter' : ''}.`
                : 'No chart is like this.'
              : 'No charts yet. Type or paste the first progression under New chart: a few chords between strokes are enough.'}
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
    <section
      class="card p-4 lg:sticky lg:top-2.5 lg:h-fit {isWriting
        ? 'max-lg:fixed max-lg:inset-0 max-lg:z-30 max-lg:overflow-y-auto max-lg:rounded-none max-lg:pb-20'
        : 'max-lg:hidden'}"
      aria-label="New chart"
      data-new-chart
    >
      <div class="flex items-center justify-between">
        <h2 class="font-display text-xl">New chart</h2>
        <Button class="lg:hidden" tone="quiet" label="Back to the charts" onclick={stopWriting}
          ><X size={18} /></Button
        >
      </div>
      <p class="mt-1 text-base text-soft">
        Type or paste chords: <code>| Fm7 | Bb7 |</code>, a list, or chords over lyrics.
      </p>
      <form
        class="mt-3"
        onsubmit={(event) => {
          event.preventDefault();
          void create();
        }}
      >
        <textarea
          class="w-full rounded-md border border-edge bg-paper p-2.5 font-mono text-base leading-6"
          rows="6"
          aria-label="Chart text"
          aria-describedby="verdict"
          spellcheck="false"
          placeholder="| Fm7 | Bb7 | Ebmaj7 | C7b9 |"
          bind:this={chartText}
          bind:value={draft}
          oninput={type}
          onkeydown={(event) => {
            if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) void create();
            else if (event.key === 'Escape') stopWriting();
          }}></textarea>
        <label
          class="mt-1 flex min-h-8.5 cursor-pointer items-center gap-1.5 text-sm text-soft underline decoration-dotted underline-offset-4 focus-within:outline-2 focus-within:outline-next hover:text-ink pointer-coarse:min-h-11"
        >
          <FileMusic size={16} class="shrink-0" /> Import files: MusicXML, MIDI, tab, CSV, chart text; or drop them
          anywhere here
          <input
            type="file"
            multiple
            class="sr-only"
            accept={FILES}
            data-bring
            onchange={(event) => {
              bringAll(event.currentTarget.files);
              event.currentTarget.value = '';
            }}
          />
        </label>
        {#if brought && (brought.chart === null || brought.chart === draft)}
          <div class="mt-1 text-sm" role="status" data-brought>
            {#if brought.lines.length}
              <p>{counted(brought.lines.length, 'line')} in it; they are kept with the chart.</p>
            {/if}
            {#if brought.plan}
              <p>
                {counted(brought.plan.decisions.length, 'chord')} read in a key that is written inside the tune.
              </p>
            {/if}
            {#if brought.chart === null}<p class="text-warn">“{broughtName}” has no chords in it.</p>{/if}
            <ul class="text-soft">
              {#each brought.left
                .filter(({ text }) => text || brought?.chart)
                .slice(0, 6) as { text, why }, i (i)}
                <li>{text ? `“${text}” ` : ''}{why}</li>
              {/each}
            </ul>
          </div>
        {/if}
        <p
          id="verdict"
          class="mt-1 min-h-10 text-sm {isTooLarge || sheet?.problems.length ? 'text-warn' : 'text-soft'}"
          aria-live="polite"
        >
          {verdict}
        </p>
        {#if look?.german || (german !== undefined && draft.trim())}
          <div class="mb-2" data-german>
            <Button
              size="small"
              pressed={look?.german === true}
              hint="H is read as B, and B as B♭"
              onclick={() => (german = look?.german !== true)}>German names</Button
            >
          </div>
        {/if}
        {#if look && isTurned}<div class="mb-2"><PasteLook {look} /></div>{/if}
        <Button class="mt-1 w-full" tone="strong" type="submit" disabled={isTooLarge}
          ><Plus size={16} />
          {!draft.trim()
            ? 'Start an empty chart'
            : isTurned && sheet
              ? 'Take these bars'
              : 'Open it with a plan'}</Button
        >
      </form>
    </section>
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
