<!-- What the neck shows: the hand's window, the whole collection, or one degree everywhere. -->
<script lang="ts">
  import type { NeckMode, Workspace } from '$lib/state/workspace.svelte';
  import { prettyDegree, type Degree } from '$lib/core/theory/degree';

  let { workspace }: { workspace: Workspace } = $props();
  const MODES: readonly [NeckMode, string, string][] = [
    ['hand', 'hand', 'What lies under the hand'],
    ['whole', 'whole neck', 'All areas joined, with their borders (W)'],
    ['find', 'find', 'One degree in every octave (F)']
  ];
  const degrees = $derived([
    ...new Set<Degree>([
      ...(workspace.change?.chord?.tones ?? []),
      ...(workspace.chosen[workspace.selected]?.degrees ?? [])
    ])
  ]);
</script>

<div class="flex items-center gap-1 text-[12px]" role="group" aria-label="What the neck shows">
  {#each MODES as [mode, name, hint] (mode)}
    <button
      class="rounded-full border border-line px-2 leading-[22px] {workspace.neckMode === mode
        ? 'bg-ink text-paper'
        : 'bg-surface'}"
      aria-pressed={workspace.neckMode === mode}
      title={hint}
      onclick={() => (workspace.neckMode = mode)}>{name}</button
    >
  {/each}
  {#if workspace.neckMode === 'find'}
    <select
      class="rounded-full border border-line bg-surface px-1 leading-[22px]"
      aria-label="Degree to find everywhere"
      value={workspace.soughtDegree}
      onchange={(event) => (workspace.sought = event.currentTarget.value as Degree)}
    >
      {#each degrees as degree (degree)}<option value={degree}>{prettyDegree(degree)}</option>{/each}
    </select>
  {/if}
</div>
