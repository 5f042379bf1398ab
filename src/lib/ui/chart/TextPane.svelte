<!-- The chart as text with live checking; what is pasted is looked at first. -->
<script lang="ts">
  import { onMount } from 'svelte';
  import TriangleAlert from '@lucide/svelte/icons/triangle-alert';
  import { byteLength, MAX_CHART_BYTES } from '$lib/api/limits';
  import { nth } from '$lib/core/base/list';
  import type { Place } from '$lib/core/chart/model';
  import { writeChart } from '$lib/core/chart/write';
  import { importText, type TextImport } from '$lib/core/formats/text/import';
  import { counted } from '$lib/core/theory/words';
  import type { Workspace } from '$lib/state/chart/workspace.svelte';
  import Button from '../kit/Button.svelte';
  import type { ChartEditing } from './codemirror';
  import { editorLook } from './look.svelte';
  import PasteLook from './PasteLook.svelte';

  interface Props {
    workspace: Workspace;
    /** What the caret of the bars stands on; it is brought into sight. */
    place: Place | undefined;
    /** It has the focus when it opens. */
    isFirst: boolean;
    onclose: () => void;
    oncaret: (at: { line: number; column: number }) => void;
  }
  let { workspace, place, isFirst, onclose, oncaret }: Props = $props();
  let host: HTMLDivElement;
  let editing: ChartEditing | null = $state.raw(null);
  const problems = $derived(workspace.sheet.problems);

  onMount(() => {
    let gone = false;
    void import('./codemirror').then(({ editChart }) => {
      if (gone) return;
      editing = editChart(host, workspace.document.source, {
        input: (text) => workspace.document.type(text),
        escape: onclose,
        paste,
        caret: oncaret
      });
      if (isFirst) editing.focus();
    });
    return () => {
      gone = true;
      workspace.document.settle();
      editing?.destroy();
    };
  });

  $effect(() => {
    // What is being typed is ahead of the text that has been read.
    if (!workspace.document.isTyping) editing?.show(workspace.document.source, problems);
  });
  $effect(() => {
    if (place && !host.contains(document.activeElement)) editing?.reveal(place);
  });

  /** A pasted text that is no chart as it stands, and what it would become. */
  let pasted: { readonly text: string; readonly look: TextImport } | null = $state.raw(null);

  function paste(text: string): boolean {
    // Within a line, a few chords are typed as they are.
    if (!/[\n\r]|\S\s+\S+\s+\S/.test(text) || byteLength(text) > MAX_CHART_BYTES) return false;
    const look = importText(text);
    if (look.chart === null || look.chart === text) return false;
    pasted = { text, look };
    return true;
  }

  /** Whether B and H of what is pasted are German names, where the player has said so. */
  const readGerman = (german: boolean) => {
    if (pasted) pasted = { ...pasted, look: importText(pasted.text, german) };
  };

  /** Into an empty chart the whole of it goes, with title and key; into one with bars only the bars. */
  function takeBars() {
    const chart = pasted!.look.chart!;
    const isEmpty = workspace.changes.length === 0;
    const body = isEmpty ? chart : chart.slice(Math.max(0, chart.search(/^\{start_of_grid/m)));
    editing?.insert(body);
    pasted = null;
  }

  function takeAsTyped() {
    editing?.insert(pasted!.text);
    pasted = null;
  }

  function useSuggestion(problem: (typeof problems)[number]) {
    if (!problem.place || !problem.suggestion) return;
    const lines = workspace.document.source.split('\n');
    const { line, column, length } = problem.place;
    const text = nth(lines, line - 1);
    lines[line - 1] = text.slice(0, column - 1) + problem.suggestion + text.slice(column - 1 + length);
    workspace.document.setSource(lines.join('\n'));
  }
</script>

<div class="flex min-w-0 flex-col" onfocusin={() => editorLook.setTyped(true)}>
  <div
    bind:this={host}
    onfocusout={() => workspace.document.settle()}
    class="h-[max(168px,34dvh)] overflow-hidden rounded-md border border-edge bg-paper text-base"
    data-editor
  ></div>
  <div class="flex min-h-9 items-start justify-between gap-2 pt-1.5 text-sm">
    <ul class="max-h-20 min-w-0 overflow-y-auto" aria-live="polite">
      {#each problems.slice(0, 20) as problem, i (i)}
        <li class="flex items-start gap-1.5 text-warn">
          <TriangleAlert size={14} class="mt-0.5 shrink-0" />
          <span>
            {#if problem.place}<button class="underline" onclick={() => editing?.goTo(problem.place!)}
                >Line {problem.place.line}</button
              >:{/if}
            {#if problem.suggestion}
              <button class="font-bold underline" onclick={() => useSuggestion(problem)}
                >Use {problem.suggestion}</button
              >
            {/if}
            {problem.message}
          </span>
        </li>
      {:else}
        <li class="text-soft">
          {counted(workspace.sheet.form.bars.length, 'bar')}, {counted(workspace.changes.length, 'change')}.
          All chords recognised.
        </li>
      {/each}
    </ul>
    <Button
      hint="Align the bars under each other"
      onclick={() => workspace.document.setSource(writeChart(workspace.sheet.reading.chart))}>Tidy</Button
    >
  </div>
  {#if pasted}
    <div class="max-h-[212px] overflow-y-auto" role="group" aria-label="Pasted text">
      <div class="sticky top-0 z-10 flex flex-wrap items-center gap-1.5 bg-surface pb-1.5">
        <p class="flex-1 text-sm">These bars were found in your text:</p>
        <Button tone="strong" onclick={takeBars}>Insert the bars</Button>
        <Button onclick={takeAsTyped}>Paste as it is</Button>
        <Button onclick={() => (pasted = null)}>Cancel</Button>
        {#if pasted.look.german || /\bH/.test(pasted.text)}
          <Button
            pressed={pasted.look.german}
            hint="H is read as B, and B as B♭"
            onclick={() => readGerman(!pasted?.look.german)}>German names</Button
          >
        {/if}
      </div>
      <PasteLook look={pasted.look} />
    </div>
  {/if}
</div>
