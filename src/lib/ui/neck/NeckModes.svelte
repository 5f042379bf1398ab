<!-- What the neck shows: the hand's window, the whole collection, or one degree everywhere. -->
<script lang="ts" module>
  import { Part } from '../app/part';

  const selectPart = new Part(() => import('../kit/Select.svelte'));
</script>

<script lang="ts">
  import type { Degree } from '$lib/core/theory/degree';
  import { prettyDegree } from '$lib/core/theory/typeset';
  import type { NeckMode } from '$lib/state/chart/shown-neck.svelte';
  import type { Workspace } from '$lib/state/chart/workspace.svelte';
  import Arriving from '../app/Arriving.svelte';
  import Button from '../kit/Button.svelte';
  import Hear from '../app/Hear.svelte';

  let { workspace }: { workspace: Workspace } = $props();
  const MODES: readonly [NeckMode, string, string][] = [
    ['hand', 'hand', 'What lies under the hand (H)'],
    ['whole', 'whole neck', 'All areas joined, with their borders (W)'],
    ['find', 'find', 'One degree in every octave (F)']
  ];
  const MELODY: readonly [NeckMode, string, string] = [
    'melody',
    'melody',
    'The melody of this change in every octave: found again when lost in the form (Y)'
  ];
  const modes = $derived(workspace.melody ? [...MODES, MELODY] : MODES);
  const degrees = $derived([
    ...new Set<Degree>([
      ...(workspace.change?.chord?.tones ?? []),
      ...(workspace.chosen[workspace.selected]?.degrees ?? [])
    ])
  ]);
</script>

<div class="flex items-center gap-1" role="group" aria-label="What the neck shows">
  <Hear
    {workspace}
    label="Hear this change"
    hint="This chord on its target, then the next on its own (J). Touch a note to hear it over the chord."
  />
  {#each modes as [mode, name, hint] (mode)}
    <Button
      size="small"
      isRound
      pressed={workspace.shownNeck.mode === mode}
      {hint}
      onclick={() => (workspace.shownNeck.mode = mode)}>{name}</Button
    >
  {/each}
  {#if workspace.shownNeck.mode === 'melody'}
    <Button
      size="small"
      isRound
      hint="Pin every change to the melody’s note there, where that is a tone of its chord under the hand"
      onclick={() => workspace.targetLine.landOnMelody()}>land on the melody</Button
    >
  {/if}
  {#if workspace.shownNeck.mode === 'find'}
    <Arriving isQuiet part={selectPart}
      >{#snippet children(Select)}<Select
          size="small"
          isRound
          label="Degree to find everywhere"
          value={workspace.shownNeck.degree}
          options={degrees.map((degree) => ({ value: degree, name: prettyDegree(degree) }))}
          onpick={(degree) => (workspace.shownNeck.sought = degree as Degree)}
        />{/snippet}</Arriving
    >
  {/if}
</div>
