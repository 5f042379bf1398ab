<!-- The handle under the neck that moves the hand: by drag, arrows, Home and End. -->
<script lang="ts">
  import { areaLabel } from '$lib/core/neck/area';
  import type { Workspace } from '$lib/state/chart/workspace.svelte';
  import type { NeckGeometry } from './geometry';
  import type { Stretch } from './hand';

  interface Props {
    workspace: Workspace;
    geometry: NeckGeometry;
    window: Stretch;
    /** Where the hand is. */
    position: number;
    bottom: number;
  }
  let { workspace, geometry, window, position, bottom }: Props = $props();

  let dragging: { from: number; grip: number } | null = $state(null);
  const area = $derived(workspace.moment?.area);
  const { lowestPosition, highestPosition } = $derived(workspace.arrangement);
  const span = $derived(workspace.neck.span);
  const title = $derived(area ? area.name.words : `position ${position}`);

  const fretUnder = (event: PointerEvent) => {
    const box = (event.currentTarget as SVGElement).ownerSVGElement!.getBoundingClientRect();
    // The drawing may be shown larger than it is laid out.
    return geometry.fretAt(((event.clientX - box.left) * geometry.width) / box.width);
  };

  function start(event: PointerEvent) {
    (event.currentTarget as Element).setPointerCapture(event.pointerId);
    dragging = { from: workspace.position, grip: fretUnder(event) };
  }

  function drag(event: PointerEvent) {
    if (dragging) workspace.hand.moveTo(dragging.from + fretUnder(event) - dragging.grip);
  }

  const drop = () => (dragging = null);

  function slide(event: KeyboardEvent) {
    const step = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1, PageUp: 4, PageDown: -4 }[
      event.key
    ];
    const end = { Home: lowestPosition, End: highestPosition }[event.key];
    if (step === undefined && end === undefined) return;
    event.preventDefault();
    workspace.hand.moveTo(end ?? workspace.position + step!);
  }
</script>

<g
  role="slider"
  tabindex="0"
  aria-label="Position of the hand"
  aria-valuemin={lowestPosition}
  aria-valuemax={highestPosition}
  aria-valuenow={workspace.position}
  aria-valuetext="{title}, frets {position} to {position + span - 1}"
  data-drag
  class="cursor-grab"
  onpointerdown={start}
  onpointermove={drag}
  onpointerup={drop}
  onpointercancel={drop}
  onkeydown={slide}
>
  <rect x={window.x - 4} y={bottom + 2} width={window.width + 8} height="44" fill="transparent" />
  <rect x={window.x} y={bottom + 16} width={window.width} height="20" rx="10" class="fill-ink" />
  <text
    x={window.x + window.width / 2}
    y={bottom + 30}
    text-anchor="middle"
    font-size="12"
    class="fill-paper font-bold">‹ {area ? areaLabel(area) : title} ›</text
  >
</g>
