<!-- Lines: found level by level, read against the chords, judged by what is heard in them alone, mended, played with the band, kept. -->
<script lang="ts" module>
  import { Part } from '../app/part';

  const scorePart = new Part(() => import('../score/Score.svelte'));
</script>

<script lang="ts">
  import { onDestroy, onMount, untrack } from 'svelte';
  import { nth } from '$lib/core/base/list';
  import { remarksOn } from '$lib/core/line/in-words';
  import { beatsOf, ticksOf, type LineNote } from '$lib/core/line/model';
  import { moved } from '$lib/core/line/edit';
  import { outlineLine, askedOf, type Mend } from '$lib/core/line/outline';
  import { placeNotes } from '$lib/core/line/place';
  import { spelledOver } from '$lib/core/line/spelling';
  import { readLine, readPart } from '$lib/core/line/read';
  import { notesOver } from '$lib/core/line/over-change';
  import { MELODY } from '$lib/state/lines/current.svelte';
  import { Lines } from '$lib/state/lines/lines.svelte';
  import { Phrases } from '$lib/state/lines/phrases.svelte';
  import { whyNote } from '$lib/core/line/why';
  import { Pen } from '$lib/state/lines/pen.svelte';
  import { Rehearsal } from '$lib/state/stand/rehearsal.svelte';
  import { settings } from '$lib/state/settings.svelte';
  import Arriving from '../app/Arriving.svelte';
  import { hear } from '../app/hear';
  import { bindKeys, layKeys } from '../keys/keys';
  import type { ViewProps } from '../view';
  import { Debounced } from '../kit/debounced.svelte';
  import ChangeReading from './ChangeReading.svelte';
  import Licks from './Licks.svelte';
  import LineDrawing from './LineDrawing.svelte';
  import LineFigures from './LineFigures.svelte';
  import LineNeck from './LineNeck.svelte';
  import LineTools from './LineTools.svelte';
  import PhraseBar from './PhraseBar.svelte';
  import WritePad from './WritePad.svelte';
  import { LINE_KEYS, PEN_KEYS } from './line-keys';
  import { loopAt, type LoopId } from './loops';

  let { workspace }: ViewProps = $props();
  // What is listened to here is not practised: the log is the stand’s.
  const rehearsal = untrack(() => new Rehearsal(workspace, { write: () => undefined }));
  const lines = untrack(() => new Lines(workspace));
  let showsLicks = $state(false);
  const pen = untrack(() => new Pen(lines.current, workspace));
  const phrases = untrack(() => new Phrases(lines.current, lines.finding, workspace));
  let loop: LoopId = $state('whole');

  onMount(() => void lines.load());
  onDestroy(() => {
    rehearsal.close();
    lines.close();
  });

  /** Long lines are judged when the hand rests: a fret that is written is seen at once. */
  const atRest = new Debounced(
    () => lines.current.shown?.notes ?? null,
    () => pen.isWriting
  );
  $effect.pre(() => {
    const { value } = atRest;
    untrack(() => (lines.judged.rested = value));
  });
  const meter = $derived(workspace.sheet.head.meter);
  /** Print what is what is shown. */
  $effect(() => {
    const { shown: line } = lines.current;
    workspace.shownLine = line && { name: line.name, notes: line.notes };
  });
  onDestroy(() => (workspace.shownLine = null));
  // One undo: the steps of the line come before those of the chart.
  untrack(() => (workspace.viewSteps = lines.current));
  onDestroy(() => (workspace.viewSteps = null));
  /** What is played is what is shown. */
  $effect(() => {
    const notes = lines.current.shown?.notes;
    const line = notes ? { meter, notes } : null;
    untrack(() => {
      rehearsal.rounds.line = line;
      if (rehearsal.transport.isPlaying) void rehearsal.transport.play();
    });
  });

  /** In its own key, or chart and line in another. */
  const shown = $derived(rehearsal.picture.shown);
  /** In the chart's own key, where it can be written on. */
  const isOwn = $derived(shown === workspace);
  const notes = $derived(rehearsal.picture.line?.notes ?? []);
  const ground = $derived({ form: shown.sheet.form, analysis: shown.analysis, chosen: shown.chosen });
  /** Read as a whole at rest; what is seen is read part by part. */
  const settled = $derived(pen.isWriting && isOwn ? (atRest.value ?? notes) : notes);
  const reading = $derived(readLine({ meter, notes: settled }, ground));
  /** Named by the chord of their moment; while they are dragged they keep the names they had. */
  const spelled = $derived(settled === notes ? spelledOver(notes, reading.notes, ground) : notes);
  const partOf = (from: number, to: number) =>
    settled === notes ? reading.notes.slice(from, to) : readPart({ meter, notes }, ground, from, to);
  const outline = $derived(
    (shown === workspace && lines.judged.outline) || outlineLine(notes, askedOf(shown.changes))
  );
  /** Longer lines are not gone through for it with every edit. */
  const MOST_WATCHED = 600;
  const shifts = $derived.by(() => {
    if (notes.length > MOST_WATCHED || pen.isWriting) return null;
    return (
      placeNotes(notes, { neck: shown.neck, keepsPlaces: true, alternatives: 1 }).places[0]?.shifts ?? null
    );
  });
  const change = $derived(shown.changes[shown.selected]);
  /** While nothing plays, and in the chart's own key. */
  const mend = $derived(shown === workspace && !rehearsal.transport.isPlaying ? lines.judged.mend : null);
  const over = $derived(
    change
      ? notesOver(notes, change).map(({ note, index }) => ({ note, read: partOf(index, index + 1)[0]! }))
      : []
  );
  const next = $derived.by((): LineNote | null => {
    if (!change) return null;
    const end = ticksOf(change.start + change.beats);
    return notes.find((note) => note.start >= end) ?? null;
  });
  const time = $derived(
    rehearsal.transport.isPlaying && rehearsal.transport.beat >= 0 && rehearsal.picture.now
      ? rehearsal.picture.now.excerpt.from + rehearsal.picture.written
      : null
  );
  /** The start of the note that sounds, as it is written. */
  const lit = $derived.by(() => {
    // A round is laid out only where it is heard.
    if (time === null || !rehearsal.picture.now) return null;
    const { now, inRound } = rehearsal.picture;
    const at = now.times.findIndex(({ start, beats }) => inRound >= start && inRound < start + beats);
    return at < 0 ? null : nth(now.notes, at).start + ticksOf(now.excerpt.from);
  });

  function select(index: number) {
    shown.select(index);
    if (shown !== workspace) workspace.select(index, false);
    if (loop !== 'whole' && !rehearsal.transport.isPlaying) setLoop(loop);
  }
  function setLoop(id: LoopId) {
    loop = id;
    rehearsal.loop.set(loopAt(id, change?.bar ?? 1, workspace.sheet.form.bars.length));
  }
  /** The loop follows the bar that is selected, until it plays. */
  $effect(() => {
    const { bar } = workspace.change ?? {};
    if (bar === undefined) return;
    untrack(() => {
      if (loop !== 'whole' && !rehearsal.transport.isPlaying) setLoop(loop);
    });
  });

  /** The note that is asked about; it goes with the line it belongs to. */
  let asked = $state.raw<{ readonly index: number; readonly of: readonly LineNote[] } | null>(null);
  const pointed = $derived(asked?.of === notes && settled === notes ? asked.index : null);
  const why = $derived(
    pointed === null
      ? []
      : whyNote(pointed, { notes, reading, changes: shown.changes, phrases: isOwn ? phrases.all : [] })
  );
  function pointAt(index: number | null) {
    asked = index === null ? null : { index, of: notes };
    const over = index === null ? undefined : reading.notes[index]?.change;
    if (over !== undefined && over !== shown.selected) select(over);
  }
  function write(at: number) {
    if (!pen.isWriting) pen.start();
    pen.to(at);
  }

  const hearMend = (mend: Mend) => {
    if (!change) return;
    const passage = notesOver(lines.judged.mended(mend), change).map(({ note }) => note);
    void hear(workspace, { kind: 'passage', notes: passage });
  };

  function point(ticks: number, string: number) {
    if (pen.isWriting && isOwn) pen.point(ticks, string);
    else select(shown.changes.findLast(({ start }) => ticksOf(start) <= ticks)?.index ?? 0);
  }
  function strike(string: number, fret: number) {
    pen.strike(string, fret, true);
    const note = lines.current.shown?.notes.find(
      ({ place }) => place?.string === string && place.fret === fret
    );
    if (note && !rehearsal.transport.isPlaying) void hear(workspace, { kind: 'passage', notes: [note] });
  }
  function moveNote(index: number, start: number, midi: number) {
    // A melody is written from the first bar on.
    const from = lines.current.shown?.id === MELODY ? Math.max(0, start) : start;
    const after = lines.current.shown && moved(lines.current.shown.notes, index, from, midi);
    if (after) lines.current.edit(after, 'note moved');
    else lines.current.problem = 'Two notes begin there already; a line has no more at once.';
  }

  $effect(() => {
    const keys = bindKeys(LINE_KEYS, { pen, rehearsal });
    return layKeys('Lines', () => keys);
  });
  // Above those of the view: what writes notes goes before what opens the pen.
  $effect(() => {
    const keys = bindKeys(PEN_KEYS, pen);
    return layKeys('Editing the line', () =>
      pen.isWriting && isOwn && !rehearsal.transport.isPlaying ? keys : []
    );
  });

  /** The beat that is counted, for those who only see. */
  const counting = $derived(rehearsal.picture.counting);
