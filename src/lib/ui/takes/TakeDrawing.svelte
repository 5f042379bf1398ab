<!--
  A take over the changes, in the axes of the threads: what was played as it was played, its pitch as it moved, and at each change how the
  landing met its target. Below every change what a listener would hear.
-->
<script lang="ts">
  import { nth } from '$lib/core/base/list';
  import type { Arrangement } from '$lib/core/plan/arrange';
  import { beatsOf } from '$lib/core/line/model';
  import { beatOf, secondOf } from '$lib/core/takes/align';
  import type { Judgement } from '$lib/core/takes/judge/judge';
  import { turnsIn } from '$lib/core/takes/trade';
  import { STEP_SECONDS } from '$lib/core/takes/model';
  import type { TakeData } from '$lib/api/take';
  import { isUncertain } from '$lib/core/takes/correct';
  import { midiName } from '$lib/core/theory/note';
  import type { Correcting } from '$lib/state/takes/correcting.svelte';
  import { prettyDegree, prettyNote } from '$lib/core/theory/typeset';
  import { degreeOf } from '$lib/core/theory/degree';
  import { semitonesUp } from '$lib/core/theory/note';
  import { ScrollWindow } from '../kit/scroll-window.svelte';
  import { dragByTouch } from '../kit/touch';
  import BarLines from '../threads/BarLines.svelte';
  import ColumnChords from '../threads/ColumnChords.svelte';
  import { HEAD, layOutPitch, layOutTime, pitchEnds } from '../threads/layout';
  import HeardStrip from './HeardStrip.svelte';
  import TakeLandings from './TakeLandings.svelte';
  import { EVENT_SIGNS, eventWords } from './words';

  interface Props {
    arranged: Arrangement;
    data: TakeData;
    judgement: Judgement;
    /** Which time through the form, from 0. */
    round: number;
    selected: number;
    /** Where the replay is, in beats of the form; null at rest or in another round. */
    time: number | null;
    onselect: (change: number) => void;
    /** Drawn beside another one: lower. */
    isSmall?: boolean;
    /** What was heard can be corrected on the drawing. */
    correcting?: Correcting | undefined;
  }
  let {
    arranged,
    data,
    judgement,
    round,
    selected,
    time,
    onselect,
    isSmall = false,
    correcting
  }: Props = $props();

  const height = $derived(isSmall ? 170 : 250);
  const BAR = 9;
  const [SOFTEST, LOUDEST] = [5, 12];
  const radius = $derived(isSmall ? 6.5 : 8.5);
  const [LEAST_BEAT, CORRECTED_BEAT, LABEL_ROOM, WORDS_ROOM] = [30, 72, 26, 64];

  let available = $state(900);
  const seen = new ScrollWindow();

  const changes = $derived(arranged.analysis.changes);
  const beats = $derived(arranged.sheet.form.beats);
  const timeline = $derived(
    layOutTime(
      changes,
      beats,
      Math.max(available - 2, beats * (correcting?.isOn ? CORRECTED_BEAT : LEAST_BEAT))
    )
  );
  const judged = $derived(judgement.changes.filter((one) => one.round === round));
  const byChange = $derived(new Map(judged.map((one) => [one.change, one])));

  /** Where bars were traded: what Corvel played in this round, and its turns in it, in beats of the form. */
  const call = $derived.by(() =>
    (data.trade?.call ?? []).flatMap(({ start, length, midi }) => {
      const at = beatsOf(start) - round * beats;
      return at >= 0 && at < beats ? [{ at, beats: beatsOf(length), midi }] : [];
    })
  );
  const callTurns = $derived.by(() =>
    data.trade
      ? turnsIn(arranged.sheet.form, data.trade.bars, round + 1)
          .filter((turn) => turn.round === round && !turn.isOwn)
          .map(({ from, to }) => ({ from: from - round * beats, to: to - round * beats }))
      : []
  );

  interface Played {
    readonly at: number;
    readonly beats: number;
    readonly midi: number;
    readonly curve: string;
    readonly change: number;
    /** Its place among the notes of the take. */
    readonly index: number;
    readonly isUncertain: boolean;
    /** As high as it is loud. */
    readonly height: number;
    /** What the hand did to its pitch, in a few words. */
    readonly words: string;
    readonly signs: string;
  }
  const pitches = $derived([
    ...data.notes.map(({ midi }) => midi),
    ...call.map(({ midi }) => midi),
    ...judged.flatMap(({ target }) => (target ? [target.wanted] : []))
  ]);
  const pitch = $derived(layOutPitch(pitchEnds(pitches), height));
  const semitone = $derived(pitch(60) - pitch(61));
  const played = $derived.by((): Played[] => {
    const from = round * beats;
    return data.notes.flatMap((note, index): Played[] => {
      const { at, seconds, midi, curve } = note;
      const beat = beatOf(data, at) - from;
      if (beat < -0.7 || beat >= beats - 0.1) return [];
      const length = (seconds * data.tempo) / 60;
      const change = changes.findLastIndex(({ start }) => start <= beat + 0.2);
      return [
        {
          at: beat,
          beats: length,
          midi,
          curve: curveOf(beat, midi, curve),
          change: Math.max(0, change),
          index,
          isUncertain: isUncertain(note),
          height: note.level === undefined ? BAR : SOFTEST + (LOUDEST - SOFTEST) * note.level,
          words: note.events.map(eventWords).join(', '),
          signs: note.events.map(({ kind }) => EVENT_SIGNS[kind]).join('')
        }
      ];
    });
  });
  const range = seen.row(
    () => timeline.columns.length,
    (i) => nth(timeline.columns, i).x
  );
  const columns = $derived(timeline.columns.slice(range.from, range.to));
  const playedRange = seen.row(
    () => played.length,
    (i) => timeline.time(nth(played, i).at)
  );
  const drawn = $derived(played.slice(playedRange.from, playedRange.to));
  const allBars = $derived(arranged.sheet.form.bars);
  const barRange = seen.row(
    () => allBars.length,
    (i) => timeline.time(nth(allBars, i).start)
  );
  const bars = $derived(allBars.slice(barRange.from, barRange.to));

  /** The way of a pitch, drawn where it moves: a straight one says nothing that its bar does not. */
  function curveOf(beat: number, midi: number, curve: readonly (number | null)[]): string {
    const known = curve.filter((cents) => cents !== null);
    if (known.length < 3 || Math.max(...known) - Math.min(...known) < 35) return '';
    let isOn = false;
    return curve
      .map((cents, i) => {
        if (cents === null) {
          isOn = false;
          return '';
        }
        const x = timeline.time(beat + (i * STEP_SECONDS * data.tempo) / 60);
        const point = `${isOn ? 'L' : 'M'}${x.toFixed(1)} ${(pitch(midi) - (cents / 100) * semitone).toFixed(1)}`;
        isOn = true;
        return point;
      })
      .join('');
  }

  const isChordTone = ({ change, midi }: Played) =>
    changes[change]?.chord?.pitchClasses.includes(midi % 12) ?? false;
  function degree({ change, midi }: Played): string {
    const chord = changes[change]?.chord;
    return chord ? prettyDegree(degreeOf(semitonesUp(chord.rootPc, midi % 12), chord.tones)) : '';
  }

  /** A note that is being dragged, and where it would come to be. */
  let dragged: { index: number; x: number; y: number; seconds: number; semitones: number } | null =
    $state(null);
  const perSecond = $derived((timeline.time(1) * data.tempo) / 60);

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
  /** A note that is missing is put in where the drawing is pressed. */
  function putIn(event: MouseEvent & { currentTarget: Element }) {
    if (!correcting?.isOn || (event.target instanceof Element && event.target.closest('[data-played]')))
      return;
    const { left, top } = event.currentTarget.getBoundingClientRect();
    const [x, y] = [event.clientX - left, event.clientY - top];
    if (y < HEAD) return;
    const midi = Math.round(60 + (pitch(60) - y) / semitone);
    correcting.add(secondOf(data, round * beats + x / timeline.time(1)), midi);
  }
  $effect(() => {
    const note = correcting?.isOn ? played.find(({ index }) => index === correcting.selected) : null;
    if (note) seen.show(timeline.time(note.at), timeline.time(note.at + note.beats));
  });

  $effect(() => {
    const column = timeline.columns[selected];
    if (column) seen.show(column.x, column.x + column.width);
  });
  $effect(() => {
    if (time !== null) seen.keep(timeline.time(time), timeline.time(time) + 60);
  });
