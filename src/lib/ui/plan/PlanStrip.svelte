<!-- The whole chart at once: from one scale of the key over everything to a new one at every chord. -->
<script lang="ts">
  import { prettyProse } from '$lib/core/theory/typeset';
  import { settings } from '$lib/state/settings.svelte';
  import type { Workspace } from '$lib/state/chart/workspace.svelte';
  import Select from '../kit/Select.svelte';
  import Slider from '../kit/Slider.svelte';

  let { workspace }: { workspace: Workspace } = $props();
  const arrangement = $derived(workspace.arrangement);
  const all = $derived(arrangement.outlineOrder.length);
</script>

<section class="flex flex-wrap items-center gap-x-4 gap-y-1 card px-3 py-1 text-sm" aria-label="Plan">
  <div class="flex flex-wrap items-center gap-2">
    <span class="text-soft">one scale</span>
    <Slider
      label="Changes outlined"
      min={0}
      max={all}
      value={arrangement.outlined}
      says="{arrangement.outlined} of {all} changes outlined"
      hint="Starts with the chords that the scale of the key fits least"
      onslide={(count) => workspace.setOutline(count)}
    />
    <span class="text-soft">chord by chord</span>
  </div>
  <div class="flex flex-wrap items-center gap-2">
    <Select
      size="small"
      label="Approach"
      hint="The way of choosing notes that outlined changes begin with"
      value={workspace.plan.approach}
      options={settings.approaches.map(({ id, name }) => ({ value: id, name }))}
      onpick={(id) => workspace.setApproach(id)}
    />
    <span data-outlined>on {arrangement.outlined} of {all} chords</span>
  </div>
  <span class="min-w-40 flex-1 text-right text-soft" data-union>{prettyProse(arrangement.union)}</span>
</section>
