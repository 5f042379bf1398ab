<!-- The chart written on its bars, with its text beside them: the same chart at every moment. The text editor is loaded when it is shown. -->
<script lang="ts">
  import { tick, untrack } from 'svelte';
  import { MediaQuery } from 'svelte/reactivity';
  import { goto } from '$app/navigation';
  import { toast } from 'svelte-sonner';
  import Keyboard from '@lucide/svelte/icons/keyboard';
  import X from '@lucide/svelte/icons/x';
  import { chartOfBars } from '$lib/core/chart/writing/excerpt';
  import { barAtPlace } from '$lib/core/chart/writing/bars';
  import { counted } from '$lib/core/theory/words';
  import type { Workspace } from '$lib/state/chart/workspace.svelte';
  import { BarEdits } from '$lib/state/writing/bar-edits.svelte';
  import { FormEdits } from '$lib/state/writing/form-edits';
  import { Writing } from '$lib/state/writing/writing.svelte';
  import { layKeys } from '../keys/keys';
  import Button from '../kit/Button.svelte';
  import Toggles from '../kit/Toggles.svelte';
  import BarSheet from './bars/BarSheet.svelte';
  import BarTools from './bars/BarTools.svelte';
  import ChordPad from './bars/ChordPad.svelte';
  import HeadFields from './bars/HeadFields.svelte';
  import { BAR_KEYS } from './bars/keys';
  import Reading from './bars/Reading.svelte';
  import { editorLook, type EditorLook } from './look.svelte';
  import MelodyField from './MelodyField.svelte';
  import TextPane from './TextPane.svelte';

  let { workspace, onclose }: { workspace: Workspace; onclose: () => void } = $props();
  const writing = untrack(() => new Writing(workspace));
  const bars = untrack(() => new BarEdits(workspace, writing));
  const form = new FormEdits(writing);
  const LOOKS: readonly { value: EditorLook; name: string; hint: string }[] = [
    { value: 'bars', name: 'Bars', hint: 'Chords are written on the bars' },
    { value: 'both', name: 'Both', hint: 'Bars, and the text beside them' },
    { value: 'text', name: 'Text', hint: 'The chart as text' }
  ];
  const showsBars = $derived(editorLook.now !== 'text');
  const showsText = $derived(editorLook.now !== 'bars');
  const narrow = new MediaQuery('width < 40rem');
  const isNarrow = $derived(narrow.current);
  let tools: BarTools | undefined = $state();
  let sheet: BarSheet | undefined = $state();
  let hasPad = $state(untrack(() => editorLook.hasPad));

  $effect(() =>
    layKeys('Writing on bars', () =>
      showsBars
        ? BAR_KEYS.map(({ id, keys, name }) => ({
            id,
            keys,
            name,
            presses: [],
            run: () => void sheet?.back(),
            single: false,
            command: false
          }))
        : []
    )
  );
  // The change that is walked to on the page is where the caret stands, as long as nothing is being typed.
  $effect(() => {
    const { selected } = workspace;
    untrack(() => writing.follow(selected));
  });

  // A long chart is read when the player rests; then the page shows what has been typed.
  $effect(() => {
    void writing.change;
    untrack(() => writing.showTyped());
  });

  /** Where the caret of the bars stands in the text. */
  const place = $derived.by(() => {
    const { bar, chord } = writing;
    return bar && workspace.sheet.reading.places.get(bar.line)?.[bar.at]?.[chord?.cell ?? 0];
  });
  /** Where the caret of the text stands, as long as the text is worked in. */
  let textCaret: { readonly line: number; readonly column: number } | null = $state.raw(null);
  $effect(() => {
    // What is typed is read a little later in a long chart.
    void writing.bars;
    const at = textCaret;
    if (at) untrack(() => goToText(at));
  });
  function goToText(at: { readonly line: number; readonly column: number }) {
    const bar = barAtPlace(workspace.document.source, writing.bars, at);
    if (bar && bar.index !== writing.caret.bar) writing.go(bar.index, bar.chords[0]?.beat ?? 0);
  }

  async function alone(from: number, to: number) {
    const section = writing.bars[from]?.section;
    const title = `${workspace.document.title}, ${section ? `section ${section}` : `bars ${from + 1} to ${to + 1}`}`;
    try {
      const { createChart } = await import('$lib/state/songbook/client');
      const text = chartOfBars(workspace.document.source, { from, to }, title);
      const { id } = await createChart(crypto.randomUUID(), text);
      toast.success(`“${title}” is a chart of its own.`, {
        action: { label: 'Open', onClick: () => void goto(`/charts/${id}`) }
      });
    } catch (error) {
      toast.error(error instanceof Error ? error.message : 'That could not be made.');
    }
  }
  async function pick(look: EditorLook) {
    editorLook.set(look);
    await tick();
    if (look !== 'text') void sheet?.back();
  }
