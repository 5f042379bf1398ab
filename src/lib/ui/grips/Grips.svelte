<!-- Grips: the path of nearest voicings through the chart on one string set, and what lies under the hand. -->
<script lang="ts">
  import { VOICING_FACTS, VOICINGS, stringSets, voicingsOf, type Grip } from '$lib/core/neck/voicing';
  import { gripPathThrough, GRIP_DIRECTIONS, type GripDirection } from '$lib/core/neck/grip-path';
  import { gripCaution } from '$lib/core/neck/position';
  import { gripStages } from '$lib/core/moment/grips';
  import { settings } from '$lib/state/settings.svelte';
  import type { Workspace } from '$lib/state/workspace.svelte';
  import ChordSymbol from '../chord/ChordSymbol.svelte';
  import Pager from '../kit/Pager.svelte';
  import GripCard from './GripCard.svelte';
  import GripNeck from './GripNeck.svelte';

  let { workspace }: { workspace: Workspace } = $props();

  const DIRECTIONS: Readonly<Record<GripDirection, { name: string; hint: string }>> = {
    nearest: { name: 'nearest', hint: 'Each grip is the nearest to the one before' },
    shortest: { name: 'least in all', hint: 'The least movement over the whole chart' },
    up: { name: 'up the neck', hint: 'No voice ever falls' },
    down: { name: 'down the neck', hint: 'No voice ever rises' }
  };
  const INVERSIONS = ['root in the bass', '3rd in the bass', '5th in the bass', '7th in the bass'] as const;

  let direction: GripDirection = $state('nearest');
  let setAt = $state(1);
  /** The grip that the path goes through, picked by the player. */
  let picked: { change: number; place: string } | null = $state(null);

  const neck = $derived(workspace.neck);
  const type = $derived(settings.now.voicing);
  const sets = $derived(stringSets(neck, type));
  const set = $derived(sets[Math.min(setAt, sets.length - 1)]);
  const stages = $derived(set ? gripStages(workspace.analysis, neck, type, set) : []);

  const placeOfGrip = ({ cells }: Grip) => cells.map(({ string, fret }) => `${string}:${fret}`).join(' ');
  const lowOf = ({ cells }: Grip) => Math.min(...cells.map(({ fret }) => fret));
  const nearHand = (grips: readonly Grip[], change: number) =>
    [...grips].sort(
      (a, b) => Math.abs(lowOf(a) - workspace.hands[change]!) - Math.abs(lowOf(b) - workspace.hands[change]!)
    )[0];

  const path = $derived.by(() => {
    const own = picked && stages.findIndex(({ change }) => change === picked!.change);
    const at = own !== null && own >= 0 ? own : 0;
    const stage = stages[at];
    if (!stage) return null;
    const grip =
      stage.grips.find((one) => picked && placeOfGrip(one) === picked.place) ??
      nearHand(stage.grips, stage.change);
    return grip ? gripPathThrough(stages, direction, at, grip) : null;
  });
  const byChange = $derived(new Map(path?.grips.map((grip) => [grip.change, grip])));

  /** All grips of the selected change that the hand reaches, on every string set. */
  const underHand = $derived.by(() => {
    const chord = workspace.change?.chord;
    if (!chord) return [];
    const position = workspace.hands[workspace.selected]!;
    return sets.flatMap((strings, at) =>
      voicingsOf(neck, chord, type, strings)
        .filter(({ cells }) =>
          cells.every(({ fret }) => fret >= Math.max(0, position - 1) && fret <= position + neck.span)
        )
        .map((grip) => ({ grip, at }))
    );
  });
  const shown = $derived(byChange.get(workspace.selected) ?? underHand[0]?.grip ?? null);
  const caution = $derived(shown ? gripCaution(shown.cells, neck.capo) : undefined);

  function pick(grip: Grip, at: number) {
    setAt = at;
    picked = { change: workspace.selected, place: placeOfGrip(grip) };
  }
</script>

