<!-- The notes of a take in time, as they were played; while they are corrected, they are dragged. Inside an SVG. -->
<script lang="ts">
  import type { AnalysedChange } from '$lib/core/harmony/analysis';
  import { degreeOf } from '$lib/core/theory/degree';
  import { midiName, semitonesUp } from '$lib/core/theory/note';
  import { prettyDegree, prettyNote } from '$lib/core/theory/typeset';
  import type { Correcting } from '$lib/state/takes/correcting.svelte';
  import { curvePath, type Played } from './played';

  interface Props {
    /** Those that are in sight. */
    drawn: readonly Played[];
    changes: readonly AnalysedChange[];
    /** Of the take, in beats a minute. */
    tempo: number;
    /** x of a beat of the form, y of a pitch. */
    time: (beat: number) => number;
    pitch: (midi: number) => number;
    /** Degrees and what the hand did are written beside the notes. */
    isLabelled: boolean;
    /** What was heard can be corrected on the drawing. */
    correcting?: Correcting | undefined;
  }
  let { drawn, changes, tempo, time, pitch, isLabelled, correcting }: Props = $props();

  /** How high a note is drawn: where its loudness is not known, and from the softest to the loudest. */
  const BAR = 9;
  const [SOFTEST, LOUDEST] = [5, 12];
  const heightOf = ({ level }: Played) => (level === undefined ? BAR : SOFTEST + (LOUDEST - SOFTEST) * level);
  /** Widths that a degree and the words of a technique need. */
  const [LABEL_ROOM, WORDS_ROOM] = [26, 64];
  const semitone = $derived(pitch(60) - pitch(61));

  const isChordTone = ({ change, midi }: Played) =>
    changes[change]?.chord?.pitchClasses.includes(midi % 12) ?? false;
  function degree({ change, midi }: Played): string {
    const chord = changes[change]?.chord;
    return chord ? prettyDegree(degreeOf(semitonesUp(chord.rootPc, midi % 12), chord.tones)) : '';
  }

  /** A note that is being dragged, and where it would come to be. */
  let dragged: { index: number; x: number; y: number; seconds: number; semitones: number } | null =
    $state(null);
  const perSecond = $derived((time(1) * tempo) / 60);

  function takeNote(event: PointerEvent & { currentTarget: Element }, index: number) {
    if (!correcting?.isOn || event.button !== 0) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    correcting.selected = index;
    dragged = { index, x: event.clientX, y: event.clientY, seconds: 0, semitones: 0 };
  }
  /** Pixels that a hand moves a note sideways before it is meant. */
  const MEANT = 5;
  function dragNote(event: PointerEvent) {
    if (!dragged) return;
    const right = event.clientX - dragged.x;
    dragged.seconds = dragged.seconds !== 0 || Math.abs(right) > MEANT ? right / perSecond : 0;
    dragged.semitones = Math.round((dragged.y - event.clientY) / semitone);
  }
  function dropNote() {
    const drop = dragged;
    dragged = null;
    if (drop && (drop.seconds !== 0 || drop.semitones !== 0)) correcting?.move(drop.semitones, drop.seconds);
  }
</script>

{#each drawn as note (note.index)}
  {@const own = dragged?.index === note.index ? dragged : null}
  {@const x = time(note.at) + (own ? own.seconds * perSecond : 0)}
  {@const width = Math.max(5, time(note.at + note.beats) - time(note.at) - 1)}
  {@const y = pitch(note.midi + (own?.semitones ?? 0))}
  {@const height = heightOf(note)}
  {@const curve = curvePath(note, tempo, { time, pitch, semitone })}
  {@const isSelected = correcting?.isOn && correcting.selected === note.index}
  {#if isSelected}
    <rect
      x={x - 4}
      y={y - 11}
      width={width + 8}
      height="22"
      rx="6"
      class="fill-next/20 stroke-next"
      stroke-width="2.5"
    />
  {/if}
  <rect
    {x}
    y={y - height / 2}
    {width}
    {height}
    rx="3"
    class={isChordTone(note) ? 'fill-tone stroke-tone' : 'fill-surface stroke-tone'}
    fill-opacity={note.isUncertain ? 0.25 : undefined}
    stroke-width="1.4"
    stroke-dasharray={note.isUncertain ? '3 2' : undefined}
    data-played={note.midi}
    data-uncertain={note.isUncertain || undefined}
  />
  {#if correcting?.isOn}
    <!-- As high as a finger. -->
    <rect
      x={x - 4}
      y={y - 16}
      width={Math.max(24, width + 8)}
      height="32"
      fill="transparent"
      class="cursor-grab"
      role="presentation"
      data-played={note.midi}
      data-drag
      data-selected={isSelected || undefined}
      onpointerdown={(event) => takeNote(event, note.index)}
      onpointermove={dragNote}
      onpointerup={dropNote}
      onpointercancel={() => (dragged = null)}
    />
    {#if own && own.semitones !== 0}
      <text {x} y={y - 14} font-size="13" class="fill-ink font-bold"
        >{prettyNote(midiName(note.midi + own.semitones))}</text
      >
    {/if}
  {/if}
  {#if curve}
    <path d={curve} fill="none" class="stroke-ink" stroke-width="1.6" stroke-linejoin="round" data-curve />
  {/if}
  {#if (width >= LABEL_ROOM || note.signs) && isLabelled}
    <text x={x + (width >= LABEL_ROOM ? 12 : 1)} y={y - BAR / 2 - 3} font-size="11" class="fill-soft"
      >{width >= LABEL_ROOM ? degree(note) : ''}{#if note.signs}<tspan
          dx={width >= LABEL_ROOM ? 5 : 0}
          class="fill-ink"
          data-technique={note.words}>{width >= WORDS_ROOM ? note.words : note.signs}</tspan
        >{/if}</text
    >
  {/if}
{/each}
