<!-- Blank necks, to be drawn on by hand: as many as fill the page, of the player's own guitar. -->
<script lang="ts">
  import { settings } from '$lib/state/settings.svelte';
  import type { Workspace } from '$lib/state/chart/workspace.svelte';
  import Paper from '../export/Paper.svelte';
  import Board from '../neck/Board.svelte';
  import { neckGeometry } from '../neck/geometry';
  import { PAPER } from './paper';

  let { workspace }: { workspace: Workspace } = $props();
  const NECKS = 7;
  const FRETS = 15;
  const strings = $derived(workspace.neck.strings.length);
  const geometry = $derived(
    neckGeometry({
      width: PAPER,
      strings,
      from: 0,
      to: FRETS,
      stringGap: 88 / (strings - 1),
      top: 14,
      bottom: 16,
      open: 24,
      leftHanded: settings.now.leftHanded
    })
  );
</script>

<Paper {workspace} says="blank necks">
  {#each { length: NECKS } as _, i (i)}
    <p>chord __________ scale __________________ position ______</p>
    <svg width={geometry.width} height={geometry.height} aria-hidden="true">
      <Board {geometry} {strings} from={1} to={FRETS} isLarge capo={workspace.neck.capo} />
    </svg>
  {/each}
</Paper>

<style>
  p {
    margin-top: 1mm;
    font-size: 3.2mm;
    color: var(--soft);
  }

  svg {
    display: block;
    break-inside: avoid;
  }
</style>
