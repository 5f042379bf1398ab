<!-- Four weeks ahead, if all goes as now: which tunes, for how long, how fast, in which keys; what opens and what is held. -->
<script lang="ts">
  import { onMount } from 'svelte';
  import type { WeekAhead } from '$lib/core/practice/session/ahead';
  import { keyShort } from '$lib/core/practice/items/words';
  import { counted } from '$lib/core/theory/words';
  import { shortDay } from './days';
  import type { PanelProps } from './panels';
  import Picture from './Picture.svelte';

  let { today }: PanelProps = $props();
  let weeks: readonly WeekAhead[] | null = $state.raw(null);
  let problem = $state('');

  // Asked for once the plan is on the screen, and again for every plan that is read.
  let isThere = $state(false);
  onMount(() => void (isThere = true));
  $effect(() => {
    if (isThere) void load(today.now);
  });
  async function load(of: typeof today.now) {
    problem = '';
    try {
      const found = await today.ahead();
      if (of === today.now) weeks = found;
    } catch (error) {
      problem = error instanceof Error ? error.message : 'That did not work.';
    }
  }

  const titles = $derived(new Map(today.now.charts.map(({ id, title }) => [id, title])));
  const most = $derived.by(() =>
    Math.max(1, ...(weeks ?? []).flatMap(({ tunes }) => tunes.map(({ minutes }) => minutes)))
  );
  const title = (chart: string) => titles.get(chart) ?? 'A deleted chart';
</script>

{#if problem}
  <p class="mt-6 card p-4 text-warn" role="alert">{problem}</p>
{:else if weeks && weeks.some(({ tunes }) => tunes.length > 0)}
  <div class="mt-6" data-ahead>
    <Picture
      question="What comes in the next four weeks, if all goes as now?"
      columns={['week from', 'tune', 'minutes', 'whole form at']}
      rows={weeks.flatMap(({ from, tunes }) =>
        tunes.map(({ chart, minutes, tempo }) => [from, title(chart), minutes, tempo ?? '–'])
      )}
    >
      <div class="grid grid-cols-4 gap-4 max-lg:grid-cols-2 max-sm:grid-cols-1">
        {#each weeks as { from, tunes, keys, opens, held } (from)}
          <section class="min-w-0" aria-label="Week from {shortDay(from)}" data-week={from}>
            <h3 class="border-b border-edge pb-1 font-display text-lg">{shortDay(from)}</h3>
            <ol class="mt-1.5 flex flex-col gap-1.5">
              {#each tunes as { chart, minutes, tempo } (chart)}
                <li class="min-w-0">
                  <p class="flex items-baseline gap-2">
                    <span class="min-w-0 flex-1 truncate">{title(chart)}</span>
                    {#if tempo !== null}<span class="text-sm text-soft tabular-nums">at {tempo}</span>{/if}
                  </p>
                  <div class="flex items-center gap-1.5">
                    <div class="h-2 rounded-full bg-ink" style:width="{(minutes / most) * 62}%"></div>
                    <span class="text-xs whitespace-nowrap tabular-nums">{minutes} min</span>
                  </div>
                </li>
              {/each}
            </ol>
            <p class="mt-1.5 text-sm text-soft">
              {keys.map(keyShort).join(', ')}{opens.length
                ? ` · ${counted(opens.length, 'new exercise')}`
                : ''}
              · {held} held
            </p>
          </section>
        {/each}
      </div>
    </Picture>
  </div>
{/if}
