<!-- The title of the chart, to be changed where it stands. -->
<script lang="ts">
  import { tick } from 'svelte';
  import type { ChartDocument } from '$lib/state/document.svelte';

  let { document: chart }: { document: ChartDocument } = $props();
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

<h1 class="min-w-0 truncate font-display text-lg leading-6">
  {#if isEditing}
    <input
      bind:this={field}
      class="w-full min-w-40 rounded-md border border-line bg-paper px-1.5"
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
    <button
      bind:this={button}
      class="max-w-full truncate rounded-md px-1.5 hover:bg-lit"
      data-title
      onclick={start}
      data-hint="Change the title">{chart.title}</button
    >
  {/if}
</h1>
