<!--
  What lies under the hand at the moment of change: the notes by role, the target with its tail, the next target as a
  ghost, and a stroke from each chord tone to where it moves. Drawn into the neck.
-->
<script lang="ts">
  import { nth } from '$lib/core/base/list';
  import type { Mark } from '$lib/core/moment/moment';
  import { tonesElsewhere } from '$lib/core/moment/moment';
  import type { Target } from '$lib/core/targets/path';
  import { prettyDegree } from '$lib/core/theory/typeset';
  import { settings } from '$lib/state/settings.svelte';
  import type { Workspace } from '$lib/state/chart/workspace.svelte';
  import { placesOf, stepWords } from '../threads/layout';
  import { dotsPath, type NeckGeometry } from './geometry';
  import { strokeOf } from './hand';
  import NoteMark from './NoteMark.svelte';
  import ShareMark from './ShareMark.svelte';

  interface Props {
    workspace: Workspace;
    geometry: NeckGeometry;
    position: number;
    marks: readonly Mark[];
    target: Target | undefined;
    nextTarget: Target | undefined;
    /** How far the next target has come up, 0 to 1. */
    nextShows: number;
    /** Nothing of the change is hidden. */
    showsMoves: boolean;
    /** How much larger all of it is than at the desk, and the least height of a label, in pixels: for the stand. */
    scale?: number;
    least?: number;
  }
  let {
    workspace,
    geometry,
    position,
    marks,
    target,
    nextTarget,
    nextShows,
    showsMoves,
    scale = 1,
    least = 0
  }: Props = $props();

  /** What is said small falls away where it is read from afar. */
  const isAfar = $derived(least > 0);
  const small = $derived(Math.max(least, 11 * scale));

  const neck = $derived(workspace.neck);
  const comparison = $derived(workspace.choices.comparison);
  const far = $derived(
    workspace.change?.chord && showsMoves && !isAfar
      ? tonesElsewhere(workspace.change.chord, neck, position - 1, position + neck.span)
      : []
  );
  const lead = $derived(
    showsMoves && workspace.nextIndex !== null
      ? (workspace.paths.approachInto.get(workspace.nextIndex) ?? [])
      : []
  );
  const isTarget = (cell: { string: number; fret: number }) =>
    target?.cell.string === cell.string && target.cell.fret === cell.fret;
  const drawn = $derived.by(() => {
    const places = placesOf(marks);
    return marks.map((mark, i) => ({
      mark,
      place: nth(places, i),
      x: geometry.finger(mark.fret),
      y: geometry.string(mark.string),
      role: isTarget(mark) ? ('target' as const) : mark.role,
      label: settings.label(mark)
    }));
  });
  /** The other chord tones: where they go, and which of them stay. */
  const moves = $derived(showsMoves ? workspace.moves.filter(({ from }) => !isTarget(from)) : []);
  const going = $derived(
    moves.flatMap((move) => {
      const line =
        move.semitones === 0 ? null : strokeOf(geometry, move.from, move.to, 10 * scale, 4 * scale);
      return line ? [{ move, line }] : [];
    })
  );
  const staying = $derived(moves.filter(({ semitones }) => semitones === 0));
  const targetIsMarked = $derived(marks.some(isTarget));
  const stays = $derived(target !== undefined && target.cell.midi === nextTarget?.cell.midi);
  const ghostCovered = $derived(
    marks.some(
      (mark) =>
        mark.string === nextTarget?.cell.string && mark.fret === nextTarget.cell.fret && mark.role !== 'other'
    )
  );
  /** The target's tail: broad where it starts, pointed where it goes. */
  const tail = $derived.by(() => {
    if (!target || !nextTarget || stays) return null;
    const line = strokeOf(geometry, target.cell, nextTarget.cell, 8 * scale, 15 * scale);
    if (!line) return null;
    const [nx, ny] = [-line.uy * 6.5 * scale, line.ux * 6.5 * scale];
    return `M${line.x1 + nx} ${line.y1 + ny}L${line.x2} ${line.y2}L${line.x1 - nx} ${line.y1 - ny}Z`;
  });
</script>

<!-- By place in its list, not by cell: with the next change the drawing is moved rather than made anew. -->
<!-- Chord tones elsewhere, only hinted -->
<path
  d={dotsPath(geometry, far, ({ degree }) => (degree.endsWith('3') ? 5 : 3.5))}
  class="fill-tone"
  fill-opacity="0.4"
  data-far={far.length}
