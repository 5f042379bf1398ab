<!-- One chart, one plan: everything about the moment of change on one screen, and the other views of it. -->
<script lang="ts" module>
  import { Part } from './part';

  const saveNoticesPart = new Part(() => import('./SaveNotices.svelte'));
  const chartEditorPart = new Part(() => import('../chart/ChartEditor.svelte'));
  const firstStepsPart = new Part(() => import('./FirstSteps.svelte'));
  const rulesPanelPart = new Part(() => import('../rules/RulesPanel.svelte'));
  const printingPart = new Part(() => import('./Printing.svelte'));
  const dialogsPart = new Part(() => import('./Dialogs.svelte'));
</script>

<script lang="ts">
  import { onDestroy, onMount, untrack } from 'svelte';
  import { toast } from 'svelte-sonner';
  import { beforeNavigate } from '$app/navigation';
  import type { StoredChart } from '$lib/api/songbook';
  import { followOthers, takeUpDrafts } from '$lib/state/chart/keeping';
  import { standing } from '$lib/state/stand/standing.svelte';
  import { Workspace } from '$lib/state/chart/workspace.svelte';
  import ChangePanel from '../change/ChangePanel.svelte';
  import ChoicesPanel from '../choices/ChoicesPanel.svelte';
  import { visited } from '$lib/state/visited';
  import { bindKeys, layKeys } from '../keys/keys';
  import Button from '../kit/Button.svelte';
  import Moment from '../moment/Moment.svelte';
  import { prefetchViews } from '../prefetch';
  import { FIRST_VIEW, viewOf } from '../views';
  import Address from './Address.svelte';
  import Arriving from './Arriving.svelte';
  import type { DialogName } from './dialogs';
  import Header from './Header.svelte';
  import { hush } from './hear';
  import type Printing from './Printing.svelte';
  import { CHART_KEYS } from './chart-keys';

  let { chart }: { chart: StoredChart } = $props();
  // The workspace lives as long as the page shows this chart; a new one comes with a new key.
  const workspace = untrack(() => new Workspace(chart));
  const isDamaged = untrack(() => chart.damaged);
  const { document: text, paths } = workspace;

  /** A chart without chords opens with its editor. */
  let isEditing = $state(untrack(() => workspace.changes.length === 0));
  let dialog: DialogName | null = $state(null);
  let editorButton: HTMLButtonElement | undefined = $state();
  let printing: Printing | undefined = $state();
  const view = $derived(viewOf(workspace.view));

  /** The focus goes back to where the editor is opened, so that no key is lost. */
  function closeEditor() {
    isEditing = false;
    editorButton?.focus({ preventScroll: true });
  }

  const toggleEditor = () => (isEditing ? closeEditor() : (isEditing = true));
  const page = {
    print: (sheet: string) => printing?.printSheet(sheet),
    tune: () => (dialog = 'tuner')
  };
  const shortcuts = bindKeys(CHART_KEYS, {
    workspace,
    toggleEditor,
    open: (name) => (dialog = name),
    print: page.print
  });

  $effect(() => layKeys('The chart', () => shortcuts, 'chart'));
  $effect(() => {
    // What the worker tells of itself is not followed here.
    void paths.job;
    untrack(() => paths.follow());
  });
  $effect(() => {
    const job = paths.consideredJob;
    if (job) untrack(() => paths.whatIf.ask(job));
  });
  onDestroy(() => {
    paths.close();
    hush();
  });
  /** What was saved is what opens without the server. */
  $effect(() => {
    if (text.autosave.status.kind !== 'saved') return;
    if (text.autosave.version > untrack(() => chart.version)) visited(`/charts/${text.id}`);
  });
  /** The page has come, and what is shown now is opened by the player. */
  let isAlive = $state(false);
  onMount(() => void (isAlive = true));
  onMount(prefetchViews);
  beforeNavigate(() => void text.flush());

  onMount(() => {
    void takeUpDrafts(text).then((isTakenUp) => {
      if (!isTakenUp) return;
      toast('What you typed before and could not save is back.', {
        action: { label: 'Undo', onClick: () => text.undo() }
      });
    });
    return followOthers(text, () =>
      toast('This chart was changed in another window; here is what it is now.')
    );
  });
