<!-- The empty songbook: what Corvel does in one picture and one sentence, and three charts to try it on. -->
<script lang="ts">
  import { goto } from '$app/navigation';
  import { toast } from 'svelte-sonner';
  import { nth } from '$lib/core/base/list';
  import { declared, directivesIn } from '$lib/core/chart/directives';
  import { DEMO_CHARTS } from '$lib/scenario/charts';
  import { createChart } from '$lib/state/songbook/client';
  import Button from '../kit/Button.svelte';

  let { onmade }: { onmade: () => void } = $props();

  /** What each is good for, by its title. */
  const TRY = [
    { title: 'Bilge Pump Blues', words: 'a blues in E♭' },
    { title: 'Three Harbours', words: 'ii–V–I through three keys' },
    { title: 'Loading Ramp', words: 'a loop of four chords' }
  ] as const;
  const charts = TRY.flatMap(({ title, words }) => {
    const text = DEMO_CHARTS.find((one) => declared(directivesIn(one.text), 'title') === title)?.text;
    return text ? [{ title, words, text }] : [];
  });
  async function make(text: string) {
    try {
      const { id } = await createChart(crypto.randomUUID(), text);
      onmade();
      await goto(`/charts/${id}`);
    } catch (error) {
      toast.error(error instanceof Error ? error.message : 'That could not be made.');
    }
  }

  /** Three chords: their tones by height, the one to land on, and where it lies. */
  const CHORDS = [
    { symbol: 'Fm', rest: '7', tones: [0, 1, 2, 3], target: 1, degree: '♭3', fret: 3 },
    { symbol: 'B♭', rest: '7', tones: [0.4, 1, 1.8, 2.6], target: 1, degree: '♭7', fret: 3 },
    { symbol: 'E♭', rest: 'maj7', tones: [0.1, 1.28, 2, 2.7], target: 1, degree: '3', fret: 2 }
  ] as const;
  const x = (i: number) => 75 + i * 150;
  const y = (height: number) => 52 + height * 30;
  const fretX = (fret: number) => 60 + fret * 88;
</script>

<div class="flex flex-col items-center gap-4" data-first-minute>
  <p class="max-w-xl font-display text-2xl text-ink">
    Type a progression: Corvel shows what to play on each chord, where it lies, and the note to land on when
    it changes.
  </p>
  <svg
    viewBox="0 0 450 290"
    class="w-full max-w-lg"
    role="img"
    aria-label="Three chords, the note to land on in each, joined by a line, and the same notes on the neck"
  >
    {#each CHORDS as { symbol, rest, tones, target }, i (i)}
      <text x={x(i)} y="24" text-anchor="middle" class="fill-ink font-display" font-size="22"
        >{symbol}<tspan dy="-7" font-size="13">{rest}</tspan></text
      >
      <line x1={x(i) - 75} x2={x(i) - 75} y1="36" y2="160" class="stroke-line" />
      {#if i > 0}
        <line
          x1={x(i - 1)}
          y1={y(nth(CHORDS, i - 1).tones[nth(CHORDS, i - 1).target])}
          x2={x(i)}
          y2={y(tones[target])}
          class="stroke-target"
          stroke-width="4"
        />
        <text x={x(i) - 75} y={y(1) - 12} text-anchor="middle" class="fill-ink" font-size="12"
          >{i === 1 ? 'stays' : '−1'}</text
        >
      {/if}
      {#each tones as height, t (t)}
        {#if t !== target}<circle cx={x(i)} cy={y(height)} r="7" class="fill-tone" />{/if}
      {/each}
    {/each}
    {#each CHORDS as { tones, target, degree }, i (i)}
      <circle cx={x(i)} cy={y(tones[target])} r="12" class="fill-target" />
      <text
        x={x(i)}
        y={y(tones[target]) + 4.5}
        text-anchor="middle"
        class="fill-on-target font-bold"
        font-size="12">{degree}</text
      >
    {/each}
    {#each [0, 1, 2, 3, 4, 5] as string (string)}
      <line x1="60" x2="412" y1={190 + string * 16} y2={190 + string * 16} class="stroke-edge" />
    {/each}
    {#each [0, 1, 2, 3, 4] as fret (fret)}
      <line x1={fretX(fret)} x2={fretX(fret)} y1="190" y2="270" class="stroke-edge" />
      {#if fret < 4}<text x={fretX(fret) + 44} y="286" text-anchor="middle" class="fill-soft" font-size="11"
          >{fret + 6}</text
        >{/if}
    {/each}
    <line x1={fretX(3) + 30} y1="206" x2={fretX(2) + 66} y2="206" class="stroke-target" stroke-width="3" />
    <circle cx={fretX(3) + 44} cy="206" r="13" class="fill-target" />
    <text x={fretX(3) + 44} y="210.5" text-anchor="middle" class="fill-on-target font-bold" font-size="12"
      >A♭</text
    >
    <circle cx={fretX(2) + 44} cy="206" r="12" class="fill-surface stroke-next" stroke-width="3" />
    <text x={fretX(2) + 44} y="210.5" text-anchor="middle" class="fill-ink font-bold" font-size="12">G</text>
  </svg>
  <p>Or try one of these:</p>
  <div class="flex flex-wrap justify-center gap-2">
    {#each charts as { title, words, text } (title)}
      <Button size="stand" data-starter={title} onclick={() => void make(text)}
        ><span class="font-display text-lg text-ink">{title}</span>
        <span class="text-soft">{words}</span></Button
      >
    {/each}
  </div>
</div>
