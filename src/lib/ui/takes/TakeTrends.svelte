<!-- Takes of one chart beside each other: changes down, takes across, a cell for each landing; lateness and hits as lines above. -->
<script lang="ts">
  import { max } from 'd3-array';
  import { scaleLinear } from 'd3-scale';
  import { line as lineOf } from 'd3-shape';
  import type { ListedTake, TakeLanding } from '$lib/api/take';
  import type { AnalysedChange } from '$lib/core/harmony/analysis';
  import { MEETINGS } from '$lib/core/takes/judge/landing';
  import { prettySymbol } from '$lib/core/theory/typeset';
  import ChordText from '../chord/ChordText.svelte';
  import MeetingMark from './MeetingMark.svelte';
  import { lateWords, MEETING_WORDS, percent, signedMs, timeWords } from './words';

  interface Props {
    takes: readonly ListedTake[];
    changes: readonly AnalysedChange[];
    opened: string | null;
    onopen: (id: string) => void;
    onchange: (change: number) => void;
  }
  let { takes, changes, opened, onopen, onchange }: Props = $props();

  /** More takes than this are not seen at once: the last ones are. */
  const MOST = 24;
  const MOST_CHANGES = 64;
  const [ROW, NAMES, HEAD, CURVES, END] = [26, 138, 44, 74, 24];
  let width = $state(800);

  const shown = $derived(
    takes
      .flatMap(({ summary, ...take }) => (summary?.figures.fits ? [{ ...take, summary }] : []))
      .slice(0, MOST)
      .toReversed()
  );
  const rows = $derived(changes.filter(({ chord }) => chord).slice(0, MOST_CHANGES));
  const step = $derived(Math.max(28, Math.min(64, (width - NAMES - END) / Math.max(1, shown.length))));
  const x = (at: number) => NAMES + (at + 0.5) * step;
  const height = $derived(CURVES + HEAD + rows.length * ROW + 8);

  /** Of several rounds the worst landing is what there is to do. */
  const ORDER = ['outside', 'silent', 'late', 'early', 'chord tone', 'hit'];
  const worst = (landings: readonly TakeLanding[], change: number) =>
    landings
      .filter((one) => one.change === change && one.met !== null)
      .sort((a, b) => ORDER.indexOf(a.met ?? '') - ORDER.indexOf(b.met ?? ''))[0];

  const apart = $derived(shown.map(({ summary }) => summary.figures.apart));
  const lateScale = $derived(
    scaleLinear([0, Math.max(0.3, max(apart, (value) => value ?? 0) ?? 0.3)], [CURVES - 8, 14])
  );
  const hitScale = scaleLinear([0, 1], [CURVES - 8, 14]);
  const path = (values: readonly (number | null)[], scale: (value: number) => number) =>
    lineOf<number | null>(
      (_, i) => x(i),
      (value) => scale(value ?? 0)
    ).defined((value) => value !== null)(values) ?? '';
  /** Of the last take that is shown. */
  const last = $derived(shown.at(-1)?.summary.figures);
  const date = new Intl.DateTimeFormat(undefined, { day: 'numeric', month: 'short' });
</script>

