<!-- The head of a chart: where one is, what it is called, its views, and the few tools that are always at hand. -->
<script lang="ts" module>
  import { Part } from './part';

  const moreMenuPart = new Part(() => import('./MoreMenu.svelte'));
</script>

<script lang="ts">
  import CalendarCheck from '@lucide/svelte/icons/calendar-check';
  import Library from '@lucide/svelte/icons/library';
  import PencilLine from '@lucide/svelte/icons/pencil-line';
  import Redo2 from '@lucide/svelte/icons/redo-2';
  import Search from '@lucide/svelte/icons/search';
  import Undo2 from '@lucide/svelte/icons/undo-2';
  import { pitchClass, plainName } from '$lib/core/theory/note';
  import { settings } from '$lib/state/settings.svelte';
  import type { Workspace } from '$lib/state/workspace.svelte';
  import { button } from '../kit/button';
  import Button from '../kit/Button.svelte';
  import { VIEWS } from '../views';
  import Arriving from './Arriving.svelte';
  import type { DialogName } from './Dialogs.svelte';
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

<header class="flex flex-wrap items-center gap-x-3 gap-y-1.5 xl:flex-nowrap">
  <a href="/" class={button({ isIcon: true })} aria-label="Songbook" data-hint="Songbook"
    ><Library size={18} /></a
  >
  <a href="/today" class={button({ isIcon: true })} aria-label="Today" data-hint="Today: what to practise"
    ><CalendarCheck size={18} /></a
  >
  <div class="flex max-w-full min-w-0 flex-col">
    <Title {document} />
    <p class="truncate pl-1.5 text-xs text-soft">
      {settings.note(key.tonic)}
      {key.mode}{workspace.analysis.declared ? '' : ' (detected)'} ·
      {head.style ?? `${workspace.analysis.style} (detected)`}{raised
        ? ` · capo ${raised}, sounds in ${settings.note(plainName((pitchClass(key.tonic) + raised) % 12))}`
        : ''} · {head.meter.beats}/{head.meter.unit}{tempo ? ` · ${tempo} bpm` : ''}{head.feel
        ? ` · ${head.feel}`
        : ''}
    </p>
  </div>
  <nav class="flex shrink-0 flex-wrap gap-1 max-xl:shrink" aria-label="View">
    {#each VIEWS as view (view.id)}
      <Button
        pressed={workspace.view === view.id}
        hint={view.hint}
        data-view={view.id}
        onclick={() => workspace.show(view)}>{view.name}</Button
      >
    {/each}
  </nav>
  <div class="ml-auto flex shrink-0 flex-wrap items-center gap-1 max-xl:shrink xl:flex-nowrap">
    <SaveState status={document.autosave.status} />
    <Button label="Undo" hint="Undo (Ctrl Z)" disabled={!workspace.canUndo} onclick={() => workspace.undo()}
      ><Undo2 size={17} /></Button
    >
    <Button
      label="Redo"
      hint="Redo (Ctrl Shift Z)"
      disabled={!workspace.canRedo}
      onclick={() => workspace.redo()}><Redo2 size={17} /></Button
    >
    <Button
      label="Chart"
      hint="Chart text (E)"
      pressed={isEditing}
      bind:element={editorButton}
      onclick={onedit}><PencilLine size={17} /></Button
    >
    <Button label="Find a chart or a command" hint="Find (Ctrl K)" onclick={() => onopen('find')}
      ><Search size={17} /></Button
    >
    <Arriving isQuiet part={moreMenuPart}
      >{#snippet children(MoreMenu)}<MoreMenu {workspace} {onopen} {onprint} />{/snippet}</Arriving
    >
  </div>
</header>
