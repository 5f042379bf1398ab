<!-- The log: what was played, the latest first; corrected, annotated, deleted with undo; out and in as files. -->
<script lang="ts">
  import Trash2 from '@lucide/svelte/icons/trash-2';
  import { onMount, tick, untrack } from 'svelte';
  import { page } from '$app/state';
  import { toast } from 'svelte-sonner';
  import type { StoredRow } from '$lib/api/practice';
  import { keyShort } from '$lib/core/practice/items/words';
  import { counted } from '$lib/core/theory/words';
  import { LogBook } from '$lib/state/practice/log-book.svelte';
  import { logBox } from '$lib/state/practice/practice-log';
  import NotSaved from '../app/NotSaved.svelte';
  import { button } from '../kit/button';
  import Button from '../kit/Button.svelte';
  import NumberField from '../kit/NumberField.svelte';
  import { lieWords } from '../takes/words';
  import { longDay } from './days';
  import type { PanelProps } from './panels';

  let { today }: PanelProps = $props();
  const book = untrack(() => new LogBook(() => today.load()));
  /** The entry that the finder has found, and how often more is fetched to come to it. */
  const asked = page.url.searchParams.get('row');
  const MOST_PAGES = 20;
  onMount(() => void load());
  async function load() {
    await book.load();
    if (!asked) return;
    const isThere = () => book.rows.some(({ id }) => id === asked);
    for (let i = 0; i < MOST_PAGES && !isThere() && book.rows.length < book.total; i++) await book.more();
    await tick();
    document.querySelector(`[data-row="${CSS.escape(asked)}"]`)?.scrollIntoView({ block: 'center' });
  }

  const days = $derived.by(() => {
    const groups: { day: string; rows: StoredRow[]; seconds: number }[] = [];
    for (const row of book.rows) {
      let group = groups.at(-1);
      if (group?.day !== row.day) groups.push((group = { day: row.day, rows: [], seconds: 0 }));
      group.rows.push(row);
      group.seconds += row.seconds;
    }
    return groups;
  });
  const NEXT = new Map<boolean | null, boolean | null>([
    [null, true],
    [true, false],
    [false, null]
  ]);
  const said = (clean: boolean | null) => (clean === null ? '–' : clean ? 'clean' : 'not clean');
  const time = (seconds: number) => `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}`;

  async function remove(row: StoredRow) {
    const restore = await book.remove(row);
    if (restore)
      toast('The entry was deleted.', { action: { label: 'Undo', onClick: () => void restore() } });
  }
  let own = $state('');
  let minutes = $state(10);
  async function add() {
    if (await book.add(own.trim(), minutes)) own = '';
  }
</script>

