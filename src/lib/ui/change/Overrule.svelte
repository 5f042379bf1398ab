<!-- Where the player knows the key or the function better than what was found. -->
<script lang="ts">
  import { FUNCTIONS, type HarmonicFunction } from '$lib/core/harmony/numeral';
  import type { Workspace } from '$lib/state/workspace.svelte';
  import { prettyNote } from '$lib/core/theory/note';

  let { workspace }: { workspace: Workspace } = $props();
  const TONICS = ['C', 'Db', 'D', 'Eb', 'E', 'F', 'Gb', 'G', 'Ab', 'A', 'Bb', 'B'];
  const MINOR_TONICS = ['C', 'C#', 'D', 'Eb', 'E', 'F', 'F#', 'G', 'G#', 'A', 'Bb', 'B'];
  const own = $derived(workspace.plan.overrules.find(({ change }) => change === workspace.selected));
</script>

<details class="border-t border-line pt-1.5 text-[13px]" open={own !== undefined}>
  <summary class="cursor-pointer text-soft"
    >{own ? 'You overruled the reading here' : 'Read it differently'}</summary
  >
  <div class="mt-1.5 flex flex-wrap gap-1.5">
    <select
      class="btn max-w-full text-[13px]"
      aria-label="Key of this change"
      value={own?.key ?? ''}
      onchange={(event) => workspace.overrule({ key: event.currentTarget.value })}
    >
      <option value="">key as found</option>
      {#each TONICS as tonic (tonic)}<option value={tonic}>{prettyNote(tonic)} major</option>{/each}
      {#each MINOR_TONICS as tonic (tonic)}<option value="{tonic}m">{prettyNote(tonic)} minor</option>{/each}
    </select>
    <select
      class="btn max-w-full text-[13px]"
      aria-label="Function of this change"
      value={own?.function ?? ''}
      onchange={(event) =>
        workspace.overrule({ function: event.currentTarget.value as HarmonicFunction | '' })}
    >
      <option value="">function as found</option>
      {#each FUNCTIONS as name (name)}<option value={name}>{name}</option>{/each}
    </select>
  </div>
</details>
