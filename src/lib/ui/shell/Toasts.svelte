<!-- Where short messages come up. Arrives behind the page: what is said before waits for it. -->
<script lang="ts">
  import { Toaster } from 'svelte-sonner';
  import { reach } from '$lib/state/reach.svelte';
  import { settings } from '$lib/state/settings.svelte';

  /** Over what is said of a server that is away, and on a phone over the places. */
  const [bottom, bottomOnPhone] = $derived(reach.isAway ? ['84px', '168px'] : ['32px', '72px']);
</script>

<Toaster
  theme={settings.isStage ? 'dark' : 'light'}
  position="bottom-center"
  duration={8000}
  offset={{ bottom }}
  mobileOffset={{ bottom: bottomOnPhone }}
/>
