<script lang="ts">
  import SettingsPage from '$lib/ui/settings/SettingsPage.svelte';
</script>

<svelte:head><title>Settings · Corvel</title></svelte:head>
<SettingsPage />
