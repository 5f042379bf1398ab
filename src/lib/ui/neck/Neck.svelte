<!--
  The whole fretboard: the hand's window lit, this change's notes by role, the next change's target as a ghost, and a
  stroke from each chord tone to where it moves. The window drags along the neck.
-->
<script lang="ts">
  import type { Workspace } from '$lib/state/workspace.svelte';
  import { settings } from '$lib/state/settings.svelte';
  import { tonesElsewhere } from '$lib/core/moment/moment';
  import { sayCell } from '$lib/core/neck/shape';
  import { prettyDegree } from '$lib/core/theory/degree';
  import { stepWords } from '../threads/layout';
  import { DOUBLE_INLAYS, INLAYS, neckGeometry } from './geometry';
  import { dragByTouch } from '../kit/touch';
  import SaveDrawing from '../export/SaveDrawing.svelte';
  import Everywhere from './Everywhere.svelte';
  import NeckModes from './NeckModes.svelte';
  import NoteMark from './NoteMark.svelte';
  import Organise from './Organise.svelte';
  import ShareMark from './ShareMark.svelte';

  interface Props {
    workspace: Workspace;
    /** Large, for the stand, without the tools above it. */
    isStand?: boolean;
    /** What is left out, to test memory. */
    hides?: 'nothing' | 'all but roots' | 'everything';
    /** The note of a drill that sounds. */
    lit?: { readonly string: number; readonly fret: number } | null;
    /** How far the next target has come up, 0 to 1. */
    nextShows?: number;
  }
  let { workspace, isStand = false, hides = 'nothing', lit = null, nextShows = 1 }: Props = $props();

  let width = $state(940);
  let dragging: { from: number; grip: number } | null = $state(null);

  /** Six strings at ease; more of them move together, fewer keep their distance. */
  const GAP = $derived(
    Math.min(isStand ? 38 : 29, (isStand ? 190 : 145) / (workspace.neck.strings.length - 1))
  );
  /** Of the card around the drawing, left and right. */
  const PADDING = 8;
  /** A neck narrower than this cannot be read: on a phone it scrolls, the hand in sight. */
  const NARROWEST = 620;
  let scroller: HTMLDivElement | undefined = $state();
  const neck = $derived(workspace.neck);
  /** Where the hand is: at the area of the moment, which may start beside the position asked for. */
  const position = $derived(workspace.moment?.area?.position ?? workspace.position);
  const geometry = $derived(
    neckGeometry({
      width: Math.max(NARROWEST, width - 2 * PADDING),
      strings: neck.strings.length,
      from: 0,
      to: neck.frets,
      stringGap: GAP,
      top: 28,
      bottom: 40,
      open: 34,
      leftHanded: settings.now.leftHanded
    })
  );
  const bottom = $derived(geometry.string(neck.strings.length));
  const frets = $derived(Array.from({ length: neck.frets }, (_, i) => i + 1));

  let drawing: SVGSVGElement | undefined = $state();
  const area = $derived(workspace.moment?.area);
  /** What the player should know about the shape. */
  const said = $derived([area?.remark, area?.caution].filter(Boolean).join(' '));

  const marks = $derived(
    (workspace.moment?.marks ?? []).filter(
      ({ degree }) => hides === 'nothing' || (hides === 'all but roots' && degree === '1')
    )
  );
  const target = $derived(hides === 'nothing' ? workspace.targets.get(workspace.selected) : undefined);
  const nextTarget = $derived(
    hides !== 'nothing' || workspace.nextIndex === null
      ? undefined
      : workspace.targets.get(workspace.nextIndex)
  );
  const far = $derived(
    workspace.change?.chord
      ? tonesElsewhere(workspace.change.chord, neck, position - 1, position + neck.span)
      : []
  );
  const lead = $derived(
    (workspace.nextIndex === null ? undefined : workspace.approachInto.get(workspace.nextIndex)) ?? []
  );
  const isTarget = (cell: { string: number; fret: number }) =>
    target?.cell.string === cell.string && target.cell.fret === cell.fret;
  const targetIsMarked = $derived(marks.some(isTarget));
  const ghostCovered = $derived(
    marks.some(
      (mark) =>
        mark.string === nextTarget?.cell.string && mark.fret === nextTarget.cell.fret && mark.role !== 'other'
    )
  );

  /** From one cell to another, leaving out the discs at both ends. */
  function stroke(
    from: { string: number; fret: number },
    to: { string: number; fret: number },
    startGap: number,
    endGap: number
  ) {
    const [x1, y1] = [geometry.finger(from.fret), geometry.string(from.string)];
    const [x2, y2] = [geometry.finger(to.fret), geometry.string(to.string)];
    const length = Math.hypot(x2 - x1, y2 - y1);
    if (length <= startGap + endGap) return null;
    const [ux, uy] = [(x2 - x1) / length, (y2 - y1) / length];
    return {
      x1: x1 + ux * startGap,
      y1: y1 + uy * startGap,
      x2: x2 - ux * endGap,
      y2: y2 - uy * endGap,
      ux,
      uy
    };
  }

  /** The target's tail: broad where it starts, pointed where it goes. */
  const tail = $derived.by(() => {
    if (!target || !nextTarget || nextTarget.cell.midi === target.cell.midi) return null;
    const line = stroke(target.cell, nextTarget.cell, 8, 15);
    if (!line) return null;
    const [nx, ny] = [-line.uy * 6.5, line.ux * 6.5];
    return `M${line.x1 + nx} ${line.y1 + ny}L${line.x2} ${line.y2}L${line.x1 - nx} ${line.y1 - ny}Z`;
  });

  function startDrag(event: PointerEvent) {
    const box = (event.currentTarget as SVGElement).ownerSVGElement!.getBoundingClientRect();
    (event.currentTarget as Element).setPointerCapture(event.pointerId);
    dragging = { from: workspace.position, grip: geometry.fretAt(event.clientX - box.left) };
  }

  function drag(event: PointerEvent) {
    if (!dragging) return;
    const box = (event.currentTarget as SVGElement).ownerSVGElement!.getBoundingClientRect();
    workspace.moveTo(dragging.from + geometry.fretAt(event.clientX - box.left) - dragging.grip);
  }

  function slide(event: KeyboardEvent) {
    const step = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1, PageUp: 4, PageDown: -4 }[
      event.key
    ];
    const end = { Home: workspace.lowestPosition, End: workspace.highestPosition }[event.key];
    if (step === undefined && end === undefined) return;
    event.preventDefault();
    workspace.moveTo(end ?? workspace.position + step!);
  }

  const windowFrom = $derived(Math.max(0, position - 1));
  const handle = $derived.by(() => {
    const [a, b] = [
      position === 0 ? geometry.finger(0) : geometry.wire(windowFrom),
      geometry.wire(Math.min(position + neck.span - 1, neck.frets))
    ];
    return { x: Math.min(a, b), width: Math.abs(b - a) };
  });
  $effect(() => {
    const { x, width: room } = handle;
    if (!scroller || scroller.scrollWidth <= scroller.clientWidth) return;
    const { scrollLeft, clientWidth } = scroller;
    if (x - 30 < scrollLeft || x + room + 30 > scrollLeft + clientWidth) {
      scroller.scrollTo({ left: x + room / 2 - clientWidth / 2, behavior: 'instant' });
    }
  });
  const stretches = $derived(
    [position - 1, position + neck.span]
      .filter((fret) => fret >= 1 && fret <= neck.frets)
      .map((fret) => {
        const [a, b] = [geometry.wire(fret - 1), geometry.wire(fret)];
        return { fret, x: Math.min(a, b), width: Math.abs(b - a) };
      })
  );

  /** The drawing in words, string by string: what is under the hand, on the whole neck, or the degree looked for. */
  const told = $derived(
    workspace.neckMode === 'hand'
      ? marks
      : workspace.everywhere.filter(
          ({ degree }) => workspace.neckMode === 'whole' || degree === workspace.soughtDegree
        )
  );
  const spoken = $derived(
    neck.strings.map((_, i) => ({
      string: i + 1,
      notes: told
        .filter((mark) => mark.string === i + 1)
        .map(
          (mark) =>
            `${sayCell(mark)}${isTarget(mark) ? ', target' : mark.role === 'chord' ? '' : `, ${mark.role}`}`
        )
    }))
  );
