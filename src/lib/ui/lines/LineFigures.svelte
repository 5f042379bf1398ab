<!-- The whole line in figures: what it tells by itself, how it lands, how it moves. -->
<script lang="ts">
  import { counted } from '$lib/core/theory/words';
  import type { LineFigures } from '$lib/core/line/read';

  interface Props {
    figures: LineFigures;
    /** Share of the changes that the line alone tells; null where it tells nothing. */
    share: number | null;
    /** How often the hand moves; null where that is not known. */
    shifts: number | null;
    /** What clashes and what is done again and again, in sentences. */
    said: readonly string[];
  }
  let { figures, share, shifts, said }: Props = $props();

  const percent = (part: number | null) => (part === null ? '–' : `${Math.round(100 * part)} %`);
  const rows = $derived([
    ['chords recognisable', percent(share)],
    ['chord tones on the beats', percent(figures.chordTonesOnBeats)],
    ['landings on a 3 or 7', percent(figures.landingsOnThirdOrSeventh)],
    ['landings by step', percent(figures.landingsByStep)],
    ['the hand moves', shifts === null ? '–' : counted(shifts, 'time')],
    ['largest leap', `${figures.largestLeap} semitones`],
    ['notes that clash', String(figures.clashes)]
  ] as const);
</script>

<section class="flex flex-col gap-2 card px-3 py-2" aria-label="The whole line in figures">
  <dl class="grid grid-cols-2 gap-x-3 gap-y-1.5 text-xs sm:grid-cols-3 xl:grid-cols-7" data-figures>
    {#each rows as [name, value], i (name)}
      <div class="flex flex-col">
        <dt class="text-soft">{name}</dt>
        <dd class={i === 0 ? 'text-lg font-bold' : 'text-lg'}>{value}</dd>
      </div>
    {/each}
  </dl>
  {#if said.length}<p class="text-sm text-soft">{said.join(' ')}</p>{/if}
</section>
