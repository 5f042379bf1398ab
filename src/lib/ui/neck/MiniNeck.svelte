<!--
  A few frets of the neck, small: the board and notes by weight. Drawn into an svg or a group of one. They are drawn by the
  dozen and change all at once, so that the notes of one weight are one stroke.
-->
<script lang="ts" module>
  export interface MiniNote {
    readonly string: number;
    readonly fret: number;
    /** `target` the accent, `full` a filled note, `open` an outlined one, `dot` a small passing one. */
    readonly look: 'target' | 'full' | 'open' | 'dot' | 'open-dot';
    readonly label?: string;
  }
</script>

<script lang="ts">
  import Board from './Board.svelte';
  import { dotsPath, type NeckGeometry } from './geometry';

  interface Props {
    geometry: NeckGeometry;
    strings: number;
    /** First and last fret shown. */
    from: number;
    to: number;
    notes: readonly MiniNote[];
    /** Radius of a full note. */
    radius?: number;
    /** Size of the fret numbers below; none without. */
    numbers?: number;
    /** A ring tells the target where there may be no colour: on paper. */
    isRinged?: boolean;
  }
  let { geometry, strings, from, to, notes, radius = 4.3, numbers = 0, isRinged = false }: Props = $props();

  /** The weights, the faintest first: size of a note, colours, width of its outline. */
  const LOOKS: readonly { look: MiniNote['look']; size: number; paint: string; outline: number }[] = [
    { look: 'dot', size: 0.5, paint: 'fill-tone', outline: 0 },
    { look: 'open-dot', size: 0.5, paint: 'fill-surface stroke-tone', outline: 1.1 },
    { look: 'open', size: 1, paint: 'fill-surface stroke-tone', outline: 1.4 },
    { look: 'full', size: 1, paint: 'fill-tone', outline: 0 },
    { look: 'target', size: 1.25, paint: 'fill-target', outline: 0 }
  ];
  const TEXT = { target: 'fill-on-target', full: 'fill-on-tone', open: 'fill-ink', dot: '', 'open-dot': '' };

  /** The notes of each weight as one stroke. */
  const strokes = $derived(
    LOOKS.flatMap(({ look, size, paint, outline }) => {
      const alike = notes.filter((note) => note.look === look);
      const d = alike.length > 0 && dotsPath(geometry, alike, () => radius * size);
      return d ? [{ look, d, paint, outline, count: alike.length }] : [];
    })
  );
  const labelled = $derived(
    notes.flatMap((note) => (note.label && TEXT[note.look] ? [{ ...note, label: note.label }] : []))
  );
</script>

<Board {geometry} {strings} {from} {to} />
{#each numbers ? Array.from({ length: to - from + 1 }, (_, i) => from + i) : [] as fret (fret)}
  <text
    x={geometry.finger(fret)}
    y={geometry.height - 6}
    text-anchor="middle"
    font-size={numbers}
    class="fill-soft">{fret}</text
  >
{/each}
{#each strokes as { look, d, paint, outline, count } (look)}
  <path {d} class={paint} stroke-width={outline} data-notes={look} data-count={count} />
{/each}
{#if isRinged}
  <path
    d={dotsPath(
      geometry,
      notes.filter(({ look }) => look === 'target'),
      () => radius * 1.62
    )}
    class="fill-none stroke-target"
    stroke-width={radius * 0.22}
  />
{/if}
{#each labelled as note, i (i)}
  <text
    x={geometry.finger(note.fret)}
    y={geometry.string(note.string) + radius * 0.52}
    text-anchor="middle"
    font-size={radius * (note.label.length > 1 ? 1.25 : 1.5)}
    class="font-bold {TEXT[note.look]}">{note.label}</text
  >
{/each}
