<!-- Over all charts: the plan for today, what is practised, dates, progress, the log. -->
<script lang="ts">
  import { onMount, untrack } from 'svelte';
  import { page } from '$app/state';
  import type { Today } from '$lib/api/practice';
  import { firstOf } from '$lib/core/base/list';
  import { dayHere } from '$lib/state/day-here';
  import { TodayState } from '$lib/state/practice/today.svelte';
  import Arriving from '../app/Arriving.svelte';
  import Head from '../shell/Head.svelte';
  import { button } from '../kit/button';
  import { PANELS } from './panels';

  let { today: given }: { today: Today } = $props();
  const today = untrack(() => new TodayState(given));
  const shown = $derived(
    PANELS.find(({ id }) => id === page.url.searchParams.get('show')) ?? firstOf(PANELS)
  );

  onMount(() => {
    // The server's day may not be the player's, and what was played a moment ago may still be on its way.
    if (today.now.day !== dayHere(Date.now())) void today.load();
  });
</script>

<div class="page-head print:hidden"><Head at="today" title="Today" /></div>
<main class="page max-w-[1500px] print:max-w-none print:p-0" data-day={today.now.day}>
  <div class="print:hidden">
    <nav class="flex gap-1.5 overflow-x-auto" aria-label="Practice">
      {#each PANELS as { id, name } (id)}
        <a
          class={button({ tone: shown.id === id ? 'strong' : undefined })}
          href="?show={id}"
          data-sveltekit-noscroll
          aria-current={shown.id === id ? 'page' : undefined}>{name}</a
        >
      {/each}
    </nav>
    {#if today.problem}<p class="mt-3 card px-3 py-2 text-warn" role="alert">{today.problem}</p>{/if}
  </div>
  <div class="mt-4">
    {#key shown.id}
      <Arriving part={shown.part}>{#snippet children(Panel)}<Panel {today} />{/snippet}</Arriving>
    {/key}
  </div>
</main>
