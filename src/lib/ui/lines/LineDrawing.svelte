<!--
  A line over its changes, left to right in time, low to high in pitch: each note says what it is on its chord. Below every change what
  a listener would hear in the line alone.
-->
<script lang="ts">
  import { nth } from '$lib/core/base/list';
  import { beatsOf, endOf, TICKS, ticksOf, type LineNote } from '$lib/core/line/model';
  import type { NoteChange, Outline } from '$lib/core/line/outline';
  import type { ReadNote } from '$lib/core/line/read';
  import { midiName } from '$lib/core/theory/note';
  import { prettyDegree, prettySymbol } from '$lib/core/theory/typeset';
  import type { Phrases } from '$lib/state/lines/phrases.svelte';
  import type { Workspace } from '$lib/state/chart/workspace.svelte';
  import ChordSymbol from '../chord/ChordSymbol.svelte';
  import { ScrollWindow } from '../kit/scroll-window.svelte';
  import { dragByTouch } from '../kit/touch';
  import BarLines from '../threads/BarLines.svelte';
  import Playhead from '../threads/Playhead.svelte';
  import ColumnChords from '../threads/ColumnChords.svelte';
  import { layOutPitch, layOutTime, pitchEnds } from '../threads/layout';
  import { heardIn } from '$lib/core/line/heard-name';
  import { ROLE_LOOKS, TARGET_LOOK, VERDICT_WORDS } from './looks';
  import PhraseLane from './PhraseLane.svelte';
  import VerdictMark from './VerdictMark.svelte';

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
  /** Of a note's box, and the narrowest its label needs. */
  const BOX = 18;
  const LABEL_ROOM = 21;
  const [LEAST_BEAT, MOST_BEAT] = [34, 84];

  let available = $state(900);
  const seen = new ScrollWindow();

  const changes = $derived(workspace.changes);
  const beats = $derived(workspace.sheet.form.beats);
  /** The shortest time from one note to the next, in beats: it has room for its label. */
  const shortest = $derived(
    notes.reduce((least, { start }, i) => {
      const gap = i === 0 ? Infinity : beatsOf(start - nth(notes, i - 1).start);
      return gap > 0 ? Math.min(least, gap) : least;
    }, 4)
  );
  const perBeat = $derived(Math.min(MOST_BEAT, Math.max(LEAST_BEAT, LABEL_ROOM / shortest)));
  const timeline = $derived(layOutTime(changes, beats, Math.max(available - 2, beats * perBeat)));
  /** Room for a pickup before the first bar, in pixels. */
  const lead = $derived(
    Math.max(0, -timeline.time(beatsOf(notes[0]?.start ?? 0))) + (notes[0] && notes[0].start < 0 ? 8 : 0)
  );
  const pitch = $derived(
    layOutPitch(pitchEnds([...notes.map(({ midi }) => midi), ...offered.map(({ to }) => to)]), HEIGHT)
  );
  const range = seen.row(
    () => timeline.columns.length,
    (i) => nth(timeline.columns, i).x
  );
  const columns = $derived(timeline.columns.slice(range.from, range.to));
  const laneFrom = $derived(columns[0]?.x ?? 0);
  const laneTo = $derived((columns.at(-1)?.x ?? 0) + (columns.at(-1)?.width ?? 0) + lead);
  const allBars = $derived(workspace.sheet.form.bars);
  const barRange = seen.row(
    () => allBars.length,
    (i) => timeline.time(nth(allBars, i).start)
  );
  const bars = $derived(allBars.slice(barRange.from, barRange.to));
  const noteRange = seen.row(
    () => notes.length,
    (i) => timeline.time(beatsOf(nth(notes, i).start))
  );
  const drawn = $derived.by(() => {
    const own = notes.slice(noteRange.from, noteRange.to);
    const read = readPart(noteRange.from, noteRange.from + own.length);
    return own.map((note, n) => ({ note, read: nth(read, n) }));
  });
  const lookOf = ({ note, read }: (typeof drawn)[number]) =>
    note.purpose === 'target' ? TARGET_LOOK : ROLE_LOOKS[read.role];

  /** A note that is being dragged, and where it would come to be. */
  let dragged: { index: number; x: number; y: number; start: number; midi: number; isMoved: boolean } | null =
    $state(null);
  const semitone = $derived(pitch(61) - pitch(60));
  const perTick = $derived(timeline.time(1) / TICKS);

  function takeNote(event: PointerEvent & { currentTarget: Element }, index: number) {
    if (!onmove || event.button !== 0) return;
    const { start, midi } = nth(notes, index);
    event.currentTarget.setPointerCapture(event.pointerId);
    dragged = { index, x: event.clientX, y: event.clientY, start, midi, isMoved: false };
  }
  function dragNote(event: PointerEvent) {
    if (!dragged) return;
    const from = nth(notes, dragged.index);
    const steps = Math.round((event.clientX - dragged.x) / perTick / grid);
    const semitones = Math.round((event.clientY - dragged.y) / semitone);
    dragged.start = Math.max(-ticksOf(allBars[0]?.beats ?? 4), from.start + steps * grid);
    dragged.midi = from.midi + semitones;
    dragged.isMoved ||= steps !== 0 || semitones !== 0;
  }
  function dropNote() {
    const drop = dragged;
    dragged = null;
    if (!drop) return;
    const { start, midi } = nth(notes, drop.index);
    if (drop.start !== start || drop.midi !== midi) onmove?.(drop.index, drop.start, drop.midi);
    else if (!drop.isMoved && onpick) onpick(start);
    else if (!drop.isMoved) onpoint?.(drop.index);
  }
  function pick(event: MouseEvent & { currentTarget: Element }) {
    if (!onpick || (event.target instanceof Element && event.target.closest('[data-note]'))) return;
    onpick((event.clientX - event.currentTarget.getBoundingClientRect().left - lead) / perTick);
  }

  $effect(() => {
    const column = timeline.columns[workspace.selected];
    if (column) seen.show(column.x, column.x + column.width);
  });

  /** The one change of the strip that the Tab key comes to; arrows walk from there. */
  const stop = $derived(
    columns.some(({ index }) => index === workspace.selected) ? workspace.selected : (columns[0]?.index ?? 0)
  );
  let strip: HTMLElement | undefined = $state();
  function walk(event: KeyboardEvent, from: number) {
    const by = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0;
    if (by === 0 || !changes[from + by]) return;
    event.preventDefault();
    event.stopPropagation();
    onselect(from + by);
    requestAnimationFrame(() => strip?.querySelector<HTMLElement>(`[data-heard="${from + by}"]`)?.focus());
  }

  function describe(change: number): string {
    const { symbol, bar } = nth(changes, change);
    const { heard, verdict } = nth(outline.windows, change);
    const heardAs = heard[0] ? `, heard as ${prettySymbol(heardName(change))}` : '';
    return `${prettySymbol(symbol)}, bar ${bar}${heardAs}${verdict ? `: ${VERDICT_WORDS[verdict]}` : ''}`;
  }

  /** The name by which the chart knows what is heard, where it is the same notes. */
  function heardName(change: number): string {
    const { heard, verdict } = nth(outline.windows, change);
    const { symbol } = nth(changes, change);
    return verdict === 'clear' ? symbol : heard[0] ? heardIn(workspace.analysis.key, heard[0]) : '';
  }
