<script lang="ts" module>
  import { Part } from '$lib/ui/app/part';

  const practisingPart = new Part(() => import('$lib/ui/today/Practising.svelte'));
  const toastsPart = new Part(() => import('$lib/ui/shell/Toasts.svelte'));
</script>

<script lang="ts">
  import '../app.css';
  import { onMount, untrack } from 'svelte';
  import { READING } from '$lib/api/reading';
  import { settings } from '$lib/state/settings.svelte';
  import Arriving from '$lib/ui/app/Arriving.svelte';
  import Shell from '$lib/ui/shell/Shell.svelte';

  let { data, children } = $props();
  // Only what the server had at the start: from then on the page knows better.
  untrack(() => settings.start(data.settings));
  onMount(() => settings.follow());
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
<Shell />
<Arriving isQuiet part={practisingPart}>{#snippet children(Practising)}<Practising />{/snippet}</Arriving>
<Arriving isQuiet part={toastsPart}>{#snippet children(Toasts)}<Toasts />{/snippet}</Arriving>