<section class="min-w-0 card p-2.5" aria-labelledby="trends-title">
  <div class="flex flex-wrap items-baseline gap-x-5 gap-y-1">
    <h2 id="trends-title" class="text-lg">Take by take</h2>
    {#if shown.length > 1}
      <ul class="flex flex-wrap gap-x-4 gap-y-1 text-xs text-soft" aria-label="Legend">
        {#each MEETINGS as met (met)}
          <li class="flex items-center gap-1">
            <svg width="16" height="16" aria-hidden="true"><MeetingMark {met} /></svg>
            {MEETING_WORDS[met]}
          </li>
        {/each}
      </ul>
    {/if}
  </div>
  {#if shown.length < 2}
    <p class="text-sm text-soft">
      After your second take you see here which landings you hit more often, and where you keep coming late.
    </p>
  {:else}
    <div class="overflow-x-auto" bind:clientWidth={width} data-trends>
      <svg
        width={Math.max(width, NAMES + shown.length * step + END)}
        {height}
        role="img"
        aria-label="Landings of {shown.length} takes: changes down, takes across"
      >
        <text x="0" y="24" font-size="12" class="fill-target font-bold">targets hit</text>
        <text x="0" y="42" font-size="12" class="fill-ink">beats off the change</text>
        {#if shown.some(({ summary }) => summary?.time)}
          <text x="0" y={CURVES + 32} font-size="12" class="fill-ink">ms behind the beat</text>
        {/if}
        <path
          d={path(
            shown.map(({ summary }) => summary.figures.hits),
            hitScale
          )}
          fill="none"
          class="stroke-target"
          stroke-width="2.5"
        />
        <path
          d={path(apart, lateScale)}
          fill="none"
          class="stroke-ink"
          stroke-width="1.8"
          stroke-dasharray="5 3"
        />

        <text
          x={x(shown.length - 1) + 10}
          y={hitScale(last?.hits ?? 0) + 4}
          font-size="12"
          class="fill-target font-bold">{percent(last?.hits ?? null)}</text
        >
        <text x={x(shown.length - 1) + 10} y={lateScale(last?.apart ?? 0) + 1} font-size="12" class="fill-ink"
          >{last?.apart ?? ''}</text
        >
        {#each shown as take, i (take.id)}
          <circle cx={x(i)} cy={hitScale(take.summary.figures.hits ?? 0)} r="3.5" class="fill-target">
            <title>{percent(take.summary.figures.hits)} of the targets hit</title>
          </circle>
          <!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_static_element_interactions -->
          <g class="cursor-pointer" onclick={() => onopen(take.id)}>
            {#if take.id === opened}
              <rect
                x={x(i) - step / 2}
                y={CURVES - 2}
                width={step}
                height={height - CURVES}
                class="fill-lit"
              />
            {/if}
            <text x={x(i)} y={CURVES + 14} text-anchor="middle" font-size="10.5" class="fill-soft"
              >{date.format(take.playedAt)}</text
            >
            {#if take.summary.time}
              {@const { mean, spread } = take.summary.time}
              <text
                x={x(i)}
                y={CURVES + 32}
                text-anchor="middle"
                font-size="11"
                class="fill-ink"
                data-take-time={mean}
                ><title>{timeWords({ mean, spread, drift: take.summary.time.drift })}</title>{signedMs(
                  mean
                )}</text
              >
            {/if}
            {#each rows as change, row (change.index)}
              {@const one = worst(take.summary.landings, change.index)}
              {#if one?.met}
                <g>
                  <title
                    >{prettySymbol(change.symbol)}, bar {change.bar}: {MEETING_WORDS[one.met]}{one.late ===
                    null
                      ? ''
                      : `, ${lateWords(one.late)}`}</title
                  >
                  <MeetingMark met={one.met} x={x(i)} y={CURVES + HEAD + row * ROW + ROW / 2} />
                </g>
              {:else}
                <path
                  d="M{x(i) - 3} {CURVES + HEAD + row * ROW + ROW / 2}h6"
                  class="stroke-line"
                  stroke-width="2"
                />
              {/if}
            {/each}
          </g>
        {/each}
        {#each rows as change, row (change.index)}
          {@const y = CURVES + HEAD + row * ROW + ROW / 2}
          <!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_static_element_interactions -->
          <g class="cursor-pointer" onclick={() => onchange(change.index)}>
            <rect x="0" y={y - ROW / 2} width={NAMES} height={ROW} class="fill-transparent" />
            <text x="2" y={y + 4} font-size="11" class="fill-soft">{change.bar}</text>
            <ChordText symbol={change.symbol} x={24} y={y + 5} size={15} class="fill-ink" />
          </g>
        {/each}
      </svg>
    </div>
    <details class="mt-1 text-sm text-soft">
      <summary class="min-h-6 cursor-pointer pointer-coarse:min-h-11">As a table</summary>
      <div class="overflow-x-auto">
        <table class="mt-1">
          <thead>
            <tr
              ><th class="pr-3 text-left">take</th><th class="pr-3 text-left">hit</th><th
                class="pr-3 text-left">heard</th
              ><th class="pr-3 text-left">off the change</th><th class="text-left">time</th></tr
            >
          </thead>
          <tbody>
            {#each shown as { id, name, playedAt, summary } (id)}
              <tr>
                <td class="pr-3">{date.format(playedAt)} · {name}</td>
                <td class="pr-3">{percent(summary.figures.hits)}</td>
                <td class="pr-3">{percent(summary.figures.outlined)}</td>
                <td class="pr-3">{summary.figures.apart ?? '–'} beats</td>
                <td>{summary.time ? timeWords(summary.time) : '–'}</td>
              </tr>
            {/each}
          </tbody>
        </table>
      </div>
    </details>
  {/if}
</section>
