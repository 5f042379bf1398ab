<!-- One lick of the book: staff and tab over its chords, what it is, heard over them; name, tags and rating can be changed. -->
<script lang="ts" module>
  import { Part } from '../app/part';

  const scorePart = new Part(() => import('../score/Score.svelte'));
</script>

<script lang="ts">
  import Play from '@lucide/svelte/icons/play';
  import Star from '@lucide/svelte/icons/star';
  import Trash2 from '@lucide/svelte/icons/trash-2';
  import { untrack } from 'svelte';
  import { HIGHEST_RATING, type LickData, type StoredLick } from '$lib/api/lick';
  import { lickChart } from '$lib/core/line/lick-facts';
  import { readLine } from '$lib/core/line/read';
  import { DEFAULT_PLAN } from '$lib/core/plan/model';
  import { prettyDegree, prettyNumeral, prettySymbol } from '$lib/core/theory/typeset';
  import { Workspace } from '$lib/state/workspace.svelte';
  import Arriving from '../app/Arriving.svelte';
  import { hear } from '../app/hear';
  import Button from '../kit/Button.svelte';

  interface Props {
    lick: StoredLick;
    data: LickData;
    onchange: (edit: { name?: string; data?: LickData }) => void;
    onremove: () => void;
  }
  let { lick, data, onchange, onremove }: Props = $props();

  /** Its chords as a chart of their own, shown and heard, never changed. */
  const workspace = untrack(
    () =>
      new Workspace(
        {
          id: lick.id,
          source: lickChart(data, lick.name),
          plan: { ...DEFAULT_PLAN, position: lick.facts?.position ?? null },
          version: 1,
          damaged: false
        },
        true
      )
  );
  const degrees = $derived(
    readLine(
      { meter: data.meter, notes: data.notes },
      { form: workspace.sheet.form, analysis: workspace.analysis, chosen: [] }
    ).notes.map(({ degree }) => degree)
  );
  const facts = $derived(lick.facts);

  async function play() {
    const to = workspace.changes.length - 1;
    // What is pressed to stop was not played once more.
    const began = await hear(workspace, { kind: 'phrase', notes: data.notes, from: 0, to });
    if (began) onchange({ data: { ...data, played: data.played + 1 } });
  }
  const tagged = (text: string) =>
    [
      ...new Set(
        text
          .split(',')
          .map((tag) => tag.trim().slice(0, 30))
          .filter(Boolean)
      )
    ].slice(0, 20);
</script>

<article class="flex min-w-0 flex-col gap-1.5 card p-2.5" data-lick={lick.name}>
  <div class="flex flex-wrap items-center gap-2">
    <Button tone="strong" label="Hear {lick.name}" hint="Over its chords; again to stop" onclick={play}
      ><Play size={15} /></Button
    >
    <input
      class="min-h-8.5 min-w-32 flex-1 rounded-md border border-transparent bg-transparent px-1 font-display text-lg hover:border-edge focus:border-edge pointer-coarse:min-h-11"
      aria-label="Name of the lick"
      maxlength="120"
      value={lick.name}
      onchange={(event) => event.currentTarget.value.trim() && onchange({ name: event.currentTarget.value })}
    />
    <div class="flex" role="group" aria-label="Rating: {data.rating} of {HIGHEST_RATING}">
      {#each { length: HIGHEST_RATING } as _, i (i)}
        <button
          type="button"
          class="p-1 pointer-coarse:p-3 {i < data.rating ? 'text-target' : 'text-soft'}"
          aria-label="Rate it {i + 1}"
          aria-pressed={data.rating === i + 1}
          onclick={() => onchange({ data: { ...data, rating: data.rating === i + 1 ? 0 : i + 1 } })}
          ><Star size={16} fill={i < data.rating ? 'currentColor' : 'none'} /></button
        >
      {/each}
    </div>
    <Button label="Delete {lick.name}" onclick={onremove}><Trash2 size={15} /></Button>
  </div>
  {#if facts}
    <p class="flex flex-wrap gap-x-3 px-1 text-sm text-soft">
      <b class="text-ink">{prettyNumeral(facts.motion)}</b>
      {#if facts.resolves}<span
          >to the {prettyDegree(facts.resolves.degree)} of {prettySymbol(facts.resolves.symbol)}</span
        >{/if}
      {#if facts.position !== null}<span>position {facts.position}</span>{/if}
      <span>{facts.beats} beats</span>
      <span data-told={facts.told}>{Math.round(facts.told * 100)} % told alone</span>
      {#if data.played}<span>played {data.played}×</span>{/if}
    </p>
  {/if}
  <Arriving part={scorePart} height="min-h-40">
    {#snippet children(Score)}
      <Score {workspace} notes={data.notes} {degrees} label="{lick.name} on staff and tab" />
    {/snippet}
  </Arriving>
  <input
    class="min-h-8.5 rounded-md border border-transparent bg-transparent px-1 text-sm text-soft hover:border-edge focus:border-edge pointer-coarse:min-h-11"
    aria-label="Tags, parted by commas"
    value={data.tags.join(', ')}
    placeholder="tags, parted by commas"
    onchange={(event) => onchange({ data: { ...data, tags: tagged(event.currentTarget.value) } })}
  />
</article>
