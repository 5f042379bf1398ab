<!-- The next best target lines, each with its price and where it lands elsewhere. -->
<script lang="ts">
  import { nth } from '$lib/core/base/list';
  import type { Target, TargetPath } from '$lib/core/targets/path';
  import { prettySymbol } from '$lib/core/theory/typeset';
  import Hear from '../app/Hear.svelte';
  import { settings } from '$lib/state/settings.svelte';
  import type { Workspace } from '$lib/state/chart/workspace.svelte';

  interface Props {
    workspace: Workspace;
    /** The line under the pointer, to be drawn. */
    onoffer: (path: TargetPath | null) => void;
  }
  let { workspace, onoffer }: Props = $props();
  const paths = $derived(workspace.paths);
  /** Differences that are told one by one. */
  const TOLD = 3;

  /** "D7♭9 on 3, Gm6 on 1". */
  function otherwise(differences: readonly Target[]): string {
    const named = differences
      .slice(0, TOLD)
      .map(
        ({ change, cell }) =>
          `${prettySymbol(nth(workspace.changes, change).symbol)} on ${settings.label(cell)}`
      );
    const more = differences.length - named.length;
    return named.join(', ') + (more > 0 ? ` and ${more} more` : '');
  }
</script>

<ol class="flex flex-col" aria-label="Alternatives">
  {#each paths.alternatives as { path, price, differences }, i (i)}
    <li class="flex items-center gap-1">
      <Hear {workspace} ask={{ kind: 'line', path }} label="Hear line {i + 2}" />
      <button
        class="min-h-6 min-w-0 flex-1 truncate text-left hover:text-next pointer-coarse:min-h-11"
        data-alternative
        onpointerenter={() => onoffer(path)}
        onpointerleave={() => onoffer(null)}
        onfocus={() => onoffer(path)}
        onblur={() => onoffer(null)}
        onclick={() => {
          onoffer(null);
          workspace.targetLine.takePath(path);
        }}
      >
        <b>{i + 2}.</b>
        {price}
        <span class="text-soft">· {otherwise(differences)}</span>
      </button>
    </li>
  {:else}
    <li class="text-soft">
      {paths.solver.progress === null ? 'There is no other line under these rules.' : 'Being worked out …'}
    </li>
  {/each}
</ol>
