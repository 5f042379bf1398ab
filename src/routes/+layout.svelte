<script lang="ts">
  import '../app.css';
  import { onMount, untrack } from 'svelte';
  import { Toaster } from 'svelte-sonner';
  import { ownKeys } from '$lib/ui/keys/keys';
  import { settings } from '$lib/state/settings.svelte';

  let { data, children } = $props();
  // Only what the server had at the start: from then on the page knows better.
  untrack(() => settings.start(data.settings));
  onMount(() => settings.follow());
  onMount(() => ownKeys(() => settings.now.singleKeys));
</script>

{@render children()}
<Toaster theme={settings.now.theme === 'stage' ? 'dark' : 'light'} position="bottom-center" duration={8000} />