</script>

<section class="relative min-w-0 overflow-hidden card" aria-label="The take in time">
  <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
  <div
    class="overflow-x-auto overflow-y-hidden"
    role="group"
    aria-label="The take, to be scrolled"
    tabindex="0"
    bind:clientWidth={available}
    {@attach seen.follow}
  >
    <!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_noninteractive_element_interactions -->
    <svg
      onclick={putIn}
      {@attach dragByTouch()}
      width={timeline.width}
      {height}
      class="block select-none {correcting?.isOn ? 'cursor-copy' : ''}"
      role="img"
      aria-label="The take in time: what was played, and how each landing met its target"
    >
      <defs>
        <pattern
          id="unheard"
          width="7"
          height="7"
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(45)"
        >
          <line x1="0" x2="0" y1="0" y2="7" class="stroke-warn" stroke-width="1.4" opacity="0.35" />
        </pattern>
      </defs>
      {#each columns as column (column.index)}
        {#if column.index === selected}
          <rect x={column.x} y="15" width={column.width} height={height - 15} class="fill-lit" />
          <rect x={column.x} y="15" width={column.width} height="3" class="fill-target" />
        {/if}
        {#if byChange.get(column.index)?.verdict === 'not'}
          <rect
            x={column.x}
            y={HEAD}
            width={column.width}
            height={height - HEAD}
            fill="url(#unheard)"
            data-unheard={column.index}
          />
        {/if}
      {/each}
      {#each callTurns as { from, to } (from)}
        <rect
          x={timeline.time(from)}
          y={HEAD}
          width={timeline.time(to) - timeline.time(from)}
          height={height - HEAD}
          class="fill-next"
          opacity="0.1"
          data-call-turn={from}
        />
        <text x={timeline.time(from) + 8} y={height - 8} font-size="12" class="fill-next font-bold"
          >Corvel</text
        >
      {/each}
      {#each call as note (note.at)}
        <rect
          x={timeline.time(note.at)}
          y={pitch(note.midi) - BAR / 2}
          width={Math.max(5, timeline.time(note.at + note.beats) - timeline.time(note.at) - 1)}
          height={BAR}
          rx="3"
          class="fill-surface stroke-next"
          stroke-width="1.4"
          data-called={note.midi}
        />
      {/each}
      <BarLines {bars} time={timeline.time} {height} />
      <ColumnChords {columns} {changes} />
      {#each drawn as note (note.index)}
        {@const own = dragged?.index === note.index ? dragged : null}
        {@const x = timeline.time(note.at) + (own ? own.seconds * perSecond : 0)}
        {@const width = Math.max(5, timeline.time(note.at + note.beats) - timeline.time(note.at) - 1)}
        {@const y = pitch(note.midi + (own?.semitones ?? 0))}
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
          y={y - note.height / 2}
          {width}
          height={note.height}
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
        {#if note.curve}
          <path
            d={note.curve}
            fill="none"
            class="stroke-ink"
            stroke-width="1.6"
            stroke-linejoin="round"
            data-curve
          />
        {/if}
        {#if (width >= LABEL_ROOM || note.signs) && !isSmall}
          <text x={x + (width >= LABEL_ROOM ? 12 : 1)} y={y - BAR / 2 - 3} font-size="11" class="fill-soft"
            >{width >= LABEL_ROOM ? degree(note) : ''}{#if note.signs}<tspan
                dx={width >= LABEL_ROOM ? 5 : 0}
                class="fill-ink"
                data-technique={note.words}>{width >= WORDS_ROOM ? note.words : note.signs}</tspan
              >{/if}</text
          >
        {/if}
      {/each}
      <TakeLandings
        {columns}
        {changes}
        {byChange}
        time={timeline.time}
        {pitch}
        {radius}
        isTraded={Boolean(data.trade)}
        isFaint={correcting?.isOn ?? false}
      />
      {#if time !== null}
        <line
          x1={timeline.time(time)}
          x2={timeline.time(time)}
          y1="15"
          y2={height}
          class="stroke-ink"
          stroke-width="2"
          data-playhead
        />
      {/if}
    </svg>
    <HeardStrip
      {columns}
      width={timeline.width}
      {changes}
      key={arranged.analysis.key}
      {byChange}
      {selected}
      {onselect}
    />
  </div>
</section>