<section aria-label="Log" data-rows={book.total}>
  <NotSaved
    box={logBox}
    noun={['entry', 'entries']}
    told={({ what, day }) => `${what || 'Played'}, ${longDay(day)}`}
  />
  <div class="flex flex-wrap items-center gap-2">
    <form
      class="flex flex-1 flex-wrap items-center gap-2"
      onsubmit={(event) => {
        event.preventDefault();
        void add();
      }}
    >
      <input
        class="h-10 min-w-40 flex-1 rounded-md border border-edge bg-surface px-3 pointer-coarse:h-11"
        aria-label="Played elsewhere"
        placeholder="Played elsewhere: a rehearsal, a lesson …"
        maxlength="200"
        bind:value={own}
      />
      <NumberField
        label="Minutes played"
        min={1}
        max={600}
        unit="min"
        value={minutes}
        onset={(value) => (minutes = value)}
      />
      <Button type="submit" disabled={!own.trim()}>add it</Button>
    </form>
    <a class={button({})} href="/api/v1/practice/file?format=csv" download="practice.csv">CSV</a>
    <a class={button({})} href="/api/v1/practice/file?format=json" download="practice.json">JSON</a>
    <label class="{button({})} cursor-pointer focus-within:outline-2">
      import CSV …
      <input
        type="file"
        class="sr-only"
        accept=".csv,text/csv"
        data-import-log
        onchange={(event) => {
          const [file] = event.currentTarget.files ?? [];
          if (file) void book.take(file);
          event.currentTarget.value = '';
        }}
      />
    </label>
  </div>
  {#if book.problem}<p class="mt-2 text-warn" role="alert">{book.problem}</p>{/if}
  {#if book.taken}
    <div class="mt-2 card p-3 text-sm" role="status" data-taken={book.taken.taken}>
      <p>{counted(book.taken.taken, 'entry', 'entries')} imported.</p>
      {#if book.taken.left.length}
        <p>{counted(book.taken.left.length, 'line')} skipped:</p>
        <ul class="list-disc pl-5 text-soft">
          {#each book.taken.left.slice(0, 20) as { line, why } (line)}<li>line {line}: {why}</li>{/each}
        </ul>
      {/if}
    </div>
  {/if}
  {#each days as { day, rows, seconds } (day)}
    <section class="mt-4" aria-label={longDay(day)}>
      <h2 class="font-display text-xl">
        {longDay(day)} <span class="text-base text-soft">{Math.round(seconds / 60)} minutes</span>
        {#each book.time.filter((one) => one.day === day) as timed (timed.day)}
          <span class="text-base text-soft" data-day-time
            >· {lieWords(timed)} in {counted(timed.takes, 'take')}</span
          >
        {/each}
      </h2>
      <ul class="mt-1 divide-y divide-[var(--line)] card">
        {#each rows as row (row.id)}
          <li
            class="flex flex-wrap items-center gap-x-3 gap-y-1 px-3 py-1.5 {row.id === asked ? 'bg-lit' : ''}"
            data-row={row.id}
          >
            <span class="w-14 text-right tabular-nums">{time(row.seconds)}</span>
            <div class="min-w-44 flex-1">
              <b>{row.what || 'Played'}</b>
              {#if row.title}<span class="text-soft">{row.title}</span>{:else if row.chart}<span
                  class="text-soft">a deleted chart</span
                >{/if}
              <span class="text-soft"
                >{row.key ? keyShort(row.key) : ''}{row.area === null ? '' : ` · position ${row.area}`}</span
              >
              {#if row.asked}<span class="text-soft">{row.right} of {row.asked} right</span>{/if}
            </div>
            {#if row.tempo !== null}<span class="w-16 text-right tabular-nums">{row.tempo} bpm</span>{/if}
            <span class="w-20 text-right text-soft">{counted(row.rounds, 'round')}</span>
            <Button
              size="small"
              class="min-w-20"
              aria-label="{said(row.clean)}: change it"
              hint="Clean, not clean, not marked"
              onclick={() => void book.correct(row, { clean: NEXT.get(row.clean)! })}
              >{said(row.clean)}</Button
            >
            <input
              class="h-8 w-44 rounded-md border border-transparent bg-transparent px-1 text-sm hover:border-edge focus:border-edge pointer-coarse:h-11"
              aria-label="Note on {row.what}"
              placeholder="note"
              maxlength="2000"
              value={row.note}
              onchange={(event) => void book.correct(row, { note: event.currentTarget.value })}
            />
            <Button size="small" label="Delete this entry" onclick={() => void remove(row)}
              ><Trash2 size={14} /></Button
            >
          </li>
        {/each}
      </ul>
    </section>
  {:else}
    <p class="mt-4 card p-6 text-center text-soft">
      {book.isLoaded
        ? 'Nothing yet. What you play in Rehearse and answer in the trainer is written down here by itself.'
        : 'The log is on its way …'}
    </p>
  {/each}
  {#if book.rows.length < book.total}
    <Button class="mt-3" onclick={() => void book.more()}
      >Show more ({book.total - book.rows.length} left)</Button
    >
  {/if}
</section>
