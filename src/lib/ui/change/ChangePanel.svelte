<!-- The change under the hand: its chord spelled, what moves into the next one, and what to play on it. -->
<script lang="ts">
  import Pin from '@lucide/svelte/icons/pin';
  import PinOff from '@lucide/svelte/icons/pin-off';
  import type { Workspace } from '$lib/state/workspace.svelte';
  import type { Plan } from '$lib/api/plan';
  import { APPROACH_FACTS } from '$lib/core/moment/approach-notes';
  import { settings } from '$lib/state/settings.svelte';
  import { DEGREES, prettyDegree } from '$lib/core/theory/degree';
  import { prettyNumeral } from '$lib/core/harmony/numeral';
  import { spell } from '$lib/core/theory/note';
  import ChordSymbol from '../chord/ChordSymbol.svelte';
  import Overrule from './Overrule.svelte';
  import { stepWords } from '../threads/layout';

  let { workspace }: { workspace: Workspace } = $props();

  const change = $derived(workspace.change);
  const chord = $derived(change?.chord ?? null);
  const target = $derived(workspace.targets.get(workspace.selected));
  const next = $derived(workspace.nextIndex === null ? undefined : workspace.changes[workspace.nextIndex]);
  const nextTarget = $derived(
    workspace.nextIndex === null ? undefined : workspace.targets.get(workspace.nextIndex)
  );
  /** One move for each tone of the chord, whichever octave. */
  const moves = $derived(
    [...new Map(workspace.moves.map((move) => [move.from.note, move])).values()].sort(
      (a, b) => DEGREES[a.from.degree].semitones - DEGREES[b.from.degree].semitones
    )
  );
  const LEADS: Readonly<Record<Plan['approach'], string>> = {
    none: 'nothing',
    fitting: 'what fits',
    below: APPROACH_FACTS.below.name,
    above: APPROACH_FACTS.above.name,
    step: APPROACH_FACTS.step.name,
    enclosure: APPROACH_FACTS.enclosure.name,
    third: APPROACH_FACTS.third.name
  };
  const ownLead = $derived(
    workspace.plan.approaches.find(({ change }) => change === workspace.selected)?.kind
  );
  const lead = $derived(workspace.approachInto.get(workspace.selected));
  const beats = (n: number) => `${Number(n.toFixed(2))} ${n === 1 ? 'beat' : 'beats'}`;
</script>

<section class="flex flex-col gap-2.5 card p-3" aria-label="This change">
  {#if !change}
    <p class="text-soft">Write a chord or two in the chart, and they appear here.</p>
  {:else}
    <header class="flex items-baseline justify-between gap-2">
      <h2 class="text-[30px] leading-9"><ChordSymbol symbol={change.symbol} /></h2>
      <span class="text-right text-[12.5px] leading-4 text-soft">
        bar {change.bar}, {beats(change.beats)}<br />
        {#if change.roman}{prettyNumeral(change.roman)} in {settings.note(change.key.tonic)}
          {change.key.mode}{/if}
      </span>
    </header>

    {#if change.problem}
      <p class="text-warn">{change.problem.message}</p>
    {:else if !chord}
      <p class="text-soft">No chord sounds here.</p>
    {:else}
      <div>
        <p class="mb-1 text-[12.5px] text-soft">
          {change.function}{change.inKey || change.function?.startsWith('blues') ? '' : ', outside the key'} · aim
          at
        </p>
        <div class="flex flex-wrap gap-1.5">
          {#each chord.tones as tone (tone)}
            {@const { slot } = DEGREES[tone]}
            {@const isAim = target?.cell.degree === tone}
            <button
              class="btn flex-col gap-0 px-2 py-1 {isAim ? 'border-target! bg-target! text-on-target!' : ''}"
              aria-pressed={isAim ? 'true' : undefined}
              aria-label="Aim at the {tone}, {spell(chord.root, tone)}"
              onclick={() => workspace.aim(slot === 'tension' ? tone.replace(/\D/g, '') : slot)}
            >
              <b class="text-[13px] leading-4">{prettyDegree(tone)}</b>
              <span class="text-[12px] leading-4">{settings.note(spell(chord.root, tone))}</span>
            </button>
          {/each}
        </div>
      </div>

      {#if target}
        <div class="flex items-center justify-between gap-2 border-t border-line pt-2">
          <p>
            <b class="text-target">{prettyDegree(target.cell.degree)} {settings.note(target.cell.note)}</b>
            on string {target.cell.string}, {target.cell.fret === 0 ? 'open' : `fret ${target.cell.fret}`}
            {#if nextTarget?.step && next}
              <br /><span class="text-[13px] text-soft"
                >then {stepWords(nextTarget.step.semitones)}
                {nextTarget.step.semitones === 0 ? 'as' : 'to'} the {prettyDegree(nextTarget.cell.degree)} of
                <ChordSymbol symbol={next.symbol} /></span
              >
            {/if}
          </p>
          {#if workspace.isFixed(workspace.selected)}
            <button
              class="btn btn-icon shrink-0"
              aria-label="Release this target"
              title="Release this target (0)"
              onclick={() => workspace.release(workspace.selected)}
            >
              <PinOff size={17} />
            </button>
          {:else}
            <button
              class="btn btn-icon shrink-0"
              aria-label="Keep this target"
              title="Keep this target"
              onclick={() => workspace.fix(workspace.selected, target.cell)}
            >
              <Pin size={17} />
            </button>
          {/if}
        </div>
      {/if}

      {#if target}
        <div class="flex flex-wrap items-center gap-x-2 border-t border-line pt-1.5 text-[13px]">
          <label class="text-soft" for="lead-in">led in by</label>
          <select
            id="lead-in"
            class="btn min-h-7! min-w-0 flex-1 py-0 text-[13px]"
            value={ownLead ?? ''}
            onchange={({ currentTarget: { value } }) =>
              workspace.approachWith(workspace.selected, value ? (value as Plan['approach']) : null)}
          >
            <option value="">as all targets ({LEADS[workspace.plan.approach]})</option>
            {#each Object.entries(LEADS) as [kind, name] (kind)}<option value={kind}>{name}</option>{/each}
          </select>
          {#if lead}
            <p class="w-full" data-lead>
              {#each lead as note (note.beat)}
                <b>{settings.note(note.note)}</b>
                {note.string}:{note.fret}, {prettyDegree(note.degree)}
                {note.role === 'chord' ? '' : ` (${note.role})`}{note === lead.at(-1) ? '' : ', '}
              {/each}
              <span class="text-soft"
                >on <ChordSymbol symbol={workspace.changes[lead[0]!.change]!.symbol} /></span
              >
            </p>
          {:else if (ownLead ?? workspace.plan.approach) !== 'none'}
            <p class="w-full text-soft">No such approach here: no room, or nothing before it.</p>
          {/if}
        </div>
      {/if}
      {#if workspace.moves.length && next}
        <p class="flex flex-wrap gap-x-3 border-t border-line pt-1.5 text-[13px]">
          <span class="text-soft">into <ChordSymbol symbol={next.symbol} /></span>
          {#each moves as move (move.from.note)}
            <span
              >{prettyDegree(move.from.degree)}→{prettyDegree(move.to.degree)}
              <b class="text-next">{stepWords(move.semitones)}</b></span
            >
          {/each}
        </p>
      {/if}
      <Overrule {workspace} />
    {/if}
  {/if}
</section>
