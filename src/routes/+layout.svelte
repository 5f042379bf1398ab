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
  import { settings } from '$lib/state/settings.svelte';
  import Arriving from '$lib/ui/app/Arriving.svelte';

  let { data, children } = $props();
  // Only what the server had at the start: from then on the page knows better.
  untrack(() => settings.start(data.settings));
  onMount(() => settings.follow());
  onMount(showHints);
  onMount(() => ownKeys(() => settings.now.singleKeys));
</script>

{@render children()}
<Arriving isQuiet part={practisingPart}>{#snippet children(Practising)}<Practising />{/snippet}</Arriving>
<Arriving isQuiet part={toastsPart}>{#snippet children(Toasts)}<Toasts />{/snippet}</Arriving>
