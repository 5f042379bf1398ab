<!-- The grips on paper: the whole path on its string set, from grip to grip. -->
<script lang="ts">
  import { VOICING_FACTS } from '$lib/core/neck/voicing';
  import { gripsOf } from '$lib/state/chart/grips.svelte';
  import type { Workspace } from '$lib/state/chart/workspace.svelte';
  import ChordSymbol from '../chord/ChordSymbol.svelte';
  import Paper from '../export/Paper.svelte';
  import GripCard from './GripCard.svelte';

  let { workspace }: { workspace: Workspace } = $props();
  const grips = $derived(gripsOf(workspace));
  const neck = $derived(workspace.neck);
</script>

<Paper
  {workspace}
  says="{VOICING_FACTS[grips.type].name.toLowerCase()} on strings {grips.set?.join(' ') ??
    ''}; beside each grip how far each voice moves into it"
>
  <div class="grips">
    {#each workspace.changes as change (change.index)}
      {@const grip = grips.byChange.get(change.index)}
      <div class="card px-1.5 pt-0.5">
        <span class="flex items-baseline justify-between gap-2">
          <span class="text-lg leading-6"><ChordSymbol symbol={change.symbol} /></span>
          <span class="text-2xs text-soft">{change.bar}</span>
        </span>
        {#if grip}
          <GripCard {grip} strings={neck.strings.length} frets={neck.frets} moves={grip.moves} />
        {:else}<span class="block pb-2 text-2xs text-soft">no grip</span>{/if}
      </div>
    {/each}
  </div>
</Paper>

<style>
  .grips {
    display: flex;
    flex-wrap: wrap;
    gap: 2mm;
  }

  .grips > div {
    break-inside: avoid;
  }
</style>
