<!-- One chart, one plan: everything about the moment of change on one screen. -->
<script lang="ts">
  import { flushSync, onDestroy, onMount, tick, untrack } from 'svelte';
  import CircleQuestionMark from '@lucide/svelte/icons/circle-question-mark';
  import GuitarIcon from '@lucide/svelte/icons/guitar';
  import History from '@lucide/svelte/icons/history';
  import Library from '@lucide/svelte/icons/library';
  import Moon from '@lucide/svelte/icons/moon';
  import PencilLine from '@lucide/svelte/icons/pencil-line';
  import Redo2 from '@lucide/svelte/icons/redo-2';
  import Search from '@lucide/svelte/icons/search';
  import Sun from '@lucide/svelte/icons/sun';
  import Table2 from '@lucide/svelte/icons/table-2';
  import Undo2 from '@lucide/svelte/icons/undo-2';
  import { toast } from 'svelte-sonner';
  import { beforeNavigate, pushState, replaceState } from '$app/navigation';
  import { page } from '$app/state';
  import type { StoredChart } from '$lib/api/songbook';
  import { isSamePlace, placeIn, queryOf, type Place } from '$lib/state/address';
  import { followOthers, takeUpDrafts } from '$lib/state/keeping';
  import { settings } from '$lib/state/settings.svelte';
  import { Workspace, type View } from '$lib/state/workspace.svelte';
  import ChangePanel from '../change/ChangePanel.svelte';
  import ChoicesPanel from '../choices/ChoicesPanel.svelte';
  import Arriving from './Arriving.svelte';
  import Hands from '../hands/Hands.svelte';
  import Neck from '../neck/Neck.svelte';
  import PlanStrip from '../plan/PlanStrip.svelte';
  import Threads from '../threads/Threads.svelte';
  import { layKeys } from '../keys/keys';
  import SaveState from './SaveState.svelte';
  import SaveNotices from './SaveNotices.svelte';
  import Title from './Title.svelte';
  import { workspaceShortcuts } from './shortcuts';

  let { chart }: { chart: StoredChart } = $props();
  // The workspace lives as long as the page shows this chart; a new one comes with a new key.
  const workspace = untrack(() => new Workspace(chart));
  /** What the address says: the same view, change and position again after a reload, or by a link. */
  const asked = untrack(() => placeIn(page.url.searchParams));
  untrack(() => visit({ ...asked, position: undefined }));
  const isDamaged = untrack(() => chart.damaged);

  /** A chart without chords opens with its editor. */
  let isEditing = $state(untrack(() => workspace.changes.length === 0));
  /** The one dialog that is open. */
  type DialogName = 'help' | 'find' | 'versions' | 'table' | 'guitar';
  let dialog: DialogName | null = $state(null);
  const opened = (name: DialogName) =>
    [
      () => dialog === name,
      (isOpen: boolean) => (dialog = isOpen ? name : dialog === name ? null : dialog)
    ] as const;
  const [isHelping, setHelping] = opened('help');
  const [isFinding, setFinding] = opened('find');
  const [isLookingBack, setLookingBack] = opened('versions');
  const [isReadingTable, setReadingTable] = opened('table');
  const [isTuning, setTuning] = opened('guitar');
  /** The dialogs that have been opened. */
  const met: Partial<Record<DialogName, boolean>> = $state({});
  $effect(() => {
    if (dialog) met[dialog] = true;
  });
  let editorButton: HTMLButtonElement | undefined = $state();

  function openEditor() {
    isEditing = true;
  }

  /** The focus goes back to where the editor is opened, so that no key is lost. */
  function closeEditor() {
    isEditing = false;
    editorButton?.focus({ preventScroll: true });
  }

  const toggleEditor = () => (isEditing ? closeEditor() : openEditor());
  /** The map as one sheet is drawn only for paper and files. */
  let hasSheet = $state(false);
  let sheet: HTMLDivElement | undefined = $state();

  const head = $derived(workspace.sheet.head);
  const key = $derived(workspace.analysis.key);
  const status = $derived(workspace.autosave.status);
  const shortcuts = workspaceShortcuts({
    workspace,
    toggleEditor,
    openHelp: () => (dialog = 'help'),
    openPalette: () => (dialog = 'find'),
    openTable: () => (dialog = 'table'),
    openGuitar: () => (dialog = 'guitar'),
    printMap: () => printSheet('map'),
    printLanding: () => printSheet('landing'),
    saveMap: (format) => void saveSheet(format)
  });

  $effect(() => layKeys(() => shortcuts));

  /** Print asks for the sheet at once, so its code is fetched as soon as the page is at rest. */
  let MapSheet: typeof import('../map/MapSheet.svelte').default | undefined = $state.raw();
  let LandingSheet: typeof import('../rules/LandingSheet.svelte').default | undefined = $state.raw();
  $effect(() => {
    void import('../map/MapSheet.svelte').then((module) => (MapSheet = module.default));
    void import('../rules/LandingSheet.svelte').then((module) => (LandingSheet = module.default));
  });
  let paper: 'map' | 'landing' = $state('map');

  function withSheet() {
    flushSync(() => (hasSheet = true));
  }

  function printSheet(kind: typeof paper) {
    paper = kind;
    withSheet();
    print();
  }

  async function saveSheet(format: 'svg' | 'png') {
    paper = 'map';
    withSheet();
    const { saveDrawing } = await import('../export/drawing');
    await saveDrawing(sheet!.querySelector('svg')!, `${workspace.title}, position map`, format).catch(
      () => (workspace.announcement = 'The picture could not be made.')
    );
    hasSheet = false;
  }

  const VIEWS: readonly [View, string, string][] = [
    ['moment', 'Moment', 'The change of chord, on threads and neck'],
    ['map', 'Map', 'Positions down, changes across (M)'],
    ['grips', 'Grips', 'Chords held, from grip to grip (G)'],
    ['rehearse', 'Rehearse', 'Band, drills and the stand (P)']
  ];

  $effect(() => {
    const { job } = workspace;
    untrack(() => workspace.solver.ask(job));
  });
  $effect(() => {
    const job = workspace.consideredJob;
    if (job) untrack(() => workspace.whatIf.ask(job));
  });
  onDestroy(() => {
    workspace.solver.close();
    workspace.whatIf.close();
  });

  beforeNavigate(() => void workspace.autosave.flush());

  function visit({ view, change, position }: { [Part in keyof Place]?: Place[Part] | undefined }) {
    if (view) workspace.view = view;
    if (change !== undefined) workspace.select(Math.min(change, workspace.changes.length - 1), false);
    if (position !== undefined) workspace.moveTo(position);
  }

  /** Milliseconds of rest after which a change or position is written into the address. */
  const SETTLED = 300;
  let isRouting = $state(false);
  onMount(() => {
    // The hand is part of the plan: it is moved where the plan can be saved.
    visit({ position: asked.position });
    void tick().then(() => (isRouting = true));
  });
  /** Another view is a step to go back from; another change or position belongs to the step that one is at. */
  $effect(() => {
    const place: Place = {
      view: workspace.view,
      change: workspace.selected,
      position: workspace.position
    };
    if (!isRouting) return;
    const known = untrack(() => page.state.place);
    if (known && isSamePlace(place, known)) return;
    if (known && known.view !== place.view) {
      // Writing the address reads it too; this effect follows the player alone.
      untrack(() => pushState(queryOf(place), { place }));
      return;
    }
    const timer = setTimeout(() => replaceState(queryOf(place), { place }), known ? SETTLED : 0);
    return () => clearTimeout(timer);
  });
  /** Back and forward. */
  $effect(() => {
    const { place } = page.state;
    if (!place || !isRouting) return;
    untrack(() => {
      if (place.view !== workspace.view) visit(place);
    });
  });

  onMount(() => {
    void takeUpDrafts(workspace).then((isTakenUp) => {
      if (!isTakenUp) return;
      toast('What you typed before and could not be saved is here again.', {
        action: { label: 'Undo', onClick: () => workspace.undo() }
      });
    });
    return followOthers(workspace, () =>
      toast('This chart was changed in another window; here is what it is now.')
    );
  });

  const labels = { degree: 'Degrees', name: 'Names', finger: 'Fingers' } as const;
