<!-- A chord symbol inside a drawing. -->
<script lang="ts">
  import { chordLabel } from '$lib/core/theory/chord-label';
  import { readChord } from '$lib/core/theory/chord-reader';

  interface Props {
    symbol: string;
    x: number;
    y: number;
    size: number;
    class?: string;
  }
  let { symbol, x, y, size, class: className = '' }: Props = $props();
  const reading = $derived(readChord(symbol));
  const label = $derived(reading.kind === 'chord' ? chordLabel(reading.chord) : null);
  const rise = $derived(size * 0.32);
</script>

<text {x} {y} font-size={size} class="font-display {className}">
  {#if label}
    <tspan>{label.root}{label.base}</tspan>{#if label.raised}<tspan font-size={size * 0.68} dy={-rise}
        >{label.raised}</tspan
      >{/if}{#if label.bass}<tspan font-size={size * 0.8} dy={label.raised ? rise : 0}>/{label.bass}</tspan
      >{/if}
  {:else}
    <tspan class={reading.kind === 'none' ? 'fill-soft' : 'fill-warn'}>{symbol}</tspan>
  {/if}
</text>