</script>

<section class="flex flex-col gap-1.5 card p-2" aria-label="Chart editor">
  <div class="flex items-start justify-between gap-2">
    <HeadFields {workspace} {form} />
    <Button class="shrink-0" onclick={onclose}><X size={15} /> Close</Button>
  </div>
  <div class="flex flex-wrap items-center gap-x-3 gap-y-1.5">
    {#if showsBars}
      <BarTools
        bind:this={tools}
        {writing}
        {bars}
        {form}
        onalone={(from, to) => void alone(from, to)}
        ondone={() => void sheet?.back()}
      />
    {/if}
    <span class="ml-auto flex items-center gap-1.5 text-sm text-soft">
      <span class="max-sm:hidden" data-chart-size
        >{counted(workspace.sheet.form.bars.length, 'bar')}, {counted(
          workspace.changes.length,
          'change'
        )}</span
      >
      {#if showsBars}
        <Button
          label="Chord pad"
          hint="Put chords together by touch"
          pressed={hasPad}
          onclick={() => {
            hasPad = !hasPad;
            editorLook.setPad(hasPad);
            void sheet?.back();
          }}><Keyboard size={16} /></Button
        >
      {/if}
      <Toggles
        label="How the chart is written"
        value={editorLook.now}
        options={isNarrow ? LOOKS.filter(({ value }) => value !== 'both') : LOOKS}
        onpick={(look) => void pick(look)}
      />
    </span>
  </div>
  <div
    class="grid min-w-0 gap-x-3 gap-y-2 {editorLook.now === 'both'
      ? 'md:grid-cols-[minmax(0,3fr)_minmax(0,2fr)]'
      : ''}"
  >
    {#if showsBars}
      <div
        onfocusin={() => {
          textCaret = null;
          editorLook.setTyped(false);
        }}
        class="flex max-h-[46dvh] min-h-40 min-w-0 flex-col max-sm:max-h-none"
      >
        <BarSheet
          bind:this={sheet}
          {workspace}
          {writing}
          {bars}
          {form}
          onask={(question) => void tools?.ask(question)}
          {hasPad}
          isFirst={!editorLook.isTyped}
          onleave={onclose}
        />
      </div>
    {/if}
    {#if showsText}
      <TextPane
        {workspace}
        {place}
        isFirst={editorLook.isTyped || editorLook.now === 'text'}
        {onclose}
        oncaret={(at) => (textCaret = at)}
      />
    {/if}
  </div>
  {#if showsBars}
    <!-- On a phone the pad lies under the thumb, over the places. -->
    <div
      class={hasPad
        ? 'max-sm:fixed max-sm:inset-x-0 max-sm:bottom-0 max-sm:z-30 max-sm:border-t max-sm:border-edge max-sm:bg-surface max-sm:px-2 max-sm:pb-2'
        : ''}
      data-bar-foot
    >
      <Reading {writing} ontaken={() => void sheet?.back()} />
      {#if hasPad}<ChordPad {writing} {bars} />{/if}
    </div>
  {/if}
  <MelodyField {workspace} />
</section>
