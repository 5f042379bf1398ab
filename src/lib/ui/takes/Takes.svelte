<!-- Takes: play to it, and read how the line met the chords: change by change, over the whole, and take by take. -->
<script lang="ts">
  import { goto } from '$app/navigation';
  import { onDestroy, onMount, untrack } from 'svelte';
  import { toast } from 'svelte-sonner';
  import Repeat from '@lucide/svelte/icons/repeat';
  import { firstOf, nth } from '$lib/core/base/list';
  import type { LoopWish } from '$lib/core/harmony/excerpt';
  import { drillOf } from '$lib/core/line/drills';
  import { endOf, ticksOf, type LineNote } from '$lib/core/line/model';
  import { placeNotes } from '$lib/core/line/place';
  import { readLine } from '$lib/core/line/read';
  import { HIGHEST_TEMPO, LOWEST_TEMPO } from '$lib/core/practice/ladder';
  import { beatOf } from '$lib/core/takes/align';
  import type { TakeRemark } from '$lib/core/takes/judge/remarks';
  import type { Exchange } from '$lib/core/takes/trade';
  import { counted } from '$lib/core/theory/words';
  import { askFor } from '$lib/state/practice/assigned';
  import { Replaying } from '$lib/state/takes/replay.svelte';
  import { Takes } from '$lib/state/takes/takes.svelte';
  import { readFile } from '$lib/state/takes/ways/file';
  import { notesOver } from '$lib/core/line/over-change';
  import Button from '../kit/Button.svelte';
  import NumberField from '../kit/NumberField.svelte';
  import { bindKeys, layKeys } from '../keys/keys';
  import { CORRECT_KEYS, TAKE_KEYS } from './take-keys';
  import LineNeck from '../lines/LineNeck.svelte';
  import type { ViewProps } from '../view';
  import CorrectBar from './CorrectBar.svelte';
  import Exchanges from './Exchanges.svelte';
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
  import { TAKE_FILES, type Passage } from './files';
  import { percent } from './words';

  let { workspace }: ViewProps = $props();
  const takes = untrack(() => new Takes(workspace));
  const replaying = untrack(() => new Replaying(takes));
  const { correcting } = takes;
  let round = $state(0);
  /** Bars that were marked, both in: what is looped or kept. */
  let passage: Passage | null = $state.raw(null);
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
  const beside = $derived(takes.shelf.beside);
  const data = $derived(opened?.data ?? null);
  const judgement = $derived(takes.judging.judgement);
  const arranged = $derived(takes.judging.arranged);
  const rounds = $derived(judgement?.figures.rounds ?? 1);
  const formBeats = $derived(arranged?.sheet.form.beats ?? 0);
  /** The selected change, as far as the chart of the take has it. */
  const selected = $derived(Math.min(workspace.selected, (arranged?.analysis.changes.length ?? 1) - 1));
  const change = $derived(arranged?.analysis.changes[selected]);

  const openedId = $derived(opened?.id);
  /** Another take is opened at its first round, in silence. */
  $effect(() => {
    void openedId;
    untrack(() => {
      replaying.stop();
      round = 0;
      passage = null;
      if (correcting.isOn) correcting.stop();
    });
  });
  /** The drawing follows the replay from round to round. */
  $effect(() => {
    const { beat } = replaying;
    if (beat !== null && formBeats > 0)
      round = Math.min(rounds - 1, Math.max(0, Math.floor((beat + 0.05) / formBeats)));
  });
  const time = $derived(replaying.beat === null ? null : replaying.beat - round * formBeats);

  /** The round as a line, with places on the neck. */
  const line = $derived.by((): readonly LineNote[] => {
    if (!judgement || !arranged) return [];
    const [from, to] = [ticksOf(round * formBeats), ticksOf((round + 1) * formBeats)];
    const own = judgement.line
      .filter(({ start }) => start >= from && start < to)
      .map((note) => ({ ...note, start: note.start - from }));
    // Where the plan has the hand, if all of it lies there; else where the hand has it easiest.
    const { neck, home } = arranged;
    const placings = [{ position: home }, {}].flatMap(
      (wish) => placeNotes(own, { neck, alternatives: 1, ...wish }).places
    );
    return placings[0]?.notes ?? own;
  });
  const reading = $derived(
    arranged
      ? readLine(
          { meter: arranged.sheet.head.meter, notes: line },
          { form: arranged.sheet.form, analysis: arranged.analysis, chosen: arranged.chosen }
        )
      : null
  );
  /** While it is replayed the neck shows the change that sounds. */
  const shownChange = $derived.by(() => {
    if (!arranged || time === null) return change;
    return arranged.analysis.changes.findLast(({ start }) => start <= time + 0.05) ?? change;
  });
  const over = $derived(
    shownChange && reading
      ? notesOver(line, shownChange).map(({ note, index }) => ({ note, read: nth(reading.notes, index) }))
      : []
  );
  const next = $derived.by(() => {
    if (!shownChange) return null;
    const end = ticksOf(shownChange.start + shownChange.beats);
    return line.find(({ start }) => start >= end) ?? null;
  });
  const lit = $derived.by(() => {
    if (time === null) return null;
    const at = ticksOf(time);
    return line.find((note) => at >= note.start && at < endOf(note))?.start ?? null;
  });

  function select(index: number) {
    workspace.select(index);
    if (replaying.isPlaying) loop();
  }
  function loop() {
    if (!change) return;
    const from = change.start + round * formBeats;
    void replaying.loop(from, from + change.beats);
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
      const done = await TAKE_FILES.find((one) => one.id === id)?.run({ takes, line, change, passage });
      if (done === null) takes.notices.problem ||= 'This take has nothing to save in that form.';
      else if (done) toast(done);
    } catch (error) {
      takes.notices.problem = error instanceof Error ? error.message : 'That could not be saved.';
    }
  }

  /** Marks bars; the other end gives way where it would come first. */
  function mark(end: 'from' | 'to', bar: number) {
    const own = passage ?? { from: change?.bar ?? 1, to: change?.bar ?? 1 };
    const marked = { ...own, [end]: bar };
    passage = marked.from <= marked.to ? marked : { from: bar, to: bar };
  }
  /** Loops the passage in the round that is shown. */
  function loopPassage() {
    const bars = arranged?.sheet.form.bars;
    const [first, last] = [passage?.from, passage?.to].map((number) =>
      bars?.find((bar) => bar.number === number)
    );
    if (first && last)
      void replaying.loop(round * formBeats + first.start, round * formBeats + last.start + last.beats);
  }

  /** The bars of an answer, in its round. */
  function showExchange({ answer }: Exchange) {
    round = answer.round;
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
    const keys = bindKeys(TAKE_KEYS, { toggle, loop, correct });
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
    const note = correcting.selected === null ? undefined : data?.notes[correcting.selected];
    if (!isCorrecting || !note || !data || formBeats === 0) return;
    const own = Math.floor((beatOf(data, note.at) + 0.1) / formBeats);
    round = Math.max(0, Math.min(rounds - 1, own));
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
        {#if takes.turn}
          {@const { isOwn, left } = takes.turn}
          <p
            class="flex items-baseline gap-4 rounded-md px-3 py-1 {isOwn
              ? 'bg-target text-on-target'
              : 'bg-lit'}"
            role="status"
            data-turn={isOwn ? 'own' : 'corvel'}
          >
            <span class="font-display text-4xl whitespace-nowrap max-sm:text-3xl"
              >{isOwn ? 'Your turn' : 'Corvel plays'}</span
            >
            <span class="text-2xl tabular-nums" aria-hidden="true">{Math.ceil(left - 1e-6)}</span>
          </p>
        {/if}
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
          bind:round
          {rounds}
          ontoggle={toggle}
          onloop={loop}
          oncorrect={correct}
          onsave={(id) => void save(id)}
          onremove={() => void remove()}
        />
        <TakeNotices {takes} />
        {#if takes.shelf.isTornOff}
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
            {round}
            {selected}
            {time}
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
          <p
            class="flex flex-wrap items-center gap-2 text-sm text-soft"
            data-passage={passage && `${passage.from}-${passage.to}`}
          >
            A passage of it: bars
            {#each ['from', 'to'] as const as end (end)}
              {#if end === 'to'}to{/if}
              <NumberField
                label={end === 'from' ? 'First bar of the passage' : 'Last bar of the passage'}
                value={passage?.[end] ?? change?.bar ?? 1}
                min={1}
                max={arranged.sheet.form.bars.length}
                onset={(bar) => mark(end, bar)}
              />
            {/each}
            {#if passage}
              <Button size="small" onclick={loopPassage}><Repeat size={14} /> loop it</Button>
              <Button size="small" onclick={() => void save('line')}>keep as a line</Button>
              <Button size="small" onclick={() => void save('lick')}>keep as a lick</Button>
              <Button size="small" onclick={() => (passage = null)}>clear</Button>
            {/if}
          </p>
          <TakeTime
            time={judgement.time}
            bars={arranged.sheet.form.bars.map(({ start }) => start)}
            beats={formBeats}
            {round}
            bandSwing={takes.judging.bandSwing}
          />
          {#if takes.judging.exchanges.length}
            <Exchanges exchanges={takes.judging.exchanges} onshow={showExchange} />
          {/if}
          {#if beside?.data && takes.judging.beside}
            <div class="flex flex-wrap items-baseline gap-x-3 text-sm" data-beside={beside.id}>
              <b>{beside.name}</b>
              <span class="text-soft">
                {percent(takes.judging.beside.judgement.figures.hits)} hit, {percent(
                  takes.judging.beside.judgement.figures.outlined
                )} heard; above {percent(judgement.figures.hits)} and {percent(judgement.figures.outlined)}
              </span>
              <Button size="small" onclick={() => takes.shelf.closeBeside()}>close</Button>
            </div>
            <TakeDrawing
              arranged={takes.judging.beside.arranged}
              data={beside.data}
              judgement={takes.judging.beside.judgement}
              round={Math.min(round, takes.judging.beside.judgement.figures.rounds - 1)}
              {selected}
              time={null}
              onselect={select}
              isSmall
            />
          {/if}
          <LineNeck {workspace} notes={over} {next} {lit} />
          {#if opened.way === 'file' || opened.way === 'midi file'}
            <p class="flex flex-wrap items-center gap-3 text-sm text-soft" data-clock>
              The beat was found in the notes. If it is wrong, correct it:
              <NumberField
                label="Tempo of the take"
                value={Math.round(data.tempo * 10) / 10}
                min={LOWEST_TEMPO}
                max={HIGHEST_TEMPO}
                unit="bpm"
                onset={(tempo) => void takes.shelf.setClock(tempo, data.start)}
              />
              <NumberField
                label="Second of the first beat"
                value={Math.round(data.start * 100) / 100}
                min={-30}
                max={600}
                unit="s to the first beat"
                onset={(start) => void takes.shelf.setClock(data.tempo, start)}
                class="w-20"
              />
            </p>
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
