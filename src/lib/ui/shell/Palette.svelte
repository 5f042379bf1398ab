<!-- The finder: charts, licks, takes and the log by their words, and everything that can be done here. -->
<script lang="ts">
  import { Command, Dialog } from 'bits-ui';
  import { tick } from 'svelte';
  import { goto } from '$app/navigation';
  import type { Found } from '$lib/api/find';
  import { firstOf } from '$lib/core/base/list';
  import { reach } from '$lib/state/reach.svelte';
  import { laidKeys } from '../keys/keys';

  let { open = $bindable() }: { open: boolean } = $props();

  interface Entry {
    readonly id: string;
    readonly name: string;
    readonly hint: string;
    readonly run: () => void;
  }
  /** Milliseconds of rest in typing after which the songbook is asked. */
  const REST = 120;
  const NOTHING: Found = { charts: [], licks: [], takes: [], log: [] };
  let search = $state('');
  let found = $state.raw(NOTHING);
  /** What was found is of these words; of others only what has them in its name is shown meanwhile. */
  let foundFor = $state('');
  /** Enter was pressed before the songbook had answered: the first of what it finds is taken. */
  let takesFirst = false;
  let isAway = $state(false);
  let latest = 0;
  const commands = $derived(
    open ? laidKeys().flatMap(({ shortcuts }) => shortcuts.filter(({ command }) => command)) : []
  );

  async function ask(words: string) {
    const call = ++latest;
    try {
      const response = await fetch(
        `/api/v1/find?${new URLSearchParams({ search: words.slice(0, 200) }).toString()}`
      );
      if (!response.ok) throw new Error(String(response.status));
      const answer = (await response.json()) as Found;
      if (call !== latest) return;
      [found, foundFor, isAway] = [answer, words, false];
      await tick();
      if (takesFirst && groups[0]) take(firstOf(groups[0].entries));
      takesFirst = false;
    } catch {
      void reach.look();
      if (call === latest) [found, foundFor, isAway, takesFirst] = [NOTHING, words, true, false];
    }
  }
  $effect(() => {
    if (!open) {
      search = '';
      found = NOTHING;
      foundFor = '';
      takesFirst = false;
      return;
    }
    const words = search;
    const timer = setTimeout(() => void ask(words), words ? REST : 0);
    return () => clearTimeout(timer);
  });

  const to = (href: string) => () => void goto(href);
  /** Words that must all be in what can be done; the songbook has looked through its own. */
  const words = $derived(search.toLowerCase().split(/\s+/).filter(Boolean));
  const groups = $derived(
    [
      {
        name: 'Charts',
        entries: found.charts.map(({ id, title, key }): Entry => ({
          id,
          name: title,
          hint: key,
          run: to(`/charts/${id}`)
        }))
      },
      {
        name: 'To do here',
        entries: commands
          .filter(({ name }) => words.every((word) => name.toLowerCase().includes(word)))
          .map(({ id, name, keys, run }): Entry => ({ id, name, hint: keys, run: () => run(null) }))
      },
      {
        name: 'Licks',
        entries: found.licks.map(({ id, name }): Entry => ({
          id,
          name,
          hint: '',
          run: to(`/licks?${new URLSearchParams({ find: name }).toString()}`)
        }))
      },
      {
        name: 'Takes',
        entries: found.takes.map(({ id, name, chart, title, day }): Entry => ({
          id,
          name: `${name}, ${title}`,
          hint: day,
          run: to(`/charts/${chart}?view=takes&take=${id}`)
        }))
      },
      {
        name: 'Log',
        entries: found.log.map(({ id, day, what, title }): Entry => ({
          id,
          name: [what, title].filter(Boolean).join(', ') || 'Practice',
          hint: day,
          run: to(`/today?show=log&row=${id}`)
        }))
      }
    ]
      .map(({ name, entries }) => ({ name, entries: entries.filter(isMeant) }))
      .filter(({ entries }) => entries.length > 0)
  );
  /** Until the songbook has answered for what is typed, only what has all its words in its name. */
  function isMeant({ name }: Entry): boolean {
    return foundFor === search || words.every((word) => name.toLowerCase().includes(word));
  }
  function take(entry: Entry) {
    open = false;
    entry.run();
  }
  function waitForFirst(event: KeyboardEvent) {
    if (event.key === 'Enter') takesFirst = foundFor !== search && groups.length === 0;
    else takesFirst = false;
  }

  /** What Enter takes: the first of what was found, until the player walks on. */
  let chosen = $state('');
  $effect(() => {
    const [first] = groups;
    chosen = first ? `${first.name} ${firstOf(first.entries).id}` : '';
  });

  const ITEM =
    'flex min-h-9 cursor-pointer items-center justify-between gap-3 rounded-md px-2 data-[selected]:bg-lit pointer-coarse:min-h-11';
</script>

<Dialog.Root bind:open>
  <Dialog.Portal>
    <Dialog.Overlay class="fixed inset-0 z-40 bg-black/50" />
    <Dialog.Content
      class="fixed top-[10dvh] left-1/2 z-50 w-[min(600px,94vw)] -translate-x-1/2 card p-2"
      data-finder
    >
      <Dialog.Title class="sr-only">Find</Dialog.Title>
      <Command.Root
        label="Charts, licks, takes, log, and what can be done"
        shouldFilter={false}
        bind:value={chosen}
      >
        <Command.Input
          class="mb-2 h-11 w-full rounded-md border border-edge bg-paper px-3"
          aria-label="Find"
          placeholder="A chart, a lick, a take, a day, or something to do …"
          bind:value={search}
          onkeydown={waitForFirst}
        />
        <Command.List class="max-h-[60dvh] overflow-y-auto" tabindex={0}>
          <Command.Viewport>
            {#if isAway}
              <p class="p-2 text-soft" role="status">
                Corvel’s server does not answer; only what can be done here is listed.
              </p>
            {/if}
            {#each groups as { name, entries } (name)}
              <Command.Group value={name}>
                <Command.GroupHeading class="px-2 pt-2 pb-0.5 text-sm text-soft">{name}</Command.GroupHeading>
                <Command.GroupItems>
                  {#each entries as entry (entry.id)}
                    <Command.Item
                      class={ITEM}
                      value="{name} {entry.id}"
                      data-found={name}
                      onSelect={() => take(entry)}
                      ><span class="min-w-0 truncate {name === 'To do here' ? '' : 'font-display'}"
                        >{entry.name}</span
                      ><kbd class="shrink-0 text-xs text-soft">{entry.hint}</kbd></Command.Item
                    >
                  {/each}
                </Command.GroupItems>
              </Command.Group>
            {:else}
              <p class="p-3 text-soft">Nothing by that name.</p>
            {/each}
          </Command.Viewport>
        </Command.List>
      </Command.Root>
    </Dialog.Content>
  </Dialog.Portal>
</Dialog.Root>