<section class="flex min-w-0 flex-col gap-2 card p-2.5" aria-label="Grips">
  <div class="flex flex-wrap items-center gap-x-3 gap-y-1.5 text-[13px]">
    <div class="flex flex-wrap gap-1" role="group" aria-label="Kind of grip">
      {#each VOICINGS as voicing (voicing)}
        <button
          class="btn min-h-8!"
          aria-pressed={type === voicing}
          onclick={() => settings.change({ voicing })}>{VOICING_FACTS[voicing].name}</button
        >
      {/each}
    </div>
    <div class="flex flex-wrap items-center gap-1" role="group" aria-label="String set">
      <span class="text-soft">strings</span>
      {#each sets as strings, i (strings.join())}
        <button class="btn min-h-8! px-2" aria-pressed={strings === set} onclick={() => (setAt = i)}
          >{strings.join(' ')}</button
        >
      {/each}
    </div>
    <div class="flex flex-wrap gap-1" role="group" aria-label="Way of the path">
      {#each GRIP_DIRECTIONS as way (way)}
        <button
          class="btn min-h-8! px-2"
          aria-pressed={direction === way}
          title={DIRECTIONS[way].hint}
          onclick={() => (direction = way)}>{DIRECTIONS[way].name}</button
        >
      {/each}
    </div>
  </div>

  {#if !set}
    <p class="p-6 text-soft">
      This instrument has too few strings for {VOICING_FACTS[type].name.toLowerCase()}.
    </p>
  {:else}
    <div class="flex flex-wrap gap-3">
      {#if shown}
        <GripNeck {workspace} grip={shown} />
      {/if}
      <div class="min-w-[min(300px,100%)] flex-1">
        <p class="mb-1 text-[13px] text-soft">
          Under the hand in position {workspace.hands[workspace.selected]}: pick one, and the path goes
          through it.
        </p>
        <div class="flex max-h-[235px] flex-wrap gap-1.5 overflow-y-auto" data-under-hand>
          {#each underHand as { grip, at } (placeOfGrip(grip))}
            {@const isPath = shown && placeOfGrip(grip) === placeOfGrip(shown)}
            <button
              class="card px-1 pt-0.5 text-[11px] text-soft {isPath ? 'inset-ring-2 inset-ring-target' : ''}"
              aria-pressed={isPath}
              aria-label="{INVERSIONS[grip.inversion]}, strings {sets[at]!.join(' ')}, fret {lowOf(grip)}"
              onclick={() => pick(grip, at)}
            >
              <GripCard {grip} strings={neck.strings.length} frets={neck.frets} isNow={!!isPath} />
            </button>
          {:else}
            <p class="text-[13px] text-soft">
              {workspace.change?.chord
                ? `No ${VOICING_FACTS[type].name.toLowerCase()} of ${workspace.change.symbol} lies here whole; move the hand, or pick another kind.`
                : 'No chord sounds here.'}
            </p>
          {/each}
        </div>
      </div>
    </div>
    {#if caution}<p class="text-[12.5px] text-warn">{caution}</p>{/if}
    <p class="border-t border-line pt-1.5 text-[13px]" role="status" data-grip-summary>
      {#if path}
        {path.grips.length} grips, {path.total} semitones in all voices together.
        {#if path.ranOut}<span class="text-warn">{settings.prose(path.ranOut.message)}</span>{/if}
      {/if}
    </p>
    <Pager count={workspace.changes.length} at={workspace.selected} name="changes">
      {#snippet children(from, to)}
        <div class="flex flex-wrap gap-1.5" data-grip-path>
          {#each workspace.changes.slice(from, to) as change (change.index)}
            {@const grip = byChange.get(change.index)}
            {@const isNow = change.index === workspace.selected}
            <button
              class="card px-1.5 pt-0.5 text-left {isNow ? 'inset-ring-2 inset-ring-target' : ''}"
              aria-current={isNow ? 'true' : undefined}
              aria-label="{change.symbol}, bar {change.bar}{grip
                ? `, ${INVERSIONS[grip.inversion]}, fret ${lowOf(grip)}`
                : ', no grip'}"
              onclick={() => workspace.select(change.index)}
            >
              <span class="flex items-baseline justify-between gap-2">
                <span class="text-[16px] leading-6"><ChordSymbol symbol={change.symbol} /></span>
                <span class="text-[11px] text-soft">{change.bar}</span>
              </span>
              {#if grip}
                <GripCard
                  {grip}
                  strings={neck.strings.length}
                  frets={neck.frets}
                  moves={grip.moves}
                  {isNow}
                />
              {:else}
                <span class="block max-w-28 pb-2 text-[11.5px] text-soft">
                  {!change.chord
                    ? 'rest'
                    : stages.some((stage) => stage.change === change.index)
                      ? 'out of neck'
                      : 'too few tones for this'}
                </span>
              {/if}
            </button>
          {/each}
        </div>
      {/snippet}
    </Pager>
  {/if}
</section>
