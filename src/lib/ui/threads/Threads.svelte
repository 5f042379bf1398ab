<!--
  Threads: every change a column that holds its chord tones at their pitch heights; the target path runs through them
  and says how far it moves at each change. Click or drag to set a target.
-->
<script lang="ts">
  import type { Workspace } from '$lib/state/workspace.svelte';
  import { settings } from '$lib/state/settings.svelte';
  import type { TargetPath } from '$lib/core/targets/path';
  import PathPanel from '../change/PathPanel.svelte';
  import ChordText from '../chord/ChordText.svelte';
  import { HEAD, layOutThreads, stepWords, threadLine, TONE_INSET } from './layout';

  let { workspace, height = 214 }: { workspace: Workspace; height?: number } = $props();

  let available = $state(900);
  let scroller: HTMLDivElement | undefined = $state();
  /** The tone the player is dragging the thread to. */
  let dragged: { change: number; midi: number } | null = $state(null);
  /** The thread under the pointer in the list of other threads. */
  let offered: string | null = $state(null);

  const changes = $derived(workspace.changes);
  const pitches = $derived([
    ...workspace.tones.flatMap((tones) => tones.map((tone) => tone.midi)),
    ...[...workspace.targets.values()].map((target) => target.cell.midi)
  ]);
  const layout = $derived(layOutThreads(changes, workspace.sheet.form.beats, pitches, available - 2, height));
  const bars = $derived(workspace.sheet.form.bars);

  function points(path: TargetPath | null) {
    return (path?.targets ?? []).map(({ change, cell }) => {
      const column = layout.columns[change]!;
      return { x: column.x + TONE_INSET, end: column.x + column.width, y: layout.pitch(cell.midi) };
    });
  }

  /** The step into each target, written where the thread bends. */
  const steps = $derived(
    (workspace.path?.targets ?? []).flatMap(({ change, cell, step }, i) => {
      const before = workspace.path!.targets[i - 1];
      if (!before || !step) return [];
      const x = layout.columns[change]!.x - 8;
      const y = (layout.pitch(before.cell.midi) + layout.pitch(cell.midi)) / 2;
      return [
        { change, x, y: y + (Math.abs(step.semitones) < 3 ? -13 : 0), words: stepWords(step.semitones) }
      ];
    })
  );

  /** Tones closer than this stand side by side. */
  const CLOSE = 15.5;
  function shifts(midis: readonly number[]): number[] {
    let side = 0;
    return midis.map((midi, i) => {
      const below = midis[i - 1];
      const isClose = below !== undefined && layout.pitch(below) - layout.pitch(midi) < CLOSE;
      side = isClose ? 1 - side : 0;
      return side * 15;
    });
  }

  $effect(() => {
    const column = layout.columns[workspace.selected];
    if (!scroller || !column) return;
    const { scrollLeft, clientWidth } = scroller;
    if (column.x < scrollLeft || column.x + column.width > scrollLeft + clientWidth) {
      scroller.scrollTo({ left: column.x - clientWidth / 3, behavior: 'smooth' });
    }
  });

  function nearest(change: number, event: PointerEvent): number | null {
    const svg = (event.currentTarget as Element).closest('svg')!;
    const y = event.clientY - svg.getBoundingClientRect().top;
    const tones = workspace.tones[change] ?? [];
    if (tones.length === 0) return null;
    return tones.reduce((a, b) =>
      Math.abs(layout.pitch(b.midi) - y) < Math.abs(layout.pitch(a.midi) - y) ? b : a
    ).midi;
  }

  function grab(event: PointerEvent, change: number) {
    const midi = nearest(change, event);
    workspace.select(change);
    if (midi === null || event.button !== 0) return;
    (event.currentTarget as Element).setPointerCapture(event.pointerId);
    dragged = { change, midi };
  }

  function drag(event: PointerEvent) {
    if (!dragged) return;
    const midi = nearest(dragged.change, event);
    if (midi !== null) dragged = { ...dragged, midi };
  }

  function drop(change: number) {
    const tone = dragged && workspace.tones[change]?.find(({ midi }) => midi === dragged!.midi);
    dragged = null;
    if (!tone) return;
    const current = workspace.targets.get(change);
    if (current?.isFixed && current.cell.midi === tone.midi) workspace.release(change);
    else workspace.fix(change, tone);
  }

  function describe(change: number): string {
    const { symbol, bar } = changes[change]!;
    const target = workspace.targets.get(change);
    if (!target) return `${symbol}, bar ${bar}, no target`;
    const { cell, step, isFixed } = target;
    const move = step ? `, ${stepWords(step.semitones)}` : '';
    return `${symbol}, bar ${bar}, target ${cell.degree} ${cell.note}${move}${isFixed ? ', fixed' : ''}`;
  }
