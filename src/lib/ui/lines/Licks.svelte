<!-- Licks over this chart: keep a passage as one; what fits here is heard, inserted, its seam placed anew. -->
<script lang="ts">
  import { onMount, untrack } from 'svelte';
  import type { StoredLick } from '$lib/api/lick';
  import { firstOf, nth } from '$lib/core/base/list';
  import { isOfStyle } from '$lib/core/harmony/style';
  import { lickFit, lickPlaces, type Lick, type LickFit, type LickPlace } from '$lib/core/line/lick';
  import { keyOfLick, lickFrom } from '$lib/core/line/lick-facts';
  import { pasted } from '$lib/core/line/edit';
  import { ticksOf } from '$lib/core/line/model';
  import { laidOut } from '$lib/core/line/move';
  import { readChord } from '$lib/core/theory/chord-reader';
  import { prettyProse } from '$lib/core/theory/typeset';
  import { counted } from '$lib/core/theory/words';
  import type { Lines } from '$lib/state/lines/lines.svelte';
  import { LickBook } from '$lib/state/licks/licks.svelte';
  import type { Pen } from '$lib/state/lines/pen.svelte';
  import type { Workspace } from '$lib/state/chart/workspace.svelte';
  import { hear } from '../app/hear';
  import Button from '../kit/Button.svelte';

  interface Props {
    workspace: Workspace;
    lines: Lines;
    pen: Pen;
  }
  let { workspace, lines, pen }: Props = $props();
  const book = untrack(() => new LickBook());
  onMount(() => void book.load());

  interface Fitting {
    readonly stored: StoredLick;
    readonly lick: Lick;
    readonly places: readonly LickPlace[];
  }
  /** Every lick with the places where it fits, worked out again when the chart changes. */
  const fitting: readonly Fitting[] = $derived.by(() => {
    const { sheet, analysis } = workspace;
    return book.licks.flatMap((stored): Fitting[] => {
      const { data } = stored;
      if (!data || data.meter.unit !== sheet.head.meter.unit) return [];
      const over = data.over.flatMap(({ symbol, beats }) => {
        const reading = readChord(symbol);
        return reading.kind === 'chord' ? [{ chord: reading.chord, beats }] : [];
      });
      if (over.length < data.over.length) return [];
      const lick = { over, notes: data.notes, inKey: keyOfLick(data) };
      const places = lickPlaces(lick, analysis);
      return places.length ? [{ stored, lick, places }] : [];
    });
  });
  const selected = $derived(workspace.selected);
  /** Licks of the chart's style come first. */
  const suits = ({ data }: StoredLick) => Number(isOfStyle(data?.tags ?? [], workspace.analysis.style));
  /** How they fit is worked out where the player is: it takes far longer than to find the places. */
  const here = $derived.by(() => {
    const { sheet, analysis, chosen, paths, neck } = workspace;
    const ground = { form: sheet.form, analysis, chosen };
    return fitting
      .flatMap(({ stored, lick, places }) => {
        const place = places.find(({ change }) => change === selected);
        if (!place) return [];
        const where = lick.notes.some((note) => note.place) ? 'along' : 'in place';
        const fit = lickFit(lick, place, ground, paths.path?.targets ?? [], [], (moved) => {
          const laid = laidOut(lick.notes, moved, { neck, where, anyOctave: true });
          return laid.notes ? laid : { notes: moved, octave: 0 };
        });
        return [{ lick: stored, fit }];
      })
      .sort((a, b) => suits(b.lick) - suits(a.lick) || b.fit.outline - a.fit.outline);
  });
  const elsewhere = $derived(
    fitting
      .filter(({ places }) => !places.some(({ change }) => change === selected))
      .sort((a, b) => suits(b.stored) - suits(a.stored))
  );
  const barOf = (change: number) => workspace.changes[change]?.bar ?? 0;

  function stretchOf({ change, last }: LickFit, { data }: StoredLick, scale: number) {
    const from = ticksOf(nth(workspace.changes, change).start);
    const beats = (data?.over ?? []).reduce((sum, one) => sum + one.beats, 0) * scale;
    const end = nth(workspace.changes, last);
    return { from, length: Math.min(ticksOf(end.start + end.beats) - from, ticksOf(beats)) };
  }
  function putIn(lick: StoredLick, fit: LickFit) {
    const { from, length } = stretchOf(fit, lick, fit.stretch);
    const own = lines.current.shown?.notes ?? [];
    const joins = own.some(({ start }) => start < from || start >= from + length);
    // Among other notes it is placed anew, so that the hand goes through the seam as easily as it can.
    const notes = fit.notes.map(({ place, ...note }) => ({
      ...note,
      start: note.start - from,
      ...(place && !joins ? { place } : {})
    }));
    lines.current.edit(pasted(own, notes, from, length), `${lick.name} inserted`);
  }
  function preview({ notes, change, last }: LickFit) {
    void hear(workspace, { kind: 'phrase', notes, from: change, to: last });
  }

  /** What would be kept: the selection of the pen, or so many bars from the selected change on. */
  function passage(bars: number) {
    if (pen.selection) return pen.selection;
    const all = workspace.sheet.form.bars;
    const first = Math.max(
      0,
      all.findIndex(({ number }) => number === workspace.change?.bar)
    );
    const end = nth(all, Math.min(all.length, first + bars) - 1);
    return { from: ticksOf(nth(all, first).start), to: ticksOf(end.start + end.beats) };
  }
  async function keep(bars: number) {
    const { sheet, changes, document } = workspace;
    const shown = lines.current.shown;
    const lick = shown && lickFrom(shown.notes, changes, sheet.head.meter, passage(bars));
    if (!lick) {
      book.problem = 'There are no notes over a chord in this passage.';
      return;
    }
    const name = `${shown.name}, bar ${workspace.change?.bar ?? 1}`.slice(0, 120);
    const source = `${document.title}: ${shown.name}`.slice(0, 300);
    const last = changes.findLast(({ start }) => ticksOf(start) < passage(bars).to);
    const key = last && `${last.key.tonic} ${last.key.mode}`;
    await book.keep(name, { ...lick, key, tags: [], source, rating: 0, played: 0 });
    if (!book.problem) workspace.say('Kept in the lick book');
  }