/>

<!-- Where the other chord tones go -->
{#each going as { move, line }, i (i)}
  <line
    x1={line.x1}
    y1={line.y1}
    x2={line.x2}
    y2={line.y2}
    class="stroke-next"
    stroke-width={2 * scale}
    stroke-linecap="round"
    stroke-opacity="0.75"
    data-move={stepWords(move.semitones)}
  />
  <circle
    cx={geometry.finger(move.to.fret)}
    cy={geometry.string(move.to.string)}
    r={3.2 * scale}
    class="fill-next"
    fill-opacity="0.75"
  />
{/each}
{#each staying as { from }, i (i)}
  <line
    x1={geometry.finger(from.fret) - 7 * scale}
    x2={geometry.finger(from.fret) + 7 * scale}
    y1={geometry.string(from.string) + 14 * scale}
    y2={geometry.string(from.string) + 14 * scale}
    class="stroke-next"
    stroke-width={2 * scale}
    stroke-opacity="0.75"
    data-move="stays"
  />
{/each}

{#if tail}<path d={tail} class="fill-target" data-tail />{/if}

<!-- The next target, a ghost -->
{#if nextTarget}
  {@const x = geometry.finger(nextTarget.cell.fret)}
  {@const y = geometry.string(nextTarget.cell.string)}
  <g data-ghost="{nextTarget.cell.string}:{nextTarget.cell.fret}" opacity={nextShows}>
    <circle
      cx={x}
      cy={y}
      r={(ghostCovered || stays ? 17.5 : 13) * scale}
      fill="none"
      class="stroke-next"
      stroke-width={2 * scale}
    />
    {#if !ghostCovered}
      <text
        {x}
        y={y + (isAfar ? small * 0.36 : -3)}
        text-anchor="middle"
        font-size={small}
        class="fill-next font-bold">{prettyDegree(nextTarget.cell.degree)}</text
      >
    {/if}
  </g>
{/if}

{#if comparison}
  {#each comparison as cell, i (i)}
    <g data-cell="{cell.string}:{cell.fret}" data-share={cell.share}>
      <ShareMark
        x={geometry.finger(cell.fret)}
        y={geometry.string(cell.string)}
        share={cell.share}
        label={settings.label(cell)}
      />
    </g>
  {/each}
{:else}
  {#each drawn as { mark, place, x, y, role, label } (place)}
    <g
      data-cell="{mark.string}:{mark.fret}"
      data-note={mark.note}
      data-degree={mark.degree}
      data-role={role}
      data-finger={mark.finger}
    >
      <NoteMark {x} {y} {role} {label} {scale} {least} />
    </g>
  {/each}
{/if}

<!-- What leads into the next target: pointed towards it -->
{#each lead as note, i (i)}
  {@const x = geometry.finger(note.fret)}
  {@const y = geometry.string(note.string)}
  {@const way = nextTarget && geometry.finger(nextTarget.cell.fret) < x ? -1 : 1}
  <g data-approach={note.kind} data-at="{note.string}:{note.fret}">
    <path
      d="M{x - way * 11 * scale} {y - 11 * scale}L{x + way * 13 * scale} {y}L{x - way * 11 * scale} {y +
        11 * scale}Z"
      class="fill-surface stroke-target"
      stroke-width={2.2 * scale}
      stroke-linejoin="round"
    />
    {#if !isAfar}
      <text x={x - way * 3} y={y + 3.6} text-anchor="middle" font-size="10" class="fill-ink font-bold"
        >{settings.label(note)}</text
      >
    {/if}
  </g>
{/each}
{#if target && !targetIsMarked && !comparison}
  <NoteMark
    x={geometry.finger(target.cell.fret)}
    y={geometry.string(target.cell.string)}
    role="target"
    label={settings.label(target.cell)}
    {scale}
    {least}
  />
{/if}
{#if target && stays}
  <line
    x1={geometry.finger(target.cell.fret) - 11 * scale}
    x2={geometry.finger(target.cell.fret) + 11 * scale}
    y1={geometry.string(target.cell.string) + 20 * scale}
    y2={geometry.string(target.cell.string) + 20 * scale}
    class="stroke-target"
    stroke-width={4 * scale}
    stroke-linecap="round"
    data-stays
  />
{/if}
