<!-- How far long work is, 0 to 1. -->
<script lang="ts">
  import { Progress } from 'bits-ui';

  let { label, value, class: extra = 'w-24' }: { label: string; value: number; class?: string } = $props();
</script>

<Progress.Root {value} max={1} aria-label={label} class="h-2 overflow-hidden rounded-full bg-edge {extra}">
  <div
    class="h-full origin-left rounded-full bg-target"
    style:transform="scaleX({Math.max(0.02, value)})"
  ></div>
</Progress.Root>
