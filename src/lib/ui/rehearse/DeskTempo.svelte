<!-- How fast: the tempo, the ladder that it climbs, the count-in. -->
<script lang="ts">
  import { HIGHEST_TEMPO, LOWEST_TEMPO } from '$lib/core/practice/ladder';
  import { TEMPO_STEP, type Rehearsal } from '$lib/state/stand/rehearsal.svelte';
  import Button from '../kit/Button.svelte';
  import NumberField from '../kit/NumberField.svelte';
  import DeskGroup from './DeskGroup.svelte';

  let { rehearsal }: { rehearsal: Rehearsal } = $props();
  const desk = $derived(rehearsal.desk.now);
  const ladder = $derived(
    desk.ladder ?? { start: 80, goal: 120, step: 4, rounds: 2, onlyClean: false, isOn: false }
  );
  const RUNGS = [
    ['start', 'from', LOWEST_TEMPO, HIGHEST_TEMPO],
    ['goal', 'to', LOWEST_TEMPO, HIGHEST_TEMPO],
    ['step', 'by', 1, 40],
    ['rounds', 'every … rounds', 1, 40]
  ] as const;
</script>

<DeskGroup name="How fast">
  <Button
    size="stand"
    hint="Slower; ↓ in the field does the same"
    tabindex={-1}
    onclick={() => rehearsal.tempo.change(-TEMPO_STEP)}>−{TEMPO_STEP}</Button
  >
  <NumberField
    size="stand"
    class="w-20 font-bold"
    label="Tempo in beats a minute"
    min={LOWEST_TEMPO}
    max={HIGHEST_TEMPO}
    unit="bpm"
    value={rehearsal.tempo.value}
    onset={(tempo) => rehearsal.tempo.set(tempo)}
  />
  <Button
    size="stand"
    hint="Faster; ↑ in the field does the same"
    tabindex={-1}
    onclick={() => rehearsal.tempo.change(TEMPO_STEP)}>+{TEMPO_STEP}</Button
  >
  <Button
    size="stand"
    pressed={ladder.isOn}
    hint="The tempo climbs from round to round"
    onclick={() => rehearsal.desk.set({ ladder: { ...ladder, isOn: !ladder.isOn } })}>tempo ladder</Button
  >
  {#if ladder.isOn}
    {#each RUNGS as [part, name, min, max] (part)}
      <span>{name}</span>
      <NumberField
        size="stand"
        label="Ladder {part}"
        {min}
        {max}
        value={ladder[part]}
        onset={(value) => rehearsal.desk.set({ ladder: { ...ladder, [part]: value } })}
      />
    {/each}
    <Button
      size="stand"
      pressed={ladder.onlyClean}
      hint="It climbs only after rounds that you mark as clean"
      onclick={() => rehearsal.desk.set({ ladder: { ...ladder, onlyClean: !ladder.onlyClean } })}
      >only after clean rounds</Button
    >
  {/if}
  <Button
    size="stand"
    pressed={desk.countsIn}
    onclick={() => rehearsal.desk.set({ countsIn: !desk.countsIn })}>count in</Button
  >
</DeskGroup>
