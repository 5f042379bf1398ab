<!--
  The whole fretboard: the hand's window lit, what lies under it at the moment of change, or the whole neck of one
  change. The window drags along the neck; every note is also told in words, string by string.
-->
<script lang="ts" module>
  import { Part } from '../app/part';

  const systemPickPart = new Part(() => import('./SystemPick.svelte'));
  const saveDrawingPart = new Part(() => import('../export/SaveDrawing.svelte'));
  const melodyEverywherePart = new Part(() => import('./MelodyEverywhere.svelte'));
  const everywherePart = new Part(() => import('./Everywhere.svelte'));
  const heardNotePart = new Part(() => import('./HeardNote.svelte'));
</script>

<script lang="ts">
  import { soundAt } from '$lib/core/neck/tuning';
  import { settings } from '$lib/state/settings.svelte';
  import type { Workspace } from '$lib/state/chart/workspace.svelte';
  import Arriving from '../app/Arriving.svelte';
  import { hear } from '../app/hear';
  import { ScrollWindow } from '../kit/scroll-window.svelte';
  import { dragByTouch } from '../kit/touch';
  import { Debounced } from '../kit/debounced.svelte';
  import Board from './Board.svelte';
  import { neckGeometry } from './geometry';
  import { stretchesOf, tellStrings, windowOf } from './hand';
  import HandHandle from './HandHandle.svelte';
  import NeckModes from './NeckModes.svelte';
  import SpokenNeck from './SpokenNeck.svelte';
  import UnderHand from './UnderHand.svelte';

  interface Props {
    workspace: Workspace;
    /** Large, for the stand, without the tools above it. */
    isStand?: boolean;
    /** Nothing is dragged: the band plays, and sleeves brush it. */
    isStill?: boolean;
    /** The places of a run that is played over the change, in its order. */
    run?: readonly { readonly string: number; readonly fret: number }[];
    /** What is left out, to test memory. */
    hides?: 'nothing' | 'all but roots' | 'everything';
    /** The note of a drill that sounds. */
    lit?: { readonly string: number; readonly fret: number } | null;
    /** The note that is heard now: MIDI number as it is written. */
    heard?: number | null;
    /** Pixels that the strings take more than they need. */
    taller?: number;
  }
  let {
    workspace,
    isStand = false,
    isStill = false,
    run = [],
    hides = 'nothing',
    lit = null,
    heard = null,
    taller = 0
  }: Props = $props();

  /** Of the card around the drawing, left and right. */
  const PADDING = 8;
  /** A neck narrower than this cannot be read: on a phone it scrolls, the hand in sight. */
  const NARROWEST = 620;
  /** Above the first string, and below the last. */
  const TOP = 28;
  const BOTTOM = 46;
  let width = $state(940);
  const scroller = new ScrollWindow();
  let drawing: SVGSVGElement | undefined = $state();

  const neck = $derived(workspace.neck);
  const strings = $derived(neck.strings.length);
  /** Six strings at ease; more of them move together, fewer keep their distance. */
  const gap = $derived(
    (isStand ? Math.min(38, 190 / (strings - 1)) : Math.min(29, 145 / (strings - 1))) + taller / (strings - 1)
  );
  const area = $derived(workspace.moment?.area);
  /** Where the hand is: at the area of the moment, which may start beside the position asked for. */
  const position = $derived(area?.position ?? workspace.position);
  const geometry = $derived(
    neckGeometry({
      width: Math.max(NARROWEST, width - 2 * PADDING),
      strings,
      from: 0,
      to: neck.frets,
      stringGap: gap,
      top: TOP,
      bottom: BOTTOM,
      open: 34,
      leftHanded: settings.now.leftHanded
    })
  );
  const top = $derived(geometry.string(1));
  const bottom = $derived(geometry.string(strings));
  const window = $derived(windowOf(geometry, neck, position));
  const [nut, end] = $derived([geometry.wire(0), geometry.wire(neck.frets)]);
  /** A note that is touched is heard over the chord; keys hear the target with the change. */
  function soundsNotes(svg: SVGSVGElement) {
    svg.addEventListener('click', sound);
    return () => svg.removeEventListener('click', sound);
  }
  function sound(event: MouseEvent) {
    const cell = (event.target as Element).closest<SVGElement>('[data-cell]');
    const [string, fret] = (cell?.dataset.cell ?? '').split(':').map(Number);
    if (string && fret !== undefined && workspace.shownNeck.mode === 'hand' && !isStand) {
      void hear(workspace, { kind: 'note', midi: soundAt(neck, string, fret) });
    }
  }

  /** What the player should know about the shape. */
  const said = $derived([area?.remark, area?.caution].filter(Boolean).join(' '));

  const marks = $derived(
    (workspace.moment?.marks ?? []).filter(
      ({ degree }) => hides === 'nothing' || (hides === 'all but roots' && degree === '1')
    )
  );
  const targetOf = (change: number | null) =>
    hides === 'nothing' && change !== null ? workspace.paths.targets.get(change) : undefined;
  const target = $derived(targetOf(workspace.selected));
  const nextTarget = $derived(targetOf(workspace.nextIndex));

  // The hand stays in sight where the neck scrolls.
  $effect(() => {
    const { x, width: wide } = window;
    scroller.centre(x - 30, x + wide + 30);
  });

  /** The drawing in words, string by string: what is under the hand, on the whole neck, or the degree looked for. */
  const told = $derived(
    workspace.shownNeck.mode === 'hand'
      ? marks
      : workspace.shownNeck.everywhere.filter(
          ({ degree }) => workspace.shownNeck.mode === 'whole' || degree === workspace.shownNeck.degree
        )
  );
  const heldByWords = new Debounced(() => ({ count: strings, told, target: target?.cell }));
  const spoken = $derived(tellStrings(heldByWords.value));
