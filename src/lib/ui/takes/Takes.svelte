<!-- Takes: play to it, and read how the line met the chords: change by change, over the whole, and take by take. -->
<script lang="ts">
  import { goto } from '$app/navigation';
  import { onDestroy, onMount, untrack } from 'svelte';
  import { toast } from 'svelte-sonner';
  import { firstOf } from '$lib/core/base/list';
  import type { LoopWish } from '$lib/core/harmony/excerpt';
  import { drillOf } from '$lib/core/line/drills';
  import type { TakeRemark } from '$lib/core/takes/judge/remarks';
  import type { Exchange } from '$lib/core/takes/trade';
  import { counted } from '$lib/core/theory/words';
  import { askFor } from '$lib/state/practice/assigned';
  import { TakeReading } from '$lib/state/takes/reading.svelte';
  import { Replaying } from '$lib/state/takes/replay.svelte';
  import { Takes } from '$lib/state/takes/takes.svelte';
  import { readFile } from '$lib/state/takes/ways/file';
  import { bindKeys, layKeys } from '../keys/keys';
  import { CORRECT_KEYS, TAKE_KEYS } from './take-keys';
  import LineNeck from '../lines/LineNeck.svelte';
  import type { ViewProps } from '../view';
  import BesideTake from './BesideTake.svelte';
  import ClockBar from './ClockBar.svelte';
  import CorrectBar from './CorrectBar.svelte';
  import Exchanges from './Exchanges.svelte';
  import PassageBar from './PassageBar.svelte';
  import Stand from '../stand/Stand.svelte';
  import RecordingFoot from './RecordingFoot.svelte';
  import TakeBar from './TakeBar.svelte';
  import TakeDrawing from './TakeDrawing.svelte';
  import TakeFigures from './TakeFigures.svelte';
  import TakeHead from './TakeHead.svelte';
  import TakeList from './TakeList.svelte';
  import TakeNotices from './TakeNotices.svelte';
  import TakeRemarks from './TakeRemarks.svelte';
  import TakeTime from './TakeTime.svelte';
  import TakeTrends from './TakeTrends.svelte';
  import TurnNotice from './TurnNotice.svelte';
  import { TAKE_FILES } from './files';

  let { workspace }: ViewProps = $props();
  const takes = untrack(() => new Takes(workspace));
  const replaying = untrack(() => new Replaying(takes));
  const { correcting } = takes;
  const reading = untrack(() => new TakeReading(takes, replaying));
  let isDropping = $state(false);

  onMount(() => {
    // The finder names the take that it found.
    void takes.shelf.load(new URL(location.href).searchParams.get('take'));
    void workspace.fetchLines().catch(() => undefined);
  });
  onDestroy(() => {
    replaying.stop();
    takes.close();
  });

  const opened = $derived(takes.shelf.opened);
  const data = $derived(opened?.data ?? null);
  const judgement = $derived(takes.judging.judgement);
  const arranged = $derived(takes.judging.arranged);
  const { change, formBeats, rounds, selected } = $derived(reading);

  const openedId = $derived(opened?.id);
  /** Another take is opened at its first round, in silence. */
  $effect(() => {
    void openedId;
    untrack(() => {
      replaying.stop();
      reading.begin();
      if (correcting.isOn) correcting.stop();
    });
  });
  /** The red button is off while a take is made and read. What follows is the take: Space replays it. */
  const isMaking = $derived(takes.work.doing !== '');
  let isFresh = false;
  $effect(() => {
    void openedId;
    isFresh = Boolean(document.activeElement?.closest('[data-take-bar]'));
  });
  $effect(() => {
    if (!openedId || isMaking || !isFresh) return;
    isFresh = false;
    document.querySelector<HTMLElement>('[data-replay] button')?.focus({ preventScroll: true });
  });
  /** The drawing follows the replay from round to round. */
  $effect(() => reading.followReplay());

  function select(index: number) {
    workspace.select(index);
    if (replaying.isPlaying) reading.loopChange();
  }
  function toggle() {
    if (takes.isRecording) void takes.finish();
    else if (replaying.isPlaying) replaying.stop();
    else if (opened) void replaying.play();
    else void takes.record();
  }

  /** To the stand, over the changes that a remark speaks of. */
  function drill({ drill: mend, text }: TakeRemark) {
    if (!mend) return;
    const last = workspace.changes.length - 1;
    const isWhole = mend.from === 0 && mend.to >= last && last > 1;
    const over: LoopWish = isWhole
      ? { kind: 'form' }
      : mend.from === mend.to
        ? { kind: 'change', change: mend.from }
        : { kind: 'pair', change: mend.from };
    askFor(workspace.document.id, {
      item: null,
      name: text.split(/[:;]/)[0]!,
      what: drillOf(mend.drill)?.id ?? 'approach',
      over,
      area: null,
      key: null,
      start: Math.round(takes.rehearsal.tempo.value * SLOWER),
      steps: []
    });
    workspace.select(mend.to);
    void goto(`/charts/${workspace.document.id}?view=rehearse&change=${mend.to + 1}`);
  }
  /** What is mended is played this much slower first. */
  const SLOWER = 0.8;

  async function move(beats: number) {
    const undo = await takes.shelf.moveBy(beats);
    if (undo) toast('The take was moved.', { action: { label: 'Undo', onClick: () => void undo() } });
  }
  async function remove() {
    const take = opened;
    if (!take || !(await takes.shelf.remove(take))) return;
    toast(`“${take.name}” deleted.`, {
      action: { label: 'Undo', onClick: () => void takes.shelf.restore(take.id) }
    });
  }

  async function save(id: string) {
    if (!change) return;
    try {
      const done = await TAKE_FILES.find((one) => one.id === id)?.run({
        takes,
        line: reading.line,
        change,
        passage: reading.passage
      });
      if (done === null) takes.notices.problem ||= 'This take has nothing to save in that form.';
      else if (done) toast(done);
    } catch (error) {
      takes.notices.problem = error instanceof Error ? error.message : 'That could not be saved.';
    }
  }

  /** The bars of an answer, in its round. */
  function showExchange({ answer }: Exchange) {
    reading.round = answer.round;
    const first = arranged?.analysis.changes.find(({ bar }) => bar >= answer.bars.from);
    if (first) select(first.index);
  }

  function drop(event: DragEvent) {
    isDropping = false;
    const [file] = event.dataTransfer?.files ?? [];
    if (!file) return;
    event.preventDefault();
    void readFile(takes, file);
  }
  function dragOver(event: DragEvent) {
    if (!event.dataTransfer?.types.includes('Files')) return;
    event.preventDefault();
    isDropping = true;
  }

  $effect(() => {
    const keys = bindKeys(TAKE_KEYS, { toggle, loop: () => reading.loopChange(), correct });
    return layKeys('Takes', () => keys);
  });
  const isCorrecting = $derived(correcting.isOn && judgement !== null && !takes.isRecording);
  $effect(() => {
    if (!isCorrecting) return;
    const keys = bindKeys(CORRECT_KEYS, { correcting, second: () => replaying.second });
    const lift = layKeys('Correct the notes', () => keys);
    return () => {
      lift();
      // The bar is going, with what had the focus in it.
      document.querySelector<HTMLElement>('[data-correct-toggle] button')?.focus({ preventScroll: true });
    };
  });
  // One undo: the steps of a correction come before those of the chart.
  untrack(() => (workspace.viewSteps = correcting));
  onDestroy(() => (workspace.viewSteps = null));
  /** The drawing follows the selected note from round to round. */
  $effect(() => {
    if (isCorrecting) reading.followCorrection();
  });
  function correct() {
    if (correcting.isOn) correcting.stop();
    else if (judgement) correcting.start();
  }
