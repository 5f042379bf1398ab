<!-- The moment of change: threads in time, the neck under the hand, the plan in one line, every change as a small neck. -->
<script lang="ts">
  import Arriving from '../app/Arriving.svelte';
  import Hands from '../hands/Hands.svelte';
  import Neck from '../neck/Neck.svelte';
  import Threads from '../threads/Threads.svelte';
  import type { ViewProps } from '../view';

  let { workspace }: ViewProps = $props();
</script>

<Threads {workspace} />
<Neck {workspace} />
<Arriving height="min-h-9" load={() => import('../plan/PlanStrip.svelte')}
  >{#snippet children(PlanStrip)}<PlanStrip {workspace} />{/snippet}</Arriving
>
<Hands {workspace} />
