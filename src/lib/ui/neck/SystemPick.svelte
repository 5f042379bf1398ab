<!-- The way of cutting up the neck: changes names and windows, never the notes. -->
<script lang="ts">
  import { NECK_SYSTEMS } from '$lib/core/neck/systems/registry';
  import { settings } from '$lib/state/settings.svelte';
  import Select from '../kit/Select.svelte';

  let { size = 'normal' }: { size?: 'small' | 'normal' } = $props();
</script>

<Select
  {size}
  isRound={size === 'small'}
  label="Neck system"
  hint="How the neck is divided into areas (O)"
  value={settings.now.organise}
  options={NECK_SYSTEMS.map(({ id, title, hint }) => ({ value: id, name: title, hint }))}
  onpick={(organise) => settings.change({ organise })}
/>
