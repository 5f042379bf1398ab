<!-- Where bars were traded: Corvel's turns, and what it played in them. Inside an SVG. -->
<script lang="ts">
  import { HEAD } from '../threads/layout';
  import type { Called } from './played';

  interface Props {
    /** In beats of the form. */
    turns: readonly { readonly from: number; readonly to: number }[];
    notes: readonly Called[];
    /** x of a beat of the form, y of a pitch. */
    time: (beat: number) => number;
    pitch: (midi: number) => number;
    height: number;
  }
  let { turns, notes, time, pitch, height }: Props = $props();
  /** How high a note is drawn. */
  const BAR = 9;
</script>

{#each turns as { from, to } (from)}
  <rect
    x={time(from)}
    y={HEAD}
    width={time(to) - time(from)}
    height={height - HEAD}
    class="fill-next"
    opacity="0.1"
    data-call-turn={from}
  />
  <text x={time(from) + 8} y={height - 8} font-size="12" class="fill-next font-bold">Corvel</text>
{/each}
{#each notes as note (note.at)}
  <rect
    x={time(note.at)}
    y={pitch(note.midi) - BAR / 2}
    width={Math.max(5, time(note.at + note.beats) - time(note.at) - 1)}
    height={BAR}
    rx="3"
    class="fill-surface stroke-next"
    stroke-width="1.4"
    data-called={note.midi}
  />
{/each}