</script>

<section class="relative min-w-0 overflow-hidden card" aria-label="Threads">
  <div class="overflow-x-auto overflow-y-hidden" bind:this={scroller} bind:clientWidth={available}>
    <svg
      width={layout.width}
      {height}
      class="block select-none"
      role="group"
      aria-label="Chord tones in time"
    >
      <!-- Bars -->
      {#each bars as bar (bar.number)}
        {@const x = layout.time(bar.start)}
        {@const opens = bar.section !== '' && bar.section !== bars[bar.number - 2]?.section}
        <line
          x1={x}
          x2={x}
          y1={opens ? 0 : 14}
          y2={height}
          class={opens ? 'stroke-soft' : 'stroke-line'}
          stroke-width={opens ? 1.5 : 1}
        />
        <text x={x + 5} y="11" font-size="10" class="fill-soft">
          {bar.number}{#if opens}<tspan class="font-bold">&#160;&#160;{bar.section}</tspan>{/if}
        </text>
      {/each}

      <!-- The column of the moment, and the one that comes -->
      {#each layout.columns as column (column.index)}
        {#if column.index === workspace.selected}
          <rect x={column.x} y="15" width={column.width} height={height - 15} class="fill-lit" />
          <rect x={column.x} y="15" width={column.width} height="3" class="fill-target" />
        {:else if column.index === workspace.nextIndex}
          <rect x={column.x} y="15" width={column.width} height="2" class="fill-next" />
        {/if}
        <ChordText
          symbol={changes[column.index]!.symbol}
          x={column.x + 7}
          y={HEAD - 8}
          size={column.width < 70 ? 15 : 19}
          class="fill-ink"
        />
      {/each}

      <!-- Other threads, faint -->
      {#each workspace.otherThreads as thread (thread.rule)}
        <path
          d={threadLine(points(thread.path))}
          fill="none"
          class="pointer-events-none {offered === thread.rule ? 'stroke-next' : 'stroke-soft'}"
          stroke-width={offered === thread.rule ? 2.5 : 1}
          stroke-dasharray="2 4"
          opacity={offered === thread.rule ? 1 : 0.4}
        />
      {/each}

      <!-- The target path -->
      <path
        d={threadLine(points(workspace.path))}
        fill="none"
        class="pointer-events-none stroke-target"
        stroke-width="3"
        stroke-linecap="round"
        stroke-linejoin="round"
        data-thread={workspace.plan.thread}
      />

      {#each layout.columns as column (column.index)}
        {@const tones = workspace.tones[column.index] ?? []}
        {@const target = workspace.targets.get(column.index)}
        {@const side = shifts(tones.map((tone) => tone.midi))}
        {@const isNear = column.index === workspace.selected || column.index === workspace.nextIndex}
        <g
          role="button"
          tabindex="-1"
          aria-label={describe(column.index)}
          data-change={column.index}
          class="cursor-ns-resize touch-pan-x outline-none"
          onpointerdown={(event) => grab(event, column.index)}
          onpointermove={drag}
          onpointerup={() => drop(column.index)}
          onpointercancel={() => (dragged = null)}
        >
          <rect x={column.x} y="15" width={column.width} height={height - 15} fill="transparent" />
          {#each tones as tone, i (tone.midi)}
            {@const isTarget = target?.cell.midi === tone.midi}
            {@const isAimed = dragged?.change === column.index && dragged.midi === tone.midi}
            {@const x = column.x + TONE_INSET + (isTarget ? 0 : side[i]!)}
            <g
              data-tone={tone.midi}
              data-degree={tone.degree}
              data-string={tone.string}
              data-fret={tone.fret}
              data-target={isTarget || undefined}
              opacity={isTarget || isAimed || isNear ? 1 : 0.72}
            >
              {#if isTarget && target.isFixed}
                <rect
                  x={x - 15}
                  y={layout.pitch(tone.midi) - 15}
                  width="30"
                  height="30"
                  rx="5"
                  fill="none"
                  class="stroke-target"
                  stroke-width="2"
                />
              {/if}
              <circle
                cx={x}
                cy={layout.pitch(tone.midi)}
                r={isTarget ? 12 : isAimed ? 11 : 8}
                class={isTarget || isAimed ? 'fill-target' : 'fill-tone'}
              />
              <text
                {x}
                y={layout.pitch(tone.midi) + (isTarget ? 4 : 3.4)}
                text-anchor="middle"
                font-size={isTarget ? 12 : 9.5}
                class="pointer-events-none font-bold {isTarget || isAimed
                  ? 'fill-on-target'
                  : 'fill-on-tone'}"
              >
                {settings.label(tone)}
              </text>
            </g>
          {/each}
          {#if column.index === workspace.selected}
            {#each workspace.moment?.marks ?? [] as mark (mark.midi)}
              {#if mark.role !== 'chord'}
                <circle
                  cx={column.x + column.width - 9}
                  cy={layout.pitch(mark.midi)}
                  r={mark.role === 'tension' ? 3.6 : 2}
                  class={mark.role === 'tension' ? 'fill-surface stroke-tone' : 'fill-soft'}
                  stroke-width="1.3"
                  data-colour={mark.degree}
                />
              {/if}
            {/each}
          {/if}
          {#if target && !tones.some((tone) => tone.midi === target.cell.midi)}
            <circle
              cx={column.x + TONE_INSET}
              cy={layout.pitch(target.cell.midi)}
              r="11"
              class="fill-surface stroke-target"
              stroke-width="3"
            />
          {/if}
        </g>
      {/each}

      <!-- How far the thread moves -->
      {#each steps as step (step.change)}
        <g class="pointer-events-none">
          <rect
            x={step.x - 17}
            y={step.y - 9}
            width="34"
            height="16"
            rx="8"
            class="fill-surface stroke-line"
          />
          <text x={step.x} y={step.y + 3} text-anchor="middle" font-size="11" class="fill-ink font-bold">
            {step.words}
          </text>
        </g>
      {/each}
    </svg>
  </div>

  {#if workspace.answer.noPath}
    <p class="border-t border-line px-3 py-2 text-warn" role="status">{workspace.answer.noPath.message}</p>
  {/if}

  <div class="flex flex-col gap-1 border-t border-line px-3 py-1.5 text-[13px]">
    <PathPanel {workspace} />
    <div class="flex flex-wrap items-center gap-x-3">
      <span class="text-soft">Other threads</span>
      {#each workspace.otherThreads as thread (thread.rule)}
        <button
          class="min-h-6 underline decoration-dotted underline-offset-4 hover:text-next disabled:no-underline disabled:opacity-45"
          disabled={!thread.path}
          onpointerenter={() => (offered = thread.rule)}
          onpointerleave={() => (offered = null)}
          onfocus={() => (offered = thread.rule)}
          onblur={() => (offered = null)}
          onclick={() => workspace.pickThread(thread.rule)}
        >
          {thread.name}
          {#if thread.path}
            <span class="text-soft">({thread.path.parts.pitch} semitones in all)</span>
          {:else}
            <span class="text-soft">(none here)</span>
          {/if}
        </button>
      {/each}
    </div>
  </div>
</section>
