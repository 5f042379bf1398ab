<!--
  Threads: every change a column that holds its chord tones at their pitch heights; the target path runs through them
  and says how far it moves at each change. Click or drag to set a target.
-->
<script lang="ts">
  import { untrack } from 'svelte';
  import type { Workspace } from '$lib/state/workspace.svelte';
  import { settings } from '$lib/state/settings.svelte';
  import type { Target, TargetPath } from '$lib/core/targets/path';
  import PathPanel from '../change/PathPanel.svelte';
  import ChordText from '../chord/ChordText.svelte';
  import { Seen } from '../kit/seen.svelte';
  import { dragByTouch } from '../kit/touch';
  import { HEAD, layOutThreads, stepWords, threadLine, TONE_INSET } from './layout';

  interface Props {
    workspace: Workspace;
    height?: number;
    /** Without the rules and the other threads below. */
    isBare?: boolean;
    /** Where the music is, in beats of the form. */
    time?: number | null;
  }
  let { workspace, height = 214, isBare = false, time = null }: Props = $props();

  let available = $state(900);
  const seen = new Seen();
  /** The tone the player is dragging the thread to. */
  let dragged: { change: number; midi: number } | null = $state(null);
  /** The thread under the pointer in the list of other threads. */
  let offered: string | null = $state(null);
  /** The alternative under the pointer. */
  let offeredPath: TargetPath | null = $state.raw(null);

  const changes = $derived(workspace.changes);
  const pitches = $derived([
    ...(isBare ? [] : workspace.tones.flatMap((tones) => tones.map((tone) => tone.midi))),
    ...[...workspace.targets.values()].map((target) => target.cell.midi)
  ]);
  const layout = $derived(layOutThreads(changes, workspace.sheet.form.beats, pitches, available - 2, height));
  /** The changes that are drawn, and the bars over them. */
  const range = $derived(seen.range(layout.columns.length, (i) => layout.columns[i]!.x));
  const columns = $derived(layout.columns.slice(range.from, range.to));
  const bars = $derived.by(() => {
    const all = workspace.sheet.form.bars;
    const { from, to } = seen.range(all.length, (i) => layout.time(all[i]!.start));
    return all.slice(from, to);
  });
  const allBars = $derived(workspace.sheet.form.bars);
  const isSeen = (change: number) => change >= range.from && change < range.to;

  /** The points of a path that are in sight, with one before and one behind. */
  function points(path: TargetPath | null) {
    const near = (path?.targets ?? []).filter(({ change }) => change >= range.from - 1 && change <= range.to);
    return near.map(({ change, beat, cell }) => {
      const column = layout.columns[change]!;
      const x = column.x + TONE_INSET + (beat === 1 ? 0 : timeOf(change, beat) - column.x);
      return { x, end: column.x + column.width, y: layout.pitch(cell.midi) };
    });
  }

  /** x of a beat within a change. */
  function timeOf(change: number, beat: number): number {
    return layout.time(changes[change]!.start + beat - 1);
  }

  /** Targets inside a change, where there are several. */
  const later = $derived(
    (workspace.path?.targets ?? []).filter(({ change, beat }) => beat > 1 && isSeen(change))
  );

  /** The step into each target, written where the thread bends. */
  const steps = $derived(
    (workspace.path?.targets ?? []).flatMap(({ change, beat, cell, step }, i) => {
      const before = workspace.path!.targets[i - 1];
      if (!before || !step || beat > 1 || !isSeen(change)) return [];
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
    if (column) untrack(() => seen.show(column.x, column.x + column.width));
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

  /** The column a finger has come down on beside its tones: a tap selects it, a swipe scrolls. */
  let tapped: number | null = null;

  function grab(event: PointerEvent, change: number) {
    const isOnTone = (event.target as Element).closest('[data-drag]') !== null;
    tapped = event.pointerType === 'touch' && !isOnTone ? change : null;
    if (tapped !== null) return;
    const midi = nearest(change, event);
    workspace.select(change);
    if (midi === null || event.button !== 0) return;
    (event.currentTarget as Element).setPointerCapture(event.pointerId);
    dragged = { change, midi };
  }

  /** While the player drags, the thread shows where it would go. */
  function drag(event: PointerEvent) {
    if (!dragged) return;
    const midi = nearest(dragged.change, event);
    if (midi === null || midi === dragged.midi) return;
    dragged = { ...dragged, midi };
    const cell = workspace.tones[dragged.change]?.find((tone) => tone.midi === midi);
    workspace.considered = cell ? { change: dragged.change, cell } : null;
  }

  function letGo() {
    tapped = null;
    dragged = null;
    workspace.considered = null;
  }

  function drop(change: number) {
    if (tapped === change) workspace.select(change);
    const tone = dragged && workspace.tones[change]?.find(({ midi }) => midi === dragged!.midi);
    letGo();
    if (!tone) return;
    const current = workspace.targets.get(change);
    if (current?.isFixed && current.cell.midi === tone.midi) workspace.release(change);
    else workspace.fix(change, tone);
  }

  /** Where an alternative lands elsewhere: "D7♭9 on 3, Gm6 on 1". */
  function otherwise(differences: readonly Target[]): string {
    const named = differences
      .slice(0, 3)
      .map(({ change, cell }) => `${settings.prose(changes[change]!.symbol)} on ${settings.label(cell)}`);
    const more = differences.length - named.length;
    return named.join(', ') + (more > 0 ? ` and ${more} more` : '');
  }

  function describe(change: number): string {
    const { symbol, bar } = changes[change]!;
    const target = workspace.targets.get(change);
    if (!target) return `${symbol}, bar ${bar}, ${changes[change]!.chord ? 'resting' : 'no target'}`;
    const { cell, step, isFixed } = target;
    const move = step ? `, ${stepWords(step.semitones)}` : '';
    return `${symbol}, bar ${bar}, target ${cell.degree} ${cell.note}${move}${isFixed ? ', fixed' : ''}`;
  }
</script>

<section class="relative min-w-0 overflow-hidden card" aria-label="Threads">
  <div class="overflow-x-auto overflow-y-hidden" bind:clientWidth={available} {@attach seen.follow}>
    <svg
      width={layout.width}
      {height}
      class="block select-none"
      role="group"
      aria-label="Chord tones in time"
      {@attach dragByTouch()}
    >
      <!-- Bars -->
      {#each bars as bar (bar.number)}
        {@const x = layout.time(bar.start)}
        {@const opens = bar.section !== '' && bar.section !== allBars[bar.number - 2]?.section}
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
      {#each columns as column (column.index)}
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

      <!-- Changes that are left alone -->
      {#each columns as column (column.index)}
        {#if workspace.path && changes[column.index]!.chord && !workspace.targets.has(column.index)}
          <g data-resting={column.index}>
            <rect
              x={column.x}
              y={HEAD}
              width={column.width}
              height={height - HEAD}
              class="fill-paper"
              opacity="0.75"
            />
            <text
              x={column.x + column.width - 8}
              y={height - 8}
              text-anchor="end"
              font-size="11"
              class="fill-soft">resting</text
            >
          </g>
        {/if}
      {/each}

      <!-- The lanes of the voices -->
      {#if workspace.showsLanes}
        {#each columns as { index: i } (i)}
          {#each workspace.lanes[i] ?? [] as move (move.from.midi)}
            <line
              x1={layout.columns[i]!.x + TONE_INSET}
              x2={layout.columns[i + 1]!.x + TONE_INSET}
              y1={layout.pitch(move.from.midi)}
              y2={layout.pitch(move.to.midi)}
              class="pointer-events-none {move.semitones === 0 ? 'stroke-tone' : 'stroke-next'}"
              stroke-width={move.semitones === 0 ? 2 : 1.3}
              opacity="0.5"
              data-lane={move.semitones}
            />
          {/each}
        {/each}
      {/if}

      <!-- Other threads, faint -->
      {#each isBare ? [] : workspace.otherThreads as thread (thread.rule)}
        <path
          d={threadLine(points(thread.path))}
          fill="none"
          class="pointer-events-none {offered === thread.rule ? 'stroke-next' : 'stroke-soft'}"
          stroke-width={offered === thread.rule ? 2.5 : 1}
          stroke-dasharray="2 4"
          opacity={offered === thread.rule ? 1 : 0.4}
        />
      {/each}

      {#if offeredPath}
        <path
          d={threadLine(points(offeredPath))}
          fill="none"
          class="pointer-events-none stroke-next"
          stroke-width="2.5"
          stroke-dasharray="6 4"
          data-offered
        />
      {/if}
      {#if workspace.prospect?.path}
        <path
          d={threadLine(points(workspace.prospect.path))}
          fill="none"
          class="pointer-events-none stroke-target"
          stroke-width="2"
          stroke-dasharray="3 4"
          opacity="0.8"
          data-prospect
        />
      {/if}

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

      {#each columns as column (column.index)}
        {@const target = workspace.targets.get(column.index)}
        {@const tones = (workspace.tones[column.index] ?? []).filter(
          ({ midi }) => !isBare || midi === target?.cell.midi
        )}
        {@const side = shifts(tones.map((tone) => tone.midi))}
        {@const isNear = column.index === workspace.selected || column.index === workspace.nextIndex}
        <g
          role="button"
          tabindex="-1"
          aria-label={describe(column.index)}
          data-change={column.index}
          class="cursor-ns-resize outline-none"
          onpointerdown={(event) => grab(event, column.index)}
          onpointermove={drag}
          onpointerup={() => drop(column.index)}
          onpointercancel={letGo}
        >
          <rect x={column.x} y="15" width={column.width} height={height - 15} fill="transparent" />
          {#each tones as tone, i (tone.midi)}
            {@const isTarget = target?.cell.midi === tone.midi}
            {@const isAimed = dragged?.change === column.index && dragged.midi === tone.midi}
            {@const x = column.x + TONE_INSET + (isTarget ? 0 : side[i]!)}
            <g
              aria-hidden="true"
              data-drag
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
              <!-- As large as a finger. -->
              <circle cx={x} cy={layout.pitch(tone.midi)} r={isTarget ? 22 : 12} fill="transparent" />
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
          {#if column.index === workspace.selected && !isBare}
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

      <!-- Targets inside a change -->
      {#each later as { change, beat, cell, isFixed } (`${change}:${beat}`)}
        {@const x = timeOf(change, beat) + TONE_INSET}
        <g class="pointer-events-none" data-later="{change}:{beat}">
          <circle
            cx={x}
            cy={layout.pitch(cell.midi)}
            r="9.5"
            class="fill-target {isFixed ? 'stroke-ink' : ''}"
            stroke-width={isFixed ? 2 : 0}
          />
          <text
            {x}
            y={layout.pitch(cell.midi) + 3.6}
            text-anchor="middle"
            font-size="10"
            class="fill-on-target font-bold">{settings.label(cell)}</text
          >
        </g>
      {/each}

      <!-- What leads into the targets -->
      {#each workspace.approaches as [i, notes] (i)}
        {#each notes.filter(({ change }) => isSeen(change)) as note (note.beat)}
          {@const x = timeOf(note.change, note.beat) + 4}
          {@const y = layout.pitch(note.midi)}
          <path
            d="M{x - 4} {y - 5}L{x + 6} {y}L{x - 4} {y + 5}Z"
            class="pointer-events-none fill-target"
            data-approach={note.kind}
          />
        {/each}
      {/each}

      {#if time !== null}
        <line
          x1={layout.time(time)}
          x2={layout.time(time)}
          y1="15"
          y2={height}
          class="pointer-events-none stroke-ink"
          stroke-width="2"
          data-playhead
        />
      {/if}

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

  {#if workspace.prospect}
    <p
      class="pointer-events-none absolute top-12 right-3 rounded-full border border-line bg-surface px-3 py-0.5 text-[12.5px]"
      role="status"
      data-prospect-price
    >
      {workspace.prospect.price}
    </p>
  {/if}
  {#if workspace.answer.noPath}
    <p class="border-t border-line px-3 py-2 text-warn" role="status">{workspace.answer.noPath.message}</p>
  {/if}

  {#if !isBare}
    <div class="flex flex-col gap-1 border-t border-line px-3 py-1.5 text-[13px]">
      <PathPanel {workspace} />
      <div class="flex flex-wrap items-center gap-x-3 gap-y-1">
        <button
          class="min-h-6 underline decoration-dotted underline-offset-4 hover:text-next"
          aria-expanded={workspace.wantsAlternatives}
          title="The next best paths, with their price (X)"
          onclick={() => (workspace.wantsAlternatives = !workspace.wantsAlternatives)}
          >{workspace.wantsAlternatives ? 'Hide alternatives' : 'Alternatives'}</button
        >
        <button
          class="min-h-6 underline decoration-dotted underline-offset-4 hover:text-next"
          aria-pressed={workspace.showsLanes}
          title="Where every voice goes (V)"
          onclick={() => (workspace.showsLanes = !workspace.showsLanes)}
          >{workspace.showsLanes ? 'Hide lanes' : 'Lanes'}</button
        >
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
      {#if workspace.wantsAlternatives}
        <ol class="flex flex-col" aria-label="Alternatives">
          {#each workspace.alternatives as { path, price, differences }, i (i)}
            <li>
              <button
                class="min-h-6 w-full truncate text-left hover:text-next"
                data-alternative
                onpointerenter={() => (offeredPath = path)}
                onpointerleave={() => (offeredPath = null)}
                onfocus={() => (offeredPath = path)}
                onblur={() => (offeredPath = null)}
                onclick={() => {
                  offeredPath = null;
                  workspace.takePath(path);
                }}
              >
                <b>{i + 2}.</b>
                {price}
                <span class="text-soft">· {otherwise(differences)}</span>
              </button>
            </li>
          {:else}
            <li class="text-soft">
              {workspace.solver.progress === null
                ? 'There is no other path under these rules.'
                : 'Being worked out …'}
            </li>
          {/each}
        </ol>
      {/if}
    </div>
  {/if}
</section>
