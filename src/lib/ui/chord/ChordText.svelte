<!-- A chord symbol inside a drawing. -->
<script lang="ts">
  import { chordLabel } from '$lib/core/theory/chord-label';
  import { readChord } from '$lib/core/theory/chord-reader';

  interface Props {
    symbol: string;
    x: number;
    y: number;
    size: number;
    /** Pixels it may take: it is set smaller where it would not fit. */
    room?: number;
    class?: string;
  }
  let { symbol, x, y, size: wanted, room = Infinity, class: className = '' }: Props = $props();

  /** The mean width of a letter of the face, in sizes of type, and the smallest size that can be read. */
  const LETTER = 0.6;
  const SMALLEST = 11;
  const RAISED = 0.68;
  const BASS = 0.8;
  const reading = $derived(readChord(symbol));
  const label = $derived(reading.kind === 'chord' ? chordLabel(reading.chord) : null);
  const letters = $derived(
    label
      ? label.root.length +
          label.base.length +
          RAISED * label.raised.length +
          (label.bass ? BASS * (label.bass.length + 1) : 0)
      : symbol.length
  );
  const size = $derived(Math.max(SMALLEST, Math.min(wanted, room / (LETTER * letters))));
  const rise = $derived(size * 0.32);
</script>

<text {x} {y} font-size={size} class="font-display {className}">
  {#if label}
    <tspan>{label.root}{label.base}</tspan>{#if label.raised}<tspan font-size={size * RAISED} dy={-rise}
        >{label.raised}</tspan
      >{/if}{#if label.bass}<tspan font-size={size * BASS} dy={label.raised ? rise : 0}>/{label.bass}</tspan
      >{/if}
  {:else}
    <tspan class={reading.kind === 'none' ? 'fill-soft' : 'fill-warn'}>{symbol}</tspan>
  {/if}
</text>
