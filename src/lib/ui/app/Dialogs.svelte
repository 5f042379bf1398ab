<!-- The dialogs of a chart: one is open at a time; each arrives when it is opened for the first time, and stays. -->
<script lang="ts" module>
  export type DialogName = 'help' | 'find' | 'versions' | 'table' | 'guitar' | 'tuner';
</script>

<script lang="ts">
  import type { Workspace } from '$lib/state/workspace.svelte';
  import type { Shortcut } from '../keys/keys';
  import Arriving from './Arriving.svelte';

  interface Props {
    workspace: Workspace;
    shortcuts: readonly Shortcut[];
    open: DialogName | null;
  }
  let { workspace, shortcuts, open = $bindable() }: Props = $props();

  const opened = (name: DialogName) =>
    [() => open === name, (isOpen: boolean) => (open = isOpen ? name : open === name ? null : open)] as const;
  const [isHelping, setHelping] = opened('help');
  const [isFinding, setFinding] = opened('find');
  const [isLookingBack, setLookingBack] = opened('versions');
  const [isReadingTable, setReadingTable] = opened('table');
  const [isFitting, setFitting] = opened('guitar');
  const [isTuning, setTuning] = opened('tuner');
  const met: Partial<Record<DialogName, boolean>> = $state({});
  $effect(() => {
    if (open) met[open] = true;
  });
</script>

{#if met.guitar}<Arriving isQuiet load={() => import('./Guitar.svelte')}
    >{#snippet children(Guitar)}<Guitar bind:open={isFitting, setFitting} />{/snippet}</Arriving
  >{/if}
{#if met.tuner}<Arriving isQuiet load={() => import('../tuner/Tuner.svelte')}
    >{#snippet children(Tuner)}<Tuner bind:open={isTuning, setTuning} />{/snippet}</Arriving
  >{/if}
{#if met.help}<Arriving isQuiet load={() => import('./Help.svelte')}
    >{#snippet children(Help)}<Help bind:open={isHelping, setHelping} {shortcuts} />{/snippet}</Arriving
  >{/if}
{#if met.find}<Arriving isQuiet load={() => import('./Palette.svelte')}
    >{#snippet children(Palette)}<Palette
        bind:open={isFinding, setFinding}
        commands={shortcuts}
      />{/snippet}</Arriving
  >{/if}
{#if met.versions}<Arriving isQuiet load={() => import('./Revisions.svelte')}
    >{#snippet children(Revisions)}<Revisions
        bind:open={isLookingBack, setLookingBack}
        document={workspace.document}
      />{/snippet}</Arriving
  >{/if}
{#if met.table}<Arriving isQuiet load={() => import('../table/ChordTable.svelte')}
    >{#snippet children(ChordTable)}<ChordTable
        bind:open={isReadingTable, setReadingTable}
        {workspace}
      />{/snippet}</Arriving
  >{/if}
