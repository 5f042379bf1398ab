<!--
  The player's time: how far behind or ahead of the band's beat each note came, bar by bar; the middle of it, and the band's swing beside
  the player's, in a sentence.
-->
<script lang="ts">
  import type { PlayersTime } from '$lib/core/takes/clock';
  import { swingWords, timeWords } from './words';

  interface Props {
    time: PlayersTime;
    /** Starts of the bars of the form, in beats, and its length. */
    bars: readonly number[];
    beats: number;
    /** Which time through the form, from 0. */
    round: number;
    /** Where the band has the second half of a beat. */
    bandSwing: number;
  }
  let { time, bars, beats, round, bandSwing }: Props = $props();

  const HEIGHT = 74;
  /** Milliseconds from the middle to the edge. */
  const MOST = 160;
  let width = $state(800);
  const x = (beat: number) => (beat / Math.max(1, beats)) * width;
  const y = (seconds: number) =>
    HEIGHT / 2 - (Math.max(-MOST, Math.min(MOST, seconds * 1000)) / MOST) * (HEIGHT / 2 - 8);
  const dots = $derived(
    time.notes.flatMap(({ at, late }) => {
      const beat = at - round * beats;
      return beat >= -0.5 && beat < beats ? [{ beat: Math.max(0, beat), late }] : [];
    })
  );
</script>

{#if time.notes.length > 0}
  <section
    class="card px-2.5 py-1.5 text-sm"
    aria-label="Your time"
    data-time
    data-offset={time.offset.toFixed(3)}
    data-drift={time.drift.toFixed(3)}
  >
    <p class="flex flex-wrap gap-x-4" data-time-words>
      <b>{timeWords(time)}</b>
      <span class="text-soft">{swingWords(time.swing, bandSwing)}</span>
    </p>
    <div bind:clientWidth={width}>
      <svg
        {width}
        height={HEIGHT}
        class="block"
        role="img"
        aria-label="How far each note came from the beat, bar by bar: {timeWords(time)}"
      >
        {#each bars as bar (bar)}
          <line x1={x(bar)} x2={x(bar)} y1="0" y2={HEIGHT} class="stroke-line" stroke-width="1" />
        {/each}
        <line x1="0" x2={width} y1={HEIGHT / 2} y2={HEIGHT / 2} class="stroke-ink" stroke-width="1.2" />
        <text x="2" y="10" font-size="10" class="fill-soft">behind</text>
        <text x="2" y={HEIGHT - 3} font-size="10" class="fill-soft">ahead</text>
        <line
          x1="0"
          x2={width}
          y1={y(time.mean)}
          y2={y(time.mean)}
          class="stroke-target"
          stroke-width="1.5"
          stroke-dasharray="5 4"
        />
        {#each dots as { beat, late }, i (i)}
          <circle cx={x(beat)} cy={y(late)} r="2.6" class="fill-tone" />
        {/each}
      </svg>
    </div>
  </section>
{/if}
