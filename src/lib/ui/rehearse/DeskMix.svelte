<!-- The tempo ladder, and how loud each part of the band is. -->
<script lang="ts">
  import Volume2 from '@lucide/svelte/icons/volume-2';
  import VolumeX from '@lucide/svelte/icons/volume-x';
  import { ARCS } from '$lib/core/practice/arc';
  import { PARTS, type Part } from '$lib/core/practice/events';
  import { HIGHEST_TEMPO, LOWEST_TEMPO } from '$lib/core/practice/ladder';
  import { type Desk, type Rehearsal } from '$lib/state/rehearsal.svelte';
  import Button from '../kit/Button.svelte';
  import NumberField from '../kit/NumberField.svelte';
  import Select from '../kit/Select.svelte';
  import Slider from '../kit/Slider.svelte';

  let { rehearsal, ontune }: { rehearsal: Rehearsal; ontune: () => void } = $props();
  const desk = $derived(rehearsal.desk);
  /** A recording takes the place of the band's own parts. */
  const heard = $derived(
    PARTS.filter((part) =>
      rehearsal.backing.playing ? ['click', 'line', 'backing'].includes(part) : part !== 'backing'
    )
  );
  const NAMES: Readonly<Record<Part, string>> = {
    bass: 'Bass',
    chords: 'Chords',
    drums: 'Drums',
    click: 'Click',
    line: 'Drill',
    backing: 'Recording'
  };
  const ladder = $derived(
    desk.ladder ?? { start: 80, goal: 120, step: 4, rounds: 2, onlyClean: false, isOn: false }
  );
  const CHORD_SOUND_OPTIONS: readonly { value: Desk['chordSound']; name: string }[] = [
    { value: 'feel', name: 'chords as the feel has them' },
    { value: 'piano', name: 'electric piano' },
    { value: 'guitar', name: 'guitar' },
    { value: 'organ', name: 'organ' }
  ];
  const RUNGS = [
    ['start', 'from', LOWEST_TEMPO, HIGHEST_TEMPO],
    ['goal', 'to', LOWEST_TEMPO, HIGHEST_TEMPO],
    ['step', 'by', 1, 40],
    ['rounds', 'every … rounds', 1, 40]
  ] as const;
</script>

<div class="flex flex-wrap items-center gap-2">
  <Button
    size="stand"
    pressed={ladder.isOn}
    hint="The tempo climbs from round to round"
    onclick={() => rehearsal.set({ ladder: { ...ladder, isOn: !ladder.isOn } })}>tempo ladder</Button
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
        onset={(value) => rehearsal.set({ ladder: { ...ladder, [part]: value } })}
      />
    {/each}
    <Button
      size="stand"
      pressed={ladder.onlyClean}
      hint="It climbs only after rounds that you mark as clean"
      onclick={() => rehearsal.set({ ladder: { ...ladder, onlyClean: !ladder.onlyClean } })}
      >only after clean rounds</Button
    >
  {/if}
  <div class="flex flex-wrap items-center gap-2" role="group" aria-label="How much the band gives">
    <span class="flex flex-col text-xs leading-4"
      >Intensity {Math.round(desk.intensity * 100)} %
      <Slider
        label="Intensity of the band"
        class="w-28"
        min={0}
        max={100}
        step={5}
        value={Math.round(desk.intensity * 100)}
        says="{Math.round(desk.intensity * 100)} percent"
        hint="Quiet and sparse, or loud and full; [ and ] while it plays"
        onslide={(percent) => rehearsal.setIntensity(percent / 100)}
      /></span
    >
    <Select
      size="stand"
      label="Intensity from round to round"
      value={desk.arc}
      options={ARCS.map(({ id, name }) => ({ value: id, name }))}
      onpick={(arc) => rehearsal.set({ arc })}
    />
    <Button
      size="stand"
      pressed={desk.follows}
      hint="While it listens, the band plays louder and denser as you do, answers your rests and leaves you room"
      onclick={() => rehearsal.set({ follows: !desk.follows })}>band follows me</Button
    >
  </div>
  <div class="ml-auto flex flex-wrap items-center gap-x-4 gap-y-1" role="group" aria-label="Mix">
    <meter
      class="w-12"
      min="0"
      max="1"
      value={rehearsal.level}
      aria-label="Loudness"
      data-level={rehearsal.level}
    ></meter>
    {#each heard as part (part)}
      {@const { decibels, isMuted } = desk.mix[part]}
      <div class="flex items-center gap-1">
        <Button
          size="stand"
          pressed={isMuted}
          label="Mute {NAMES[part]}"
          onclick={() => rehearsal.setMix(part, { isMuted: !isMuted })}
          >{#if isMuted}<VolumeX size={16} />{:else}<Volume2 size={16} />{/if}</Button
        >
        <span class="flex flex-col text-xs leading-4"
          >{NAMES[part]}
          <Slider
            class="w-20"
            label="Volume of {NAMES[part]}"
            min={-30}
            max={6}
            value={decibels}
            says="{decibels} decibels"
            onslide={(next) => rehearsal.setMix(part, { decibels: next })}
          /></span
        >
      </div>
    {/each}
    <Select
      size="stand"
      label="Sound of the chords"
      value={desk.chordSound}
      options={CHORD_SOUND_OPTIONS}
      onpick={(chordSound) => rehearsal.set({ chordSound: chordSound as Desk['chordSound'] })}
    />
    <Button size="stand" hint="The tuner, and each string to hear (U)" onclick={ontune}>tune</Button>
  </div>
</div>
