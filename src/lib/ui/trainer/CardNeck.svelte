<!-- The neck of a card: tapped to answer, by keys too; after the answer what was right, wrong and missed, each by its own shape. -->
<script lang="ts">
  import { placeOf } from '$lib/core/neck/area';
  import { spots, type Instrument } from '$lib/core/neck/tuning';
  import type { Place, SolvedCell, Verdict } from '$lib/core/practice/trainer/card';
  import { prettyDegree } from '$lib/core/theory/typeset';
  import { settings } from '$lib/state/settings.svelte';
  import { INLAYS } from '../neck/geometry';

  interface Props {
    neck: Instrument;
    /** Frets that are shown, both in. */
    from: number;
    to: number;
    shown: readonly SolvedCell[];
    right: readonly SolvedCell[];
    tapped: readonly Place[];
    verdict: Verdict | null;
    /** Nothing is to be tapped. */
    isStill: boolean;
    /** Frets are not numbered: where the shape lies is the question. */
    isUnnumbered: boolean;
    ontap: (place: Place) => void;
    onsubmit: () => void;
  }
  let { neck, from, to, shown, right, tapped, verdict, isStill, isUnnumbered, ontap, onsubmit }: Props =
    $props();

  /** A finger finds a place of this size; a larger page gives more, as far as a hand is still seen in it. */
  const [LEAST_ROW, MOST_ROW] = [46, 92];
  const [LEAST_COLUMN, MOST_COLUMN] = [46, 200];
  const LEFT = 30;
  let roomWide = $state(900);
  let roomHigh = $state(0);
  const frets = $derived(to - from + 1);
  const strings = $derived(neck.strings.length);
  const column = $derived(Math.min(MOST_COLUMN, Math.max(LEAST_COLUMN, (roomWide - 2 * LEFT) / frets)));
  const numbers = $derived(column >= 70 ? 18 : 14);
  const foot = $derived(numbers + 14);
  const row = $derived(Math.min(MOST_ROW, Math.max(LEAST_ROW, (roomHigh - foot) / strings)));
  const width = $derived(LEFT * 2 + column * frets);
  const height = $derived(row * strings + foot);
  /** How much larger the notes are than in the least row. */
  const scale = $derived(Math.min(row / LEAST_ROW, column / LEAST_COLUMN, 1.9));
  const isLeft = $derived(settings.now.leftHanded);
  const x = (fret: number) => {
    const own = LEFT + (fret - from + 0.5) * column;
    return isLeft ? width - own : own;
  };
  const y = (string: number) => (string - 0.5) * row;
  const all = $derived(spots(neck, from, to));

  let cursor = $state({ string: 1, fret: 0 });
  let isByKeys = $state(false);
  const at = $derived({
    string: Math.min(strings, cursor.string),
    fret: Math.min(to, Math.max(from, cursor.fret))
  });
  const isIn = (places: readonly Place[], place: Place) =>
    places.some((one) => placeOf(one) === placeOf(place));
  const wrong = $derived(verdict?.wrong ?? []);

  const STEPS: Readonly<Record<string, readonly [number, number]>> = {
    ArrowUp: [-1, 0],
    ArrowDown: [1, 0],
    ArrowLeft: [0, -1],
    ArrowRight: [0, 1]
  };
  function press(event: KeyboardEvent) {
    if (isStill || verdict) return;
    const step = STEPS[event.key];
    if (step) {
      const along = isLeft ? -step[1] : step[1];
      cursor = {
        string: Math.min(strings, Math.max(1, at.string + step[0])),
        fret: Math.min(to, Math.max(from, at.fret + along))
      };
      isByKeys = true;
    } else if (event.key === ' ') ontap(at);
    else if (event.key === 'Enter') onsubmit();
    else return;
    event.preventDefault();
    event.stopPropagation();
  }
  /** The keys are the neck's as soon as it asks. */
  const focusHere = (node: HTMLElement) => {
    if (!isStill) node.focus({ preventScroll: true });
  };
</script>

<div
  class="flex min-h-0 flex-1 flex-col justify-center overflow-x-auto overflow-y-hidden p-1"
  bind:clientWidth={roomWide}
  bind:clientHeight={roomHigh}
