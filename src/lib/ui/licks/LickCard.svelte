<!-- One lick of the book: staff and tab over its chords in any key and area, what it is, heard; name, tags and rating can be changed. -->
<script lang="ts">
  import Play from '@lucide/svelte/icons/play';
  import Star from '@lucide/svelte/icons/star';
  import Trash2 from '@lucide/svelte/icons/trash-2';
  import { HIGHEST_RATING, type LickData, type StoredLick } from '$lib/api/lick';
  import { isMinorKey, keyText } from '$lib/core/harmony/key';
  import { lickElsewhere, type LickThere } from '$lib/core/line/lick-elsewhere';
  import { homeOfLick } from '$lib/core/line/lick-facts';
  import { STANDARD } from '$lib/core/neck/tuning';
  import { prettyDegree, prettyNumeral, prettyProse, prettySymbol } from '$lib/core/theory/typeset';
  import type { Workspace } from '$lib/state/chart/workspace.svelte';
  import { hear } from '../app/hear';
  import Button from '../kit/Button.svelte';
  import { lickWorkspace } from './lick-workspace';
  import { untrack } from 'svelte';
  import type { LickPractice } from '$lib/state/practice/lick-practice.svelte';
  import LickPlaces from './LickPlaces.svelte';
  import LickScore from './LickScore.svelte';
  import LickStrip from './LickStrip.svelte';

  interface Props {
    lick: StoredLick;
    data: LickData;
    onchange: (edit: { name?: string; data?: LickData }) => void;
    onremove: () => void;
    practice: LickPractice;
    /** Where it is asked for; as it was kept where nothing is said. */
    place: { readonly shift: number; readonly area: number | null } | null;
  }
  let { lick, data, onchange, onremove, practice, place }: Props = $props();

  /** The next key of a player who goes round them: a fourth up. */
  const FOURTH = 5;
  const OCTAVE = 12;
  let shift = $state(untrack(() => place?.shift ?? 0));
  /** The area it is shown in; null for where it was kept. */
  let area: number | null = $state(untrack(() => place?.area ?? null));
  let showsPlaces = $state(untrack(() => place !== null));
  const isPractised = $derived(practice.isPractised(lick.id));
  let isEngraved = $state(false);

  const original: LickThere = $derived({
    key: homeOfLick(data),
    over: data.over,
    notes: data.notes,
    areaName: null,
    areas: 0
  });
  const isKept = $derived(shift === 0 && area === null);
  const there = $derived(isKept ? original : (lickElsewhere(data, { shift, area }, STANDARD) ?? original));
  /** A mode is too long a name for a button: its tonic, and whether it is minor. */
  const keyName = $derived(`${there.key.tonic}${isMinorKey(there.key) ? 'm' : ''}`);
  const facts = $derived(lick.facts);
  const isByKey = $derived(data.by === 'key');

  function nextKey() {
    shift = (shift + FOURTH) % OCTAVE;
    if (area !== null && !lickElsewhere(data, { shift, area }, STANDARD)) nextArea();
  }
  /** The next area that it lies in; after the last where it was kept. */
  function nextArea() {
    const count = lickElsewhere(data, { shift, area: null }, STANDARD)?.areas ?? 0;
    for (let next = area === null ? 0 : area + 1; next < count; next++) {
      if (!lickElsewhere(data, { shift, area: next }, STANDARD)) continue;
      area = next;
      return;
    }
    area = null;
  }
  /** One for each key, so that what is heard is known again. */
  const opened: Record<string, Workspace> = {};
  function workspaceThere(): Workspace {
    const key = keyText(there.key);
    return (opened[key] ??= lickWorkspace(lick, data, there));
  }
  async function play() {
    const workspace = workspaceThere();
    const to = workspace.changes.length - 1;
    // What is pressed to stop was not played once more.
    const began = await hear(workspace, { kind: 'phrase', notes: there.notes, from: 0, to });
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

<article
  class="flex min-w-0 flex-col gap-1 card p-2"
  data-lick={lick.name}
  data-in={keyName}
  data-area={there.areaName}
>
  <div class="flex items-center gap-1.5">
    <Button tone="strong" label="Hear {lick.name}" hint="Over its chords; again to stop" onclick={play}
      ><Play size={15} /></Button
    >
    <input
      class="min-h-8.5 min-w-0 flex-1 rounded-md border border-transparent bg-transparent px-1 font-display text-base text-ellipsis hover:border-edge focus:border-edge pointer-coarse:min-h-11"
      aria-label="Name of the lick"
      maxlength="120"
      value={lick.name}
      onchange={(event) => event.currentTarget.value.trim() && onchange({ name: event.currentTarget.value })}
    />
    <Button size="small" hint="In the next key, a fourth up; after twelve where it began" onclick={nextKey}
      ><span class="sr-only">Next key: </span>in {prettyProse(keyName)}</Button
    >
    <Button
      size="small"
      hint="In the next of the five areas of its key; after the last where it was kept"
      onclick={nextArea}><span class="sr-only">Next area: </span>{there.areaName ?? 'as kept'}</Button
    >
    <Button size="small" label="Delete {lick.name}" onclick={onremove}><Trash2 size={14} /></Button>
  </div>
  {#if facts}
    <p class="flex flex-wrap gap-x-2.5 px-1 text-xs text-soft">
      <b class="text-ink">{prettyNumeral(facts.motion)}</b>
      {#if facts.resolves}<span
          >to the {prettyDegree(facts.resolves.degree)} of {prettySymbol(facts.resolves.symbol)}</span
        >{/if}
      {#if facts.position !== null}<span>position {facts.position}</span>{/if}
      <span data-told={facts.told}>{Math.round(facts.told * 100)} % recognised</span>
      {#if data.played}<span>played {data.played}×</span>{/if}
    </p>
  {/if}
  <LickStrip {there} meter={data.meter} label={lick.name} />
  {#if showsPlaces && isPractised}
    <LickPlaces
      {lick}
      {data}
      {practice}
      {shift}
      {area}
      onplace={(there) => {
        shift = there.shift;
        area = there.area;
      }}
    />
  {/if}
  {#if isEngraved}
    {#key keyText(there.key)}
      <LickScore name={lick.name} workspace={workspaceThere()} {there} />
    {/key}
  {/if}
  <div class="mt-auto flex flex-wrap items-center gap-x-1.5">
    <Button size="small" pressed={isEngraved} onclick={() => (isEngraved = !isEngraved)}>staff</Button>
    {#if isPractised}
      <Button
        size="small"
        pressed={showsPlaces}
        hint="Areas by keys: where you know it, and how fast"
        onclick={() => (showsPlaces = !showsPlaces)}>where</Button
      >
    {:else}
      <Button
        size="small"
        disabled={practice.isBusy}
        hint="Add it to Today: in every area and key, one after the other"
        onclick={() => void practice.takeUp(lick.id, lick.name, data).then((done) => (showsPlaces = done))}
        >practise it</Button
      >
    {/if}
    <Button
      size="small"
      pressed={isByKey}
      hint={isByKey
        ? 'Kept by its key: offered unmoved over every chord of the key that it suits'
        : 'Kept by its chords: offered wherever the same chords stand'}
      onclick={() => onchange({ data: { ...data, by: isByKey ? 'chord' : 'key' } })}>by key</Button
    >
    <input
      class="min-h-8.5 min-w-0 flex-1 rounded-md border border-transparent bg-transparent px-1 text-xs text-ellipsis text-soft hover:border-edge focus:border-edge pointer-coarse:min-h-11"
      aria-label="Tags, separated by commas"
      value={data.tags.join(', ')}
      placeholder="tags, separated by commas"
      onchange={(event) => onchange({ data: { ...data, tags: tagged(event.currentTarget.value) } })}
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
  </div>
</article>
