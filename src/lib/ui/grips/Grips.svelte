<!-- Grips: the path of nearest voicings through the chart on one string set, and what lies under the hand. -->
<script lang="ts">
  import { nth } from '$lib/core/base/list';
  import { VOICING_FACTS, VOICINGS } from '$lib/core/neck/voicing';
  import { GRIP_DIRECTIONS, type GripDirection } from '$lib/core/neck/grip-path';
  import { gripCaution } from '$lib/core/neck/position';
  import { gripsOf, lowestFretOf, placesOf } from '$lib/state/chart/grips.svelte';
  import { settings } from '$lib/state/settings.svelte';
  import { prettyProse } from '$lib/core/theory/typeset';
  import ChordSymbol from '../chord/ChordSymbol.svelte';
  import Hear from '../app/Hear.svelte';
  import { Deferred } from '../kit/deferred.svelte';
  import Pager from '../kit/Pager.svelte';
  import Toggles from '../kit/Toggles.svelte';
  import type { ViewProps } from '../view';
  import GripCard from './GripCard.svelte';
  import { INVERSIONS } from './inversions';
  import GripNeck from './GripNeck.svelte';

  let { workspace }: ViewProps = $props();
  /** Grips of each list in the first picture. */
  const drawn = new Deferred(8);

  const DIRECTIONS: Readonly<Record<GripDirection, { name: string; hint: string }>> = {
    nearest: { name: 'nearest', hint: 'Each grip is the nearest to the one before' },
    shortest: { name: 'shortest', hint: 'The least movement over the whole chart' },
    up: { name: 'up the neck', hint: 'No voice ever falls' },
    down: { name: 'down the neck', hint: 'No voice ever rises' }
  };

  const grips = $derived(gripsOf(workspace));
  const neck = $derived(workspace.neck);
  const { type, sets, set, stages, path, byChange, underHand, shown } = $derived(grips);
  const caution = $derived(shown ? gripCaution(shown.cells, neck.capo) : undefined);
</script>

<section class="flex min-w-0 flex-col gap-2 card p-2.5" aria-label="Grips">
  <div class="flex flex-wrap items-center gap-x-3 gap-y-1.5 text-sm">
    <Toggles
      label="Kind of grip"
      value={type}
      options={VOICINGS.map((voicing) => ({ value: voicing, name: VOICING_FACTS[voicing].name }))}
      onpick={(voicing) => settings.change({ voicing })}
    />
    <div class="flex flex-wrap items-center gap-1">
      <span class="text-soft">strings</span>
      <Toggles
        label="String set"
        value={set?.join(' ') ?? ''}
        options={sets.map((strings) => ({ value: strings.join(' '), name: strings.join(' ') }))}
        onpick={(name) => (grips.setAt = sets.findIndex((strings) => strings.join(' ') === name))}
      />
    </div>
    <Toggles
      label="Way of the path"
      value={grips.direction}
      options={GRIP_DIRECTIONS.map((way) => ({ value: way, ...DIRECTIONS[way] }))}
      onpick={(way) => (grips.direction = way)}
    />
    <Hear {workspace} ask={{ kind: 'grip' }} label="Hear this grip" hint="From its lowest string (J)" />
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
        <p class="mb-1 text-sm text-soft">
          Under the hand in position {workspace.hands[workspace.selected]}: pick one, and the path goes
          through it.
        </p>
        <div class="flex max-h-[235px] flex-wrap gap-1.5 overflow-y-auto" data-under-hand>
          {#each underHand.slice(0, drawn.count) as { grip, at } (placesOf(grip))}
            {@const isPath = shown && placesOf(grip) === placesOf(shown)}
            <button
              class="card px-1 pt-0.5 text-2xs text-soft {isPath ? 'inset-ring-2 inset-ring-target' : ''}"
              aria-pressed={isPath}
              onclick={() => grips.pick(grip, at)}
            >
              <span class="sr-only"
                >{INVERSIONS[grip.inversion]}, strings {nth(sets, at).join(' ')}, fret {lowestFretOf(
                  grip
                )}</span
              >
              <GripCard {grip} strings={neck.strings.length} frets={neck.frets} isNow={!!isPath} />
            </button>
          {:else}
            <p class="text-sm text-soft">
              {workspace.change?.chord
                ? `No ${VOICING_FACTS[type].name.toLowerCase()} of ${workspace.change.symbol} lies here whole; move the hand, or pick another kind.`
                : 'No chord sounds here.'}
            </p>
          {/each}
        </div>
      </div>
    </div>
    {#if caution}<p class="text-xs text-warn">{caution}</p>{/if}
    <p class="border-t border-line pt-1.5 text-sm" role="status" data-grip-summary>
      {#if path}
        {path.grips.length} grips, {path.total} semitones in all voices together.
        {#if path.ranOut}<span class="text-warn">{prettyProse(path.ranOut.message)}</span>{/if}
      {/if}
    </p>
    <Pager count={workspace.changes.length} at={workspace.selected} name="changes">
      {#snippet children(from, to)}
        <div class="flex flex-wrap gap-1.5" data-grip-path>
          {#each workspace.changes.slice(from, Math.min(to, from + drawn.count)) as change (change.index)}
            {@const grip = byChange.get(change.index)}
            {@const isNow = change.index === workspace.selected}
            <button
              class="card px-1.5 pt-0.5 text-left {isNow ? 'inset-ring-2 inset-ring-target' : ''}"
              aria-current={isNow ? 'true' : undefined}
              onclick={() => workspace.select(change.index)}
            >
              <span class="sr-only"
                >{change.symbol}, bar {change.bar}{grip
                  ? `, ${INVERSIONS[grip.inversion]}, fret ${lowestFretOf(grip)}`
                  : ', no grip'}</span
              >
              <span class="flex items-baseline justify-between gap-2" aria-hidden="true">
                <span class="text-lg leading-6"><ChordSymbol symbol={change.symbol} /></span>
                <span class="text-2xs text-soft">{change.bar}</span>
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
                <span class="block max-w-28 pb-2 text-2xs text-soft" aria-hidden="true">
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
