<!-- The figures of a take, in words. -->
<script lang="ts">
  import type { TakeData } from '$lib/api/take';
  import type { TakeFigures } from '$lib/core/takes/judge/judge';
  import { midiName } from '$lib/core/theory/note';
  import { prettyDegree, prettyNote } from '$lib/core/theory/typeset';
  import { counted } from '$lib/core/theory/words';
  import Button from '../kit/Button.svelte';
  import { lateWords, percent } from './words';

  interface Props {
    figures: TakeFigures;
    data: TakeData;
    /** Of the sound on the disk. */
    bytes: number;
    onforget: () => void;
  }
  let { figures, data, bytes, onforget }: Props = $props();

  const rows = $derived(
    [
      [
        'targets hit',
        figures.hits === null ? '' : `${percent(figures.hits)} (${figures.met.hit} of ${sum(figures.met)})`
      ],
      ['chords heard', percent(figures.outlined)],
      [
        'landings',
        figures.late === null ? '' : `${lateWords(figures.late)} on average, ${figures.apart} off`
      ],
      ['pauses before changes', figures.silences ? String(figures.silences) : ''],
      ['clashes on beats', figures.avoids ? String(figures.avoids) : ''],
      ['notes outside', figures.outside ? String(figures.outside) : ''],
      [
        'begins on',
        figures.beginsOn
          ? `the ${prettyDegree(figures.beginsOn.degree)}, ${percent(figures.beginsOn.share)} of the time`
          : ''
      ],
      [
        'range',
        figures.range
          ? `${prettyNote(midiName(figures.range.low))} to ${prettyNote(midiName(figures.range.high))}`
          : ''
      ],
      ['positions', figures.positions.length ? figures.positions.join(', ') : ''],
      ['notes in a beat', figures.density === null ? '' : String(figures.density)],
      ['left alone', figures.leftAlone ? counted(figures.leftAlone, 'change') : ''],
      [
        'instrument',
        Math.abs(data.tuning) < 5
          ? ''
          : `${Math.abs(data.tuning)} cents ${data.tuning > 0 ? 'sharp' : 'flat'}`
      ]
    ].filter(([, value]) => value)
  );
  function sum(met: TakeFigures['met']): number {
    return Object.values(met).reduce((a, b) => a + b, 0);
  }
</script>

<section class="card p-2.5 text-sm" aria-label="Figures of the take">
  <dl class="grid grid-cols-[repeat(auto-fill,minmax(15rem,1fr))] gap-x-6 gap-y-1">
    {#each rows as [name, value] (name)}
      <div class="flex justify-between gap-3 border-b border-line py-0.5">
        <dt class="text-soft">{name}</dt>
        <dd class="text-right font-bold tabular-nums">{value}</dd>
      </div>
    {/each}
  </dl>
  {#if bytes > 0}
    <p class="mt-2 flex flex-wrap items-center gap-3 text-soft">
      Its sound fills {(bytes / 1e6).toFixed(1)} MB on this machine.
      <Button size="small" hint="Notes and judgement stay" onclick={onforget}>remove the sound</Button>
    </p>
  {/if}
</section>
