<!-- The chart as text with live checking, beside its bars. The editor itself is loaded when it is opened. -->
<script lang="ts">
  import { onMount } from 'svelte';
  import TriangleAlert from '@lucide/svelte/icons/triangle-alert';
  import X from '@lucide/svelte/icons/x';
  import type { Workspace } from '$lib/state/workspace.svelte';
  import { writeChart } from '$lib/core/chart/write';
  import type { ChartEditing } from './codemirror';
  import Bars from './Bars.svelte';

  let { workspace, onclose }: { workspace: Workspace; onclose: () => void } = $props();
  let host: HTMLDivElement;
  let editing: ChartEditing | null = $state.raw(null);
  const problems = $derived(workspace.sheet.problems);

  onMount(() => {
    let gone = false;
    void import('./codemirror').then(({ editChart }) => {
      if (gone) return;
      editing = editChart(host, workspace.source, (text) => workspace.setSource(text), onclose);
    });
    return () => {
      gone = true;
      editing?.destroy();
    };
  });

  $effect(() => {
    editing?.show(workspace.source, problems);
  });

  function useSuggestion(problem: (typeof problems)[number]) {
    if (!problem.place || !problem.suggestion) return;
    const lines = workspace.source.split('\n');
    const { line, column, length } = problem.place;
    const text = lines[line - 1]!;
    lines[line - 1] = text.slice(0, column - 1) + problem.suggestion + text.slice(column - 1 + length);
    workspace.setSource(lines.join('\n'));
  }
</script>

<section class="grid gap-x-3 card p-2 md:grid-cols-[minmax(0,5fr)_minmax(0,6fr)]" aria-label="Chart editor">
  <div class="flex min-w-0 flex-col">
    <div
      bind:this={host}
      class="h-[168px] overflow-hidden rounded-md border border-line bg-paper text-[14px]"
      data-editor
    ></div>
    <div class="flex min-h-9 items-start justify-between gap-2 pt-1.5 text-[13px]">
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
            {workspace.sheet.form.bars.length} bars, {workspace.changes.length} changes. Everything is understood.
          </li>
        {/each}
      </ul>
      <span class="flex shrink-0 gap-1.5">
        <button
          class="btn"
          onclick={() => workspace.setSource(writeChart(workspace.sheet.reading.chart))}
          title="Align the bars under each other">Tidy</button
        >
        <button class="btn" onclick={onclose}><X size={15} /> Close</button>
      </span>
    </div>
  </div>
  <div class="max-h-[212px] overflow-y-auto"><Bars {workspace} /></div>
</section>