</script>

<!-- svelte-ignore a11y_no_static_element_interactions -->
<div
  class="flex min-w-0 flex-col gap-2.5 {isDropping
    ? 'rounded-xl outline-2 outline-offset-4 outline-target outline-dashed'
    : ''}"
  ondragover={dragOver}
  ondragleave={() => (isDropping = false)}
  ondrop={drop}
>
  <TakeBar {takes} />
  {#if takes.notices.problem}<p class="card px-3 py-2 text-warn" role="alert">{takes.notices.problem}</p>{/if}
  {#if takes.isRecording}
    <Stand rehearsal={takes.rehearsal}>
      {#snippet notice()}
        {#if takes.turn}<TurnNotice {...takes.turn} />{/if}
        {#if takes.microphone.waits}<p class="card px-3 py-1 text-warn" role="status">
            {takes.microphone.waits}
          </p>{/if}
        {#if takes.notices.problem}<p class="card px-3 py-1 text-warn" role="alert">
            {takes.notices.problem}
          </p>{/if}
      {/snippet}
      {#snippet foot()}<RecordingFoot {takes} />{/snippet}
    </Stand>
  {:else if !takes.shelf.isLoaded}
    <p class="card px-3 py-2 text-soft" role="status">The takes are on their way …</p>
  {:else if takes.shelf.list.length === 0}
    <section class="card p-5" data-empty>
      <h2 class="text-xl">Play to it, and read how your line met the chords</h2>
      <p class="mt-1 max-w-prose text-soft">
        Press Record and improvise over the band; with headphones, kept low, so that the microphone hears the
        guitar alone. Afterwards you see at each change whether you landed on your target, which chords could
        be heard in your line, and which change to drill. No instrument at hand? Choose the simulated player
        as the source.
      </p>
    </section>
  {/if}
  {#if opened && !takes.isRecording}
    <div class="grid min-w-0 gap-2.5 lg:grid-cols-[minmax(0,1fr)_250px]">
      <div class="flex min-w-0 flex-col gap-2.5">
        <TakeHead
          {takes}
          {opened}
          isPlaying={replaying.isPlaying}
          bind:round={reading.round}
          {rounds}
          ontoggle={toggle}
          onloop={() => reading.loopChange()}
          oncorrect={correct}
          onsave={(id) => void save(id)}
          onremove={() => void remove()}
        />
        <TakeNotices {takes} />
        {#if takes.shelf.unheard}
          <!-- Nothing is known of it yet. -->
        {:else if data && judgement && arranged}
          <TakeRemarks
            remarks={takes.judging.remarks}
            habits={takes.judging.habits}
            onshow={select}
            ondrill={drill}
            onmove={(beats) => void move(beats)}
          />
          <TakeDrawing
            {arranged}
            {data}
            {judgement}
            round={reading.round}
            {selected}
            time={reading.time}
            {correcting}
            onselect={select}
          />
          {#if isCorrecting}
            <CorrectBar
              {correcting}
              {data}
              bars={arranged.sheet.form.bars.map(({ start }) => start)}
              beats={formBeats}
              second={replaying.second}
            />
          {/if}
          <PassageBar {reading} bars={arranged.sheet.form.bars.length} onsave={(id) => void save(id)} />
          <TakeTime
            time={judgement.time}
            bars={arranged.sheet.form.bars.map(({ start }) => start)}
            beats={formBeats}
            round={reading.round}
            bandSwing={takes.judging.bandSwing}
          />
          {#if takes.judging.exchanges.length}
            <Exchanges exchanges={takes.judging.exchanges} onshow={showExchange} />
          {/if}
          <BesideTake {takes} round={reading.round} {selected} onselect={select} />
          <LineNeck {workspace} notes={reading.over} next={reading.next} lit={reading.lit} />
          {#if opened.way === 'file' || opened.way === 'midi file'}
            <ClockBar shelf={takes.shelf} {data} />
          {/if}
          <TakeFigures
            figures={judgement.figures}
            {data}
            bytes={opened.bytes}
            onforget={() => void takes.shelf.forgetSound()}
          />
        {:else if opened.data === null}
          <p class="card px-3 py-2 text-warn">This take cannot be read any more; it is kept as it is.</p>
        {/if}
      </div>
      <TakeList
        takes={takes.shelf.list}
        opened={opened.id}
        onopen={(id) => void takes.shelf.open(id)}
        onforgotten={(id) => void takes.shelf.soundGone(id)}
      />
    </div>
    <TakeTrends
      takes={takes.shelf.list}
      changes={workspace.changes}
      opened={opened.id}
      onopen={(id) => void takes.shelf.open(id)}
      onchange={select}
    />
    <p class="sr-only" aria-live="polite">
      {takes.judging.remarks.length
        ? `${counted(takes.judging.remarks.length, 'remark')}. ${firstOf(takes.judging.remarks).text}`
        : ''}
    </p>
  {/if}
</div>
