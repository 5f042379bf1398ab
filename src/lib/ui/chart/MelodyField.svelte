<!-- The melody of the chart, typed as note names with lengths, bar by bar. -->
<script lang="ts">
  import TriangleAlert from '@lucide/svelte/icons/triangle-alert';
  import { withDeclaration, withoutDeclaration } from '$lib/core/chart/directives';
  import type { Workspace } from '$lib/state/chart/workspace.svelte';

  let { workspace }: { workspace: Workspace } = $props();
  const melody = $derived(workspace.melody);

  function type(text: string) {
    const { document } = workspace;
    document.setSource(
      text.trim()
        ? withDeclaration(document.source, 'melody', text)
        : withoutDeclaration(document.source, 'melody')
    );
  }
</script>

<div class="col-span-full flex flex-wrap items-baseline gap-x-3 gap-y-1 border-t border-line pt-2 text-sm">
  <label for="melody" class="font-bold">Melody</label>
  <input
    id="melody"
    class="min-h-8.5 min-w-40 flex-1 rounded-md border border-edge bg-paper px-2 pointer-coarse:min-h-11"
    value={workspace.sheet.head.melody ?? ''}
    placeholder="G4:2 A4 Bb4 | r D5:3"
    autocomplete="off"
    spellcheck="false"
    aria-describedby="melody-says"
    onchange={(event) => type(event.currentTarget.value)}
  />
  <div id="melody-says" class="basis-full text-soft" aria-live="polite">
    {#if melody?.problems.length}
      <ul>
        {#each melody.problems.slice(0, 5) as problem, i (i)}
          <li class="flex items-start gap-1.5 text-warn">
            <TriangleAlert size={14} class="mt-0.5 shrink-0" />
            <span>Bar {problem.bar}: {problem.message}</span>
          </li>
        {/each}
      </ul>
    {:else if melody}
      {melody.line.notes.length} notes. Y shows them on the neck in every octave.
    {:else}
      Note, octave and length in beats, r for a rest, | for a bar; without an octave the nearest note is
      meant.
    {/if}
  </div>
</div>
