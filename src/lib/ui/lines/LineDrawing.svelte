<!--
  A line over its changes, left to right in time, low to high in pitch: each note says what it is on its chord. Below every change what
  a listener would hear in the line alone.
-->
<script lang="ts">
  import { nth } from '$lib/core/base/list';
  import { beatsOf, TICKS, ticksOf, type LineNote } from '$lib/core/line/model';
  import type { NoteChange, Outline } from '$lib/core/line/outline';
  import type { ReadNote } from '$lib/core/line/read';
  import type { Phrases } from '$lib/state/lines/phrases.svelte';
  import type { Workspace } from '$lib/state/chart/workspace.svelte';
  import { dragByTouch } from '../kit/touch';
  import BarLines from '../threads/BarLines.svelte';
  import Playhead from '../threads/Playhead.svelte';
  import ColumnChords from '../threads/ColumnChords.svelte';
  import { layOutPitch, pitchEnds } from '../threads/layout';
  import SelectedColumn from '../threads/SelectedColumn.svelte';
  import { TimeView } from '../threads/time-view.svelte';
  import TimeFrame from '../threads/TimeFrame.svelte';
  import { mostHeard } from '$lib/core/line/heard-name';
  import HeardStrip, { type HeardChange } from './HeardStrip.svelte';
  import LineNotes, { LABEL_ROOM } from './LineNotes.svelte';
  import PhraseLane from './PhraseLane.svelte';

  interface Props {
    workspace: Workspace;
    notes: readonly LineNote[];
    /** What some of the notes are on their chords; the first is in, the last is not. */
    readPart: (from: number, to: number) => readonly ReadNote[];
    outline: Outline;
    /** What a mend would change, to be seen before it is taken. */
    offered: readonly NoteChange[];
    /** Where the music is, in beats of the form. */
    time: number | null;
    /** Start of the note that sounds, in ticks. */
    lit: number | null;
    /** Where writing goes on, and the grid it goes by, in ticks. */
    caret?: { readonly at: number } | null;
    grid?: number;
    onselect: (change: number) => void;
    /** A note was dragged to another time and pitch. */
    onmove?: ((index: number, start: number, midi: number) => void) | undefined;
    onpick?: ((ticks: number) => void) | undefined;
    /** The phrases as blocks above; none where the line is shown in another key. */
    phrases?: Phrases | undefined;
    onwrite?: (at: number) => void;
    /** A note was pointed at, by its place in the line. */
    onpoint?: ((index: number) => void) | undefined;
    /** The note that is asked about. */
    pointed?: number | null;
  }
  let {
    workspace,
    notes,
    readPart,
    outline,
    offered,
    time,
    lit,
    caret = null,
    grid = 480,
    onselect,
    onmove,
    onpick,
    phrases,
    onwrite = () => undefined,
    onpoint,
    pointed = null
  }: Props = $props();

  const HEIGHT = 236;
  const [LEAST_BEAT, MOST_BEAT] = [34, 84];

  const changes = $derived(workspace.changes);
  /** The shortest time from one note to the next, in beats: it has room for its label. */
  const shortest = $derived(
    notes.reduce((least, { start }, i) => {
      const gap = i === 0 ? Infinity : beatsOf(start - nth(notes, i - 1).start);
      return gap > 0 ? Math.min(least, gap) : least;
    }, 4)
  );
  const perBeat = $derived(Math.min(MOST_BEAT, Math.max(LEAST_BEAT, LABEL_ROOM / shortest)));
  const view = new TimeView(() => ({
    changes,
    form: workspace.sheet.form,
    leastBeat: perBeat,
    selected: workspace.selected
  }));
  const timeline = $derived(view.timeline);
  const columns = $derived(view.columns);
  /** Room for a pickup before the first bar, in pixels. */
  const lead = $derived(
    Math.max(0, -timeline.time(beatsOf(notes[0]?.start ?? 0))) + (notes[0] && notes[0].start < 0 ? 8 : 0)
  );
  const pitch = $derived(
    layOutPitch(pitchEnds([...notes.map(({ midi }) => midi), ...offered.map(({ to }) => to)]), HEIGHT)
  );
  const laneFrom = $derived(columns[0]?.x ?? 0);
  const laneTo = $derived((columns.at(-1)?.x ?? 0) + (columns.at(-1)?.width ?? 0) + lead);
  const noteRange = view.row(
    () => notes.length,
    (i) => beatsOf(nth(notes, i).start)
  );
  const drawn = $derived.by(() => {
    const own = notes.slice(noteRange.from, noteRange.to);
    const read = readPart(noteRange.from, noteRange.from + own.length);
    return own.map((note, n) => ({ note, read: nth(read, n) }));
  });

  const perTick = $derived(timeline.time(1) / TICKS);
  function pick(event: MouseEvent & { currentTarget: Element }) {
    if (!onpick || (event.target instanceof Element && event.target.closest('[data-note]'))) return;
    onpick((event.clientX - event.currentTarget.getBoundingClientRect().left - lead) / perTick);
  }

  function heardAt(change: number): HeardChange {
    const window = nth(outline.windows, change);
    const symbol = mostHeard(workspace.analysis.key, nth(changes, change), window);
    return { verdict: window.verdict, symbol };
  }
</script>

<!-- Blocks and what is heard are walked by keys, and scroll it. -->
<TimeFrame {view} name="The line in time" scrolled="The line">
  {#if phrases && phrases.all.length > 0}
    <PhraseLane
      {workspace}
      {phrases}
      x={(beat) => timeline.time(beat) + lead}
      width={timeline.width + lead}
      seen={{ from: laneFrom, to: laneTo }}
      {onwrite}
    />
  {/if}
  <!-- By keys the same is done with the pen. -->
  <!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_noninteractive_element_interactions -->
  <svg
    onclick={pick}
    {@attach dragByTouch()}
    width={timeline.width + lead}
    height={HEIGHT}
    class="block select-none"
    role="img"
    aria-label="The line in time: what each note is on its chord"
  >
    <g transform={lead ? `translate(${lead})` : undefined}>
      <SelectedColumn column={timeline.columns[workspace.selected]} height={HEIGHT} />
      <BarLines bars={view.bars} time={timeline.time} height={HEIGHT} />
      <ColumnChords {columns} {changes} />
      <LineNotes
        {notes}
        {drawn}
        {offered}
        time={timeline.time}
        {pitch}
        earliest={-ticksOf(workspace.sheet.form.bars[0]?.beats ?? 4)}
        {grid}
        {lit}
        {pointed}
        {onmove}
        {onpick}
        {onpoint}
      />
      {#if caret}
        <line
          x1={timeline.time(beatsOf(caret.at)) + 1}
          x2={timeline.time(beatsOf(caret.at)) + 1}
          y1="15"
          y2={HEIGHT}
          class="stroke-next"
          stroke-width="2"
          data-caret={caret.at}
        />
      {/if}
    </g>
  </svg>
  {#if time !== null}<Playhead x={timeline.time(time) + lead} top={15} height={HEIGHT - 15} />{/if}
  <HeardStrip
    {columns}
    width={timeline.width + lead}
    {lead}
    {changes}
    {heardAt}
    selected={workspace.selected}
    {onselect}
  />
</TimeFrame>