</script>

<LineTools {workspace} {lines} {rehearsal} {pen} {loop} onloop={setLoop} bind:showsLicks />
{#if lines.current.shown}
  <div
    class="flex min-w-0 flex-col gap-2.5"
    aria-busy={lines.finding.isFinding}
    data-line={lines.current.shown.id ?? 'new'}
    data-level={lines.finding.asked.level}
    data-notes={notes.length}
    data-playing={rehearsal.transport.isPlaying || undefined}
    data-sound-level={rehearsal.transport.level}
    data-at={time === null ? undefined : beatsOf(ticksOf(time))}
  >
    {#if counting}<p class="sr-only" aria-live="off">{counting}</p>{/if}
    {#if settings.now.lineAs === 'score'}
      <Arriving part={scorePart} height="min-h-64">
        {#snippet children(Score)}
          <Score
            workspace={shown}
            notes={spelled}
            degrees={settings.now.scoreDegrees ? partOf(0, notes.length).map(({ degree }) => degree) : null}
            {time}
            {lit}
            caret={isOwn ? pen.caret : null}
            selected={pen.selection}
            rows={2}
            label="The line on staff and tab"
            onpick={(ticks, string) => point(ticks, string)}
          />
        {/snippet}
      </Arriving>
    {:else}
      <LineDrawing
        workspace={shown}
        {notes}
        readPart={partOf}
        {outline}
        offered={mend?.changes ?? []}
        {time}
        {lit}
        caret={isOwn ? pen.caret : null}
        grid={pen.grid}
        onselect={select}
        onmove={isOwn && !rehearsal.transport.isPlaying ? moveNote : undefined}
        onpick={isOwn && pen.isWriting ? (ticks) => pen.point(ticks, pen.string) : undefined}
        phrases={isOwn ? phrases : undefined}
        onwrite={write}
        onpoint={pointAt}
        {pointed}
      />
    {/if}
    {#if phrases.selected !== null && isOwn && !pen.isWriting && settings.now.lineAs === 'time'}
      <PhraseBar {phrases} index={phrases.selected} isBusy={lines.finding.isFinding} onwrite={write} />
    {/if}
    {#if pen.isWriting && isOwn}<WritePad {pen} />{/if}
    {#if showsLicks && isOwn}<Licks {workspace} {lines} {pen} />{/if}
    <div class="grid min-w-0 gap-2.5 lg:grid-cols-[minmax(0,1fr)_330px]">
      <div class="flex min-w-0 flex-col gap-2.5">
        <LineNeck
          workspace={shown}
          notes={over}
          {next}
          {lit}
          onstrike={pen.isWriting && isOwn ? (string, fret) => strike(string, fret) : undefined}
        />
        <LineFigures
          figures={reading.figures}
          share={outline.share}
          {shifts}
          said={remarksOn(reading, settled, shown.changes)}
        />
      </div>
      {#if change}
        <ChangeReading
          {change}
          home={shown.analysis.key}
          window={nth(outline.windows, change.index)}
          {reading}
          notes={over}
          {mend}
          {pointed}
          {why}
          onpoint={pointAt}
          onhear={hearMend}
          ontake={(mend) => lines.judged.take(mend)}
        />
      {/if}
    </div>
  </div>
{:else}
  <p class="card p-6 text-soft" role="status">
    {lines.finding.isFinding || !lines.shelf.isLoaded
      ? 'Looking for a line…'
      : 'Choose how full the line is to be, above.'}
  </p>
{/if}
