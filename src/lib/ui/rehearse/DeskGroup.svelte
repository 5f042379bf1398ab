<!-- One group of the desk: what it is about, and its controls in a row that wraps. -->
<script lang="ts">
  import type { Snippet } from 'svelte';

  let { name, children }: { name: string; children: Snippet } = $props();
</script>

<div class="flex min-w-0 flex-wrap items-center gap-x-2 gap-y-1.5" role="group" aria-label={name}>
  <h3 class="w-20 shrink-0 font-display text-base text-soft max-sm:w-full">{name}</h3>
  {@render children()}
</div>
