<!-- The head of a chart: what it is called, its views, and the few tools that are always at hand. -->
<script lang="ts" module>
  import { Part } from './part';

  const chartMorePart = new Part(() => import('./ChartMore.svelte'));
</script>

<script lang="ts">
  import PencilLine from '@lucide/svelte/icons/pencil-line';
  import Redo2 from '@lucide/svelte/icons/redo-2';
  import Undo2 from '@lucide/svelte/icons/undo-2';
  import { pitchClass, plainName } from '$lib/core/theory/note';
  import { settings } from '$lib/state/settings.svelte';
  import type { Workspace } from '$lib/state/chart/workspace.svelte';
  import Button from '../kit/Button.svelte';
  import { button } from '../kit/button';
  import Head from '../shell/Head.svelte';
  import { viewOf, VIEWS } from '../views';
  import Arriving from './Arriving.svelte';
  import type { DialogName } from './dialogs';
  import SaveState from './SaveState.svelte';
  import Title from './Title.svelte';

  interface Props {
    workspace: Workspace;
    isEditing: boolean;
    editorButton: HTMLButtonElement | undefined;
    onedit: () => void;
    onopen: (dialog: DialogName) => void;
    onprint: () => void;
  }
  let { workspace, isEditing, editorButton = $bindable(), onedit, onopen, onprint }: Props = $props();

  const head = $derived(workspace.sheet.head);
  const key = $derived(workspace.analysis.key);
  const document = $derived(workspace.document);
  const raised = $derived(workspace.neck.raised);
  /** What sounds goes before what is written. */
  const tempo = $derived(workspace.soundingTempo ?? head.tempo);
</script>

<Head>
  {#snippet lead()}
    <Title {document}>
      <p class="truncate pl-1.5 text-xs leading-4 text-soft">
        {settings.note(key.tonic)}
        {key.mode}{workspace.analysis.declared ? '' : ' (detected)'}{tempo ? ` · ${tempo} bpm` : ''}{raised
          ? ` · capo ${raised}, sounds in ${settings.note(plainName((pitchClass(key.tonic) + raised) % 12))}`
          : ''} · {head.meter.beats}/{head.meter.unit} · {head.style ??
          `${workspace.analysis.style} (detected)`}{head.feel ? ` · ${head.feel}` : ''}
      </p>
    </Title>
  {/snippet}
  <nav class="flex shrink-0 gap-0.5 max-md:hidden" aria-label="View">
    {#each VIEWS as view (view.id)}
      <Button
        tone="quiet"
        class="px-2"
        pressed={workspace.view === view.id}
        hint={view.hint}
        data-view={view.id}
        onclick={() => workspace.show(view)}>{view.name}</Button
      >
    {/each}
  </nav>
  <!-- The device's own list: the best there is under a thumb, and it costs nothing to load. -->
  <select
    class="{button({})} max-w-32 shrink-0 md:hidden"
    aria-label="View"
    data-view-list
    value={viewOf(workspace.view).id}
    onchange={(event) => workspace.show(viewOf(event.currentTarget.value))}
  >
    {#each VIEWS as { id, name } (id)}<option value={id}>{name}</option>{/each}
  </select>
  {#snippet tools()}
    <SaveState status={document.autosave.status} />
    <Button
      tone="quiet"
      class="max-lg:hidden"
      label="Undo"
      hint="Undo (Ctrl Z)"
      disabled={!workspace.canUndo}
      onclick={() => workspace.undo()}><Undo2 size={17} /></Button
    >
    <Button
      tone="quiet"
      class="max-lg:hidden"
      label="Redo"
      hint="Redo (Ctrl Shift Z)"
      disabled={!workspace.canRedo}
      onclick={() => workspace.redo()}><Redo2 size={17} /></Button
    >
    <Button
      tone="quiet"
      label="Chart"
      hint="Chart text (E)"
      pressed={isEditing}
      bind:element={editorButton}
      onclick={onedit}><PencilLine size={17} /></Button
    >
  {/snippet}
  {#snippet more(close)}
    <Arriving isQuiet part={chartMorePart}
      >{#snippet children(ChartMore)}<ChartMore {workspace} {onopen} {onprint} {close} />{/snippet}</Arriving
    >
  {/snippet}
</Head>
