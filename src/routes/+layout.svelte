<script lang="ts" module>
  import { Part } from '$lib/ui/app/part';

  const practisingPart = new Part(() => import('$lib/ui/today/Practising.svelte'));
  const toastsPart = new Part(() => import('$lib/ui/app/Toasts.svelte'));
</script>

<script lang="ts">
  import '../app.css';
  import { onMount, untrack } from 'svelte';
  import { showHints } from '$lib/ui/kit/hint';
  import { ownKeys } from '$lib/ui/keys/keys';
  import { READING } from '$lib/api/settings';
  import { settings } from '$lib/state/settings.svelte';
  import Arriving from '$lib/ui/app/Arriving.svelte';

  let { data, children } = $props();
  // Only what the server had at the start: from then on the page knows better.
  untrack(() => settings.start(data.settings));
  onMount(() => settings.follow());
  onMount(showHints);
  onMount(() => ownKeys(() => settings.now.singleKeys));
  onMount(() => {
    if (settings.now.reading >= READING) return;
    settings.change({ reading: READING });
    void import('svelte-sonner').then(({ toast }) =>
      toast(
        'Keys, first choices and landings are worked out better now, so some charts may look different. What you decided is as it was.',
        { duration: 20_000 }
      )
    );
  });
</script>

{@render children()}
<Arriving isQuiet part={practisingPart}>{#snippet children(Practising)}<Practising />{/snippet}</Arriving>
<Arriving isQuiet part={toastsPart}>{#snippet children(Toasts)}<Toasts />{/snippet}</Arriving>
