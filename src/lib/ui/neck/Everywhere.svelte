<!--
  The whole neck of one change: the collection with the borders of its areas, or one degree in every octave as stepping
  stones. Drawn into the neck.
-->
<script lang="ts">
  import { areasOf } from '$lib/core/neck/systems/registry';
  import type { Workspace } from '$lib/state/chart/workspace.svelte';
  import { settings } from '$lib/state/settings.svelte';
  import { borderOf } from '$lib/core/neck/area';
  import type { NeckGeometry } from './geometry';
  import NoteMark from './NoteMark.svelte';

  let { workspace, geometry }: { workspace: Workspace; geometry: NeckGeometry } = $props();

  const neck = $derived(workspace.neck);
  const marks = $derived(workspace.shownNeck.everywhere);
  const subject = $derived(workspace.arrangement.subjects[workspace.selected]);
  const areas = $derived(subject ? areasOf(neck, workspace.system, workspace.analysis.key, subject) : []);
  const isFinding = $derived(workspace.shownNeck.mode === 'find');
  const sought = $derived(workspace.shownNeck.degree);

  const bottom = $derived(geometry.string(neck.strings.length));
  /** The border of a shape runs through its lowest notes, string by string; that of a hand's window is a fret wire. */
  const borders = $derived(
    areas.map((area) => {
      const isShape = area.box !== undefined || workspace.system.id === 'three';
      const wire = geometry.wire(Math.max(0, area.position - 1));
      const points = isShape
        ? borderOf(area).map(({ string, fret }) => [geometry.finger(fret), geometry.string(string)])
        : [
            [wire, geometry.string(1) - 8],
            [wire, bottom + 8]
          ];
      return { area, isShape, line: points.map(([x, y]) => `${x},${y}`).join(' ') };
    })
  );
</script>

{#if !isFinding}
  {#each borders as { area, isShape, line } (area.anchor)}
    <polyline
      points={line}
      fill="none"
      class="stroke-next"
      stroke-width={isShape ? 9 : 5}
      stroke-linejoin="round"
      stroke-opacity="0.3"
    />
    <text
      x={geometry.finger(area.anchor)}
      y={bottom + 24}
      text-anchor="middle"
      font-size="11"
      class="fill-next font-bold"
      data-area={area.anchor}>{area.name.words}</text
    >
  {/each}
{/if}
{#each marks as mark (`${mark.string}:${mark.fret}`)}
  {@const x = geometry.finger(mark.fret)}
  {@const y = geometry.string(mark.string)}
  {#if isFinding && mark.degree === sought}
    <g data-found="{mark.string}:{mark.fret}">
      <NoteMark {x} {y} role="target" label={settings.label(mark)} />
    </g>
  {:else}
    <g opacity={isFinding ? 0.22 : 1} data-cell="{mark.string}:{mark.fret}" data-degree={mark.degree}>
      <NoteMark {x} {y} role={mark.role} label={isFinding ? '' : settings.label(mark)} scale={0.86} />
    </g>
  {/if}
{/each}
