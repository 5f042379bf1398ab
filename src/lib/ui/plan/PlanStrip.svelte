<!-- The whole chart at once: from one scale of the key over everything to a new one at every chord. -->
<script lang="ts">
  import type { Workspace } from '$lib/state/workspace.svelte';
  import { settings } from '$lib/state/settings.svelte';

  let { workspace }: { workspace: Workspace } = $props();
  const all = $derived(workspace.outlineOrder.length);
</script>

<section class="flex flex-wrap items-center gap-x-4 gap-y-1 card px-3 py-0.5 text-[13px]" aria-label="Plan">
  <label class="flex flex-wrap items-center gap-2">
    <span class="text-soft">key centre</span>
    <input
      type="range"
      class="w-36 accent-[var(--target)]"
      min="0"
      max={all}
      value={workspace.outlined}
      aria-label="Changes outlined"
      aria-valuetext="{workspace.outlined} of {all} changes outlined"
      title="The chords that the scale of the key serves worst are outlined first"
      oninput={(event) => workspace.setOutline(Number(event.currentTarget.value))}
    />
    <span class="text-soft">chord by chord</span>
  </label>
  <label class="flex flex-wrap items-center gap-2">
    <span data-outlined>{workspace.outlined} of {all} outlined with</span>
    <select
      class="btn min-h-7!"
      value={workspace.plan.school}
      onchange={(event) => workspace.setSchool(event.currentTarget.value)}
    >
      {#each settings.approaches as approach (approach.id)}<option value={approach.id}>{approach.name}</option
        >{/each}
    </select>
  </label>
  <span class="min-w-0 flex-1 text-right text-soft" data-union>{settings.prose(workspace.union)}</span>
</section>