</script>

<svelte:head><title>{head.title ?? 'Untitled chart'} · Corvel</title></svelte:head>
<svelte:window
  onbeforeprint={withSheet}
  onafterprint={() => {
    hasSheet = false;
    paper = 'map';
  }}
  onpagehide={() => void workspace.autosave.flush()}
  onbeforeunload={(event) => {
    // What is kept on the device comes back; only what is not would be lost.
    if (status.kind !== 'saved' && !workspace.autosave.isKept) event.preventDefault();
  }}
/>

<div class="mx-auto flex min-h-screen max-w-[1800px] flex-col gap-2 p-2.5 print:hidden">
  <header class="flex flex-wrap items-center gap-x-3 gap-y-1.5 lg:flex-nowrap">
    <a href="/" class="btn btn-icon" aria-label="Songbook" title="Songbook"><Library size={18} /></a>
    <Title {workspace} />
    <p class="min-w-0 truncate text-[13px] text-soft">
      {settings.note(key.tonic)}
      {key.mode}{workspace.sheet.analysis.declared ? '' : ' (found)'} · {head.meter.beats}/{head.meter
        .unit}{head.tempo ? ` · ${head.tempo} bpm` : ''}{head.feel ? ` · ${head.feel}` : ''}
    </p>
    <div class="flex shrink-0" role="group" aria-label="View">
      {#each VIEWS as [view, name, hint] (view)}
        <button
          class="btn rounded-none not-first:border-l-0 first:rounded-l-[7px] last:rounded-r-[7px]"
          aria-pressed={workspace.view === view}
          title={hint}
          onclick={() => workspace.show(view)}>{name}</button
        >
      {/each}
    </div>
    <div class="ml-auto flex flex-wrap items-center gap-1.5 lg:shrink-0 lg:flex-nowrap">
      <SaveState {status} />
      <button
        class="btn btn-icon"
        aria-label="Undo"
        title="Undo (Ctrl Z)"
        disabled={!workspace.canUndo}
        onclick={() => workspace.undo()}><Undo2 size={17} /></button
      >
      <button
        class="btn btn-icon"
        aria-label="Redo"
        title="Redo (Ctrl Shift Z)"
        disabled={!workspace.canRedo}
        onclick={() => workspace.redo()}><Redo2 size={17} /></button
      >
      <button
        class="btn btn-icon"
        aria-label="Earlier versions"
        title="Earlier versions"
        onclick={() => (dialog = 'versions')}><History size={17} /></button
      >
      <button
        class="btn btn-icon"
        aria-label="Chart"
        aria-pressed={isEditing}
        title="Chart text (E)"
        bind:this={editorButton}
        onclick={toggleEditor}><PencilLine size={17} /></button
      >
      <button
        class="btn btn-icon"
        aria-label="Table"
        title="Chord table and guide-tone lines (B)"
        onclick={() => (dialog = 'table')}><Table2 size={17} /></button
      >
      <button
        class="btn btn-icon"
        aria-label="Your guitar"
        title="Tuning, frets, hand"
        onclick={() => (dialog = 'guitar')}><GuitarIcon size={17} /></button
      >
      <button class="btn" title="What stands inside the notes (L)" onclick={() => settings.cycleLabels()}
        >{labels[settings.now.labels]}</button
      >
      <button
        class="btn btn-icon"
        aria-label="Find a chart or a command"
        title="Find (Ctrl K)"
        onclick={() => (dialog = 'find')}><Search size={17} /></button
      >
      <button
        class="btn btn-icon"
        aria-label={settings.now.theme === 'day' ? 'Stage theme' : 'Day theme'}
        title="Day or Stage (T)"
        onclick={() => settings.toggleTheme()}
      >
        {#if settings.now.theme === 'day'}<Moon size={17} />{:else}<Sun size={17} />{/if}
      </button>
      <button
        class="btn btn-icon"
        aria-label="Keys and signs"
        title="Keys and signs (?)"
        onclick={() => (dialog = 'help')}><CircleQuestionMark size={17} /></button
      >
    </div>
  </header>

  {#if isDamaged}
    <p class="card px-3 py-2 text-warn" role="alert">
      The plan stored with this chart could not be read, so a fresh one is shown. The old one is kept among
      the earlier versions.
    </p>
  {/if}
  <SaveNotices {workspace} />

  <div
    class="grid min-w-0 flex-1 gap-2.5 {workspace.view === 'rehearse'
      ? ''
      : 'lg:grid-cols-[minmax(0,1fr)_316px]'}"
  >
    <main class="flex min-w-0 flex-col gap-2.5">
      {#if isEditing}
        <Arriving load={() => import('../chart/ChartEditor.svelte')}
          >{#snippet children(ChartEditor)}<ChartEditor
              {workspace}
              onclose={closeEditor}
            />{/snippet}</Arriving
        >
      {/if}
      {#if workspace.view === 'rehearse'}
        <!-- Also while the chart is empty for a moment: the band plays its round to the end. -->
        <Arriving load={() => import('../rehearse/Rehearse.svelte')}
          >{#snippet children(Rehearse)}<Rehearse {workspace} />{/snippet}</Arriving
        >
      {:else if workspace.changes.length > 0}
        {#if workspace.view === 'map'}
          <Arriving load={() => import('../map/PositionMap.svelte')}
            >{#snippet children(PositionMap)}<PositionMap
                {workspace}
                onprint={() => printSheet('map')}
                onsave={saveSheet}
              />{/snippet}</Arriving
          >
        {:else if workspace.view === 'grips'}
          <Arriving load={() => import('../grips/Grips.svelte')}
            >{#snippet children(Grips)}<Grips {workspace} />{/snippet}</Arriving
          >
        {:else}
          <Threads {workspace} />
          <Neck {workspace} />
          <PlanStrip {workspace} />
          <Hands {workspace} />
        {/if}
      {:else if !isEditing}
        <div class="flex flex-col items-center gap-3 card p-10">
          <p>This chart has no chords yet.</p>
          <button class="btn btn-strong" onclick={openEditor}>Write them</button>
        </div>
      {/if}
    </main>
    <!-- What is not seen on the stand is not worked out with every chord that passes. -->
    {#if workspace.view !== 'rehearse'}
      <aside
        class="flex min-w-0 flex-col gap-2.5 lg:sticky lg:top-2.5 lg:h-[calc(100vh-66px)] lg:min-h-[600px]"
        aria-label="The change and the path"
      >
        <ChangePanel {workspace} />
        {#if workspace.changes.length > 0}
          {#if workspace.isRuling}
            <Arriving load={() => import('../rules/RulesPanel.svelte')}
              >{#snippet children(RulesPanel)}<RulesPanel
                  {workspace}
                  onprint={() => printSheet('landing')}
                />{/snippet}</Arriving
            >
          {:else}
            <ChoicesPanel {workspace} />
          {/if}
        {/if}
      </aside>
    {/if}
  </div>
  <p class="sr-only" aria-live="polite">{workspace.announcement}</p>
</div>

{#if hasSheet && paper === 'landing' && LandingSheet}<LandingSheet {workspace} />
{:else if hasSheet && MapSheet}<div bind:this={sheet}><MapSheet {workspace} /></div>{/if}
<!-- Each arrives when it is opened for the first time, and stays. -->
{#if met.guitar}<Arriving isQuiet load={() => import('./Guitar.svelte')}
    >{#snippet children(Guitar)}<Guitar bind:open={isTuning, setTuning} />{/snippet}</Arriving
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
        {workspace}
      />{/snippet}</Arriving
  >{/if}
{#if met.table}<Arriving isQuiet load={() => import('../table/ChordTable.svelte')}
    >{#snippet children(ChordTable)}<ChordTable
        bind:open={isReadingTable, setReadingTable}
        {workspace}
      />{/snippet}</Arriving
  >{/if}
