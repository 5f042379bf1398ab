<!-- The moment on paper: the change that is selected on the whole neck, then every change as a small neck. -->
<script lang="ts">
  import { nth } from '$lib/core/base/list';
  import { prettyDegree, prettyProse } from '$lib/core/theory/typeset';
  import { settings } from '$lib/state/settings.svelte';
  import type { Workspace } from '$lib/state/chart/workspace.svelte';
  import ChordSymbol from '../chord/ChordSymbol.svelte';
  import Paper from '../export/Paper.svelte';
  import HandCard from '../hands/HandCard.svelte';
  import Board from '../neck/Board.svelte';
  import { neckGeometry } from '../neck/geometry';
  import UnderHand from '../neck/UnderHand.svelte';

  let { workspace }: { workspace: Workspace } = $props();

  const neck = $derived(workspace.neck);
  const strings = $derived(neck.strings.length);
  const geometry = $derived(
    neckGeometry({
      width: 700,
      strings,
      from: 0,
      to: neck.frets,
      stringGap: 24,
      top: 26,
      bottom: 18,
      open: 30,
      leftHanded: settings.now.leftHanded
    })
  );
  const choice = $derived(workspace.chosen[workspace.selected]);
  const target = $derived(workspace.paths.targets.get(workspace.selected));
  const nextTarget = $derived(
    workspace.nextIndex === null ? undefined : workspace.paths.targets.get(workspace.nextIndex)
  );
  const next = $derived(workspace.nextIndex === null ? undefined : workspace.changes[workspace.nextIndex]);
</script>

<Paper {workspace} says="{workspace.system.title.toLowerCase()}, position {workspace.position}">
  {#if workspace.change}
    <p class="now">
      <span class="chord"><ChordSymbol symbol={workspace.change.symbol} /></span>
      bar {workspace.change.bar}
      {#if choice}· {settings.collection(choice)}{/if}
      {#if target}· land on the {prettyDegree(target.cell.degree)}
        {settings.note(target.cell.note)}, string {target.cell.string}, fret {target.cell.fret}{/if}
      {#if next}· then <ChordSymbol symbol={next.symbol} />{/if}
    </p>
    <svg class="neck" viewBox="0 0 {geometry.width} {geometry.height}" aria-hidden="true">
      <Board {geometry} {strings} from={1} to={neck.frets} capo={neck.capo} isLarge />
      <UnderHand
        {workspace}
        {geometry}
        position={workspace.hands[workspace.selected] ?? workspace.position}
        marks={workspace.moment?.marks ?? []}
        {target}
        {nextTarget}
        nextShows={1}
        showsMoves
      />
    </svg>
    {#if choice}<p class="why">{prettyProse(choice.why)}</p>{/if}
  {/if}
  <div class="hands">
    {#each workspace.moments as moment (moment.change.index)}
      <div class="card px-1 pt-0.5 pb-1">
        <HandCard
          {moment}
          {neck}
          wanted={nth(workspace.positions, moment.change.index)}
          target={workspace.paths.targets.get(moment.change.index)}
          width={104}
        />
      </div>
    {/each}
  </div>
</Paper>

<style>
  .now {
    font-size: 3.6mm;
  }

  .chord {
    margin-right: 2mm;
    font-size: 7mm;
  }

  .neck {
    width: 190mm;
    height: auto;
  }

  .why {
    margin-bottom: 3mm;
    font-size: 3mm;
    color: var(--soft);
  }

  .hands {
    display: flex;
    flex-wrap: wrap;
    gap: 2mm;
  }

  .hands > div {
    break-inside: avoid;
  }
</style>
