<!--
  The neck on the stand: the hand and the coming one, as large as the room there is. Nothing here is dragged: a sleeve that
  brushes it changes nothing.
-->
<script lang="ts">
  import { areaLabel, positionName } from '$lib/core/neck/area';
  import type { Rehearsal } from '$lib/state/stand/rehearsal.svelte';
  import { settings } from '$lib/state/settings.svelte';
  import { Debounced } from '../kit/debounced.svelte';
  import Board from '../neck/Board.svelte';
  import { neckGeometry } from '../neck/geometry';
  import { stretchesOf, tellStrings, windowOf } from '../neck/hand';
  import HeardNote from '../neck/HeardNote.svelte';
  import SpokenNeck from '../neck/SpokenNeck.svelte';
  import UnderHand from '../neck/UnderHand.svelte';
  import { cropOf, firstString, gapIn, type Frets, type StandSizes } from './fit';

  interface Props {
    rehearsal: Rehearsal;
    sizes: StandSizes;
    width: number;
    height: number;
    /** The note that is heard now: MIDI number as it is written. */
    heard: number | null;
  }
  let { rehearsal, sizes, width, height, heard }: Props = $props();

  const workspace = $derived(rehearsal.picture.shown);
  const hides = $derived(rehearsal.picture.hides);
  const neck = $derived(workspace.neck);
  const strings = $derived(neck.strings.length);
  const change = $derived(rehearsal.picture.change?.source ?? workspace.change);
  const nextChange = $derived(rehearsal.picture.next?.source);
  const moment = $derived(change && workspace.moments[change.index]);
  const positionOf = (index: number) =>
    workspace.moments[index]?.area?.position ?? workspace.positions[index] ?? workspace.position;
  const position = $derived(change ? positionOf(change.index) : workspace.position);
  const nextPosition = $derived(nextChange ? positionOf(nextChange.index) : position);
  const moves = $derived(nextPosition !== position);
  const marks = $derived(
    (moment?.marks ?? []).filter(
      ({ degree }) => hides === 'nothing' || (hides === 'all but roots' && degree === '1')
    )
  );
  const targetOf = (index: number | undefined) =>
    hides === 'nothing' && index !== undefined ? workspace.paths.targets.get(index) : undefined;
  const target = $derived(targetOf(change?.index));
  const nextTarget = $derived(targetOf(nextChange?.index));
  const run = $derived(hides === 'nothing' ? rehearsal.picture.run.flatMap(({ place }) => place ?? []) : []);

  /** The frets of a hand with all that lies under it. */
  function reachOf(index: number): Frets {
    const at = positionOf(index);
    const frets = [
      Math.max(0, at),
      Math.min(neck.frets, at + neck.span - 1),
      ...(workspace.moments[index]?.marks ?? []).map(({ fret }) => fret),
      workspace.paths.targets.get(index)?.cell.fret ?? at
    ];
    return { from: Math.min(...frets), to: Math.max(...frets) };
  }
  const withRun = (frets: Frets): Frets => ({
    from: Math.min(frets.from, ...run.map(({ fret }) => fret)),
    to: Math.max(frets.to, ...run.map(({ fret }) => fret))
  });

  const gap = $derived(gapIn(height, strings, sizes));
  const open = $derived(sizes.degree * 1.8);
  const hands = $derived(
    (rehearsal.picture.now?.excerpt.changes ?? []).map(({ source }) => reachOf(source.index))
  );
  const crop = $derived(
    cropOf(
      {
        all: hands,
        now: withRun(reachOf(change?.index ?? 0)),
        coming: nextChange && moves ? reachOf(nextChange.index) : null
      },
      { width: width - open, gap, degree: sizes.degree, last: neck.frets }
    )
  );
  const first = $derived(Math.max(1, crop.from));
  const top = $derived(firstString(height, strings, gap, sizes));
  const geometry = $derived(
    neckGeometry({
      width,
      strings,
      from: crop.from,
      to: crop.to,
      stringGap: gap,
      top,
      bottom: Math.max(0, height - top - gap * (strings - 1)),
      open: crop.from <= 1 ? open : 8,
      leftHanded: settings.now.leftHanded
    })
  );
  /** Notes are as large as strings and frets let them be; their labels never smaller than can be read. */
  const fretWidth = $derived(Math.abs(geometry.wire(crop.to) - geometry.wire(crop.to - 1)));
  const scale = $derived(Math.min(2.6, gap / 28, fretWidth / 30));
  const isIn = ({ fret }: { readonly fret: number }) => fret >= crop.from && fret <= crop.to;
  const shownMarks = $derived(marks.filter(isIn));
  const [yTop, yBottom] = $derived([geometry.string(1), geometry.string(strings)]);
  const window = $derived(windowOf(geometry, neck, position));
  const comingWindow = $derived(windowOf(geometry, neck, nextPosition));
  const [left, right] = $derived(
    [geometry.wire(first - 1), geometry.wire(crop.to)].sort((a, b) => a - b) as [number, number]
  );
  const title = $derived(moment?.area ? areaLabel(moment.area) : positionName(position).words);
  const numbered = $derived(Array.from({ length: crop.to - first + 1 }, (_, i) => first + i));
  /** Of wood beside the outer strings. */
  const edge = $derived(gap / 2);

  const heldByWords = new Debounced(() => ({ count: strings, told: marks, target: target?.cell }));
  const spoken = $derived(tellStrings(heldByWords.value));
