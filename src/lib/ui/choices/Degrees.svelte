<!-- A choice at a glance: its notes as degrees; chord tones strong, tensions plain, avoid notes broken, what lacks crossed out. -->
<script lang="ts">
  import { nth } from '$lib/core/base/list';
  import { prettyDegree } from '$lib/core/theory/typeset';
  import type { ScaleChoice } from '$lib/core/approaches/choice';
  import { settings } from '$lib/state/settings.svelte';

  let { choice }: { choice: ScaleChoice } = $props();

  /** Blue notes are read as ♭3 and ♭5, whatever tension they would be elsewhere. */
  const BLUE = { '#9': 'b3', '#11': 'b5' } as const;
  function read(degree: string): string {
    const blue = BLUE[degree as keyof typeof BLUE];
    return prettyDegree(blue && choice.blue.includes(blue) ? blue : degree);
  }
</script>

<span class="flex flex-wrap gap-x-1.5 text-sm leading-5">
  {#each choice.degrees as degree, i (i)}
    {@const isTone = choice.covers.includes(degree)}
    {@const isAvoid = choice.avoid.includes(degree) || choice.contradicts.includes(degree)}
    <span
      class={isTone
        ? 'font-bold text-tone'
        : isAvoid
          ? 'border-b border-dashed border-soft leading-4 text-soft'
          : 'text-ink'}
      data-hint={`${settings.note(nth(choice.notes, i))}${isAvoid ? ', to be passed over' : ''}`}
      >{read(degree)}</span
    >
  {/each}
  {#if choice.lacks.length}
    <span class="text-soft"
      >· lacks {#each choice.lacks as degree (degree)}<s class="ml-1.5">{prettyDegree(degree)}</s
        >{/each}</span
    >
  {/if}
</span>
