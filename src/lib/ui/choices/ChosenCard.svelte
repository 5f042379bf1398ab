<!-- What is played on the selected change, and why; how to carry it to others like it, or Reset. -->
<script lang="ts" module>
  import { Part } from '../app/part';

  const sliderPart = new Part(() => import('../kit/Slider.svelte'));
</script>

<script lang="ts">
  import { collectionOf, sameCollection } from '$lib/core/approaches/collection';
  import { motionBetween, type ScaleChoice } from '$lib/core/approaches/choice';
  import { warningsOf } from '$lib/core/approaches/outline';
  import { romanText } from '$lib/core/harmony/numeral';
  import { prettyNumeral, prettyProse } from '$lib/core/theory/typeset';
  import { settings } from '$lib/state/settings.svelte';
  import type { Workspace } from '$lib/state/chart/workspace.svelte';
  import Arriving from '../app/Arriving.svelte';
  import Hear from '../app/Hear.svelte';
  import Button from '../kit/Button.svelte';
  import Degrees from './Degrees.svelte';

  let { workspace, chosen }: { workspace: Workspace; chosen: ScaleChoice } = $props();

  const choices = $derived(workspace.choices);
  const isTaken = $derived(choices.isTaken(workspace.selected));
  const isOutlined = $derived(
    workspace.arrangement.outlineOrder.slice(0, workspace.arrangement.outlined).includes(workspace.selected)
  );
  /** How it sounds and is used, where it is one of those that are offered here. */
  const advice = $derived(
    choices.offered[workspace.selected]?.find(
      ({ approach, facts }) => approach === chosen.approach && sameCollection(facts, chosen.facts)
    )
  );
  const warnings = $derived(warningsOf(chosen, workspace.analysis, workspace.selected));
  const numeral = $derived(
    workspace.change?.numeral ? prettyNumeral(romanText(workspace.change.numeral)) : 'change'
  );
  const later = $derived(choices.changeOver && collectionOf(choices.changeOver.collection));
  /** How the choice moves from the one before. */
  const motion = $derived.by(() => {
    const before = workspace.chosen[workspace.selected - 1];
    if (!before) return '';
    const { kept, semitone, tone } = motionBetween(before, chosen);
    if (semitone + tone === 0) return 'Every note was there in the choice before.';
    const moved = [semitone ? `${semitone} a semitone away` : '', tone ? `${tone} further` : '']
      .filter(Boolean)
      .join(', ');
    return `${kept} notes kept from the choice before, ${moved}.`;
  });
</script>

<div class="border-b border-line p-3 pb-2">
  <p class="flex flex-wrap items-center justify-between gap-x-2 text-xs text-soft">
    <span>{isTaken ? 'Your choice' : isOutlined ? 'First choice' : 'The scale of the key'}</span>
    <span class="flex items-center gap-1">
      {#if isTaken}
        <Button
          size="small"
          hint="Go back to the first choice of the approach"
          onclick={() => choices.leave()}>Reset</Button
        >
      {/if}
      <Hear
        {workspace}
        ask={{ kind: 'choice', choice: chosen }}
        label="Hear what is chosen"
        hint="Up and down over the chord. Of another choice: rest on it and press J."
      />
    </span>
  </p>
  <h3 class="font-display text-lg leading-6" data-chosen={chosen.name}>{settings.collection(chosen)}</h3>
  <Degrees choice={chosen} />
  {#if advice}<p class="mt-1 text-xs leading-[1.35]" data-advice>
      {prettyProse(`${advice.sound.charAt(0).toUpperCase()}${advice.sound.slice(1)}; ${advice.use}`)}.
    </p>{/if}
  <p class="mt-1 text-xs leading-[1.35] text-soft">
    {prettyProse(chosen.why)}
    {#if chosen.parent}
      Same notes as {settings.note(chosen.parent.tonic)} {chosen.parent.scale}.
    {/if}
  </p>
  {#if later}
    {@const { beat } = choices.changeOver!}
    <div class="mt-1 flex flex-wrap items-center gap-2 text-xs" data-change-over={beat}>
      <span>from beat {beat}: {settings.collection(later)}</span>
      <Arriving isQuiet part={sliderPart}
        >{#snippet children(Slider)}<Slider
            class="w-20"
            label="Beat of the change-over in this change"
            min={1}
            max={workspace.change?.beats ?? 4}
            value={beat}
            onslide={(at) => choices.moveChangeOver(at)}
          />{/snippet}</Arriving
      >
    </div>
  {/if}
  {#if motion}<p class="mt-1 text-xs text-soft">{motion}</p>{/if}
  {#each warnings as warning (warning)}<p class="mt-1 text-xs text-warn">{warning}</p>{/each}
  {#if choices.alike.length > 1}
    <Button
      size="small"
      class="mt-1.5"
      hint="Use the same choice on every change of this kind (A)"
      onclick={() => choices.takeForAllAlike(chosen)}
      >apply to all {choices.alike.length} {numeral}{choices.alike.length > 1 ? ' chords' : ''}</Button
    >
  {/if}
</div>
