<!-- One idea carried through a whole cadence: what to play on each of its chords, taken at once. -->
<script lang="ts">
  import type { Chain } from '$lib/core/approaches/chains';
  import { prettyProse } from '$lib/core/theory/typeset';
  import { settings } from '$lib/state/settings.svelte';
  import type { Workspace } from '$lib/state/workspace.svelte';
  import Button from '../kit/Button.svelte';
  import Collapsible from '../kit/Collapsible.svelte';
  import Slider from '../kit/Slider.svelte';

  let { workspace, chains }: { workspace: Workspace; chains: readonly Chain[] } = $props();
  /** The beat of the V on which a free idea goes over to its last sound. */
  let changeOver = $state(3);
</script>

<div class="border-b border-line px-3 py-1.5" data-chains>
  <Collapsible title="{chains.length === 1 ? 'One idea' : `${chains.length} ideas`} for the whole cadence">
    {#each chains as chain (chain.approach + chain.why)}
      <div class="mt-1.5 border-t border-line py-2">
        <p class="text-sm">{chain.collections.map((one) => settings.collection(one)).join(' → ')}</p>
        <p class="text-xs text-soft">{prettyProse(chain.why)}</p>
        {#if chain.freeWithin !== undefined}
          {@const { beats } = workspace.changes[chain.freeWithin]!}
          <div class="flex min-h-7 flex-wrap items-center gap-2 text-xs">
            <span class="text-soft">go over within the V</span>
            <Slider
              class="w-24"
              label="Beat of the change-over"
              min={1}
              max={beats + 1}
              value={Math.min(changeOver, beats + 1)}
              onslide={(beat) => (changeOver = beat)}
            />
            {changeOver > beats ? 'after it' : `on beat ${changeOver}`}
          </div>
        {/if}
        <Button size="small" class="mt-1" onclick={() => workspace.choices.takeChain(chain, changeOver)}
          >take it for the cadence</Button
        >
      </div>
    {/each}
  </Collapsible>
</div>
