<!-- The title of the chart, to be changed where it stands. -->
<script lang="ts">
  import { tick, type Snippet } from 'svelte';
  import type { ChartDocument } from '$lib/state/chart/document.svelte';

  interface Props {
    document: ChartDocument;
    /** What is told under the title. */
    children: Snippet;
  }
  let { document: chart, children }: Props = $props();
  let isEditing = $state(false);
  let field: HTMLInputElement | undefined = $state();
  let button: HTMLButtonElement | undefined = $state();

  async function start() {
    isEditing = true;
    await tick();
    field?.select();
  }

  async function finish(title: string | null) {
    if (!isEditing) return;
    isEditing = false;
    if (title !== null) chart.rename(title);
    await tick();
    if (document.activeElement === document.body) button?.focus({ preventScroll: true });
  }
</script>

<!-- All of what it says is the button: as large as a finger. -->
<div
  class="relative flex min-h-10 min-w-0 flex-1 flex-col justify-center rounded-md leading-none pointer-coarse:min-h-11"
>
  {#if isEditing}
    <input
      bind:this={field}
      class="w-full min-w-40 rounded-md border border-line bg-paper px-1.5 font-display text-lg pointer-coarse:min-h-11"
      aria-label="Title"
      maxlength="200"
      value={chart.sheet.head.title ?? ''}
      placeholder="Title of the chart"
      onblur={(event) => finish(event.currentTarget.value)}
      onkeydown={(event) => {
        if (event.key === 'Enter') void finish(event.currentTarget.value);
        else if (event.key === 'Escape') void finish(null);
        else return;
        event.preventDefault();
      }}
    />
  {:else}
    <h1 class="truncate px-1.5 font-display text-lg leading-6">{chart.title}</h1>
    {@render children()}
    <button
      bind:this={button}
      class="absolute inset-0 rounded-md hover:bg-ink/5"
      aria-label="Change the title"
      data-title
      onclick={start}
      data-hint="Change the title"
    ></button>
  {/if}
</div>
