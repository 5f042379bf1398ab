<!-- The takes of the chart, the last one first. -->
<script lang="ts">
  import Heart from '@lucide/svelte/icons/heart';
  import type { ListedTake } from '$lib/api/take';
  import { isBeingHeard } from '$lib/state/takes/hearing.svelte';
  import { isUnheard } from '$lib/state/takes/shelf.svelte';
  import SoundRoom from './SoundRoom.svelte';
  import { percent, WAY_WORDS } from './words';

  interface Props {
    takes: readonly ListedTake[];
    opened: string | null;
    onopen: (id: string) => void;
    /** The sound of a take has gone. */
    onforgotten: (id: string) => void;
  }
  let { takes, opened, onopen, onforgotten }: Props = $props();
  const date = new Intl.DateTimeFormat(undefined, { day: 'numeric', month: 'short' });
</script>

<section class="min-w-0 card p-1.5" aria-labelledby="takes-title">
  <h2 id="takes-title" class="px-1.5 pt-1 text-lg">Takes</h2>
  <ul class="max-h-80 overflow-y-auto lg:max-h-[46rem]">
    {#each takes as take (take.id)}
      {@const figures = take.summary?.figures}
      <li>
        <button
          class="flex min-h-11 w-full flex-col rounded-lg px-2 py-1.5 text-left text-sm hover:bg-lit {take.id ===
          opened
            ? 'bg-lit'
            : ''}"
          aria-current={take.id === opened ? 'true' : undefined}
          data-take={take.id}
          onclick={() => onopen(take.id)}
        >
          <span class="flex w-full items-center gap-1.5">
            <b class="truncate">{take.name}</b>
            {#if take.isLoved}<Heart
                size={13}
                class="shrink-0 fill-target text-target"
                aria-label="favourite"
              />{/if}
          </span>
          <span class="text-xs text-soft">
            {date.format(take.playedAt)} · {WAY_WORDS[take.way]} · {Math.round(take.tempo)} bpm
          </span>
          {#if isUnheard(take)}
            {#if isBeingHeard(take.id)}<span class="text-xs text-soft">being listened to</span>
            {:else}<span class="text-xs text-warn">not listened to yet</span>{/if}
          {:else if figures}
            <span class="text-xs tabular-nums">
              {#if !figures.fits}fits this chart nowhere{:else}
                {#if figures.hits !== null}<b class="text-target">{percent(figures.hits)}</b> hit ·
                {/if}
                <b>{percent(figures.outlined)}</b> heard{/if}
            </span>
          {/if}
        </button>
      </li>
    {/each}
  </ul>
  <SoundRoom stamp={takes} {onforgotten} />
</section>
