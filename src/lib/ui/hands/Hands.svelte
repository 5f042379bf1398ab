<!-- The Hands strip: one small neck per change in the chosen position, to be read as a row of grips. -->
<script lang="ts">
  import { untrack } from 'svelte';
  import type { Workspace } from '$lib/state/workspace.svelte';
  import { settings } from '$lib/state/settings.svelte';
  import type { Mark } from '$lib/core/moment/moment';
  import ChordSymbol from '../chord/ChordSymbol.svelte';
  import { Seen } from '../kit/seen.svelte';
  import { neckGeometry } from '../neck/geometry';
  import MiniNeck, { type MiniNote } from '../neck/MiniNeck.svelte';

  let { workspace }: { workspace: Workspace } = $props();

  const WIDTH = 116;
  const GAP = $derived(Math.min(11.5, 57.5 / (workspace.neck.strings.length - 1)));
  const neck = $derived(workspace.neck);
  /** The place of a card and the gap behind it. */
  const PITCH = WIDTH + 14 + 8;
  const seen = new Seen();
  const range = $derived(seen.range(workspace.changes.length, (i) => i * PITCH));
  const hands = $derived(workspace.moments.slice(range.from, range.to));
  /** The frets of a card: the hand's window with its stretches, or as many as the shape needs. */
  const cards = $derived(
    hands.map(({ change: { index }, area, marks }) => {
      const position = area?.position ?? workspace.positions[index]!;
      const frets = marks.map(({ fret }) => fret).filter((fret) => fret > 0);
      const from = Math.max(1, Math.min(position - 1, ...frets));
      const to = Math.min(neck.frets, Math.max(position + neck.span, ...frets));
      const geometry = neckGeometry({
        width: WIDTH,
        strings: neck.strings.length,
        from,
        to,
        stringGap: GAP,
        top: 8,
        bottom: 8,
        open: from === 1 ? 14 : 3,
        leftHanded: settings.now.leftHanded
      });
      return { from, to, geometry, position };
    })
  );
  const LOOKS = { chord: 'full', tension: 'open', avoid: 'dot', other: 'dot' } as const;
  const noteOf = (mark: Mark, target?: { string: number; fret: number }): MiniNote => ({
    string: mark.string,
    fret: mark.fret,
    look: target?.string === mark.string && target.fret === mark.fret ? 'target' : LOOKS[mark.role]
  });

  $effect(() => {
    const left = workspace.selected * PITCH;
    untrack(() => seen.show(left, left + PITCH - 8));
  });
</script>

<section class="min-w-0" aria-label="Hands">
  <div class="relative overflow-x-auto pb-1" {@attach seen.follow}>
    <div
      class="flex gap-2"
      style:width="{workspace.changes.length * PITCH - 8}px"
      style:padding-left="{range.from * PITCH}px"
    >
      {#each hands as { change, choice, area, marks }, i (change.index)}
        {@const card = cards[i]!}
        {@const target = workspace.targets.get(change.index)}
        {@const isNow = change.index === workspace.selected}
        <button
          class="shrink-0 card px-1.5 pt-1 pb-1 text-left {isNow
            ? 'inset-ring-2 inset-ring-target'
            : change.index === workspace.nextIndex
              ? 'inset-ring-1 inset-ring-next'
              : ''}"
          style:width="{WIDTH + 14}px"
          aria-current={isNow ? 'true' : undefined}
          aria-label="{change.symbol}, bar {change.bar}{choice
            ? `, ${choice.name}, ${area?.title}, fret ${area?.anchor}`
            : ''}"
          onclick={() => workspace.select(change.index)}
        >
          <span class="flex items-baseline justify-between">
            <span class="text-[17px] leading-6"><ChordSymbol symbol={change.symbol} /></span>
            <span class="text-[11px] text-soft">bar {change.bar}</span>
          </span>
          <span class="block truncate text-[11.5px] leading-4 text-soft" title={choice?.name}>
            {choice ? settings.collection(choice) : change.problem ? 'not understood' : 'rest'}
          </span>
          <svg width={WIDTH} height={card.geometry.height} class="block" aria-hidden="true">
            <MiniNeck
              geometry={card.geometry}
              strings={neck.strings.length}
              from={card.from}
              to={card.to}
              notes={marks.map((mark) => noteOf(mark, target?.cell))}
            />
          </svg>
          <span class="flex justify-between text-[11.5px] leading-4">
            <span class="truncate text-soft"
              >{area && !/^position/.test(area.title) ? `${area.title} · ` : 'fret '}{area?.anchor ??
                card.position}</span
            >
            {#if target}
              <span class="font-bold text-target">{settings.label(target.cell)}</span>
            {/if}
          </span>
        </button>
      {/each}
    </div>
  </div>
</section>
