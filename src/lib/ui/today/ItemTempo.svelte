<!-- How fast an item is held, from its start to its goal: filled as far as it is held, marked where it was clean once. -->
<script lang="ts">
  import type { ItemTempo } from '$lib/core/practice/log/model';
  import type { Progress } from '$lib/core/practice/progress/progress';

  let { tempo, progress }: { tempo: ItemTempo; progress: Progress } = $props();
  const low = $derived(Math.min(tempo.start, progress.next) - 4);
  const span = $derived(Math.max(1, tempo.goal - low));
  const share = (value: number) => Math.min(100, Math.max(0, ((value - low) / span) * 100));
</script>

<div
  class="w-36"
  role="img"
  aria-label="{progress.held === null
    ? 'not held yet'
    : `held at ${progress.held}`}, goal {tempo.goal}, next at {progress.next}"
>
  <div class="relative h-2.5 rounded-full border border-edge">
    {#if progress.held !== null}<div
        class="absolute inset-y-0 left-0 rounded-full bg-ink"
        style:width="{share(progress.held)}%"
      ></div>{/if}
    {#if progress.clean !== null}<div
        class="absolute -inset-y-1 w-0.5 bg-target"
        style:left="{share(progress.clean)}%"
      ></div>{/if}
  </div>
  <p class="mt-0.5 flex justify-between text-xs tabular-nums">
    <span>{progress.held ?? '–'}</span><span class="text-soft">next {progress.next}</span><span
      >{tempo.goal}</span
    >
  </p>
</div>