</script>

<section class="min-w-0 card px-2 pt-1" aria-label="Neck" bind:clientWidth={width}>
  <div class="flex min-h-7 flex-wrap items-center gap-x-3 gap-y-1 px-1" class:hidden={isStand}>
    <NeckModes {workspace} />
    <Arriving isQuiet part={systemPickPart}
      >{#snippet children(SystemPick)}<SystemPick size="small" />{/snippet}</Arriving
    >
    <p
      class="line-clamp-2 min-w-40 flex-1 text-right text-2xs leading-3.5 text-soft"
      data-hint={said || undefined}
    >
      {said}
    </p>
    <Arriving isQuiet part={saveDrawingPart}
      >{#snippet children(SaveDrawing)}<SaveDrawing
          of={() => drawing}
          name="{workspace.document.title}, {workspace.change?.symbol ?? 'neck'}"
        />{/snippet}</Arriving
    >
  </div>
  <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
  <div
    class="relative overflow-x-auto overflow-y-hidden own-layer"
    role="group"
    aria-label="Neck, to be scrolled"
    tabindex="0"
    {@attach scroller.follow}
  >
    <svg
      bind:this={drawing}
      {@attach dragByTouch()}
      {@attach soundsNotes}
      width={geometry.width}
      height={geometry.height}
      viewBox="0 0 {geometry.width} {geometry.height}"
      class="block select-none"
      role="group"
      aria-label="Neck in position {position}"
    >
      <rect
        x={Math.min(nut, end)}
        y={top - 10}
        width={Math.abs(end - nut)}
        height={bottom - top + 20}
        fill="var(--wood)"
        rx="3"
      />
      {#if workspace.shownNeck.mode !== 'whole'}
        {#each stretchesOf(geometry, neck, position) as stretch (stretch.x)}
          <rect
            x={stretch.x}
            y={top - 10}
            width={stretch.width}
            height={bottom - top + 20}
            class="fill-lit"
            fill-opacity="0.45"
          />
        {/each}
        <rect
          x={window.x}
          y={top - 14}
          width={window.width}
          height={bottom - top + 28}
          rx="6"
          class="fill-lit stroke-ink"
          stroke-width="1.5"
        />
      {/if}
      <Board {geometry} {strings} from={1} to={neck.frets} capo={neck.capo} isLarge />

      {#if heard !== null}
        <Arriving isQuiet part={heardNotePart}
          >{#snippet children(HeardNote)}<HeardNote
              {neck}
              {geometry}
              {position}
              midi={heard}
            />{/snippet}</Arriving
        >
      {/if}
      {#if workspace.shownNeck.mode === 'hand'}
        <UnderHand
          {workspace}
          {geometry}
          {position}
          {marks}
          {target}
          {nextTarget}
          nextShows={1}
          showsMoves={hides === 'nothing'}
        />
      {:else if workspace.shownNeck.mode === 'melody'}
        <Arriving isQuiet part={melodyEverywherePart}
          >{#snippet children(MelodyEverywhere)}<MelodyEverywhere
              {workspace}
              {geometry}
            />{/snippet}</Arriving
        >
      {:else}
        <Arriving isQuiet part={everywherePart}
          >{#snippet children(Everywhere)}<Everywhere {workspace} {geometry} />{/snippet}</Arriving
        >
      {/if}

      {#if workspace.shownNeck.mode !== 'whole'}
        <!-- Where the run goes -->
        {#each hides === 'nothing' ? run : [] as { string, fret }, i (i)}
          <circle
            cx={geometry.finger(fret)}
            cy={geometry.string(string)}
            r="15.5"
            fill="none"
            class="stroke-ink"
            stroke-width="1.6"
            stroke-dasharray="2.5 3"
            data-run="{string}:{fret}"
          />
        {/each}
        {#if lit}
          <g data-lit="{lit.string}:{lit.fret}">
            <circle
              cx={geometry.finger(lit.fret)}
              cy={geometry.string(lit.string)}
              r="19"
              fill="none"
              class="stroke-ink"
              stroke-width="5"
            />
          </g>
        {/if}
        {#if !isStill}<HandHandle {workspace} {geometry} {window} {position} {bottom} />{/if}
      {/if}
    </svg>
  </div>
  <SpokenNeck strings={spoken} />
</section>
