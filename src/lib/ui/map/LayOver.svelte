<!-- Two neighbouring cells of the position map over one another: what stays under the finger, what goes, what comes. -->
<script lang="ts">
  import ChevronLeft from '@lucide/svelte/icons/chevron-left';
  import ChevronRight from '@lucide/svelte/icons/chevron-right';
  import type { Workspace } from '$lib/state/chart/workspace.svelte';
  import { settings } from '$lib/state/settings.svelte';
  import { placeOf, type Area } from '$lib/core/neck/area';
  import { sayCell } from '$lib/core/neck/shape';
  import ChordSymbol from '../chord/ChordSymbol.svelte';
  import Button from '../kit/Button.svelte';
  import Dialog from '../kit/Dialog.svelte';
  import { neckGeometry } from '../neck/geometry';
  import MiniNeck from '../neck/MiniNeck.svelte';
  import ShareMark from '../neck/ShareMark.svelte';

  interface Props {
    workspace: Workspace;
    over: { row: number; change: number } | null;
  }
  let { workspace, over = $bindable() }: Props = $props();

  const count = $derived(workspace.changes.length);
  const to = $derived(over?.change ?? 0);
  const from = $derived((to - 1 + count) % count);
  const row = $derived(workspace.map[over?.row ?? 0]);
  const [first, second] = $derived([row?.areas[from] ?? null, row?.areas[to] ?? null]);
  const cells = $derived([...(first?.cells ?? []), ...(second?.cells ?? [])]);
  const pressed = $derived(cells.map(({ fret }) => fret).filter((fret) => fret > 0));
  const low = $derived(Math.max(1, Math.min(...pressed) - 1));
  const high = $derived(Math.min(workspace.neck.frets, Math.max(...pressed, low + 4) + 1));
  const strings = $derived(workspace.neck.strings.length);
  const geometry = $derived(
    neckGeometry({
      width: 640,
      strings,
      from: low,
      to: high,
      stringGap: 36,
      top: 22,
      bottom: 38,
      open: low === 1 ? 34 : 12,
      leftHanded: settings.now.leftHanded
    })
  );
  const only = (area: Area | null, other: Area | null) => {
    const held = new Set(other?.cells.map(placeOf));
    return (area?.cells ?? []).filter((cell) => !held.has(placeOf(cell)));
  };
  const leaving = $derived(only(first, second));
  const coming = $derived(only(second, first));
  const kept = $derived((second?.cells ?? []).filter((cell) => !coming.includes(cell)));
  /** From each note that goes to the nearest one that comes, where that is under two frets away on its string. */
  const strokes = $derived(
    leaving.flatMap((cell) => {
      const near = coming
        .filter(({ string, fret }) => string === cell.string && Math.abs(fret - cell.fret) <= 2)
        .sort((a, b) => Math.abs(a.fret - cell.fret) - Math.abs(b.fret - cell.fret))[0];
      return near ? [{ cell, near }] : [];
    })
  );

  function walk(step: number) {
    if (over) over = { ...over, change: (to + step + count) % count };
  }
</script>

<Dialog bind:open={() => over !== null, (open) => !open && (over = null)} title="One shape over the next">
  <p class="flex flex-wrap items-baseline gap-x-3 text-xl">
    <ChordSymbol symbol={workspace.changes[from]?.symbol ?? ''} />
    <span class="text-soft">into</span>
    <ChordSymbol symbol={workspace.changes[to]?.symbol ?? ''} />
    <span class="text-base text-soft"
      >{first ? first.name.words : 'nothing'} into {second ? second.name.words : 'nothing'}, {kept.length}
      stay,
      {coming.length} come</span
    >
  </p>
  <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
  <div class="mt-2 overflow-x-auto" role="group" aria-label="Both shapes, to be scrolled" tabindex="0">
    <svg width="640" height={geometry.height} class="block" role="img" aria-label="Both shapes laid over">
      <MiniNeck {geometry} {strings} from={low} to={high} notes={[]} numbers={12} />
      {#each strokes as { cell, near } (placeOf(cell))}
        <line
          x1={geometry.finger(cell.fret)}
          x2={geometry.finger(near.fret)}
          y1={geometry.string(cell.string)}
          y2={geometry.string(near.string)}
          class="stroke-next"
          stroke-width="3"
        />
      {/each}
      {#each [...leaving.map( (cell) => ({ cell, share: 'first' as const }) ), ...kept.map( (cell) => ({ cell, share: 'both' as const }) ), ...coming.map( (cell) => ({ cell, share: 'second' as const }) )] as { cell, share } (placeOf(cell) + share)}
        <g data-cell={placeOf(cell)} data-share={share}>
          <ShareMark
            x={geometry.finger(cell.fret)}
            y={geometry.string(cell.string)}
            {share}
            isLeaving
            label={settings.label(cell)}
          />
        </g>
      {/each}
    </svg>
  </div>
  <p class="mt-2 text-sm text-soft">
    Filled: stays under the finger. Dashed square: goes. Diamond: comes. Degrees are counted against the chord
    each note belongs to.
  </p>
  <p class="sr-only">
    Stays: {kept.map(sayCell).join('; ') || 'none'}. Goes: {leaving.map(sayCell).join('; ') || 'none'}. Comes: {coming
      .map(sayCell)
      .join('; ') || 'none'}.
  </p>
  {#snippet actions()}
    <Button onclick={() => walk(-1)}><ChevronLeft size={16} /> earlier</Button>
    <Button class="mr-auto" onclick={() => walk(1)}>later <ChevronRight size={16} /></Button>
  {/snippet}
</Dialog>
