<script lang="ts">
  import '../app.css';
  import { onMount, untrack } from 'svelte';
  import { Toaster } from 'svelte-sonner';
  import { ownKeys } from '$lib/ui/keys/keys';
  import { keepSending } from '$lib/state/practice-log';
  import { sessionRun } from '$lib/state/session-run.svelte';
  import { settings } from '$lib/state/settings.svelte';
  import Arriving from '$lib/ui/app/Arriving.svelte';

  let { data, children } = $props();
  // Only what the server had at the start: from then on the page knows better.
  untrack(() => settings.start(data.settings));
  onMount(() => settings.follow());
  onMount(() => ownKeys(() => settings.now.singleKeys));
  onMount(() => sessionRun.restore());
  onMount(() => keepSending());
</script>

{@render children()}
{#if sessionRun.isOn}
  <Arriving isQuiet load={() => import('$lib/ui/today/SessionBar.svelte')}
    >{#snippet children(SessionBar)}<SessionBar />{/snippet}</Arriving
  >
{/if}
<Toaster theme={settings.now.theme === 'stage' ? 'dark' : 'light'} position="bottom-center" duration={8000} />
