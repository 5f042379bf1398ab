<!-- What a player reads while a take is recorded: this chord and its target, the next one, the neck, the targets in time. -->
<script lang="ts">
  import { prettyDegree } from '$lib/core/theory/typeset';
  import { settings } from '$lib/state/settings.svelte';
  import type { Rehearsal } from '$lib/state/rehearsal.svelte';
  import ChordSymbol from '../chord/ChordSymbol.svelte';
  import Neck from '../neck/Neck.svelte';
  import Threads from '../threads/Threads.svelte';

  let { rehearsal }: { rehearsal: Rehearsal } = $props();

  const now = $derived(rehearsal.change?.source);
  const next = $derived(rehearsal.next?.source);
  const target = $derived(now && rehearsal.shown.paths.targets.get(now.index));
  const time = $derived(
    rehearsal.isPlaying && rehearsal.change
      ? rehearsal.change.source.start + Math.max(0, rehearsal.inRound - rehearsal.change.start)
      : null
  );
</script>

<section class="flex min-w-0 flex-col gap-2.5" aria-label="While it is recorded" data-recording-stand>
  <div class="flex flex-wrap items-center gap-x-6 card px-4">
    <span
      class="text-4xl leading-[72px] whitespace-nowrap max-sm:text-3xl max-sm:leading-[52px]"
      data-now={now?.symbol}><ChordSymbol symbol={now?.symbol ?? '—'} /></span
    >
    {#if target}
      <span class="text-2xl font-bold whitespace-nowrap text-target"
        >{prettyDegree(target.cell.degree)}
        <span class="text-xl">{settings.note(target.cell.note)} {target.cell.string}:{target.cell.fret}</span
        ></span
      >
    {/if}
    <span class="ml-auto text-3xl font-bold tabular-nums" aria-hidden="true"
      >{rehearsal.counting || Math.ceil(rehearsal.left - 1e-6) || ''}</span
    >
    {#if next}
      <span class="text-3xl leading-[72px] whitespace-nowrap text-next max-sm:text-2xl max-sm:leading-[40px]"
        ><ChordSymbol symbol={next.symbol} /></span
      >
    {/if}
  </div>
  <Neck workspace={rehearsal.shown} isStand lit={rehearsal.lit} />
  <Threads workspace={rehearsal.shown} height={150} isBare {time} />
</section>
