<!-- The band: its feel, how much it gives, whether it is listened to; the mix behind one press. -->
<script lang="ts">
  import Volume2 from '@lucide/svelte/icons/volume-2';
  import { FEELS } from '$lib/core/practice/feel';
  import type { Landings } from '$lib/state/stand/landings.svelte';
  import type { Rehearsal } from '$lib/state/stand/rehearsal.svelte';
  import Button from '../kit/Button.svelte';
  import Select from '../kit/Select.svelte';
  import Slider from '../kit/Slider.svelte';
  import DeskGroup from './DeskGroup.svelte';
  import Listening from './Listening.svelte';

  interface Props {
    rehearsal: Rehearsal;
    landings: Landings;
    /** The mix is shown. */
    isMixing: boolean;
    onmix: () => void;
  }
  let { rehearsal, landings, isMixing, onmix }: Props = $props();
  const desk = $derived(rehearsal.desk.now);
  const percent = $derived(Math.round(desk.intensity * 100));
</script>

<DeskGroup name="Band">
  <Select
    size="stand"
    label="Feel"
    value={rehearsal.rounds.feel.id}
    options={FEELS.map(({ id, name }) => ({ value: id, name }))}
    onpick={(feel) => rehearsal.desk.set({ feel })}
  />
  <span class="flex flex-col px-1 text-xs leading-4"
    >Intensity {percent} %
    <Slider
      label="Intensity of the band"
      class="w-28"
      min={0}
      max={100}
      step={5}
      value={percent}
      says="{percent} percent"
      hint="Quiet and sparse, or loud and full; [ and ] while it plays"
      onslide={(value) => rehearsal.setIntensity(value / 100)}
    /></span
  >
  <meter
    class="w-12"
    min="0"
    max="1"
    value={rehearsal.transport.level}
    aria-label="Loudness"
    data-level={rehearsal.transport.level}
  ></meter>
  <Button size="stand" aria-expanded={isMixing} pressed={isMixing} data-open-mix onclick={onmix}
    ><Volume2 size={17} /> mix</Button
  >
  <Listening {rehearsal} {landings} isWide={isMixing || landings.ear.input !== null} />
</DeskGroup>
