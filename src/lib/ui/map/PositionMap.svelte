<!-- The position map with its parts, painting, laying over, export and print. -->
<script lang="ts">
  import Download from '@lucide/svelte/icons/download';
  import Layers from '@lucide/svelte/icons/layers-2';
  import Printer from '@lucide/svelte/icons/printer';
  import type { Workspace } from '$lib/state/workspace.svelte';
  import Organise from '../neck/Organise.svelte';
  import { mapParts, type MapColumn } from './columns';
  import LayOver from './LayOver.svelte';
  import MapDrawing from './MapDrawing.svelte';

  interface Props {
    workspace: Workspace;
    onsave: (format: 'svg' | 'png') => void;
    onprint: () => void;
  }
  let { workspace, onsave, onprint }: Props = $props();

  let width = $state(930);
  let isFolded = $state(true);
  let isLaying = $state(false);
  let picked = $state(0);
  let over: { row: number; change: number } | null = $state(null);

  const parts = $derived(
    mapParts(
      workspace.changes,
      ({ index, symbol }) =>
        `${symbol} ${workspace.chosen[index]?.name} ${workspace.hasOwnPosition(index) ? workspace.positions[index] : ''}`,
      isFolded
    )
  );
  /** The part that holds the selected change comes into view when the selection moves. */
  const holding = $derived(
    parts.findIndex(({ columns }) =>
      columns.some(({ changes }) => changes.some(({ index }) => index === workspace.selected))
    )
  );
  $effect(() => {
    if (holding >= 0) picked = holding;
  });
  const part = $derived(parts[Math.min(picked, parts.length - 1)]);
  const isFoldable = $derived(
    !isFolded || parts.some(({ columns }) => columns.some(({ changes }) => changes.length > 1))
  );
  const LABEL = 90;
  const columnWidth = $derived(
    Math.max(86, Math.min(190, Math.floor((width - LABEL - 20) / Math.max(part?.columns.length ?? 1, 4))))
  );

  function layOver(row: number, column: MapColumn) {
    over = { row, change: column.changes[0]!.index };
  }

  /** Why a note of the selected change's shape is not where its school would have it. */
  const remark = $derived(workspace.areas[workspace.selected]?.remark);

  /** Room for a label in a note, whatever the number of strings. */
  const stringGap = $derived(workspace.neck.strings.length > 6 ? 10.5 : 12);
  /** Parts that can be picked by buttons of their own. */
  const MOST_BUTTONS = 16;
</script>

<section class="min-w-0 card p-2.5 print:hidden" aria-label="Position map" bind:clientWidth={width}>
  <div class="mb-2 flex flex-wrap items-center gap-1.5 text-[13px]">
    {#if parts.length > MOST_BUTTONS}
      <select
        class="btn"
        aria-label="Part of the chart"
        value={picked}
        onchange={(event) => (picked = Number(event.currentTarget.value))}
      >
        {#each parts as { title }, i (title + i)}<option value={i}>{title}</option>{/each}
      </select>
    {:else if parts.length > 1}
      <div class="flex flex-wrap gap-1" role="group" aria-label="Part of the chart">
        {#each parts as { title }, i (title + i)}
          <button class="btn min-h-8!" aria-pressed={i === picked} onclick={() => (picked = i)}
            >{title}</button
          >
        {/each}
      </div>
    {/if}
    <Organise />
    <button
      class="btn min-h-8!"
      aria-pressed={isLaying}
      title="Click a cell to lay it over the one before it (O)"
      onclick={() => (isLaying = !isLaying)}><Layers size={15} /> lay over</button
    >
    {#if isFoldable}
      <button
        class="btn min-h-8!"
        aria-pressed={isFolded}
        title="Show changes that say the same once"
        onclick={() => (isFolded = !isFolded)}>fold</button
      >
    {/if}
    <div class="ml-auto flex gap-1.5">
      {#if workspace.plan.positions.length}
        <button class="btn min-h-8!" onclick={() => workspace.settle(workspace.plan.position)}
          >back to one position</button
        >
      {/if}
      <button class="btn min-h-8!" title="Save the map as SVG" onclick={() => onsave('svg')}
        ><Download size={15} /> SVG</button
      >
      <button class="btn min-h-8!" title="Save the map as PNG" onclick={() => onsave('png')}
        ><Download size={15} /> PNG</button
      >
      <button
        class="btn min-h-8! btn-icon"
        aria-label="Print the map"
        title="Print the map on one page"
        onclick={onprint}><Printer size={15} /></button
      >
    </div>
  </div>
  {#if part && workspace.map.length}
    <div class="overflow-x-auto">
      <MapDrawing
        {workspace}
        parts={[part]}
        {columnWidth}
        {stringGap}
        isLive
        {isLaying}
        onlayover={layOver}
      />
    </div>
    <p class="mt-1 text-[12px] text-soft">
      ● new under the finger, ○ stays from the cell to its left; numbers are chord tones. A position's name
      sits the whole plan there; drag across the cells to paint a position for each change.
    </p>
    {#if remark}<p class="text-[12px] text-soft">{remark}</p>{/if}
  {:else}
    <p class="p-6 text-soft">This neck is too short for an area of this school; choose another one.</p>
  {/if}
</section>
{#if over}<LayOver {workspace} bind:over />{/if}
