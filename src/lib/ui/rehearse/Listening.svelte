<!-- The stand listens: the note heard is shown on the neck, and each change is told as it was met. By a press, and as quietly turned off. -->
<script lang="ts">
  import Ear from '@lucide/svelte/icons/ear';
  import { EAR_INPUTS, type EarInput } from '$lib/state/input/ear.svelte';
  import type { Landings } from '$lib/state/stand/landings.svelte';
  import type { Rehearsal } from '$lib/state/stand/rehearsal.svelte';
  import Button from '../kit/Button.svelte';
  import Level from '../kit/Level.svelte';
  import Select from '../kit/Select.svelte';

  interface Props {
    rehearsal: Rehearsal;
    landings: Landings;
    /** With the choice of input. */
    isWide?: boolean;
  }
  let { rehearsal, landings, isWide = false }: Props = $props();

  const ear = $derived(landings.ear);
  const NAMES: Readonly<Record<EarInput, string>> = { microphone: 'microphone', midi: 'MIDI instrument' };
  const options = EAR_INPUTS.map((value) => ({ value, name: NAMES[value] }));
  function choose(input: EarInput) {
    rehearsal.desk.set({ hears: input });
    if (ear.input) void ear.open(input);
  }
</script>

<div class="flex flex-wrap items-center gap-2" role="group" aria-label="Listening" data-listening={ear.input}>
  <Button
    size="stand"
    pressed={ear.input !== null}
    hint="Shows the note that is heard on the neck, and at each change whether you landed (Z). Wear headphones, kept low, or the band is heard too. Nothing is kept."
    onclick={() => void ear.toggle(rehearsal.desk.now.hears)}
  >
    <Ear size={17} />
    {ear.isAsking ? 'asking …' : ear.input ? 'listening' : 'listen'}
    {#if ear.input}<span class="size-2.5 rounded-full bg-warn" aria-hidden="true"></span>{/if}
  </Button>
  {#if isWide}
    <Select
      size="stand"
      label="What is listened to"
      value={rehearsal.desk.now.hears}
      {options}
      onpick={(value) => choose(value as EarInput)}
    />
  {/if}
  {#if ear.input}
    <Level level={ear.level} class="w-14" />
    {#if isWide && landings.told > 0}
      <span class="whitespace-nowrap tabular-nums" data-landed="{landings.landed}/{landings.told}"
        ><b>{landings.landed}</b> of {landings.told} landed</span
      >
    {/if}
  {/if}
</div>