</script>

<section
  class="flex min-w-0 flex-col gap-2 card p-2.5 text-sm"
  aria-label="Licks"
  data-licks={book.licks.length}
>
  <div class="flex flex-wrap items-center gap-1.5">
    <span class="text-soft">keep as a lick</span>
    {#if pen.selection}
      <Button onclick={() => void keep(1)}>the selection</Button>
    {:else}
      <Button hint="The bar of the selected change" onclick={() => void keep(1)}>one bar</Button>
      <Button onclick={() => void keep(2)}>two bars</Button>
      <Button onclick={() => void keep(4)}>four bars</Button>
    {/if}
    <a class="ml-auto underline decoration-dotted underline-offset-4" href="/licks"
      >lick book ({book.licks.length})</a
    >
  </div>
  {#if book.problem}<p class="text-warn" role="alert">{book.problem}</p>{/if}
  {#if here.length}
    <ul class="flex max-h-72 flex-col gap-1 overflow-y-auto" aria-label="Licks that begin on this change">
      {#each here as { lick, fit } (lick.id)}
        <li
          class="flex flex-wrap items-center gap-x-3 gap-y-1 rounded-md border border-line px-2 py-1"
          data-fit={lick.name}
        >
          <b class="min-w-36">{lick.name}</b>
          <span class="min-w-0 flex-1 text-soft">{prettyProse(fit.why)}</span>
          <Button size="small" onclick={() => preview(fit)}>hear it</Button>
          <Button size="small" tone="strong" onclick={() => putIn(lick, fit)}>insert</Button>
        </li>
      {/each}
    </ul>
  {:else if book.isLoaded}
    <p class="text-soft">No lick of the book begins on this change.</p>
  {/if}
  {#if elsewhere.length}
    <p class="flex flex-wrap items-center gap-1.5 text-soft">
      elsewhere in this chart:
      {#each elsewhere.slice(0, 12) as { stored, places } (stored.id)}
        <Button
          size="small"
          hint="{counted(places.length, 'place')}; goes to bar {barOf(firstOf(places).change)}"
          onclick={() => workspace.select(firstOf(places).change)}>{stored.name}</Button
        >
      {/each}
    </p>
  {/if}
</section>
