<!-- The dialogs of a chart: one is open at a time; each arrives when it is opened for the first time, and stays. -->
<script lang="ts" module>
  import { Part } from './part';

  const guitarPart = new Part(() => import('./Guitar.svelte'));
  const tunerPart = new Part(() => import('../tuner/Tuner.svelte'));
  const revisionsPart = new Part(() => import('./Revisions.svelte'));
  const comparePart = new Part(() => import('../chart/Compare.svelte'));
  const chordTablePart = new Part(() => import('../table/ChordTable.svelte'));
</script>

<script lang="ts">
  import type { Workspace } from '$lib/state/chart/workspace.svelte';
  import Arriving from './Arriving.svelte';
  import type { DialogName } from './dialogs';

  interface Props {
    workspace: Workspace;
    open: DialogName | null;
  }
  let { workspace, open = $bindable() }: Props = $props();

  const opened = (name: DialogName) =>
    [() => open === name, (isOpen: boolean) => (open = isOpen ? name : open === name ? null : open)] as const;
  const [isLookingBack, setLookingBack] = opened('versions');
  const [isReadingTable, setReadingTable] = opened('table');
  const [isComparing, setComparing] = opened('compare');
  const [isFitting, setFitting] = opened('guitar');
  const [isTuning, setTuning] = opened('tuner');
  const met: Partial<Record<DialogName, boolean>> = $state({});
  $effect(() => {
    if (open) met[open] = true;
  });
</script>

{#if met.guitar}<Arriving isQuiet part={guitarPart}
    >{#snippet children(Guitar)}<Guitar bind:open={isFitting, setFitting} />{/snippet}</Arriving
  >{/if}
{#if met.tuner}<Arriving isQuiet part={tunerPart}
    >{#snippet children(Tuner)}<Tuner bind:open={isTuning, setTuning} />{/snippet}</Arriving
  >{/if}
{#if met.versions}<Arriving isQuiet part={revisionsPart}
    >{#snippet children(Revisions)}<Revisions
        bind:open={isLookingBack, setLookingBack}
        document={workspace.document}
      />{/snippet}</Arriving
  >{/if}
{#if met.compare}<Arriving isQuiet part={comparePart}
    >{#snippet children(Compare)}<Compare
        bind:open={isComparing, setComparing}
        {workspace}
      />{/snippet}</Arriving
  >{/if}
{#if met.table}<Arriving isQuiet part={chordTablePart}
    >{#snippet children(ChordTable)}<ChordTable
        bind:open={isReadingTable, setReadingTable}
        {workspace}
      />{/snippet}</Arriving
  >{/if}
