<!-- The whole position map as one sheet, for paper and files: out of sight on the screen, alone on the page. -->
<script lang="ts">
  import type { Workspace } from '$lib/state/workspace.svelte';
  import { mapParts } from './columns';
  import Paper from '../export/Paper.svelte';
  import MapDrawing from './MapDrawing.svelte';

  let { workspace }: { workspace: Workspace } = $props();

  const COLUMN = 112;
  /** Height to width of what a page of A4 leaves inside its margins, below the title. */
  const PAGE = 262 / 190;
  const keyOf = ({ index, symbol }: { index: number; symbol: string }) =>
    `${symbol} ${workspace.chosen[index]?.name}`;
  const rows = $derived(
    workspace.map.filter(({ position }) => position < workspace.map[0]!.position + 12).length
  );
  /** As many columns side by side as fill the page best. */
  const parts = $derived.by(() => {
    const options = [4, 5, 6, 8, 10, 12, 14, 16].map((columns) => {
      const cut = mapParts(workspace.changes, keyOf, true, columns);
      const width = 88 + COLUMN * Math.max(1, ...cut.map((part) => part.columns.length));
      const height = cut.length * (48 + rows * (22 * workspace.neck.strings.length - 22 + 66) * 0.5);
      return { cut, scale: Math.min(1 / width, PAGE / height) };
    });
    return options.reduce((a, b) => (b.scale > a.scale ? b : a)).cut;
  });
</script>

<Paper {workspace} says="{workspace.system.title.toLowerCase()}; filled notes are new, open ones stay">
  <div class="map"><MapDrawing {workspace} {parts} columnWidth={COLUMN} isOneOctave /></div>
</Paper>

<style>
  .map {
    break-inside: avoid;
  }

  @media print {
    .map :global(svg) {
      width: 190mm;
      height: auto;
      max-height: 262mm;
    }
  }
</style>