</script>

<section class="relative min-w-0 overflow-hidden card" aria-label="The line in time">
  <!-- Blocks and what is heard are walked by keys, and scroll it. -->
  <div
    class="relative overflow-x-auto overflow-y-hidden"
    role="group"
    aria-label="The line, to be scrolled"
    bind:clientWidth={available}
    {@attach seen.follow}
  >
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
        {#each columns as column (column.index)}
          {#if column.index === workspace.selected}
            <rect x={column.x} y="15" width={column.width} height={HEIGHT - 15} class="fill-lit" />
            <rect x={column.x} y="15" width={column.width} height="3" class="fill-target" />
          {/if}
        {/each}
        <BarLines {bars} time={timeline.time} height={HEIGHT} />
        <ColumnChords {columns} {changes} />
        {#each drawn as one (one.read.index)}
          {@const x = timeline.time(beatsOf(one.note.start))}
          {@const width = Math.max(LABEL_ROOM - 4, timeline.time(beatsOf(endOf(one.note))) - x - 3)}
          {@const y = pitch(one.note.midi) - BOX / 2}
          {@const look = lookOf(one)}
          {@const isLit = lit === one.note.start}
          <!-- svelte-ignore a11y_no_static_element_interactions -->
          <g
            data-note={one.note.midi}
            data-role={one.read.role}
            data-lit={isLit || undefined}
            data-pointed={pointed === one.read.index || undefined}
            data-drag={onmove ? '' : undefined}
            class={onmove ? 'cursor-grab' : ''}
            opacity={dragged?.isMoved && dragged.index === one.read.index ? 0.35 : undefined}
            onpointerdown={(event) => takeNote(event, one.read.index)}
            onpointermove={dragNote}
            onpointerup={dropNote}
            onpointercancel={() => (dragged = null)}
          >
            {#if one.note.bend || one.note.slide}
              <path
                d="M{x - 9} {y + BOX}Q{x - 2} {y + BOX} {x + 2} {y + BOX / 2}"
                fill="none"
                class="stroke-ink"
                stroke-width="1.8"
              />
            {/if}
            <rect
              x={x + 1.5}
              {y}
              {width}
              height={BOX}
              rx="5"
              class="{look.box} {isLit || pointed === one.read.index ? 'stroke-ink' : ''}"
              stroke-width={isLit || pointed === one.read.index ? 3 : 1.5}
              stroke-dasharray={look.isBroken ? '3 2.5' : undefined}
            />
            <text x={x + (width < 26 ? 4 : 7)} y={y + 13} font-size="11.5" class="font-bold {look.text}"
              >{one.read.degree ? prettyDegree(one.read.degree) : '–'}</text
            >
          </g>
        {/each}
        {#each offered as { note, start, to } (note)}
          {@const x = timeline.time(beatsOf(start))}
          <g class="pointer-events-none" data-offered={to}>
            <line
              x1={x + 12}
              x2={x + 12}
              y1={pitch(notes[note]?.midi ?? to)}
              y2={pitch(to)}
              class="stroke-target"
              stroke-width="1.5"
              stroke-dasharray="2 3"
            />
            <rect
              x={x + 1.5}
              y={pitch(to) - BOX / 2}
              width={LABEL_ROOM - 4}
              height={BOX}
              rx="5"
              fill="none"
              class="stroke-target"
              stroke-width="2"
              stroke-dasharray="4 2.5"
            />
          </g>
        {/each}
        {#if dragged?.isMoved}
          <g class="pointer-events-none" data-dragged="{dragged.start}:{dragged.midi}">
            <rect
              x={timeline.time(beatsOf(dragged.start)) + 1.5}
              y={pitch(dragged.midi) - BOX / 2}
              width={LABEL_ROOM + 6}
              height={BOX}
              rx="5"
              class="fill-next/25 stroke-next"
              stroke-width="2"
            />
            <text
              x={timeline.time(beatsOf(dragged.start)) + 7}
              y={pitch(dragged.midi) + 4}
              font-size="11.5"
              class="fill-ink font-bold">{midiName(dragged.midi)}</text
            >
          </g>
        {/if}
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
    <div
      class="relative h-12 border-t border-line"
      style:width="{timeline.width + lead}px"
      bind:this={strip}
      role="toolbar"
      aria-label="What is heard, change by change"
      data-outline-strip
    >
      {#each columns as column (column.index)}
        {@const { verdict } = nth(outline.windows, column.index)}
        <button
          class="absolute inset-y-0 flex items-center gap-1.5 overflow-hidden border-l border-line px-1.5 text-left {column.index ===
          workspace.selected
            ? 'bg-lit'
            : ''}"
          style:left="{column.x + lead}px"
          style:width="{column.width}px"
          aria-label={describe(column.index)}
          aria-current={column.index === workspace.selected ? 'true' : undefined}
          tabindex={column.index === stop ? 0 : -1}
          onkeydown={(event) => walk(event, column.index)}
          data-heard={column.index}
          onclick={() => onselect(column.index)}
        >
          {#if verdict}<VerdictMark {verdict} />{/if}
          <span
            class="truncate text-lg leading-6 {verdict === 'clear' ? '' : 'text-soft'}"
            aria-hidden="true"
          >
            <ChordSymbol symbol={heardName(column.index)} />
          </span>
        </button>
      {/each}
    </div>
  </div>
</section>
