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
  import { MediaQuery } from 'svelte/reactivity';
  import { innerHeight } from 'svelte/reactivity/window';
  import { Deferred } from '../kit/deferred.svelte';
  import Threads from '../threads/Threads.svelte';
  import { THREADS } from '../threads/layout';
  import type { ViewProps } from '../view';

  interface Props extends ViewProps {
    /** The page itself has just come, with everything in it; else the strip of hands comes behind the first picture. */
    isFirst?: boolean;
  }
  let { workspace, isFirst = false }: Props = $props();
  /** Pixels of a window in which all of it is seen as it is; what there is more goes to the drawings. */
  const FITS = 800;
  const MOST = { threads: 150, neck: 100 } as const;
  /** Beside the panel of the change; below that width the page scrolls anyway. */
  const isBeside = new MediaQuery('(width >= 64rem)');
  const spare = $derived(isBeside.current ? Math.max(0, (innerHeight.current ?? FITS) - FITS) : 0);
  const taller = $derived(Math.min(MOST.threads, Math.round(spare * 0.6)));
  const drawn = new Deferred(untrack(() => (isFirst ? 1 : 0)));
</script>

<Threads {workspace} height={THREADS + taller} />
<Neck {workspace} taller={Math.min(MOST.neck, spare - taller)} />
<Arriving height="min-h-9" part={planStripPart}
  >{#snippet children(PlanStrip)}<PlanStrip {workspace} />{/snippet}</Arriving
>
{#if drawn.count > 0}<Hands {workspace} />{/if}
