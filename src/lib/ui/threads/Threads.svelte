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
  import { beatsOf, endOf } from '$lib/core/line/model';
  import type { FaintPath } from '$lib/workers/solve';
  import type { TargetPath } from '$lib/core/targets/path';
  import Arriving from '../app/Arriving.svelte';
  import type { MetChange } from '$lib/state/stand/landings.svelte';
  import { dragByTouch } from '../kit/touch';
  import { Debounced } from '../kit/debounced.svelte';
  import { ThreadDragging } from './dragging.svelte';
  import { layOutPitch, pitchEnds, threadLine, THREADS, TONE_INSET } from './layout';
  import Playhead from './Playhead.svelte';
  import ThreadColumn from './ThreadColumn.svelte';
  import ThreadGround from './ThreadGround.svelte';
  import ThreadMarks from './ThreadMarks.svelte';
  import { TimeView } from './time-view.svelte';
  import TimeFrame from './TimeFrame.svelte';
  import { changeInWords } from './words';

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
  const NO_STEPS: TargetPath['targets'] = [];
  const NO_TARGETS: typeof workspace.paths.targets = new Map();
  const targets = $derived(hidesTargets ? NO_TARGETS : workspace.paths.targets);
  const path = $derived(hidesTargets ? null : workspace.paths.path);

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
  const view = new TimeView(() => ({ changes, form: workspace.sheet.form, selected: workspace.selected }));
  const timeline = $derived(view.timeline);
  // The two ends by themselves: where they stay, nothing is laid out again.
  const ends = $derived(pitchEnds(pitchesOf()));
  const low = $derived(ends[0]);
  const high = $derived(ends[1]);
  const layout = $derived({ ...timeline, pitch: layOutPitch([low, high], height) });

  /** The changes that are drawn. */
  const range = view.range;
  const columns = $derived(view.columns);
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

  const dragging = new ThreadDragging(
    () => workspace,
    () => layout
  );

  /** The drawing in words, for those who hear it. */
  const heldByWords = new Debounced(() => ({ columns, changes, targets, met }));
  const spoken = $derived.by(() => {
    const { columns, changes, targets, met } = heldByWords.value;
    return columns.map(({ index }) =>
      changeInWords(nth(changes, index), targets.get(index), met?.get(index))
    );
  });
</script>

<TimeFrame {view} name="Threads" scrolled="Threads" isStop hasOwnLayer>
  <svg
    width={layout.width}
    {height}
    class="block select-none"
    role="group"
    aria-label="Chord tones in time"
    {@attach dragByTouch()}
  >
    <ThreadGround
      {layout}
      {height}
      allBars={workspace.sheet.form.bars}
      bars={view.bars}
      {columns}
      {changes}
      {now}
      {next}
      isResting={(change) =>
        workspace.paths.path !== null &&
        nth(changes, change).chord !== null &&
        !workspace.paths.targets.has(change)}
    />

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
        onpointerdown={(event) => isStill || dragging.grab(event, column.index)}
        onpointermove={(event) => dragging.drag(event)}
        onpointerup={() => dragging.drop(column.index)}
        onpointercancel={() => dragging.letGo()}
      >
        <rect x={column.x} y="15" width={column.width} height={height - 15} fill="transparent" />
        <ThreadColumn
          {layout}
          {column}
          {tones}
          {target}
          aimed={dragging.aimed?.change === column.index ? dragging.aimed.midi : null}
          {isNear}
          colours={column.index === workspace.selected && !isBare
            ? (workspace.moment?.marks ?? []).filter(({ role }) => role !== 'chord')
            : []}
        />
      </g>
    {/each}

    <ThreadMarks
      {layout}
      {height}
      {columns}
      targets={path?.targets ?? NO_STEPS}
      approachNotes={workspace.paths.approachNotes}
      {met}
      {timeOf}
      {isSeen}
    />
  </svg>
  {#if time !== null}<Playhead x={layout.time(time)} top={15} height={height - 15} />{/if}

  {#snippet below()}
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
  {/snippet}
</TimeFrame>
