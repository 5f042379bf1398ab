<!-- A few frets of the neck, small: the board and notes by weight. Drawn into an svg or a group of one. -->
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
  import type { NeckGeometry } from './geometry';

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

  const SIZE = { target: 1.25, full: 1, open: 1, dot: 0.5, 'open-dot': 0.5 } as const;
  const LOOK = {
    target: 'fill-target',
    full: 'fill-tone',
    open: 'fill-surface stroke-tone',
    dot: 'fill-tone',
    'open-dot': 'fill-surface stroke-tone'
  } as const;
  const TEXT = { target: 'fill-on-target', full: 'fill-on-tone', open: 'fill-ink', dot: '', 'open-dot': '' };
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
{#each notes as note, i (i)}
  {@const x = geometry.finger(note.fret)}
  {@const y = geometry.string(note.string)}
  <circle
    cx={x}
    cy={y}
    r={radius * SIZE[note.look]}
    class={LOOK[note.look]}
    stroke-width={note.look === 'open' ? 1.4 : note.look === 'open-dot' ? 1.1 : 0}
  />
  {#if isRinged && note.look === 'target'}
    <circle cx={x} cy={y} r={radius * 1.62} class="fill-none stroke-target" stroke-width={radius * 0.22} />
  {/if}
  {#if note.label && TEXT[note.look]}
    <text
      {x}
      y={y + radius * 0.52}
      text-anchor="middle"
      font-size={radius * (note.label.length > 1 ? 1.25 : 1.5)}
      class="font-bold {TEXT[note.look]}">{note.label}</text
    >
  {/if}
{/each}
