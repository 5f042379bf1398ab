<!-- A session under way, at the foot of every page: the part, its time, on, back, longer, something else first, a pause. -->
<script lang="ts">
  import ArrowLeftRight from '@lucide/svelte/icons/arrow-left-right';
  import ChevronLeft from '@lucide/svelte/icons/chevron-left';
  import ChevronRight from '@lucide/svelte/icons/chevron-right';
  import Coffee from '@lucide/svelte/icons/coffee';
  import Pause from '@lucide/svelte/icons/pause';
  import Play from '@lucide/svelte/icons/play';
  import SkipForward from '@lucide/svelte/icons/skip-forward';
  import X from '@lucide/svelte/icons/x';
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { announced, placeOfPart } from '$lib/state/practice/run-part';
  import { sessionRun } from '$lib/state/practice/session-run.svelte';
  import { standing } from '$lib/state/stand/standing.svelte';
  import Button from '../kit/Button.svelte';

  const run = sessionRun;
  const part = $derived(run.current);
  const upcoming = $derived(run.parts[run.at + 1]);
  const isUp = $derived(run.left <= 0);
  const { clock } = $derived(run);
  /** Something of the player’s own, away from any chart: the bar takes it down. */
  const isOwn = $derived(part?.item !== undefined && part.chart === undefined);
  const isThere = $derived.by(() => {
    if (!part) return true;
    const [path, query] = placeOfPart(part).split('?');
    const isStand = !query || page.state.place?.view === 'rehearse' || page.url.search === `?${query}`;
    return page.url.pathname === path && isStand;
  });

  $effect(() => {
    const timer = setInterval(() => run.tick(), 500);
    return () => clearInterval(timer);
  });

  async function open() {
    if (run.current) await goto(placeOfPart(run.current));
  }
  function go(step: () => void) {
    step();
    void open();
  }
</script>

<div class="h-24 max-sm:h-36 print:hidden" hidden={standing.isUp}></div>
<section
  inert={standing.isUp}
  hidden={standing.isUp}
  class="fixed inset-x-0 bottom-0 z-30 border-t border-edge bg-surface print:hidden"
  aria-label="Session in progress"
  data-session
  data-at={run.at}
>
  <div
    class="h-1 bg-target"
    style:width="{part ? Math.min(100, (run.ran / (part.minutes * 60)) * 100) : 100}%"
  ></div>
  <div class="mx-auto flex max-w-[1800px] flex-wrap items-center gap-x-4 gap-y-1 px-3 py-2">
    {#if part}
      <span
        class="min-w-20 font-display text-3xl tabular-nums {isUp ? 'text-target' : ''}"
        role="timer"
        aria-label="Time left of this part">{clock}</span
      >
      <div class="min-w-0 flex-1 basis-48">
        <p class="truncate">
          <span class="text-soft">{run.at + 1} of {run.parts.length}</span>
          {#if part.kind === 'rest'}<Coffee size={16} class="inline" />{/if}
          <b class="font-display text-xl" data-session-part>{part.name}</b>
          {#if part.title}<span class="text-soft">{part.title}</span>{/if}
        </p>
        <p class="truncate text-sm text-soft">
          {isUp ? 'The time is up. ' : ''}{upcoming ? `Then: ${announced(upcoming)}` : 'Then it is done.'}
        </p>
      </div>
      <div class="flex flex-wrap items-center gap-1">
        {#if !isThere}<Button size="stand" tone="strong" onclick={() => void open()}>open it</Button>{/if}
        <Button size="stand" label={run.isPaused ? 'Go on' : 'Pause'} class="px-3" onclick={() => run.pause()}
          >{#if run.isPaused}<Play size={17} />{:else}<Pause size={17} />{/if}</Button
        >
        <Button size="stand" hint="Two minutes more of this" onclick={() => run.prolong(2)}>+2</Button>
        <Button
          size="stand"
          label="The next part first"
          class="px-3"
          disabled={!upcoming}
          onclick={() => go(() => run.swap())}><ArrowLeftRight size={17} /></Button
        >
        <Button
          size="stand"
          label="The part before"
          class="px-3"
          disabled={run.at === 0}
          onclick={() => go(() => run.back())}><ChevronLeft size={17} /></Button
        >
        <Button size="stand" label="Skip it" class="px-3" onclick={() => go(() => run.skip())}
          ><SkipForward size={17} /></Button
        >
        {#if isOwn}
          <Button size="stand" tone={isUp ? 'target' : 'strong'} onclick={() => go(() => run.next(true))}
            >clean</Button
          >
          <Button size="stand" onclick={() => go(() => run.next(false))}>not yet</Button>
        {:else}
          <Button size="stand" tone={isUp ? 'target' : 'strong'} onclick={() => go(() => run.next())}
            >next <ChevronRight size={17} /></Button
          >
        {/if}
        <Button size="stand" label="End the session" class="px-3" onclick={() => run.end()}
          ><X size={17} /></Button
        >
      </div>
    {:else}
      <p class="flex-1 font-display text-xl">
        Done: {run.parts.filter(({ isDone }) => isDone).length} of {run.parts.length} parts played.
      </p>
      <Button size="stand" onclick={() => go(() => run.back())}>back</Button>
      <Button
        size="stand"
        tone="strong"
        onclick={() => {
          run.end();
          void goto('/today?show=log');
        }}>to the log</Button
      >
      <Button size="stand" onclick={() => run.end()}>done</Button>
    {/if}
  </div>
</section>
