<!-- The moment of change: threads in time, the neck under the hand, the plan in one line, every change as a small neck. -->
<script lang="ts" module>
  import { Part } from '../app/part';

  const planStripPart = new Part(() => import('../plan/PlanStrip.svelte'));
</script>

<script lang="ts">
  import Arriving from '../app/Arriving.svelte';
  import Hands from '../hands/Hands.svelte';
  import Neck from '../neck/Neck.svelte';
  import { untrack } from 'svelte';
  import { Gradual } from '../kit/gradual.svelte';
  import Threads from '../threads/Threads.svelte';
  import type { ViewProps } from '../view';

  interface Props extends ViewProps {
    /** The page itself has just come, with everything in it; else the strip of hands comes behind the first picture. */
    isFirst?: boolean;
  }
  let { workspace, isFirst = false }: Props = $props();
  const drawn = new Gradual(untrack(() => (isFirst ? 1 : 0)));
</script>

<Threads {workspace} />
<Neck {workspace} />
<Arriving height="min-h-9" part={planStripPart}
  >{#snippet children(PlanStrip)}<PlanStrip {workspace} />{/snippet}</Arriving
>
{#if drawn.count > 0}<Hands {workspace} />{/if}
