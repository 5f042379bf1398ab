<!-- The mix: how loud each part is, what the chords are played on, how the band grows and whether it follows the player. -->
<script lang="ts">
  import Volume2 from '@lucide/svelte/icons/volume-2';
  import VolumeX from '@lucide/svelte/icons/volume-x';
  import { ARCS } from '$lib/core/practice/arc';
  import { PARTS, type Part } from '$lib/core/practice/events';
  import type { DeskSettings } from '$lib/state/stand/desk.svelte';
  import type { Rehearsal } from '$lib/state/stand/rehearsal.svelte';
  import Button from '../kit/Button.svelte';
  import Select from '../kit/Select.svelte';
  import Slider from '../kit/Slider.svelte';

  let { rehearsal, ontune }: { rehearsal: Rehearsal; ontune: () => void } = $props();
  const desk = $derived(rehearsal.desk.now);
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
  const CHORD_SOUND_OPTIONS: readonly { value: DeskSettings['chordSound']; name: string }[] = [
    { value: 'feel', name: 'chords as the feel has them' },
    { value: 'piano', name: 'electric piano' },
    { value: 'guitar', name: 'guitar' },
    { value: 'organ', name: 'organ' }
  ];
</script>

<div
  class="flex flex-wrap items-center gap-x-4 gap-y-1 border-t border-line pt-2"
  role="group"
  aria-label="Mix"
>
  {#each heard as part (part)}
    {@const { decibels, isMuted } = desk.mix[part]}
    <div class="flex items-center gap-1">
      <Button
        size="stand"
        pressed={isMuted}
        label="Mute {NAMES[part]}"
        onclick={() => rehearsal.desk.setMix(part, { isMuted: !isMuted })}
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
          onslide={(next) => rehearsal.desk.setMix(part, { decibels: next })}
        /></span
      >
    </div>
  {/each}
  <Select
    size="stand"
    label="Sound of the chords"
    value={desk.chordSound}
    options={CHORD_SOUND_OPTIONS}
    onpick={(chordSound) => rehearsal.desk.set({ chordSound: chordSound as DeskSettings['chordSound'] })}
  />
  <Select
    size="stand"
    label="Intensity from round to round"
    value={desk.arc}
    options={ARCS.map(({ id, name }) => ({ value: id, name }))}
    onpick={(arc) => rehearsal.desk.set({ arc })}
  />
  <Button
    size="stand"
    pressed={desk.follows}
    hint="While it listens, the band plays louder and denser as you do, answers your rests and leaves you room"
    onclick={() => rehearsal.desk.set({ follows: !desk.follows })}>band follows me</Button
  >
  <Button size="stand" hint="The tuner, and each string to hear (U)" onclick={ontune}>tune</Button>
</div>