>
  <!-- svelte-ignore a11y_no_noninteractive_tabindex, a11y_no_noninteractive_element_interactions -->
  <div
    class="mx-auto rounded-md focus-visible:-outline-offset-2"
    style:width="{width}px"
    role="application"
    aria-label={isStill
      ? 'Neck'
      : `Neck, frets ${from} to ${to}: arrows move, Space taps, Enter answers; string ${at.string}, fret ${at.fret}`}
    tabindex={isStill ? -1 : 0}
    use:focusHere
    onkeydown={press}
    data-card-neck
  >
    <svg {width} {height} class="select-none">
      {#each { length: frets + 1 } as _, i (i)}
        {@const line = LEFT + i * column}
        <line
          x1={isLeft ? width - line : line}
          x2={isLeft ? width - line : line}
          y1={row / 2}
          y2={row * (strings - 0.5)}
          class={from + i === neck.capo + 1 ? 'stroke-ink' : 'stroke-edge'}
          stroke-width={from + i === neck.capo + 1 ? 5 : 1.5}
        />
      {/each}
      {#if !isUnnumbered}
        {#each INLAYS.filter((fret) => fret >= from && fret <= to) as fret (fret)}
          <circle cx={x(fret)} cy={(row * strings) / 2} r="7" class="fill-line" />
        {/each}
      {/if}
      {#each neck.strings as _, i (i)}
        <line
          x1={LEFT}
          x2={width - LEFT}
          y1={y(i + 1)}
          y2={y(i + 1)}
          class="stroke-soft"
          stroke-width={1 + i * 0.35}
        />
      {/each}
      {#if !isUnnumbered}
        {#each { length: frets } as _, i (i)}
          <text x={x(from + i)} y={height - 6} text-anchor="middle" class="fill-soft" font-size={numbers}
            >{from + i}</text
          >
        {/each}
      {/if}
      {#each shown as cell (placeOf(cell))}
        <g transform="translate({x(cell.fret)}, {y(cell.string)}) scale({scale})" data-shown={placeOf(cell)}>
          {#if isUnnumbered}
            <circle
              r="12"
              class={cell.degree === '1' ? 'fill-ink stroke-ink' : 'fill-surface stroke-ink'}
              stroke-width="2.5"
            />
          {:else}
            <circle r="15" class="fill-ink" />
            <text y="5" text-anchor="middle" class="fill-paper text-sm font-bold"
              >{prettyDegree(cell.degree)}</text
            >
          {/if}
        </g>
      {/each}
      {#if verdict}
        {#each right as cell (placeOf(cell))}
          {#if !isUnnumbered}
            <g
              transform="translate({x(cell.fret)}, {y(cell.string)}) scale({scale})"
              data-right={placeOf(cell)}
            >
              <circle
                r="17"
                class="{isIn(tapped, cell) ? 'fill-target' : 'fill-surface'} stroke-target"
                stroke-width="3"
                stroke-dasharray={isIn(tapped, cell) ? undefined : '5 4'}
              />
              <text
                y="5"
                text-anchor="middle"
                class="text-sm font-bold {isIn(tapped, cell) ? 'fill-on-target' : 'fill-target'}"
                >{settings.note(cell.note)}</text
              >
            </g>
          {/if}
        {/each}
        {#each wrong as place (placeOf(place))}
          <g
            transform="translate({x(place.fret)}, {y(place.string)}) scale({scale})"
            class="stroke-ink"
            stroke-width="4"
            data-wrong={placeOf(place)}
          >
            <line x1="-11" y1="-11" x2="11" y2="11" /><line x1="-11" y1="11" x2="11" y2="-11" />
          </g>
        {/each}
      {:else}
        {#each tapped as place (placeOf(place))}
          <circle
            cx={x(place.fret)}
            cy={y(place.string)}
            r={18 * scale}
            class="fill-none stroke-target"
            stroke-width="4"
          />
        {/each}
        {#if isByKeys && !isStill}
          <rect
            x={x(at.fret) - 21 * scale}
            y={y(at.string) - 21 * scale}
            width={42 * scale}
            height={42 * scale}
            rx="8"
            class="fill-none stroke-next"
            stroke-width="2.5"
          />
        {/if}
      {/if}
      {#if !isStill && !verdict}
        {#each all as spot (placeOf(spot))}
          <!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_static_element_interactions -->
          <rect
            x={x(spot.fret) - column / 2}
            y={y(spot.string) - row / 2}
            width={column}
            height={row}
            class="cursor-pointer fill-transparent"
            data-tap={placeOf(spot)}
            onclick={() => ontap({ string: spot.string, fret: spot.fret })}
          />
        {/each}
      {/if}
    </svg>
  </div>
</div>