</script>

<section aria-label="Neck" class="h-full" data-neck-from={crop.from} data-neck-to={crop.to}>
  <svg
    {width}
    {height}
    viewBox="0 0 {width} {height}"
    class="block overflow-hidden select-none"
    role="img"
    aria-label="Neck in {title}"
  >
    <rect
      x={left}
      y={yTop - edge}
      width={right - left}
      height={yBottom - yTop + 2 * edge}
      fill="var(--wood)"
      rx="3"
    />
    {#each stretchesOf(geometry, neck, position) as stretch (stretch.x)}
      <rect
        x={stretch.x}
        y={yTop - edge}
        width={stretch.width}
        height={yBottom - yTop + 2 * edge}
        class="fill-lit"
        fill-opacity="0.45"
      />
    {/each}
    <rect
      x={window.x}
      y={yTop - edge - 3}
      width={window.width}
      height={yBottom - yTop + 2 * edge + 6}
      rx="8"
      class="fill-lit stroke-ink"
      stroke-width="2"
      data-hand={position}
    />
    <Board
      {geometry}
      {strings}
      from={first}
      to={crop.to}
      capo={isIn({ fret: neck.capo }) ? neck.capo : 0}
      isLarge
      numbers={sizes.fret}
      {numbered}
    />
    {#if moves && rehearsal.picture.isComing}
      <rect
        x={comingWindow.x}
        y={yTop - edge - 3}
        width={comingWindow.width}
        height={yBottom - yTop + 2 * edge + 6}
        rx="8"
        fill="none"
        class="stroke-next"
        stroke-width="4"
        stroke-dasharray="14 8"
        data-coming-hand={nextPosition}
      />
    {/if}
    {#if heard !== null}<HeardNote {neck} {geometry} {position} midi={heard} />{/if}
    {#if change}
      <UnderHand
        {workspace}
        {geometry}
        {position}
        marks={shownMarks}
        {target}
        {nextTarget}
        nextShows={rehearsal.picture.isComing || !rehearsal.transport.isPlaying ? 1 : 0.6}
        showsMoves={hides === 'nothing'}
        {scale}
        least={sizes.degree}
      />
    {/if}
    {#each run as { string, fret }, i (i)}
      <circle
        cx={geometry.finger(fret)}
        cy={geometry.string(string)}
        r={16 * scale}
        fill="none"
        class="stroke-ink"
        stroke-width={1.6 * scale}
        stroke-dasharray="4 4"
        data-run="{string}:{fret}"
      />
    {/each}
    {#if rehearsal.picture.lit}
      {@const { string, fret } = rehearsal.picture.lit}
      <circle
        cx={geometry.finger(fret)}
        cy={geometry.string(string)}
        r={19 * scale}
        fill="none"
        class="stroke-ink"
        stroke-width={3 + 2 * scale}
        data-lit="{string}:{fret}"
      />
    {/if}
    <text
      x={Math.min(right - 4, Math.max(left + 4, window.x + window.width / 2))}
      y={yBottom + edge + sizes.fret * 1.35}
      text-anchor="middle"
      font-size={sizes.fret}
      class="fill-ink font-bold"
      data-hand-name>{title}</text
    >
    {#if moves && rehearsal.picture.isComing && Math.abs(comingWindow.x - window.x) > sizes.fret * 7}
      <text
        x={Math.min(right - 4, Math.max(left + 4, comingWindow.x + comingWindow.width / 2))}
        y={yBottom + edge + sizes.fret * 1.35}
        text-anchor="middle"
        font-size={sizes.fret}
        class="fill-next font-bold">{positionName(nextPosition).words}</text
      >
    {/if}
  </svg>
  <SpokenNeck strings={spoken} />
</section>
