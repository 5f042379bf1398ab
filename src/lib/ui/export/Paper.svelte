<!-- A sheet of paper: out of sight on the screen, alone on the page when it is printed. -->
<script lang="ts">
  import type { Snippet } from 'svelte';
  import { settings } from '$lib/state/settings.svelte';
  import type { Workspace } from '$lib/state/chart/workspace.svelte';

  interface Props {
    workspace: Workspace;
    /** Behind the key, in small print. */
    says: string;
    children: Snippet;
  }
  let { workspace, says, children }: Props = $props();
  const key = $derived(workspace.analysis.key);
</script>

<div class="sheet" data-sheet>
  <h1 class="font-display">
    {workspace.document.title}
    <small>{settings.note(key.tonic)} {key.mode}{says ? `, ${says}` : ''}</small>
  </h1>
  {@render children()}
</div>

<style>
  .sheet {
    position: fixed;
    top: 0;
    left: -20000px;
    width: 190mm;
    color: var(--ink);
  }

  h1 {
    margin: 0 0 2mm;
    font-size: 6.5mm;
    line-height: 8mm;
  }

  small {
    margin-left: 3mm;
    font-family: var(--font-sans);
    font-size: 3mm;
    color: var(--soft);
  }

  @media print {
    .sheet {
      position: static;
    }
  }
</style>
