<script lang="ts" module>
  import type { LineNote } from '$lib/core/line/model';
  import type { ReadNote } from '$lib/core/line/read';

  /** The narrowest that the label of a note needs, in pixels. */
  export const LABEL_ROOM = 21;

  export interface DrawnNote {
    readonly note: LineNote;
    /** What it is on its chord, and its place in the line. */
    readonly read: ReadNote;
  }
</script>

<!-- The notes of a line in time: what each is on its chord; where they may be moved they are dragged. Inside an SVG. -->
<script lang="ts">
  import { nth } from '$lib/core/base/list';
  import { beatsOf, endOf, TICKS } from '$lib/core/line/model';
  import type { NoteChange } from '$lib/core/line/outline';
  import { midiName } from '$lib/core/theory/note';
  import { prettyDegree } from '$lib/core/theory/typeset';
  import { ROLE_LOOKS, TARGET_LOOK } from './looks';

  interface Props {
    notes: readonly LineNote[];
    /** Those of them that are in sight. */
    drawn: readonly DrawnNote[];
    /** What a mend would change, to be seen before it is taken. */
    offered: readonly NoteChange[];
    /** x of a beat of the form, y of a pitch. */
    time: (beat: number) => number;
    pitch: (midi: number) => number;
    /** How far back a note may be dragged, and the grid it goes by, in ticks. */
    earliest: number;
    grid: number;
    /** Start of the note that sounds, in ticks. */
    lit: number | null;
    /** The note that is asked about. */
    pointed: number | null;
    onmove?: ((index: number, start: number, midi: number) => void) | undefined;
    onpick?: ((ticks: number) => void) | undefined;
    onpoint?: ((index: number) => void) | undefined;
  }
  let { notes, drawn, offered, time, pitch, earliest, grid, lit, pointed, onmove, onpick, onpoint }: Props =
    $props();

  /** Height of the box of a note. */
  const BOX = 18;

  /** A note that is being dragged, and where it would come to be. */
  let dragged: { index: number; x: number; y: number; start: number; midi: number; isMoved: boolean } | null =
    $state(null);
  const semitone = $derived(pitch(61) - pitch(60));
  const perTick = $derived(time(1) / TICKS);

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
    dragged.start = Math.max(earliest, from.start + steps * grid);
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
</script>

{#each drawn as one (one.read.index)}
  {@const x = time(beatsOf(one.note.start))}
  {@const width = Math.max(LABEL_ROOM - 4, time(beatsOf(endOf(one.note))) - x - 3)}
  {@const y = pitch(one.note.midi) - BOX / 2}
  {@const look = one.note.purpose === 'target' ? TARGET_LOOK : ROLE_LOOKS[one.read.role]}
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
  {@const x = time(beatsOf(start))}
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
      x={time(beatsOf(dragged.start)) + 1.5}
      y={pitch(dragged.midi) - BOX / 2}
      width={LABEL_ROOM + 6}
      height={BOX}
      rx="5"
      class="fill-next/25 stroke-next"
      stroke-width="2"
    />
    <text
      x={time(beatsOf(dragged.start)) + 7}
      y={pitch(dragged.midi) + 4}
      font-size="11.5"
      class="fill-ink font-bold">{midiName(dragged.midi)}</text
    >
  </g>
{/if}
