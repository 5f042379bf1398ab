<!-- A practice book or a worksheet of one chart: keys and their order, the paper, the pages as they will be printed. -->
<script lang="ts">
  import ArrowLeft from '@lucide/svelte/icons/arrow-left';
  import GripVertical from '@lucide/svelte/icons/grip-vertical';
  import Printer from '@lucide/svelte/icons/printer';
  import { flushSync, onDestroy, onMount, untrack } from 'svelte';
  import { SvelteSet } from 'svelte/reactivity';
  import type { Attachment } from 'svelte/attachments';
  import { dragHandle, dragHandleZone, type DndEvent } from 'svelte-dnd-action';
  import { replaceState } from '$app/navigation';
  import { page as address } from '$app/state';
  import type { StoredChart } from '$lib/api/songbook';
  import { sure } from '$lib/core/base/list';
  import { BOOK_ORDERS, keysIn } from '$lib/core/formats/book/keys';
  import { PAPERS } from '$lib/core/formats/book/paper';
  import { keyText } from '$lib/core/harmony/key';
  import { keyName, keyShort } from '$lib/core/practice/items/words';
  import { homeUp } from '$lib/core/theory/tonic';
  import { counted } from '$lib/core/theory/words';
  import { BookKeys } from '$lib/state/book/book.svelte';
  import { orderOf, queryOfWish, wishIn, type BookKind, type BookWish } from '$lib/state/book/book-wish';
  import { button } from '../kit/button';
  import Button from '../kit/Button.svelte';
  import Progress from '../kit/Progress.svelte';
  import Select from '../kit/Select.svelte';
  import Switch from '../kit/Switch.svelte';
  import Toggles from '../kit/Toggles.svelte';
  import Head from '../shell/Head.svelte';
  import { ready as engraver } from '../score/engrave';
  import { bookPages, worksheetPages } from './pages';
  import PrintedPage from './PrintedPage.svelte';

  let { chart }: { chart: StoredChart } = $props();
  // A book is of the chart as it was when it was opened.
  const keys = untrack(() => new BookKeys(chart));
  const home = keys.own.analysis.key;
  let wish: BookWish = $state.raw(untrack(() => wishIn(address.url.searchParams, home)));

  const LINES = [
    { value: 'fitting', name: 'lines that fit', hint: 'As many as the opening of a key has room for' },
    { value: 'all', name: 'all kept lines', hint: 'A key may take more than one opening' },
    { value: 'none', name: 'no lines' }
  ] as const;
  const OWN = 'own';
  const order = $derived(orderOf(wish.keys, home));
  const orderName = $derived(BOOK_ORDERS.find(({ id }) => id === order)?.name ?? 'in an order of your own');
  const paper = $derived(
    sure(
      PAPERS.find(({ id }) => id === wish.paper),
      'PAPERS'
    )
  );
  const made = $derived(wish.keys.flatMap((shift) => keys.ready.get(shift) ?? []));
  const hasLines = $derived(made.some(({ lines }) => lines.length > 0));
  const pages = $derived(
    wish.kind === 'book'
      ? bookPages(made, { paper, lines: wish.lines, withNotes: wish.withNotes })
      : worksheetPages(made, paper)
  );
  /** The keys in the order they stand in, then those that are left out. */
  const chips = $derived(
    [...wish.keys, ...keysIn('fourths', home).filter((shift) => !wish.keys.includes(shift))].map((shift) => ({
      id: shift,
      isIn: wish.keys.includes(shift),
      name: keyName(keyText(homeUp(home, shift))),
      short: keyShort(keyText(homeUp(home, shift)))
    }))
  );
  let dragged: typeof chips | null = $state.raw(null);

  function ask(part: Partial<BookWish>) {
    wish = { ...wish, ...part };
    replaceState(queryOfWish(wish), {});
    void keys.make(wish.keys);
  }
  function pickKind(kind: BookKind) {
    ask({ kind, keys: kind === 'worksheet' ? [0] : keysIn('fourths', home) });
  }
  function pickOrder(id: string) {
    const known = BOOK_ORDERS.find((one) => one.id === id);
    if (known) ask({ keys: keysIn(known.id, home).filter((shift) => wish.keys.includes(shift)) });
  }
  function toggleKey(shift: number) {
    const without = wish.keys.filter((one) => one !== shift);
    if (!wish.keys.includes(shift)) {
      const next = [...wish.keys, shift];
      ask({ keys: order ? keysIn(order, home).filter((one) => next.includes(one)) : next });
    } else if (without.length) ask({ keys: without });
  }
  function finish(items: typeof chips) {
    dragged = null;
    ask({ keys: items.filter(({ isIn }) => isIn).map(({ id }) => id) });
  }

  let hasFont = $state(false);
  onMount(() => {
    void keys.make(wish.keys);
    engraver().then(
      () => (hasFont = true),
      () => undefined
    );
  });
  onDestroy(() => keys.close());

  // Only what is in sight is drawn; for the printer all of it.
  let isPrinting = $state(false);
  const seen = new SvelteSet<number>();
  const watch =
    (number: number): Attachment<HTMLElement> =>
    (element) => {
      const observer = new IntersectionObserver(
        ([entry]) => (entry!.isIntersecting ? seen.add(number) : seen.delete(number)),
        { rootMargin: '60% 0px' }
      );
      observer.observe(element);
      return () => observer.disconnect();
    };

  let room = $state(1200);
  const GAP = 16;
  const MM = 96 / 25.4;
  /** Two pages beside one another where they can still be read. */
  const LEAST = 0.45;
  const isPaired = $derived((room - GAP) / (2 * paper.width * MM) >= LEAST);
  const zoom = $derived(
    Math.min(1, isPaired ? (room - GAP) / (2 * paper.width * MM) : room / (paper.width * MM))
  );
  const isReady = $derived(keys.progress === null && made.length > 0 && (hasFont || !hasLines));
