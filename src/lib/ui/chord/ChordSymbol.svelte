<!-- A chord symbol, typeset: true accidentals, extensions raised. What was not understood stays as typed. -->
<script lang="ts">
  import { chordLabel } from '$lib/core/theory/chord-label';
  import { readChord } from '$lib/core/theory/chord-reader';

  let { symbol }: { symbol: string } = $props();
  const reading = $derived(readChord(symbol));
  const label = $derived(reading.kind === 'chord' ? chordLabel(reading.chord) : null);
</script>

{#if label}
  <span class="font-display whitespace-nowrap"
    >{label.root}{label.base}{#if label.raised}<sup class="text-[0.66em] leading-none">{label.raised}</sup
      >{/if}{#if label.bass}<span class="text-[0.8em]">/{label.bass}</span>{/if}</span
  >
{:else if reading.kind === 'none'}
  <span class="font-display text-soft">N.C.</span>
{:else}
  <span class="text-warn underline decoration-wavy underline-offset-4">{symbol}</span>
{/if}
