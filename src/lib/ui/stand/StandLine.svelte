<!-- The target line on the stand: four bars of it with the one that follows, read in time; each target its degree. -->
<script lang="ts">
  import { prettyDegree } from '$lib/core/theory/typeset';
  import type { Rehearsal } from '$lib/state/stand/rehearsal.svelte';
  import type { MetChange } from '$lib/state/stand/landings.svelte';
  import ChordText from '../chord/ChordText.svelte';
  import MeetingMark from '../takes/MeetingMark.svelte';
  import { stepWords, threadLine } from '../threads/layout';
  import type { StandSizes } from './fit';

  interface Props {
    rehearsal: Rehearsal;
    sizes: StandSizes;
    width: number;
    height: number;
    /** How the changes were met as they were played. */
    met?: ReadonlyMap<number, MetChange> | undefined;
  }
  let { rehearsal, sizes, width, height, met }: Props = $props();

  /** Bars on a page, fewer where the window is narrow; the one behind them is seen as well. */
  const bars = $derived(rehearsal.picture.now?.excerpt.bars ?? []);
  const aPage = $derived(width < 600 ? 2 : 4);
  const here = $derived(
    rehearsal.transport.isPlaying ? rehearsal.picture.written : (rehearsal.picture.change?.start ?? 0)
  );
  const barHere = $derived(
    Math.max(
      0,
      bars.findLastIndex(({ start }) => start <= here + 1e-9)
    )
  );
  const page = $derived(Math.floor(barHere / aPage));
  const from = $derived(bars[page * aPage]?.start ?? 0);
  const end = $derived.by(() => {
    const last = bars[Math.min(bars.length, page * aPage + aPage) - 1];
    return last ? last.start + last.beats : 1;
  });
  /** The page comes with the head of what follows; behind the last bar the loop begins again. */
  const beyond = $derived((end - from) / aPage / 2);
  const x = (beat: number) => sizes.degree + ((beat - from) / (end - from + beyond)) * (width - sizes.degree);
  const changes = $derived.by(() => {
    const all = rehearsal.picture.now?.excerpt.changes ?? [];
    const total = rehearsal.picture.now?.excerpt.beats ?? 0;
    const again = all.slice(0, 1).map((change) => ({ ...change, start: change.start + total }));
    return [...all, ...again].filter(({ start, beats }) => start + beats > from && start <= end);
  });
  const targets = $derived(
    rehearsal.desk.now.hides === 'nothing' ? rehearsal.picture.shown.paths.targets : new Map<number, never>()
  );
  const points = $derived(
    changes.flatMap((change) => {
      const target = targets.get(change.source.index);
      return target ? [{ change, target }] : [];
    })
  );
  const ends = $derived.by(() => {
    const all = points.map(({ target }) => target.cell.midi);
    const [low, high] = [Math.min(...all, 127), Math.max(...all, 0)];
    return [low, Math.max(high, low + 4)] as const;
  });
  const head = $derived(sizes.fret * 2);
  const radius = $derived(sizes.degree * 0.78);
  const y = (midi: number) => {
    const [low, high] = ends;
    return height - radius - 4 - ((midi - low) / (high - low)) * (height - head - 2 * radius - 12);
  };
  const thread = $derived(
    threadLine(
      points.map(({ change, target }) => ({
        x: x(change.start),
        end: x(change.start + change.beats),
        y: y(target.cell.midi)
      }))
    )
  );
</script>

<svg
  {width}
  {height}
  class="block overflow-hidden select-none"
  role="img"
  aria-label="The target line"
  data-stand-line={page}
>
  {#each bars.slice(page * aPage, page * aPage + aPage) as bar (bar.start)}
    <line
      x1={x(bar.start) - 3}
      x2={x(bar.start) - 3}
      y1={head * 0.9}
      y2={height}
      class="stroke-line"
      stroke-width="1.5"
    />
  {/each}
  <line x1={x(end) - 3} x2={x(end) - 3} y1="0" y2={height} class="stroke-soft" stroke-width="2" />
  {#each changes as { source, start, beats } (start)}
    {@const isNow = rehearsal.picture.change?.start === start}
    {#if isNow}
      <rect x={x(start)} y="0" width={x(start + beats) - x(start)} {height} rx="6" class="fill-lit" />
    {/if}
    <ChordText
      symbol={source.symbol}
      x={x(start) + 4}
      y={sizes.fret * 1.3}
      size={sizes.fret * 1.25}
      room={Math.max(0, x(start + beats) - x(start) - 8)}
      class={start >= end ? 'fill-soft' : 'fill-ink'}
    />
  {/each}
  <path
    d={thread}
    fill="none"
    class="stroke-target"
    stroke-width="4"
    stroke-linecap="round"
    stroke-linejoin="round"
    data-thread={rehearsal.picture.shown.plan.thread}
  />
  {#each points as { change, target }, i (change.start)}
    {@const px = Math.max(radius + 1, x(change.start) + radius)}
    {@const py = y(target.cell.midi)}
    {@const before = points[i - 1]}
    <g opacity={change.start >= end ? 0.6 : 1} data-line-target={change.source.index}>
      <circle cx={px} cy={py} r={radius} class="fill-target" />
      <text
        x={px}
        y={py + sizes.degree * 0.36}
        text-anchor="middle"
        font-size={sizes.degree}
        class="fill-on-target font-bold">{prettyDegree(target.cell.degree)}</text
      >
      {#if before && target.step && x(change.start) - x(before.change.start) > sizes.degree * 5}
        <text
          x={x(change.start) - sizes.fret * 0.4}
          y={(py + y(before.target.cell.midi)) / 2 - sizes.fret * 0.5}
          text-anchor="end"
          font-size={sizes.fret}
          class="fill-soft font-bold">{stepWords(target.step.semitones)}</text
        >
      {/if}
      {#if met?.get(change.source.index)}
        {@const own = met.get(change.source.index)!}
        <g opacity={own.isPast ? 0.4 : 1} data-met-at={change.source.index}>
          <MeetingMark met={own.met} x={px + radius * 2} y={py} r={radius * 0.7} />
        </g>
      {/if}
    </g>
  {/each}
  {#if rehearsal.transport.isPlaying && !rehearsal.picture.counting}
    <line
      x1={x(here)}
      x2={x(here)}
      y1={head * 0.5}
      y2={height}
      class="stroke-ink"
      stroke-width="3"
      data-playhead
    />
  {/if}
</svg>
