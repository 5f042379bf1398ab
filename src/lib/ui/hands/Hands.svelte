<!-- The Hands strip: one small neck per change in the chosen position, to be read as a row of grips. -->
<script lang="ts">
  import { nth } from '$lib/core/base/list';
  import { settings } from '$lib/state/settings.svelte';
  import type { Workspace } from '$lib/state/chart/workspace.svelte';
  import { ScrollWindow } from '../kit/scroll-window.svelte';
  import { Debounced } from '../kit/debounced.svelte';
  import HandCard from './HandCard.svelte';

  let { workspace }: { workspace: Workspace } = $props();

  const WIDTH = 116;
  /** A card with its frame, and its place in the row with the gap behind it. */
  const CARD = WIDTH + 14;
  const PITCH = CARD + 8;
  const scroller = new ScrollWindow();
  const range = scroller.row(
    () => workspace.changes.length,
    (i) => i * PITCH
  );
  /** The strip is an overview: a hand that runs along the neck has it wait. */
  const followed = new Debounced(() => ({
    moments: workspace.moments,
    positions: workspace.positions,
    targets: workspace.paths.targets
  }));
  const hands = $derived(followed.value.moments.slice(range.from, range.to));

  $effect(() => {
    const left = workspace.selected * PITCH;
    scroller.show(left, left + CARD);
  });
</script>

<section class="min-w-0" aria-label="Hands">
  <div class="relative overflow-x-auto pb-1 own-layer" {@attach scroller.follow}>
    <div
      class="flex gap-2"
      style:width="{workspace.changes.length * PITCH - 8}px"
      style:padding-left="{range.from * PITCH}px"
    >
      {#each hands as moment (moment.change.index)}
        {@const { change, choice, area } = moment}
        {@const isNow = change.index === workspace.selected}
        <button
          class="shrink-0 card px-1.5 pt-1 pb-1 text-left {isNow
            ? 'inset-ring-2 inset-ring-target'
            : change.index === workspace.nextIndex
              ? 'inset-ring-1 inset-ring-next'
              : ''}"
          style:width="{CARD}px"
          aria-current={isNow ? 'true' : undefined}
          onclick={() => workspace.select(change.index)}
        >
          <span class="sr-only"
            >{change.symbol}, bar {change.bar}{choice ? `, ${settings.collection(choice)}` : ''}{area
              ? `, ${area.name.words}, fret ${area.anchor}`
              : ''}</span
          >
          <HandCard
            {moment}
            neck={workspace.neck}
            wanted={nth(followed.value.positions, change.index)}
            target={followed.value.targets.get(change.index)}
            width={WIDTH}
          />
        </button>
      {/each}
    </div>
  </div>
</section>
