<!-- How loud an input is, 0 to 1. -->
<script lang="ts">
  let {
    level,
    isWarning = false,
    class: extra = 'w-32'
  }: { level: number; isWarning?: boolean; class?: string } = $props();
</script>

<div
  class="h-2.5 overflow-hidden rounded-full bg-edge {extra}"
  role="meter"
  aria-label="Level"
  aria-valuemin="0"
  aria-valuemax="1"
  aria-valuenow={Math.round(100 * level) / 100}
>
  <!-- Loudness is heard by its root rather than by itself. -->
  <div
    class="h-full origin-left {isWarning ? 'bg-warn' : 'bg-target'}"
    style:transform="scaleX({Math.min(1, Math.sqrt(level))})"
  ></div>
</div>
