<!-- Ideas for the cadences that a change lies in: what to play on each of their chords, taken at once. -->
<script lang="ts">
  import { findChains } from '$lib/core/approaches/chains';
  import { nth } from '$lib/core/base/list';
  import type { Analysis } from '$lib/core/harmony/analysis';
  import { prettyProse } from '$lib/core/theory/typeset';
  import { settings } from '$lib/state/settings.svelte';
  import type { Workspace } from '$lib/state/chart/workspace.svelte';
  import Button from '../kit/Button.svelte';
  import Collapsible from '../kit/Collapsible.svelte';
  import Slider from '../kit/Slider.svelte';

  interface Props {
    workspace: Workspace;
    analysis: Analysis;
    change: number;
  }
  let { workspace, analysis, change }: Props = $props();
  const chains = $derived(findChains(analysis, change).filter(({ changes }) => changes.includes(change)));
  /** The beat of the V on which a free idea goes over to its last sound. */
  let changeOver = $state(3);
</script>

{#if chains.length}
  <div class="border-b border-line px-3 py-1.5" data-chains>
    <Collapsible title="{chains.length === 1 ? 'One idea' : `${chains.length} ideas`} for the whole cadence">
      {#each chains as chain (chain.approach + chain.why)}
        <div class="mt-1.5 border-t border-line py-2">
          <p class="text-sm">{chain.collections.map((one) => settings.collection(one)).join(' → ')}</p>
          <p class="text-xs text-soft">{prettyProse(chain.why)}</p>
          {#if chain.freeWithin !== undefined}
            {@const { beats } = nth(analysis.changes, chain.freeWithin)}
            <div class="flex min-h-7 flex-wrap items-center gap-2 text-xs">
              <span class="text-soft">change over within the V</span>
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
            >use it for the cadence</Button
          >
        </div>
      {/each}
    </Collapsible>
  </div>
{/if}
