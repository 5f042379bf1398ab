<!-- A whole lick in one row: tab with what the hand does, its chords above, each note's degree below. -->
<script lang="ts">
  import { nth } from '$lib/core/base/list';
  import type { LickThere } from '$lib/core/line/lick-elsewhere';
  import { lickChart } from '$lib/core/line/lick-facts';
  import { readLine } from '$lib/core/line/read';
  import { readSheet } from '$lib/core/harmony/sheet';
  import { keyText } from '$lib/core/harmony/key';
  import type { Meter } from '$lib/core/chart/model';
  import { STANDARD } from '$lib/core/neck/tuning';
  import { prettyDegree, prettySymbol } from '$lib/core/theory/typeset';
  import { stripOf } from './strip';

  interface Props {
    there: LickThere;
    meter: Meter;
    label: string;
  }
  let { there, meter, label }: Props = $props();

  const WIDTH = 400;
  const TOP = 30;
  const GAP = 12;
  const BOTTOM = TOP + 5 * GAP;
  const HEIGHT = BOTTOM + 25;

  const strip = $derived(stripOf(there.notes, there.over, meter.beats, WIDTH));
  const degrees = $derived.by(() => {
    const { form, analysis } = readSheet(lickChart({ meter, key: keyText(there.key), over: there.over }));
    return readLine({ meter, notes: there.notes }, { form, analysis, chosen: [] }).notes;
  });
  const strings = Array.from({ length: STANDARD.strings.length }, (_, i) => TOP + i * GAP);
  const yOf = (string: number) => TOP + (string - 1) * GAP;
  /** Of notes at one time the first says the degree. */
  const saysDegree = (i: number) => there.notes[i - 1]?.start !== nth(there.notes, i).start;
  const bendText = (semitones: number) => (semitones === 1 ? '½' : semitones === 2 ? '1' : '1½');
</script>

<svg
  viewBox="0 0 {WIDTH} {HEIGHT}"
  class="w-full"
  role="img"
  aria-label="{label}, as tab in {keyText(there.key)}"
  data-strip
>
  {#each strings as y (y)}
    <line x1="0" x2={WIDTH} y1={y} y2={y} class="stroke-edge" stroke-width="0.75" />
  {/each}
  {#each strip.bars as { x }, i (i)}
    <line x1={x} x2={x} y1={TOP} y2={BOTTOM} class="stroke-ink" stroke-width={i === 0 ? 1.5 : 1} />
  {/each}
  {#each strip.chords as { symbol, x }, i (i)}
    <text {x} y="12" class="fill-ink font-display" font-size="14">{prettySymbol(symbol)}</text>
  {/each}
  {#each there.notes as note, i (i)}
    {#if note.place}
      {@const x = nth(strip.xs, i)}
      {@const y = yOf(note.place.string)}
      {@const before = strip.xs[i - 1]}
      {#if note.slur && before !== undefined}
        <path
          d="M {before + 3} {y - 6} Q {(before + x) / 2} {y - 11} {x - 3} {y - 6}"
          class="fill-none stroke-ink"
          stroke-width="1"
        />
      {/if}
      {#if note.slide && before !== undefined}
        <line x1={before + 5} x2={x - 6} y1={y + 3} y2={y - 3} class="stroke-ink" stroke-width="1" />
      {/if}
      <rect
        x={x - (note.place.fret > 9 ? 7.5 : 4.5)}
        y={y - 5.5}
        width={note.place.fret > 9 ? 15 : 9}
        height="11"
        class="fill-surface"
      />
      <text {x} y={y + 4.2} text-anchor="middle" font-size="12" font-weight="600" class="fill-ink" data-fret
        >{note.ghost ? '×' : note.place.fret}</text
      >
      {#if note.bend}
        <text x={x + (note.place.fret > 9 ? 7 : 5)} y={y - 1.5} font-size="9.5" class="fill-target"
          >↑{note.bend.cents ? '¼' : bendText(note.midi - note.bend.from)}</text
        >
      {/if}
      {#if note.vibrato}
        <path
          d="M {x + (note.bend ? 18 : -2)} {TOP - 6} q 2 -3 4 0 t 4 0 t 4 0 t 4 0"
          class="fill-none stroke-ink"
          stroke-width="1"
        />
      {/if}
      {#if saysDegree(i) && degrees[i]?.degree && !note.ghost}
        <text {x} y={BOTTOM + 17} text-anchor="middle" font-size="10.5" class="fill-soft"
          >{prettyDegree(degrees[i].degree!)}</text
        >
      {/if}
    {/if}
  {/each}
</svg>
