<!-- Blank staff and tab: four bars a line, as many lines as fill the page. -->
<script lang="ts">
  import type { Workspace } from '$lib/state/chart/workspace.svelte';
  import Paper from '../export/Paper.svelte';
  import { PAPER } from './paper';

  let { workspace }: { workspace: Workspace } = $props();
  const SYSTEMS = 7;
  const BARS = 4;
  const [STAFF, TAB] = [7, 9];
  const strings = $derived(workspace.neck.strings.length);
  const tabAt = 16 + 4 * STAFF + 26;
  const end = $derived(tabAt + (strings - 1) * TAB);
  const right = PAPER - 1;
</script>

<Paper {workspace} says="blank staff and tab">
  {#each { length: SYSTEMS } as _, i (i)}
    <svg width={PAPER} height={end + 22} aria-hidden="true">
      {#each { length: 5 } as _line, n (n)}
        <line
          x1="1"
          x2={right}
          y1={16 + n * STAFF}
          y2={16 + n * STAFF}
          class="stroke-soft"
          stroke-width="0.7"
        />
      {/each}
      {#each { length: strings } as _string, n (n)}
        <line
          x1="1"
          x2={right}
          y1={tabAt + n * TAB}
          y2={tabAt + n * TAB}
          class="stroke-soft"
          stroke-width="0.7"
        />
      {/each}
      {#each { length: BARS + 1 } as _bar, n (n)}
        {@const x = 1 + ((right - 1) * n) / BARS}
        <line x1={x} x2={x} y1="16" y2={16 + 4 * STAFF} class="stroke-ink" stroke-width="0.8" />
        <line x1={x} x2={x} y1={tabAt} y2={end} class="stroke-ink" stroke-width="0.8" />
      {/each}
    </svg>
  {/each}
</Paper>

<style>
  svg {
    display: block;
    break-inside: avoid;
  }
</style>
