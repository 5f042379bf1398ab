<!--
  Threads: every change a column that holds its chord tones at their pitch heights; the target path runs through them
  and says how far it moves at each change. Click or drag to set a target.
-->
<script lang="ts" module>
  import { Part } from '../app/part';

  const targetLinePart = new Part(() => import('./TargetLine.svelte'));
  const alternativesPart = new Part(() => import('./Alternatives.svelte'));
</script>

<script lang="ts">
  import { nth } from '$lib/core/base/list';
  import type { Workspace } from '$lib/state/chart/workspace.svelte';
  import { settings } from '$lib/state/settings.svelte';
  import { beatsOf, endOf } from '$lib/core/line/model';
  import type { FaintPath } from '$lib/workers/solve';
  import type { TargetPath } from '$lib/core/targets/path';
  import Arriving from '../app/Arriving.svelte';
  import ChordText from '../chord/ChordText.svelte';
  import type { MetChange } from '$lib/state/stand/landings.svelte';
  import MeetingMark from '../takes/MeetingMark.svelte';
  import { MEETING_WORDS } from '../takes/words';
  import { ScrollWindow } from '../kit/scroll-window.svelte';
  import { dragByTouch } from '../kit/touch';
  import { Debounced } from '../kit/debounced.svelte';
  import {
    HEAD,
    layOutPitch,
    layOutTime,
    pitchEnds,
    stepWords,
    threadLine,
    THREADS,
    TONE_INSET
  } from './layout';
  import Playhead from './Playhead.svelte';
  import ThreadColumn from './ThreadColumn.svelte';

  interface Props {
    workspace: Workspace;
    height?: number;
    /** Without the rules and the other threads below. */
    isBare?: boolean;
    /** Nothing is selected or dragged: the band plays, and sleeves brush it. */
    isStill?: boolean;
    /** Where the music is, in beats of the form. */
    time?: number | null;
    /** Memory is tested: the target line is left out, in sight and in words. */
    hidesTargets?: boolean;
    /** How the changes were met as they were played. */
    met?: ReadonlyMap<number, MetChange>;
  }
  let {
    workspace,
    height = THREADS,
    isBare = false,
    isStill = false,
    time = null,
    hidesTargets = false,
    met
  }: Props = $props();

  const NO_TONES: (typeof workspace.tones)[number] = [];
  const NO_TARGETS: typeof workspace.paths.targets = new Map();
  const targets = $derived(hidesTargets ? NO_TARGETS : workspace.paths.targets);
  const path = $derived(hidesTargets ? null : workspace.paths.path);

  /** Where in its column a mark stands: beside the lowest tone. */
  const BESIDE = TONE_INSET + 22;
  let available = $state(900);
  const seen = new ScrollWindow();
  /** The tone the player is dragging the thread to. */
  let dragged: { change: number; midi: number } | null = $state(null);
  /** The alternative under the pointer. */
  let offeredPath: TargetPath | null = $state.raw(null);

  const changes = $derived(workspace.changes);
  const melody = $derived(workspace.melody?.line.notes ?? []);
  /** Every pitch that has to be in the drawing. */
  function* pitchesOf(): Iterable<number> {
    for (const { cell } of workspace.paths.targets.values()) yield cell.midi;
    if (isBare) return;
    for (const tones of new Set(workspace.tones)) for (const { midi } of tones) yield midi;
    for (const { midi } of melody) yield midi;
  }
  const timeline = $derived(layOutTime(changes, workspace.sheet.form.beats, available - 2));
  // The two ends by themselves: where they stay, nothing is laid out again.
  const ends = $derived(pitchEnds(pitchesOf()));
  const low = $derived(ends[0]);
  const high = $derived(ends[1]);
  const layout = $derived({ ...timeline, pitch: layOutPitch([low, high], height) });

  const allBars = $derived(workspace.sheet.form.bars);
  /** The changes that are drawn, and the bars over them. */
  const range = seen.row(
    () => timeline.columns.length,
    (i) => nth(timeline.columns, i).x
  );
  const columns = $derived(timeline.columns.slice(range.from, range.to));
  const barRange = seen.row(
    () => allBars.length,
    (i) => timeline.time(nth(allBars, i).start)
  );
  const bars = $derived(allBars.slice(barRange.from, barRange.to));
  const now = $derived(timeline.columns[workspace.selected]);
  const next = $derived(workspace.nextIndex === null ? undefined : timeline.columns[workspace.nextIndex]);
  const melodySeen = $derived.by(() => {
    const from = changes[range.from]?.start ?? 0;
    const last = changes[range.to - 1];
    const to = last ? last.start + last.beats : 0;
    return melody.filter((note) => beatsOf(endOf(note)) > from && beatsOf(note.start) < to);
  });
  const isSeen = (change: number) => change >= range.from && change < range.to;

  const isNearby = (change: number) => change >= range.from - 1 && change <= range.to;
  function pointOf(change: number, beat: number, midi: number) {
    // A line may answer for a text that has been changed since.
    const column = layout.columns[change];
    if (!column) return [];
    const x = column.x + TONE_INSET + (beat === 1 ? 0 : timeOf(change, beat) - column.x);
    return [{ x, end: column.x + column.width, y: layout.pitch(midi) }];
  }
  /** The points of a path that are in sight, with one before and one behind. */
  function points(of: TargetPath | null) {
    const near = (of?.targets ?? []).filter(({ change }) => isNearby(change));
    return near.flatMap(({ change, beat, cell }) => pointOf(change, beat, cell.midi));
  }
  function faintPoints({ points: told }: FaintPath) {
    const near = [];
    for (let i = 0; i < told.length; i += 3) {
      const [change, beat, midi] = [told[i]!, told[i + 1]!, told[i + 2]!];
      if (isNearby(change)) near.push(...pointOf(change, beat, midi));
    }
    return near;
  }

  /** x of a beat within a change. */
  function timeOf(change: number, beat: number): number {
    return layout.time(nth(changes, change).start + beat - 1);
  }

  /** Targets inside a change, where there are several. */
  const later = $derived((path?.targets ?? []).filter(({ change, beat }) => beat > 1 && isSeen(change)));

  /** The step into each target, written where the thread bends. */
  const steps = $derived(
    (path?.targets ?? []).flatMap(({ change, beat, cell, step }, i, targets) => {
      const before = targets[i - 1];
      if (!before || !step || beat > 1 || !isSeen(change)) return [];
      const x = nth(layout.columns, change).x - 8;
      const y = (layout.pitch(before.cell.midi) + layout.pitch(cell.midi)) / 2;
      return [
        { change, x, y: y + (Math.abs(step.semitones) < 3 ? -13 : 0), words: stepWords(step.semitones) }
      ];
    })
  );

  $effect(() => {
    const column = timeline.columns[workspace.selected];
    if (column) seen.show(column.x, column.x + column.width);
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
    if (isStill) return;
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
    workspace.paths.considered = cell ? { change: dragged.change, cell } : null;
  }

  function letGo() {
    tapped = null;
    dragged = null;
    workspace.paths.considered = null;
  }

  function drop(change: number) {
    if (tapped === change) workspace.select(change);
    const tone = dragged && workspace.tones[change]?.find(({ midi }) => midi === dragged!.midi);
    letGo();
    if (!tone) return;
    const current = workspace.paths.targets.get(change);
    if (current?.isFixed && current.cell.midi === tone.midi) workspace.unpin(change);
    else workspace.pin(change, tone);
  }

  /** The drawing in words, for those who hear it. */
  const heldByWords = new Debounced(() => ({ columns, changes, targets, met }));
  const spoken = $derived(heldByWords.value.columns.map(({ index }) => describe(index, heldByWords.value)));

  function describe(
    index: number,
    { changes, targets, met }: Pick<typeof heldByWords.value, 'changes' | 'targets' | 'met'>
  ): string {
    const { symbol, bar, chord } = nth(changes, index);
    const target = targets.get(index);
    const own = met?.get(index);
    const meeting = own ? `, ${MEETING_WORDS[own.met]}${own.isPast ? ' last time' : ''}` : '';
    if (!target) return `${symbol}, bar ${bar}, ${chord ? 'resting' : 'no target'}${meeting}`;
    const { cell, step, isFixed } = target;
    const move = step ? `, ${stepWords(step.semitones)}` : '';
    return `${symbol}, bar ${bar}, target ${cell.degree} ${cell.note}${move}${isFixed ? ', pinned' : ''}${meeting}`;
  }
</script>

<section class="relative min-w-0 overflow-hidden card" aria-label="Threads">
  <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
  <div
    class="relative overflow-x-auto overflow-y-hidden own-layer"
    role="group"
    aria-label="Threads, to be scrolled"
    tabindex="0"
    bind:clientWidth={available}
    {@attach seen.follow}
  >
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

      <!-- The column of the moment, and the one that comes: moved, not made anew -->
      {#if now}
        <rect x={now.x} y="15" width={now.width} height={height - 15} class="fill-lit" />
        <rect x={now.x} y="15" width={now.width} height="3" class="fill-target" />
      {/if}
      {#if next}<rect x={next.x} y="15" width={next.width} height="2" class="fill-next" />{/if}
      {#each columns as column (column.index)}
        <ChordText
          symbol={nth(changes, column.index).symbol}
          x={column.x + 7}
          y={HEAD - 8}
          size={column.width < 70 ? 15 : 19}
          room={column.width - 9}
          class="fill-ink"
        />
      {/each}

      <!-- Changes that are left alone -->
      {#each columns as column (column.index)}
        {#if workspace.paths.path && nth(changes, column.index).chord && !workspace.paths.targets.has(column.index)}
          <g data-resting={column.index}>
            <rect
              x={column.x}
              y={HEAD}
              width={column.width}
              height={height - HEAD}
              class="fill-paper"
              fill-opacity="0.75"
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
          {#each workspace.lanesFrom(i) as move (move.from.midi)}
            <line
              x1={nth(layout.columns, i).x + TONE_INSET}
              x2={nth(layout.columns, i + 1).x + TONE_INSET}
              y1={layout.pitch(move.from.midi)}
              y2={layout.pitch(move.to.midi)}
              class="pointer-events-none {move.semitones === 0 ? 'stroke-tone' : 'stroke-next'}"
              stroke-width={move.semitones === 0 ? 2 : 1.3}
              stroke-opacity="0.5"
              data-lane={move.semitones}
            />
          {/each}
        {/each}
      {/if}

      <!-- The melody -->
      {#each isBare ? [] : melodySeen as note (note.start)}
        <line
          x1={layout.time(beatsOf(note.start)) + 2}
          x2={layout.time(beatsOf(endOf(note))) - 2}
          y1={layout.pitch(note.midi)}
          y2={layout.pitch(note.midi)}
          class="pointer-events-none stroke-ink"
          stroke-width="2.5"
          stroke-linecap="round"
          stroke-opacity="0.55"
          data-melody-note={note.midi}
        />
      {/each}

      <!-- Other threads, faint -->
      {#each isBare ? [] : workspace.paths.others as thread (thread.rule)}
        <path
          d={thread.path ? threadLine(faintPoints(thread.path)) : ''}
          fill="none"
          class="pointer-events-none stroke-soft"
          stroke-width="1"
          stroke-dasharray="2 4"
          stroke-opacity="0.5"
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
      {#if workspace.paths.prospect?.path}
        <path
          d={threadLine(points(workspace.paths.prospect.path))}
          fill="none"
          class="pointer-events-none stroke-target"
          stroke-width="2"
          stroke-dasharray="3 4"
          stroke-opacity="0.8"
          data-prospect
        />
      {/if}

      <!-- The target path -->
      <path
        d={threadLine(points(path))}
        fill="none"
        class="pointer-events-none stroke-target"
        stroke-width="3"
        stroke-linecap="round"
        stroke-linejoin="round"
        data-thread={workspace.plan.thread}
      />

      {#each columns as column (column.index)}
        {@const target = targets.get(column.index)}
        {@const all = workspace.tones[column.index] ?? NO_TONES}
        {@const tones = isBare ? all.filter(({ midi }) => midi === target?.cell.midi) : all}
        {@const isNear = column.index === workspace.selected || column.index === workspace.nextIndex}
        <g
          role="presentation"
          aria-hidden="true"
          data-change={column.index}
          class="cursor-ns-resize outline-none"
          onpointerdown={(event) => grab(event, column.index)}
          onpointermove={drag}
          onpointerup={() => drop(column.index)}
          onpointercancel={letGo}
        >
          <rect x={column.x} y="15" width={column.width} height={height - 15} fill="transparent" />
          <ThreadColumn
            {layout}
            {column}
            {tones}
            {target}
            aimed={dragged?.change === column.index ? dragged.midi : null}
            {isNear}
            colours={column.index === workspace.selected && !isBare
              ? (workspace.moment?.marks ?? []).filter(({ role }) => role !== 'chord')
              : []}
          />
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
      {#each workspace.paths.approachNotes as [i, notes] (i)}
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

      <!-- How they were met -->
      {#if met}
        {#each columns as { index, x } (index)}
          {@const own = met.get(index)}
          {#if own}
            <g class="pointer-events-none" opacity={own.isPast ? 0.4 : 1} data-met-at={index}>
              <MeetingMark met={own.met} x={x + BESIDE} y={height - 10} r={7} />
            </g>
          {/if}
        {/each}
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
    {#if time !== null}<Playhead x={layout.time(time)} top={15} height={height - 15} />{/if}
  </div>

  <ol class="sr-only" aria-label="Targets in time">
    {#each spoken as words, i (i)}<li>{words}</li>{/each}
  </ol>
  {#if workspace.paths.prospect}
    <p
      class="pointer-events-none absolute top-12 right-3 rounded-full border border-line bg-surface px-3 py-0.5 text-xs"
      role="status"
      data-prospect-price
    >
      {workspace.paths.prospect.price}
    </p>
  {/if}
  {#if workspace.paths.answer.noPath}
    <p class="border-t border-line px-3 py-2 text-warn" role="status">
      {workspace.paths.answer.noPath.message}
    </p>
  {/if}

  {#if !isBare}
    <div class="flex min-h-9 flex-col justify-center gap-1 border-t border-line px-3 py-1.5 text-sm">
      <Arriving isQuiet part={targetLinePart}
        >{#snippet children(TargetLine)}<TargetLine {workspace} />{/snippet}</Arriving
      >
      {#if workspace.paths.wantsAlternatives}
        <Arriving isQuiet part={alternativesPart}
          >{#snippet children(Alternatives)}<Alternatives
              {workspace}
              onoffer={(path) => (offeredPath = path)}
            />{/snippet}</Arriving
        >
      {/if}
    </div>
  {/if}
</section>
