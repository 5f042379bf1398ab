<!--
  How a landing met its target, by shape: the ring is the target. Hit fills it; late and early stand beside it; another chord tone is half of
  it; outside crosses it; silence leaves it broken.
-->
<script lang="ts">
  import type { Meeting } from '$lib/core/takes/judge/landing';

  let { met, x = 8, y = 8, r = 6 }: { met: Meeting; x?: number; y?: number; r?: number } = $props();
</script>

<g data-met={met}>
  <circle
    cx={x}
    cy={y}
    {r}
    class={met === 'hit' ? 'fill-target stroke-target' : 'fill-surface stroke-target'}
    stroke-width="1.8"
    stroke-dasharray={met === 'silent' ? '2.4 2.4' : undefined}
  />
  {#if met === 'late' || met === 'early'}
    {@const way = met === 'late' ? 1 : -1}
    <path
      d="M{x - (way * r) / 2.2} {y - r / 1.9}L{x + (way * r) / 1.9} {y}L{x - (way * r) / 2.2} {y + r / 1.9}Z"
      class="fill-target"
    />
  {:else if met === 'chord tone'}
    <path d="M{x} {y - r}A{r} {r} 0 0 0 {x} {y + r}Z" class="fill-tone" />
  {:else if met === 'outside'}
    {@const arm = r * 0.55}
    <path
      d="M{x - arm} {y - arm}L{x + arm} {y + arm}M{x - arm} {y + arm}L{x + arm} {y - arm}"
      class="stroke-warn"
      stroke-width="2"
      fill="none"
    />
  {/if}
</g>
