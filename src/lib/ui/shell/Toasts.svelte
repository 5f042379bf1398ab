<!-- Where short messages come up. Arrives behind the page: what is said before waits for it. -->
<script lang="ts">
  import { Toaster } from 'svelte-sonner';
  import { settings } from '$lib/state/settings.svelte';
</script>

<Toaster theme={settings.isStage ? 'dark' : 'light'} position="bottom-center" duration={8000} />
