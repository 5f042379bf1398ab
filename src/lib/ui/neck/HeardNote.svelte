<!-- Where a note that is heard may lie on the neck: quietly behind the notes, the place nearest the hand stronger. Drawn into the neck. -->
<script lang="ts">
  import { spots, type Instrument } from '$lib/core/neck/tuning';
  import type { NeckGeometry } from './geometry';

  interface Props {
    neck: Instrument;
    geometry: NeckGeometry;
    position: number;
    /** MIDI number, as it is written. */
    midi: number;
  }
  let { neck, geometry, position, midi }: Props = $props();

  const places = $derived(spots(neck, 0, neck.frets).filter((spot) => spot.midi === midi));
  /** Frets from a place to the window of the hand; 0 within. */
  const away = (fret: number) => Math.max(0, position - fret, fret - (position + neck.span - 1));
  const nearest = $derived(Math.min(...places.map(({ fret }) => away(fret))));
</script>

<g class="pointer-events-none" data-heard={midi}>
  {#each places as { string, fret } (string)}
    {@const isNearest = away(fret) === nearest}
    <rect
      x={geometry.finger(fret) - 21}
      y={geometry.string(string) - 17}
      width="42"
      height="34"
      rx="12"
      class="fill-ink"
      fill-opacity={isNearest ? 0.42 : 0.14}
      data-heard-at="{string}:{fret}"
    />
  {/each}
</g>
