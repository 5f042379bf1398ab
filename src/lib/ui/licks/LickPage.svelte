<!-- The lick book: every lick over all charts, found by chord, function, resolution, position, length and tag. -->
<script lang="ts">
  import Search from '@lucide/svelte/icons/search';
  import { onMount, untrack } from 'svelte';
  import { toast } from 'svelte-sonner';
  import type { LickList, StoredLick } from '$lib/api/lick';
  import { prettyDegree } from '$lib/core/theory/typeset';
  import { counted } from '$lib/core/theory/words';
  import { isFound, LickBook, NO_SEARCH, type LickSearch } from '$lib/state/licks/licks.svelte';
  import { page } from '$app/state';
  import { lickPlaceOf } from '$lib/core/practice/items/lick-items';
  import { LickPractice } from '$lib/state/practice/lick-practice.svelte';
  import { hush } from '../app/hear';
  import Head from '../shell/Head.svelte';
  import Button from '../kit/Button.svelte';
  import Select from '../kit/Select.svelte';
  import LickCard from './LickCard.svelte';

  let { licks }: { licks: LickList } = $props();
  const book = untrack(() => new LickBook(licks));
  /** The finder names what it found. */
  let search: LickSearch = $state.raw(
    untrack(() => {
      const text = page.url.searchParams.get('find');
      return text ? { ...NO_SEARCH, text } : NO_SEARCH;
    })
  );
  /** Licks that are drawn at first, and more of them with each press. */
  const PAGE = 9;
  let shown = $state(PAGE);

  const found = $derived(
    book.licks.filter((lick) => (asked ? lick.id === asked.lick : isFound(lick, search)))
  );
  const isSearching = $derived(search !== NO_SEARCH);
  const degrees = $derived(
    [...new Set(book.licks.flatMap(({ facts }) => facts?.resolves?.degree ?? []))].sort()
  );
  const positions = $derived(
    [...new Set(book.licks.flatMap(({ facts }) => facts?.position ?? []))].sort((a, b) => a - b)
  );
  const FAMILIES = [
    'major',
    'minor',
    'dominant',
    'half-diminished',
    'diminished',
    'augmented',
    'suspended'
  ] as const;

  function seek(part: Partial<LickSearch>) {
    search = { ...search, ...part };
    shown = PAGE;
  }
  async function remove(lick: StoredLick) {
    const restore = await book.remove(lick);
    if (restore)
      toast(`“${lick.name}” was deleted.`, { action: { label: 'Undo', onClick: () => void restore() } });
  }
  const practice = new LickPractice();
  /** A part of a session opens one lick, in one place. */
  const asked = $derived(lickPlaceOf(page.url.searchParams.get('item') ?? ''));
  onMount(() => {
    void practice.load();
    return hush;
  });
</script>

<div class="page-head"><Head at="licks" title="Lick book" /></div>
<main class="page max-w-[1800px]" data-found={found.length}>
  <div class="flex flex-wrap items-center gap-2" role="search">
    <label class="relative min-w-40 flex-1 basis-48">
      <span class="sr-only">Find a lick</span>
      <Search size={16} class="absolute top-1/2 left-3 -translate-y-1/2 text-soft" />
      <input
        type="search"
        class="h-10 w-full rounded-md border border-edge bg-surface pr-3 pl-9"
        placeholder="Name, chord, ii–V, tag"
        value={search.text}
        oninput={(event) => seek({ text: event.currentTarget.value })}
      />
    </label>
    <Select
      label="Over a chord"
      value={search.family}
      options={[
        { value: '', name: 'any chord' },
        ...FAMILIES.map((family) => ({ value: family, name: family }))
      ]}
      onpick={(family) => seek({ family: family as LickSearch['family'] })}
    />
    <Select
      label="Resolves to"
      value={search.resolves}
      options={[
        { value: '', name: 'to any note' },
        ...degrees.map((degree) => ({ value: degree, name: `to the ${prettyDegree(degree)}` }))
      ]}
      onpick={(resolves) => seek({ resolves })}
    />
    <Select
      label="Position"
      value={search.position === null ? '' : String(search.position)}
      options={[
        { value: '', name: 'any position' },
        ...positions.map((position) => ({ value: String(position), name: `near position ${position}` }))
      ]}
      onpick={(position) => seek({ position: position ? Number(position) : null })}
    />
    <Select
      label="Length"
      value={search.bars === null ? '' : String(search.bars)}
      options={[
        { value: '', name: 'any length' },
        { value: '1', name: 'one bar' },
        { value: '2', name: 'two bars at most' },
        { value: '4', name: 'four bars at most' }
      ]}
      onpick={(bars) => seek({ bars: bars ? Number(bars) : null })}
    />
    <Select
      label="Tag"
      value={search.tag}
      options={[{ value: '', name: 'any tag' }, ...book.tags.map((tag) => ({ value: tag, name: tag }))]}
      onpick={(tag) => seek({ tag })}
    />
    {#if isSearching}<Button onclick={() => (search = NO_SEARCH)}>all of them</Button>{/if}
  </div>
  <p class="mt-2 text-sm text-soft" aria-live="polite">
    {counted(found.length, 'lick')}{isSearching ? ' found' : ''}. Keep a passage of a line here from Lines,
    and insert it into a chart there.
  </p>
  {#if asked}<p class="mt-1"><a class="underline" href="/licks">The whole book</a></p>{/if}
  {#if practice.problem}<p class="mt-2 text-warn" role="alert">{practice.problem}</p>{/if}
  {#if book.problem}<p class="mt-2 text-warn" role="alert">{book.problem}</p>{/if}
  <div class="mt-3 grid grid-cols-[minmax(0,1fr)] gap-2.5 md:grid-cols-2 xl:grid-cols-3">
    {#each found.slice(0, shown) as lick (`${lick.id} ${lick.data?.notes.length} ${page.url.search}`)}
      {#if lick.data}
        <LickCard
          {lick}
          data={lick.data}
          {practice}
          place={asked?.lick === lick.id ? asked : null}
          onchange={(edit) => void book.change(lick, edit)}
          onremove={() => void remove(lick)}
        />
      {:else}
        <p class="card p-4 text-warn">
          “{lick.name}” cannot be read any more. It is kept as it is.
          <Button onclick={() => void remove(lick)}>delete it</Button>
        </p>
      {/if}
    {:else}
      <p class="card p-6 text-center text-soft md:col-span-2 xl:col-span-3">
        {isSearching
          ? 'No lick is like that.'
          : 'No licks yet. In Lines, keep a bar or a selection as a lick; it stands here over all charts.'}
      </p>
    {/each}
  </div>
  {#if shown < found.length}
    <Button class="mt-3" onclick={() => (shown += PAGE)}>Show more ({found.length - shown} left)</Button>
  {/if}
</main>
