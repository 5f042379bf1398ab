<!-- The change under the hand: its chord spelled, what moves into the next one, and where to land. -->
<script lang="ts" module>
  import { Part } from '../app/part';

  const moreOfChangePart = new Part(() => import('./MoreOfChange.svelte'));
</script>

<script lang="ts">
  import Pin from '@lucide/svelte/icons/pin';
  import PinOff from '@lucide/svelte/icons/pin-off';
  import { nth } from '$lib/core/base/list';
  import { romanText } from '$lib/core/harmony/numeral';
  import { DEGREES } from '$lib/core/theory/degree';
  import { prettyDegree, prettyNumeral } from '$lib/core/theory/typeset';
  import { settings } from '$lib/state/settings.svelte';
  import type { Workspace } from '$lib/state/chart/workspace.svelte';
  import Arriving from '../app/Arriving.svelte';
  import ChordSymbol from '../chord/ChordSymbol.svelte';
  import { button } from '../kit/button';
  import Button from '../kit/Button.svelte';
  import { stepWords } from '../threads/layout';

  let { workspace }: { workspace: Workspace } = $props();

  const change = $derived(workspace.change);
  const chord = $derived(change?.chord ?? null);
  const target = $derived(workspace.paths.targets.get(workspace.selected));
  const next = $derived(workspace.nextIndex === null ? undefined : workspace.changes[workspace.nextIndex]);
  const nextTarget = $derived(
    workspace.nextIndex === null ? undefined : workspace.paths.targets.get(workspace.nextIndex)
  );
  /** One move for each tone of the chord, whichever octave. */
  const moves = $derived(
    [...new Map(workspace.moves.map((move) => [move.from.note, move])).values()].sort(
      (a, b) => DEGREES[a.from.degree].semitones - DEGREES[b.from.degree].semitones
    )
  );
  const beats = (n: number) => `${Number(n.toFixed(2))} ${n === 1 ? 'beat' : 'beats'}`;
</script>

<section class="flex flex-col gap-2.5 card p-3" aria-label="This change">
  {#if !change}
    <p class="text-soft">Write a chord or two in the chart, and they appear here.</p>
  {:else}
    <header class="flex items-baseline justify-between gap-2">
      <h2 class="text-2xl leading-9"><ChordSymbol symbol={change.symbol} /></h2>
      <span class="text-right text-xs leading-4 text-soft">
        bar {change.bar}, {beats(change.beats)}<br />
        {#if change.numeral}{prettyNumeral(romanText(change.numeral))} in {settings.note(change.key.tonic)}
          {change.key.mode}{/if}
        {#each change.alsoIn.slice(0, 1) as other, i (i)}
          <br />also {prettyNumeral(romanText(other.numeral))} in {settings.note(other.tonic)}
          {other.mode}
        {/each}
      </span>
    </header>

    {#if change.problem}
      <p class="text-warn">{change.problem.message}</p>
    {:else if !chord}
      <p class="text-soft">No chord sounds here.</p>
    {:else}
      <div>
        <p class="mb-1 text-xs text-soft">
          {change.function}{change.inKey ? '' : ', outside the key'} · aim at
        </p>
        <div class="flex flex-wrap gap-1.5">
          {#each chord.tones as tone, i (i)}
            {@const { slot } = DEGREES[tone]}
            {@const isAim = target?.cell.degree === tone}
            <button
              class={button({ tone: isAim ? 'target' : 'plain', class: 'flex-col gap-0 px-2 py-1' })}
              data-aim={isAim ? tone : undefined}
              onclick={() => workspace.targetLine.aim(slot === 'tension' ? tone.replace(/\D/g, '') : slot)}
            >
              <span class="sr-only">Aim at the</span>
              <b class="text-sm leading-4">{prettyDegree(tone)}</b>
              <span class="text-xs leading-4">{settings.note(nth(chord.notes, i))}</span>
            </button>
          {/each}
        </div>
      </div>

      {#if target}
        {@const isPinned = workspace.targetLine.isPinned(workspace.selected)}
        <div class="flex items-center justify-between gap-2 border-t border-line pt-2">
          <p>
            <b class="text-target">{prettyDegree(target.cell.degree)} {settings.note(target.cell.note)}</b>
            on string {target.cell.string}, {target.cell.fret === 0 ? 'open' : `fret ${target.cell.fret}`}
            {#if nextTarget?.step && next}
              <br /><span class="text-sm text-soft"
                >then {stepWords(nextTarget.step.semitones)}
                {nextTarget.step.semitones === 0 ? 'as' : 'to'} the {prettyDegree(nextTarget.cell.degree)} of
                <ChordSymbol symbol={next.symbol} /></span
              >
            {/if}
          </p>
          {#if isPinned}
            <Button
              label="Unpin this target"
              hint="Unpin: the target is worked out again (0)"
              onclick={() => workspace.targetLine.unpin(workspace.selected)}><PinOff size={17} /></Button
            >
          {:else}
            <Button
              label="Pin this target"
              hint="Pin: it stays whatever else changes"
              onclick={() => workspace.targetLine.pin(workspace.selected, target.cell)}
              ><Pin size={17} /></Button
            >
          {/if}
        </div>
      {/if}
      {#if workspace.moves.length && next}
        <p class="flex flex-wrap gap-x-3 border-t border-line pt-1.5 text-sm">
          <span class="text-soft">into <ChordSymbol symbol={next.symbol} /></span>
          {#each moves as move, i (i)}
            <span
              >{prettyDegree(move.from.degree)}→{prettyDegree(move.to.degree)}
              <b class="text-next">{stepWords(move.semitones)}</b></span
            >
          {/each}
        </p>
      {/if}
      <Arriving isQuiet part={moreOfChangePart}
        >{#snippet children(More)}<More {workspace} />{/snippet}</Arriving
      >
    {/if}
  {/if}
</section>
