<!-- One grip, small: held strings with fingers, and how each voice moves into it. -->
<script lang="ts">
  import { nth } from '$lib/core/base/list';
  import { settings } from '$lib/state/settings.svelte';
  import type { VoiceMove } from '$lib/core/neck/grip-path';
  import type { Grip } from '$lib/core/neck/voicing';
  import { neckGeometry } from '../neck/geometry';
  import MiniNeck, { type MiniNote } from '../neck/MiniNeck.svelte';
  import { stepWords } from '../threads/layout';

  interface Props {
    grip: Grip;
    strings: number;
    frets: number;
    moves?: readonly VoiceMove[];
    isNow?: boolean;
  }
  let { grip, strings, frets, moves = [], isNow = false }: Props = $props();

  const WIDTH = 104;
  const MOVES = 38;
  const pressed = $derived(grip.cells.map(({ fret }) => fret).filter((fret) => fret > 0));
  const from = $derived(Math.max(1, Math.min(...pressed, frets) - (Math.max(...pressed) > 4 ? 0 : 20)));
  const to = $derived(Math.min(frets, Math.max(from + 3, ...pressed)));
  const geometry = $derived(
    neckGeometry({
      width: WIDTH,
      strings,
      from,
      to,
      stringGap: Math.min(13, 65 / (strings - 1)),
      top: 8,
      bottom: 17,
      open: from === 1 ? 15 : 4,
      leftHanded: settings.now.leftHanded
    })
  );
  const notes = $derived(
    grip.cells.map((cell): MiniNote => ({
      string: cell.string,
      fret: cell.fret,
      look: isNow ? 'target' : 'full',
      label: settings.label(cell)
    }))
  );
  const shift = $derived(moves.length ? MOVES : 0);
  const low = $derived(Math.min(...pressed));
</script>

<svg width={WIDTH + shift} height={geometry.height} class="block" aria-hidden="true">
  {#each moves as move, voice (voice)}
    {@const y = geometry.string(nth(grip.cells, voice).string) + 4}
    <text
      x={MOVES - 5}
      {y}
      text-anchor="end"
      font-size="11.5"
      class={move.semitones ? 'fill-next font-bold' : 'fill-soft'}>{stepWords(move.semitones)}</text
    >
  {/each}
  <g transform="translate({shift} 0)">
    <MiniNeck {geometry} {strings} {from} {to} {notes} radius={5.8} />
    <text
      x={geometry.finger(pressed.length ? low : 0)}
      y={geometry.height - 3}
      text-anchor="middle"
      font-size="10.5"
      class="fill-soft">{pressed.length ? low : ''}</text
    >
  </g>
</svg>
