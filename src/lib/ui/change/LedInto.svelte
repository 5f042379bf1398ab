<!-- What leads into this change's target, and the wish of its own that it may have. -->
<script lang="ts">
  import { firstOf, nth } from '$lib/core/base/list';
  import type { ApproachNoteWish } from '$lib/core/plan/model';
  import { prettyDegree } from '$lib/core/theory/typeset';
  import { settings } from '$lib/state/settings.svelte';
  import type { Workspace } from '$lib/state/chart/workspace.svelte';
  import ChordSymbol from '../chord/ChordSymbol.svelte';
  import Select from '../kit/Select.svelte';
  import { WISHES, wishName } from './wishes';

  let { workspace }: { workspace: Workspace } = $props();

  type Wish = ApproachNoteWish | 'all';
  const own = $derived(workspace.decision?.approachNote);
  const forAll = $derived(workspace.plan.approachNotes);
  const notes = $derived(workspace.paths.approachInto.get(workspace.selected));
  const options = $derived([
    { value: 'all' as Wish, name: `Same as the rules (${forAll === 'none' ? 'none' : wishName(forAll)})` },
    ...WISHES.map((wish) => ({ ...wish, value: wish.value as Wish }))
  ]);
</script>

<div class="flex flex-wrap items-center gap-x-2">
  <span class="text-soft">Approach note</span>
  <Select
    class="flex-1"
    label="Approach note into this target"
    value={own ?? 'all'}
    {options}
    onpick={(wish) =>
      workspace.targetLine.approachWith(workspace.selected, wish === 'all' ? undefined : wish)}
  />
</div>
{#if notes}
  <p data-lead>
    {#each notes as note (note.beat)}
      <b>{settings.note(note.note)}</b>
      {note.string}:{note.fret}, {prettyDegree(note.degree)}
      {note.role === 'chord' ? '' : ` (${note.role})`}{note === notes.at(-1) ? '' : ', '}
    {/each}
    <span class="text-soft"
      >on <ChordSymbol symbol={nth(workspace.changes, firstOf(notes).change).symbol} /></span
    >
  </p>
{:else if (own ?? forAll) !== 'none'}
  <p class="text-soft">None here: there is no room, or nothing before it.</p>
{/if}
