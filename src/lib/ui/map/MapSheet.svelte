<!-- The whole position map as one sheet, for paper and files: out of sight on the screen, alone on the page. -->
<script lang="ts">
  import { firstOf } from '$lib/core/base/list';
  import type { Workspace } from '$lib/state/chart/workspace.svelte';
  import { mapParts } from './columns';
  import Paper from '../export/Paper.svelte';
  import MapDrawing from './MapDrawing.svelte';

  let { workspace }: { workspace: Workspace } = $props();

  /** Of the drawing, in its own units: columns, their labels and heads, gaps of strings and what is around them. */
  const [COLUMN, WIDEST] = [112, 240];
  const [STRING_GAP, TALLEST] = [11, 22];
  const [LABELS, HEADS, AROUND] = [90, 48, 33];
  /** Height to width of what a page of A4 leaves inside its margins, below the title. */
  const PAGE = 262 / 190;
  const keyOf = ({ index, symbol }: { index: number; symbol: string }) =>
    `${symbol} ${workspace.chosen[index]?.name}`;
  const rows = $derived(
    workspace.map.filter(({ position }) => position < firstOf(workspace.map).position + 12).length
  );
  const heightOf = (parts: number) =>
    parts * (HEADS + rows * ((workspace.neck.strings.length - 1) * STRING_GAP + AROUND));
  /** As many columns side by side as fill the page best. */
  const parts = $derived.by(() => {
    const options = [4, 5, 6, 8, 10, 12, 14, 16].map((columns) => {
      const cut = mapParts(workspace.changes, keyOf, true, columns);
      const width = LABELS + COLUMN * Math.max(1, ...cut.map((part) => part.columns.length));
      const height = heightOf(cut.length);
      return { cut, scale: Math.min(1 / width, PAGE / height) };
    });
    return options.reduce((a, b) => (b.scale > a.scale ? b : a)).cut;
  });
  const across = $derived(Math.max(1, ...parts.map(({ columns }) => columns.length)));
  /** Columns as wide as the page leaves beside what is that high, and strings as far apart as it leaves below what is that wide. */
  const column = $derived(
    Math.min(WIDEST, Math.max(COLUMN, (heightOf(parts.length) / PAGE - LABELS) / across))
  );
  const stringGap = $derived.by(() => {
    const height = (PAGE * (LABELS + across * column)) / parts.length - HEADS;
    return Math.min(
      TALLEST,
      Math.max(STRING_GAP, (height / rows - AROUND) / (workspace.neck.strings.length - 1))
    );
  });
</script>

<Paper {workspace} says="{workspace.system.title.toLowerCase()}; filled notes are new, open ones stay">
  <div class="map"><MapDrawing {workspace} {parts} columnWidth={column} {stringGap} isOneOctave /></div>
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
