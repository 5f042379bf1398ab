<!-- Bars are traded: whose turn it is, and the beats left of it. -->
<script lang="ts">
  interface Props {
    isOwn: boolean;
    /** Beats. */
    left: number;
  }
  let { isOwn, left }: Props = $props();
</script>

<p
  class="flex items-baseline gap-4 rounded-md px-3 py-1 {isOwn ? 'bg-target text-on-target' : 'bg-lit'}"
  role="status"
  data-turn={isOwn ? 'own' : 'corvel'}
>
  <span class="font-display text-4xl whitespace-nowrap max-sm:text-3xl"
    >{isOwn ? 'Your turn' : 'Corvel plays'}</span
  >
  <span class="text-2xl tabular-nums" aria-hidden="true">{Math.ceil(left - 1e-6)}</span>
</p>
