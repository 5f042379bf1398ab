<!-- The pad of the pen: lengths, ways of playing, passages; everything that the keys do, by touch. -->
<script lang="ts">
  import ArrowLeft from '@lucide/svelte/icons/arrow-left';
  import ArrowRight from '@lucide/svelte/icons/arrow-right';
  import Delete from '@lucide/svelte/icons/delete';
  import { TECHNIQUES, WRITTEN_LENGTHS, type WrittenValue } from '$lib/core/line/edit';
  import type { Pen } from '$lib/state/lines/pen.svelte';
  import Button from '../kit/Button.svelte';
  import Select from '../kit/Select.svelte';
  import Toggles from '../kit/Toggles.svelte';
  import { TECHNIQUE_KEYS } from './line-keys';

  let { pen }: { pen: Pen } = $props();

  const PASSAGES = [
    { value: 'copy', name: 'copy', run: () => pen.passage.copy() },
    { value: 'cut', name: 'cut', run: () => pen.passage.cut() },
    { value: 'repeat', name: 'repeat behind it', run: () => pen.passage.repeat() },
    { value: 'up', name: 'a semitone up', run: () => pen.passage.transpose(1) },
    { value: 'down', name: 'a semitone down', run: () => pen.passage.transpose(-1) },
    { value: 'octave up', name: 'an octave up', run: () => pen.passage.transpose(12) },
    { value: 'octave down', name: 'an octave down', run: () => pen.passage.transpose(-12) },
    { value: 'join', name: 'join to one note', run: () => pen.passage.join() },
    { value: 'erase', name: 'delete', run: () => pen.erase() }
  ];
</script>

<section
  class="flex min-w-0 flex-wrap items-center gap-x-3 gap-y-1.5 card p-2 text-sm"
  aria-label="The pen"
  data-pad
>
  <div class="flex gap-1">
    <Button label="Caret back" onclick={() => pen.step(-1)}><ArrowLeft size={15} /></Button>
    <Button label="Caret forward" hint="Go on; a rest where nothing is (→)" onclick={() => pen.step(1)}
      ><ArrowRight size={15} /></Button
    >
  </div>
  <Toggles
    label="Length of the next note"
    value={String(pen.length.value)}
    options={WRITTEN_LENGTHS.map(({ value, letter, name }) => ({
      value: String(value),
      name: value === 1 ? '1' : `1/${value}`,
      hint: `${name} notes (${letter.toUpperCase()})`
    }))}
    onpick={(value) => pen.setLength({ value: Number(value) as WrittenValue })}
  />
  <div class="flex gap-1">
    <Button
      tone={pen.length.isDotted ? 'strong' : undefined}
      aria-pressed={pen.length.isDotted}
      hint="Half as long again (.)"
      onclick={() => pen.setLength({ isDotted: !pen.length.isDotted })}>dotted</Button
    >
    <Button
      tone={pen.length.isTriplet ? 'strong' : undefined}
      aria-pressed={pen.length.isTriplet}
      hint="Three in the time of two (T)"
      onclick={() => pen.setLength({ isTriplet: !pen.length.isTriplet })}>triplet</Button
    >
    <Button label="Delete" hint="Delete (Delete)" onclick={() => pen.erase()}><Delete size={15} /></Button>
  </div>
  <div class="flex flex-wrap gap-1">
    <Button hint="Half step, whole step, release, none (B)" onclick={() => pen.bend()}>bend</Button>
    {#each TECHNIQUES as technique (technique)}
      {@const { name, hint } = TECHNIQUE_KEYS[technique]}
      <Button {hint} onclick={() => pen.technique(technique)}>{name}</Button>
    {/each}
    <Button hint="Two of half the length (X)" onclick={() => pen.split()}>split</Button>
  </div>
  <div class="flex flex-wrap gap-1">
    <Button
      tone={pen.isSelecting ? 'strong' : undefined}
      aria-pressed={pen.isSelecting}
      hint="The next taps select up to there (Shift with the arrows)"
      onclick={() => (pen.isSelecting = !pen.isSelecting)}>select</Button
    >
    <Select
      label="With the selection"
      value=""
      options={[
        { value: '', name: pen.selection ? 'with the selection' : 'with this bar' },
        ...PASSAGES.map(({ value, name }) => ({ value, name }))
      ]}
      onpick={(value) => PASSAGES.find((one) => one.value === value)?.run()}
    />
    <Button
      disabled={!pen.passage.canPaste}
      hint="Paste at the caret (Ctrl V)"
      onclick={() => pen.passage.paste()}>insert</Button
    >
  </div>
</section>