</script>

<svelte:head><title>{text.title} · Corvel</title></svelte:head>
<svelte:window
  onpagehide={() => void text.flush()}
  onbeforeunload={(event) => {
    text.settle();
    // What is kept on the device comes back; only what is not would be lost.
    if (text.autosave.status.kind !== 'saved' && !text.autosave.isKept) event.preventDefault();
  }}
/>
<Address {workspace} />

<div
  class="mx-auto flex min-h-dvh max-w-[2400px] flex-col gap-2 p-2.5 print:hidden {standing.isUp
    ? ''
    : 'max-sm:pb-15'}"
>
  <!-- While the band plays the stand is all. -->
  <div class:hidden={standing.isUp}>
    <Header
      {workspace}
      {isEditing}
      bind:editorButton
      onedit={toggleEditor}
      onopen={(name) => (dialog = name)}
      onprint={() => page.print(view.sheet)}
    />
  </div>

  {#if isDamaged}
    <p class="card px-3 py-2 text-warn" role="alert">
      The plan stored with this chart could not be read, so a fresh one is shown. The old one is kept among
      the earlier versions.
    </p>
  {/if}
  <Arriving isQuiet part={saveNoticesPart}
    >{#snippet children(SaveNotices)}<SaveNotices document={text} />{/snippet}</Arriving
  >

  <div class="grid min-w-0 flex-1 gap-2.5 {view.isAlone ? '' : 'lg:grid-cols-[minmax(0,1fr)_316px]'}">
    <main class="flex min-w-0 flex-col gap-2.5">
      {#if isEditing && !standing.isUp}
        <Arriving part={chartEditorPart}
          >{#snippet children(ChartEditor)}<ChartEditor
              {workspace}
              onclose={closeEditor}
            />{/snippet}</Arriving
        >
      {/if}
      {#if workspace.changes.length > 0 || view.isAlsoEmpty}
        {#if view === FIRST_VIEW}
          <Moment {workspace} {page} isFirst={!isAlive} />
        {:else}
          {#key view.id}
            <Arriving part={view.part}
              >{#snippet children(View)}<View {workspace} {page} />{/snippet}</Arriving
            >
          {/key}
        {/if}
      {:else if !isEditing}
        <div class="flex flex-col items-center gap-3 card p-10">
          <p>This chart has no chords yet.</p>
          <Button tone="strong" onclick={toggleEditor}>Write them</Button>
        </div>
      {/if}
    </main>
    <!-- What is not seen on the stand is not worked out with every chord that passes. -->
    {#if !view.isAlone}
      <aside
        class="flex min-w-0 flex-col gap-2.5 lg:sticky lg:top-2.5 lg:h-[calc(100dvh-72px)] lg:min-h-[600px]"
        aria-label="The change and the target line"
      >
        <Arriving isQuiet part={firstStepsPart}
          >{#snippet children(FirstSteps)}<FirstSteps {workspace} />{/snippet}</Arriving
        >
        <ChangePanel {workspace} />
        {#if workspace.changes.length > 0}
          {#if workspace.isRuling}
            <Arriving part={rulesPanelPart}
              >{#snippet children(RulesPanel)}<RulesPanel
                  {workspace}
                  onprint={() => page.print('landing')}
                />{/snippet}</Arriving
            >
          {:else}
            <ChoicesPanel {workspace} />
          {/if}
        {/if}
      </aside>
    {/if}
  </div>
  <p class="sr-only" aria-live="polite">{text.announcement}</p>
</div>

<Arriving isQuiet part={printingPart}
  >{#snippet children(Paper)}<Paper
      bind:this={printing}
      {workspace}
      shown={dialog === 'table' ? 'table' : view.sheet}
    />{/snippet}</Arriving
>
<Arriving isQuiet part={dialogsPart}
  >{#snippet children(Dialogs)}<Dialogs {workspace} bind:open={dialog} />{/snippet}</Arriving
>
