<!-- A few frets of the neck, small: the grid and notes by weight. Drawn into an svg or a group of one. -->
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
  }
  let { geometry, strings, from, to, notes, radius = 4.3 }: Props = $props();

  const wires = $derived(Array.from({ length: to - from + 2 }, (_, i) => from - 1 + i));
  const left = $derived(Math.min(geometry.wire(from - 1), geometry.wire(to)));
  const right = $derived(Math.max(geometry.wire(from - 1), geometry.wire(to)));
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

{#each wires as fret (fret)}
  <line
    x1={geometry.wire(fret)}
    x2={geometry.wire(fret)}
    y1={geometry.string(1)}
    y2={geometry.string(strings)}
    stroke="var(--string)"
    opacity="0.5"
    stroke-width={fret === 0 ? 3 : 1}
  />
{/each}
{#each Array.from({ length: strings }, (_, i) => i + 1) as string (string)}
  <line
    x1={left}
    x2={right}
    y1={geometry.string(string)}
    y2={geometry.string(string)}
    stroke="var(--string)"
    opacity="0.6"
  />
{/each}
{#each notes as note (`${note.string}:${note.fret}`)}
  {@const x = geometry.finger(note.fret)}
  {@const y = geometry.string(note.string)}
  <circle
    cx={x}
    cy={y}
    r={radius * SIZE[note.look]}
    class={LOOK[note.look]}
    stroke-width={note.look === 'open' ? 1.4 : note.look === 'open-dot' ? 1.1 : 0}
  />
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
