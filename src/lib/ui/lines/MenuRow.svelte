<!-- One thing that can be set in a menu: its name, and beside it the control. -->
<script lang="ts">
  import type { Snippet } from 'svelte';

  let { name, children }: { name: string; children: Snippet } = $props();
</script>

<div class="flex items-center gap-2">
  <span class="w-24 shrink-0 text-soft">{name}</span>
  <div class="flex min-w-0 grow">{@render children()}</div>
</div>
