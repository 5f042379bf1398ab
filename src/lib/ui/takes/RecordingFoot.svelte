<!-- The foot of the stand while a take is recorded: the stop, that the light is on, and how loud the input is. -->
<script lang="ts">
  import Square from '@lucide/svelte/icons/square';
  import type { Takes } from '$lib/state/takes/takes.svelte';
  import { LEVELS } from '$lib/state/takes/ways/microphone.svelte';
  import Button from '../kit/Button.svelte';
  import Level from '../kit/Level.svelte';

  let { takes }: { takes: Takes } = $props();
  const level = $derived(Math.max(takes.microphone.level, takes.midi.level));
</script>

<div class="flex flex-wrap items-center gap-x-4 gap-y-2 text-lg" data-stand-foot>
  <Button tone="record" size="stand" class="min-h-12" hint="Space" onclick={() => void takes.finish()}>
    <Square size={18} class="fill-current" /> Stop and read it
  </Button>
  <p class="flex items-center gap-2 font-bold text-warn" role="status" data-recording>
    <span class="size-3.5 rounded-full bg-warn motion-safe:animate-pulse"></span> recording
  </p>
  <div class="flex min-h-12 flex-1 items-center gap-2" data-level={level.toFixed(3)}>
    <Level {level} isWarning={takes.microphone.isClipping} class="w-40" />
    <span class="text-soft" aria-live="polite">
      {#if takes.microphone.isClipping}too loud: turn the input down
      {:else if level < LEVELS.silent}nothing heard yet{/if}
    </span>
  </div>
  <b class="tabular-nums">{takes.rehearsal.tempo.sounding} bpm</b>
</div>
