<!-- The Hands strip: one small neck per change in the chosen position, to be read as a row of grips. -->
<script lang="ts">
  import type { Workspace } from '$lib/state/workspace.svelte';
  import { settings } from '$lib/state/settings.svelte';
  import { HAND_SPAN } from '$lib/core/neck/position';
  import ChordSymbol from '../chord/ChordSymbol.svelte';
  import { neckGeometry } from '../neck/geometry';

  let { workspace }: { workspace: Workspace } = $props();

  const WIDTH = 116;
  const GAP = 11.5;
  const position = $derived(workspace.plan.position);
  const from = $derived(Math.max(1, position - 1));
  const to = $derived(Math.min(workspace.neck.frets, position + HAND_SPAN));
  const geometry = $derived(
    neckGeometry({
      width: WIDTH,
      strings: workspace.neck.strings.length,
      from,
      to,
      stringGap: GAP,
      top: 8,
      bottom: 8,
      open: position <= 1 ? 14 : 3,
      leftHanded: settings.now.leftHanded
    })
  );
  const hands = $derived(workspace.moments);
  let strip: HTMLDivElement | undefined = $state();

  $effect(() => {
    const card = strip?.children[workspace.selected] as HTMLElement | undefined;
    if (!strip || !card) return;
    const { scrollLeft, clientWidth } = strip;
    const left = card.offsetLeft - strip.offsetLeft;
    if (left < scrollLeft || left + card.offsetWidth > scrollLeft + clientWidth) {
      strip.scrollTo({ left: left - clientWidth / 3, behavior: 'smooth' });
    }
  });
</script>

<section class="min-w-0" aria-label="Hands">
  <div class="flex gap-2 overflow-x-auto pb-1" bind:this={strip}>
    {#each hands as { change, choice, marks } (change.index)}
      {@const target = workspace.targets.get(change.index)}
      {@const isNow = change.index === workspace.selected}
      <button
        class="shrink-0 card px-1.5 pt-1 pb-1 text-left {isNow
          ? 'outline-2 -outline-offset-2 outline-target'
          : change.index === workspace.nextIndex
            ? 'outline-1 -outline-offset-1 outline-next'
            : ''}"
        style:width="{WIDTH + 14}px"
        aria-current={isNow ? 'true' : undefined}
        aria-label="{change.symbol}, bar {change.bar}{choice ? `, ${choice.name}, position ${position}` : ''}"
        onclick={() => workspace.select(change.index)}
      >
        <span class="flex items-baseline justify-between">
          <span class="text-[17px] leading-6"><ChordSymbol symbol={change.symbol} /></span>
          <span class="text-[11px] text-soft">bar {change.bar}</span>
        </span>
        <span class="block truncate text-[11.5px] leading-4 text-soft" title={choice?.name}>
          {choice ? settings.collection(choice) : change.problem ? 'not understood' : 'rest'}
        </span>
        <svg width={WIDTH} height={geometry.height} class="block" aria-hidden="true">
          {#each Array.from({ length: to - from + 2 }, (_, i) => from - 1 + i) as fret (fret)}
            <line
              x1={geometry.wire(fret)}
              x2={geometry.wire(fret)}
              y1={geometry.string(1)}
              y2={geometry.string(workspace.neck.strings.length)}
              stroke="var(--string)"
              opacity="0.5"
              stroke-width={fret === 0 ? 3 : 1}
            />
          {/each}
          {#each workspace.neck.strings as _, i (i)}
            <line
              x1={Math.min(geometry.wire(from - 1), geometry.wire(to))}
              x2={Math.max(geometry.wire(from - 1), geometry.wire(to))}
              y1={geometry.string(i + 1)}
              y2={geometry.string(i + 1)}
              stroke="var(--string)"
              opacity="0.6"
            />
          {/each}
          {#each marks as mark (mark.midi)}
            {@const isTarget = target?.cell.string === mark.string && target.cell.fret === mark.fret}
            <circle
              cx={geometry.finger(mark.fret)}
              cy={geometry.string(mark.string)}
              r={isTarget ? 5.6 : mark.role === 'chord' ? 4.3 : mark.role === 'tension' ? 3 : 1.8}
              class={isTarget
                ? 'fill-target'
                : mark.role === 'chord'
                  ? 'fill-tone'
                  : mark.role === 'tension'
                    ? 'fill-surface stroke-tone'
                    : 'fill-soft'}
              stroke-width={mark.role === 'tension' && !isTarget ? 1.2 : 0}
            />
          {/each}
        </svg>
        <span class="flex justify-between text-[11.5px] leading-4">
          <span class="text-soft">fret {position}</span>
          {#if target}
            <span class="font-bold text-target">{settings.label(target.cell)}</span>
          {/if}
        </span>
      </button>
    {/each}
  </div>
</section>