</script>

<section class="min-w-0 card px-2 pt-1" aria-label="Neck" bind:clientWidth={width}>
  <div class="flex min-h-7 flex-wrap items-center gap-x-3 gap-y-1 px-1" class:hidden={isStand}>
    <NeckModes {workspace} />
    <Organise />
    <p class="min-w-0 flex-1 truncate text-right text-[11.5px] text-soft" title={said}>{said}</p>
    <SaveDrawing of={() => drawing} name="{workspace.title}, {workspace.change?.symbol ?? 'neck'}" />
  </div>
  <div class="relative overflow-x-auto overflow-y-hidden" bind:this={scroller}>
    <svg
      bind:this={drawing}
      {@attach dragByTouch()}
      width={geometry.width}
      height={geometry.height}
      class="block select-none"
      role="group"
      aria-label="Neck in position {position}"
    >
      <!-- Wood, hand window and stretches -->
      <rect
        x={Math.min(geometry.wire(0), geometry.wire(neck.frets))}
        y={geometry.string(1) - 10}
        width={Math.abs(geometry.wire(neck.frets) - geometry.wire(0))}
        height={bottom - geometry.string(1) + 20}
        fill="var(--wood)"
        rx="3"
      />
      {#if workspace.neckMode !== 'whole'}
        {#each stretches as stretch (stretch.fret)}
          <rect
            x={stretch.x}
            y={geometry.string(1) - 10}
            width={stretch.width}
            height={bottom - geometry.string(1) + 20}
            class="fill-lit"
            opacity="0.45"
          />
        {/each}
        <rect
          x={handle.x}
          y={geometry.string(1) - 14}
          width={handle.width}
          height={bottom - geometry.string(1) + 28}
          rx="6"
          class="fill-lit stroke-ink"
          stroke-width="1.5"
        />
      {/if}

      <!-- Frets, inlays, strings -->
      {#each frets as fret (fret)}
        <line
          x1={geometry.wire(fret)}
          x2={geometry.wire(fret)}
          y1={geometry.string(1) - 10}
          y2={bottom + 10}
          stroke="var(--string)"
          opacity="0.55"
        />
        {#if INLAYS.includes(fret)}
          {#each DOUBLE_INLAYS.includes(fret) ? [1.5, 3.5] : [2.5] as at (at)}
            <circle
              cx={geometry.finger(fret)}
              cy={geometry.string(1) + (at * GAP * (neck.strings.length - 1)) / 5}
              r="4"
              fill="var(--string)"
              opacity="0.28"
            />
          {/each}
          <text x={geometry.finger(fret)} y={10} text-anchor="middle" font-size="11" class="fill-soft"
            >{fret}</text
          >
        {/if}
      {/each}
      <line
        x1={geometry.wire(0)}
        x2={geometry.wire(0)}
        y1={geometry.string(1) - 10}
        y2={bottom + 10}
        class="stroke-ink"
        stroke-width="4"
      />
      {#each neck.strings as _, i (i)}
        <line
          x1={geometry.wire(0)}
          x2={geometry.wire(neck.frets)}
          y1={geometry.string(i + 1)}
          y2={geometry.string(i + 1)}
          stroke="var(--string)"
          stroke-width={0.8 + i * 0.28}
        />
      {/each}

      {#if neck.capo > 0}
        <rect
          x={geometry.finger(neck.capo) - 4}
          y={geometry.string(1) - 12}
          width="8"
          height={bottom - geometry.string(1) + 24}
          rx="4"
          class="fill-ink"
          data-capo={neck.capo}
        />
      {/if}

      {#if workspace.neckMode === 'hand'}
        <!-- Chord tones elsewhere, only hinted -->
        {#each far as tone (`${tone.string}-${tone.fret}`)}
          <circle
            cx={geometry.finger(tone.fret)}
            cy={geometry.string(tone.string)}
            r={tone.degree.endsWith('3') ? 5 : 3.5}
            class="fill-tone"
            opacity="0.3"
            data-far="{tone.string}:{tone.fret}"
          />
        {/each}

        <!-- Where the other chord tones go -->
        {#each workspace.moves as move (move.from.midi)}
          {#if !isTarget(move.from)}
            {@const line = move.semitones === 0 ? null : stroke(move.from, move.to, 10, 4)}
            {#if line}
              <line
                x1={line.x1}
                y1={line.y1}
                x2={line.x2}
                y2={line.y2}
                class="stroke-next"
                stroke-width="2"
                stroke-linecap="round"
                opacity="0.75"
                data-move={stepWords(move.semitones)}
              />
              <circle
                cx={geometry.finger(move.to.fret)}
                cy={geometry.string(move.to.string)}
                r="3.2"
                class="fill-next"
                opacity="0.75"
              />
            {:else if move.semitones === 0}
              <line
                x1={geometry.finger(move.from.fret) - 7}
                x2={geometry.finger(move.from.fret) + 7}
                y1={geometry.string(move.from.string) + 14}
                y2={geometry.string(move.from.string) + 14}
                class="stroke-next"
                stroke-width="2"
                opacity="0.75"
                data-move="stays"
              />
            {/if}
          {/if}
        {/each}

        {#if tail}<path d={tail} class="fill-target" data-tail />{/if}

        <!-- The next target, a ghost -->
        {#if nextTarget}
          <g data-ghost="{nextTarget.cell.string}:{nextTarget.cell.fret}" opacity={nextShows}>
            <circle
              cx={geometry.finger(nextTarget.cell.fret)}
              cy={geometry.string(nextTarget.cell.string)}
              r={ghostCovered || nextTarget.cell.midi === target?.cell.midi ? 17.5 : 13}
              fill="none"
              class="stroke-next"
              stroke-width="2"
            />
            {#if !ghostCovered}
              <text
                x={geometry.finger(nextTarget.cell.fret)}
                y={geometry.string(nextTarget.cell.string) - 3}
                text-anchor="middle"
                font-size="10"
                class="fill-next font-bold"
              >
                {prettyDegree(nextTarget.cell.degree)}
              </text>
            {/if}
          </g>
        {/if}

        {#if workspace.comparison}
          {#each workspace.comparison as cell (cell.midi)}
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
          {#each marks as mark (mark.midi)}
            <g
              data-cell="{mark.string}:{mark.fret}"
              data-note={mark.note}
              data-degree={mark.degree}
              data-role={isTarget(mark) ? 'target' : mark.role}
              data-finger={mark.finger}
            >
              <NoteMark
                x={geometry.finger(mark.fret)}
                y={geometry.string(mark.string)}
                role={isTarget(mark) ? 'target' : mark.role}
                label={settings.label(mark)}
              />
            </g>
          {/each}
        {/if}
        <!-- What leads into the next target: pointed towards it -->
        {#each lead as note (note.beat)}
          {@const x = geometry.finger(note.fret)}
          {@const y = geometry.string(note.string)}
          {@const way = nextTarget && geometry.finger(nextTarget.cell.fret) < x ? -1 : 1}
          <g data-approach={note.kind} data-at="{note.string}:{note.fret}">
            <path
              d="M{x - way * 11} {y - 11}L{x + way * 13} {y}L{x - way * 11} {y + 11}Z"
              class="fill-surface stroke-target"
              stroke-width="2.2"
              stroke-linejoin="round"
            />
            <text x={x - way * 3} y={y + 3.6} text-anchor="middle" font-size="9.5" class="fill-ink font-bold"
              >{settings.label(note)}</text
            >
          </g>
        {/each}
        {#if target && !targetIsMarked && !workspace.comparison}
          <NoteMark
            x={geometry.finger(target.cell.fret)}
            y={geometry.string(target.cell.string)}
            role="target"
            label={settings.label(target.cell)}
          />
        {/if}
        {#if target && nextTarget && target.cell.midi === nextTarget.cell.midi}
          <line
            x1={geometry.finger(target.cell.fret) - 11}
            x2={geometry.finger(target.cell.fret) + 11}
            y1={geometry.string(target.cell.string) + 20}
            y2={geometry.string(target.cell.string) + 20}
            class="stroke-target"
            stroke-width="4"
            stroke-linecap="round"
            data-stays
          />
        {/if}
      {:else}
        <Everywhere {workspace} {geometry} />
      {/if}

      {#if workspace.neckMode !== 'whole'}
        {#if lit}
          <g data-lit="{lit.string}:{lit.fret}">
            <circle
              cx={geometry.finger(lit.fret)}
              cy={geometry.string(lit.string)}
              r="19"
              fill="none"
              class="stroke-target"
              stroke-width="4"
            />
            <circle cx={geometry.finger(lit.fret)} cy={geometry.string(lit.string)} r="6" class="fill-ink" />
          </g>
        {/if}

        <!-- The handle that moves the window -->
        <g
          role="slider"
          tabindex="0"
          aria-label="Position of the hand"
          aria-valuemin={workspace.lowestPosition}
          aria-valuemax={workspace.highestPosition}
          aria-valuenow={workspace.position}
          aria-valuetext="{area?.title ?? `Position ${position}`}, frets {position} to {position +
            neck.span -
            1}"
          data-drag
          class="cursor-grab"
          onpointerdown={startDrag}
          onpointermove={drag}
          onpointerup={() => (dragging = null)}
          onpointercancel={() => (dragging = null)}
          onkeydown={slide}
        >
          <rect x={handle.x - 4} y={bottom + 6} width={handle.width + 8} height="34" fill="transparent" />
          <rect x={handle.x} y={bottom + 16} width={handle.width} height="18" rx="9" class="fill-ink" />
          <text
            x={handle.x + handle.width / 2}
            y={bottom + 29}
            text-anchor="middle"
            font-size="11.5"
            class="fill-paper font-bold"
          >
            ‹ {area && area.title !== `position ${position}`
              ? `${area.title} · ${position}`
              : `position ${position}`} ›
          </text>
        </g>
      {/if}
    </svg>
  </div>
  <div class="sr-only">
    <h2>Notes on the neck by string</h2>
    <ul>
      {#each spoken as { string, notes } (string)}
        <li>String {string}: {notes.length ? notes.join('; ') : 'no note'}</li>
      {/each}
    </ul>
  </div>
</section>
