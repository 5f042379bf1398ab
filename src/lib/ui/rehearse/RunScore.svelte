<!-- The drill on staff and tab, running with the beat: the systems that are played come into sight by themselves. -->
<script lang="ts" module>
  import { Part } from '../app/part';

  const scorePart = new Part(() => import('../score/Score.svelte'));
</script>

<script lang="ts">
  import { degreeOf } from '$lib/core/theory/degree';
  import { semitonesUp } from '$lib/core/theory/note';
  import { beatsOf } from '$lib/core/line/model';
  import type { Rehearsal } from '$lib/state/stand/rehearsal.svelte';
  import Arriving from '../app/Arriving.svelte';

  let { rehearsal }: { rehearsal: Rehearsal } = $props();

  const now = $derived(rehearsal.picture.now);
  const part = $derived.by(() => {
    if (!now) return null;
    const { from, bars, changes } = now.excerpt;
    const all = rehearsal.picture.shown.sheet.form.bars;
    // A loop keeps the numbers that its bars have in the form.
    const first = all.findIndex(({ start }) => Math.abs(start - from) < 1e-6);
    return {
      bars: bars.map((bar, i) => ({ ...bar, number: (first < 0 ? 0 : first) + i + 1 })),
      chords: changes.map(({ source, start }) => ({ index: source.index, symbol: source.symbol, start }))
    };
  });
  const degrees = $derived(
    (now?.notes ?? []).map(({ start, midi }) => {
      const chord = now?.excerpt.changes.findLast((change) => change.start <= beatsOf(start) + 1e-6)?.source
        .chord;
      return chord ? degreeOf(semitonesUp(chord.rootPc, midi % 12), chord.tones) : null;
    })
  );
  const isSounding = $derived(rehearsal.transport.isPlaying && rehearsal.transport.beat >= 0);
  const lit = $derived.by(() => {
    if (!isSounding || !now) return null;
    const at = now.times.findIndex(
      ({ start, beats }) => rehearsal.picture.inRound >= start && rehearsal.picture.inRound < start + beats
    );
    return now.notes[at]?.start ?? null;
  });
</script>

{#if now && part}
  <Arriving part={scorePart} height="min-h-48">
    {#snippet children(Score)}
      <Score
        workspace={rehearsal.picture.shown}
        notes={now.notes}
        {degrees}
        {part}
        time={isSounding ? rehearsal.picture.written : null}
        {lit}
        rows={1}
        label="The drill on staff and tab"
      />
    {/snippet}
  </Arriving>
{/if}
