<!--
  A take over the changes, in the axes of the threads: what was played as it was played, its pitch as it moved, and at each change how the
  landing met its target. Below every change what a listener would hear.
-->
<script lang="ts">
  import { nth } from '$lib/core/base/list';
  import { mostHeard } from '$lib/core/line/heard-name';
  import type { Arrangement } from '$lib/core/plan/arrange';
  import { secondOf } from '$lib/core/takes/align';
  import type { Judgement } from '$lib/core/takes/judge/judge';
  import type { TakeData } from '$lib/api/take';
  import type { Correcting } from '$lib/state/takes/correcting.svelte';
  import HeardStrip, { type HeardChange } from '../lines/HeardStrip.svelte';
  import { dragByTouch } from '../kit/touch';
  import BarLines from '../threads/BarLines.svelte';
  import ColumnChords from '../threads/ColumnChords.svelte';
  import { HEAD, layOutPitch, pitchEnds } from '../threads/layout';
  import Playhead from '../threads/Playhead.svelte';
  import SelectedColumn from '../threads/SelectedColumn.svelte';
  import { TimeView } from '../threads/time-view.svelte';
  import TimeFrame from '../threads/TimeFrame.svelte';
  import CallTurns from './CallTurns.svelte';
  import { callIn, callTurnsIn, playedIn } from './played';
  import TakeLandings from './TakeLandings.svelte';
  import TakeNotes from './TakeNotes.svelte';
  import { metWords } from './words';

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
  const radius = $derived(isSmall ? 6.5 : 8.5);
  const [LEAST_BEAT, CORRECTED_BEAT] = [30, 72];

  const changes = $derived(arranged.analysis.changes);
  const beats = $derived(arranged.sheet.form.beats);
  const view = new TimeView(() => ({
    changes,
    form: arranged.sheet.form,
    leastBeat: correcting?.isOn ? CORRECTED_BEAT : LEAST_BEAT,
    selected
  }));
  const timeline = $derived(view.timeline);
  const columns = $derived(view.columns);
  const judged = $derived(judgement.changes.filter((one) => one.round === round));
  const byChange = $derived(new Map(judged.map((one) => [one.change, one])));

  /** What Corvel played where bars were traded, and when it was its turn. */
  const call = $derived(callIn(data, round, beats));
  const callTurns = $derived(callTurnsIn(data, round, arranged.sheet.form));
  const pitches = $derived([
    ...data.notes.map(({ midi }) => midi),
    ...call.map(({ midi }) => midi),
    ...judged.flatMap(({ target }) => (target ? [target.wanted] : []))
  ]);
  const pitch = $derived(layOutPitch(pitchEnds(pitches), height));
  const semitone = $derived(pitch(60) - pitch(61));
  const played = $derived(playedIn(data, round, beats, changes));
  const playedRange = view.row(
    () => played.length,
    (i) => nth(played, i).at
  );
  const drawn = $derived(played.slice(playedRange.from, playedRange.to));

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

  function heardAt(change: number): HeardChange | null {
    const one = byChange.get(change);
    if (!one) return null;
    const { verdict, target } = one;
    const symbol = mostHeard(arranged.analysis.key, nth(changes, change), one);
    return { verdict, symbol, ...(target ? { met: metWords(target) } : {}) };
  }

  $effect(() => {
    const note = correcting?.isOn ? played.find(({ index }) => index === correcting.selected) : null;
    if (note) view.scroller.show(timeline.time(note.at), timeline.time(note.at + note.beats));
  });

  $effect(() => {
    if (time !== null) view.scroller.keep(timeline.time(time), timeline.time(time) + 60);
  });
</script>

<TimeFrame {view} name="The take in time" scrolled="The take" isStop>
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
      <pattern id="unheard" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <line x1="0" x2="0" y1="0" y2="7" class="stroke-warn" stroke-width="1.4" opacity="0.35" />
      </pattern>
    </defs>
    <SelectedColumn column={timeline.columns[selected]} {height} />
    {#each columns as column (column.index)}
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
    <CallTurns turns={callTurns} notes={call} time={timeline.time} {pitch} {height} />
    <BarLines bars={view.bars} time={timeline.time} {height} />
    <ColumnChords {columns} {changes} />
    <TakeNotes
      {drawn}
      {changes}
      tempo={data.tempo}
      time={timeline.time}
      {pitch}
      isLabelled={!isSmall}
      {correcting}
    />
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
  </svg>
  {#if time !== null}<Playhead x={timeline.time(time)} top={15} height={height - 15} />{/if}
  <HeardStrip {columns} width={timeline.width} {changes} {heardAt} {selected} {onselect} />
</TimeFrame>
