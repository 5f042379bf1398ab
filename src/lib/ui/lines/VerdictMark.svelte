<!-- Whether a change is heard in the line: full, half, empty; a dash where the line is silent. -->
<script lang="ts">
  import type { Verdict } from '$lib/core/line/outline';

  let { verdict, size = 15 }: { verdict: Verdict; size?: number } = $props();
</script>

<svg
  width={size}
  height={size}
  viewBox="0 0 16 16"
  class="shrink-0"
  aria-hidden="true"
  data-verdict={verdict}
>
  {#if verdict === 'silence'}
    <path d="M4 8H12" class="stroke-soft" stroke-width="2" />
  {:else}
    <circle
      cx="8"
      cy="8"
      r="6"
      class={verdict === 'clear'
        ? 'fill-tone stroke-tone'
        : verdict === 'not'
          ? 'fill-surface stroke-warn'
          : 'fill-surface stroke-tone'}
      stroke-width="1.8"
      stroke-dasharray={verdict === 'not' ? '2.6 2.2' : undefined}
    />
    {#if verdict === 'partly'}<path d="M8 2A6 6 0 0 0 8 14Z" class="fill-tone" />{/if}
  {/if}
</svg>
