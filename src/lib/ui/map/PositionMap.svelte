<!-- The position map with its parts, painting, laying over, export and print. -->
<script lang="ts">
  import { flushSync } from 'svelte';
  import Layers from '@lucide/svelte/icons/layers-2';
  import Printer from '@lucide/svelte/icons/printer';
  import { firstOf } from '$lib/core/base/list';
  import SaveDrawing from '../export/SaveDrawing.svelte';
  import Button from '../kit/Button.svelte';
  import { Deferred } from '../kit/deferred.svelte';
  import Select from '../kit/Select.svelte';
  import Toggles from '../kit/Toggles.svelte';
  import SystemPick from '../neck/SystemPick.svelte';
  import type { ViewProps } from '../view';
  import { mapParts, type MapColumn } from './columns';
  import LayOver from './LayOver.svelte';
  import MapDrawing from './MapDrawing.svelte';
  import MapSheet from './MapSheet.svelte';

  let { workspace, page }: ViewProps = $props();

  /** The whole map as one sheet is drawn only to be saved. */
  let hasSheet = $state(false);
  let sheet: HTMLDivElement | undefined = $state();
  function drawSheet() {
    flushSync(() => (hasSheet = true));
    // It stays until the picture has been taken.
    setTimeout(() => (hasSheet = false), 4000);
    return sheet!.querySelector('svg')!;
  }
  const isTravelling = $derived(workspace.plan.decisions.some(({ position }) => position !== undefined));

  /** Columns of the first picture. */
  const drawn = new Deferred(4);
  let width = $state(930);
  let isFolded = $state(true);
  let isLaying = $state(false);
  let picked = $state(0);
  let over: { row: number; change: number } | null = $state(null);

  const parts = $derived(
    mapParts(
      workspace.changes,
      ({ index, symbol }) =>
        `${symbol} ${workspace.chosen[index]?.name} ${workspace.hand.hasOwnPosition(index) ? workspace.positions[index] : ''}`,
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
    over = { row, change: firstOf(column.changes).index };
  }

  /** Why a note of the selected change's shape is not where its system would have it. */
  const remark = $derived(workspace.arrangement.areas[workspace.selected]?.remark);

  /** Room for a label in a note, whatever the number of strings. */
  const stringGap = $derived(workspace.neck.strings.length > 6 ? 10.5 : 12);
  /** Parts that can be picked by buttons of their own. */
  const MOST_BUTTONS = 16;
</script>

<section class="min-w-0 card p-2.5 print:hidden" aria-label="Position map" bind:clientWidth={width}>
  <div class="mb-2 flex flex-wrap items-center gap-1.5 text-sm">
    {#if parts.length > MOST_BUTTONS}
      <Select
        label="Part of the chart"
        value={String(picked)}
        options={parts.map(({ title }, i) => ({ value: String(i), name: title }))}
        onpick={(at) => (picked = Number(at))}
      />
    {:else if parts.length > 1}
      <Toggles
        label="Part of the chart"
        value={String(picked)}
        options={parts.map(({ title }, i) => ({ value: String(i), name: title }))}
        onpick={(at) => (picked = Number(at))}
      />
    {/if}
    <SystemPick />
    <Button
      pressed={isLaying}
      hint="Click a cell to lay it over the one before it (O)"
      onclick={() => (isLaying = !isLaying)}><Layers size={15} /> lay over</Button
    >
    {#if isFoldable}
      <Button
        pressed={isFolded}
        hint="Show changes that say the same once"
        onclick={() => (isFolded = !isFolded)}>fold</Button
      >
    {/if}
    <div class="ml-auto flex flex-wrap gap-1.5">
      {#if isTravelling}
        <Button
          hint="Clear all painted positions"
          onclick={() => workspace.hand.settle(workspace.arrangement.home)}>back to one position</Button
        >
      {/if}
      <SaveDrawing of={drawSheet} size="normal" name="{workspace.document.title}, position map" />
      <Button label="Print the map" hint="Print the map on one page" onclick={() => page.print('map')}
        ><Printer size={15} /></Button
      >
    </div>
  </div>
  {#if part && workspace.map.length}
    <div class="overflow-x-auto">
      <MapDrawing
        {workspace}
        parts={[{ ...part, columns: part.columns.slice(0, drawn.count) }]}
        {columnWidth}
        {stringGap}
        isLive
        {isLaying}
        onlayover={layOver}
      />
    </div>
    <p class="mt-1 text-xs text-soft">
      ● new under the finger, ○ stays from the cell to its left; numbers are chord tones. Press a position's
      name to play the whole chart there; drag across the cells to give each change a position of its own.
    </p>
    {#if remark}<p class="text-xs text-soft">{remark}</p>{/if}
  {:else}
    <p class="p-6 text-soft">This neck is too short for an area of this system; choose another one.</p>
  {/if}
</section>
{#if over}<LayOver {workspace} bind:over />{/if}
{#if hasSheet}<div bind:this={sheet} aria-hidden="true"><MapSheet {workspace} /></div>{/if}