</script>

<svelte:head><title>{keys.own.document.title}: practice book · Corvel</title></svelte:head>
<svelte:window
  onbeforeprint={() => flushSync(() => (isPrinting = true))}
  onafterprint={() => (isPrinting = false)}
/>

<div class="page-head print:hidden">
  <Head>
    {#snippet lead()}
      <a
        href="/charts/{chart.id}"
        class={button({ isIcon: true, tone: 'quiet', class: 'shrink-0' })}
        aria-label="Back to the chart"
        data-hint="Back to the chart"><ArrowLeft size={18} /></a
      >
      <h1 class="min-w-0 truncate font-display text-xl">{keys.own.document.title}</h1>
    {/snippet}
  </Head>
</div>
<main class="page max-w-[1400px] print:m-0 print:max-w-none print:p-0" data-book={wish.kind}>
  <div class="print:hidden">
    <div class="flex flex-wrap items-center gap-x-3 gap-y-2">
      <Toggles
        label="Print what"
        value={wish.kind}
        options={[
          {
            value: 'book',
            name: 'Practice book',
            hint: 'An opening for every key: form, chords, hands, lines'
          },
          {
            value: 'worksheet',
            name: 'Worksheet',
            hint: 'Blank tables and necks to fill in, and the key of answers'
          }
        ]}
        onpick={pickKind}
      />
      <Toggles
        label="Paper"
        value={wish.paper}
        options={PAPERS.map(({ id, name }) => ({ value: id, name }))}
        onpick={(id) => ask({ paper: id })}
      />
      <span class="flex-1"></span>
      {#if wish.kind === 'book'}
        {#if hasLines}<Select
            label="Kept lines"
            value={wish.lines}
            options={LINES}
            onpick={(lines) => ask({ lines })}
          />{/if}
        <Switch
          label="Room for notes"
          checked={wish.withNotes}
          onswitch={(withNotes) => ask({ withNotes })}
        />
      {/if}
      <Button
        tone="strong"
        disabled={!isReady}
        hint="By the browser's own window: to a printer, or kept as PDF. Two-sided, every key is an opening"
        onclick={() => print()}><Printer size={17} /> Print {counted(pages.length, 'page')}</Button
      >
    </div>
    <div class="mt-2.5 flex flex-wrap items-center gap-x-3 gap-y-2">
      <Select
        label="Order of the keys"
        value={order ?? OWN}
        options={[
          ...BOOK_ORDERS.map(({ id, name }) => ({ value: id as string, name })),
          ...(order ? [] : [{ value: OWN, name: 'your own order' }])
        ]}
        onpick={pickOrder}
      />
      <ul
        class="flex flex-wrap gap-1"
        aria-label="Keys, in their order"
        use:dragHandleZone={{ items: dragged ?? chips, flipDurationMs: 0, dropTargetStyle: {} }}
        onconsider={(event: CustomEvent<DndEvent<(typeof chips)[number]>>) => (dragged = event.detail.items)}
        onfinalize={(event: CustomEvent<DndEvent<(typeof chips)[number]>>) => finish(event.detail.items)}
      >
        {#each dragged ?? chips as chip (chip.id)}
          <li class="flex" data-key={chip.id}>
            <div
              use:dragHandle
              class="flex min-h-6 w-6 cursor-grab items-center justify-center text-soft pointer-coarse:min-h-11 pointer-coarse:w-11"
              aria-label="Move {chip.name}"
            >
              <GripVertical size={14} />
            </div>
            <Button pressed={chip.isIn} aria-label={chip.name} onclick={() => toggleKey(chip.id)}
              >{chip.short}</Button
            >
          </li>
        {/each}
      </ul>
      <Button
        size="small"
        disabled={wish.keys.length === 12}
        onclick={() => ask({ keys: keysIn(order ?? 'fourths', home) })}>all twelve</Button
      >
    </div>
    <div class="mt-2 flex min-h-8 flex-wrap items-center gap-3" role="status">
      {#if keys.progress}
        {@const { done, of } = keys.progress}
        <Progress label="Keys ready" value={done / of} class="w-40" />
        <span>{keyName(keyText(keys.progress.home))}: key {done + 1} of {of}</span>
        <Button size="small" onclick={() => keys.stop()}>Stop</Button>
      {:else if keys.isStopped && made.length < wish.keys.length}
        <span>Stopped: {made.length} of {counted(wish.keys.length, 'key')} ready.</span>
        <Button size="small" onclick={() => void keys.make(wish.keys)}>Go on</Button>
      {:else if made.length === wish.keys.length}
        <span class="text-soft"
          >{counted(pages.length, 'page')} on {paper.name}{wish.kind === 'book'
            ? '; printed on both sides every key lies open before you'
            : '; the key of answers comes last'}.</span
        >
      {/if}
      {#if keys.problem}
        <span role="alert">The kept lines are not in it. {keys.problem}</span>
      {/if}
    </div>
  </div>

  {#if keys.own.changes.length === 0}
    <p class="py-16 text-center text-soft">
      This chart has no chords yet. Write some, and there is something to print.
    </p>
  {:else}
    <div bind:clientWidth={room} class="print:hidden"></div>
    <div class="pages" class:paired={isPaired} style:--zoom={zoom}>
      {#each pages as page (page.number)}
        {#if isPaired && page.number === 1}
          <div class="facing print:hidden" style:width="{paper.width}mm"></div>
        {/if}
        <div class="sheet" {@attach watch(page.number)}>
          <PrintedPage
            {page}
            {paper}
            own={keys.own}
            keys={made}
            order={orderName}
            isDrawn={isPrinting || seen.has(page.number)}
          />
        </div>
      {/each}
    </div>
  {/if}
</main>

<style>
  /* Paper is paper, on the stage too. */
  .pages {
    --ink: #14191c;
    --soft: #4b514e;
    --line: #c4bcab;
    --surface: #fff;
    --target: #a53a0a;
    --on-target: #fff;
    --tone: #1f4f63;
    --on-tone: #fff;
    --string: #6f6857;
    --lit: #fff;
    --next: #71409a;
  }

  @media print {
    .sheet {
      break-after: page;
    }

    .sheet:last-child {
      break-after: auto;
    }
  }

  @media screen {
    .pages {
      display: flex;
      flex-wrap: wrap;
      gap: 16px;
      justify-content: center;
    }

    .paired {
      gap: 16px 0;
    }

    .sheet {
      zoom: var(--zoom);
      box-shadow: 0 1px 6px rgb(0 0 0 / 25%);
    }

    /* Opposite the cover lies nothing. */
    .facing {
      zoom: var(--zoom);
    }
  }
</style>
