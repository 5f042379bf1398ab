<!-- The school of organising the neck: changes titles and windows, never the notes. -->
<script lang="ts">
  import { ORGANISATIONS } from '$lib/core/neck/area';
  import { settings } from '$lib/state/settings.svelte';
</script>

<label class="flex items-center gap-1.5 text-[13px]">
  <span class="text-soft">organise by</span>
  <select
    class="btn min-h-8! py-0"
    value={settings.now.organise}
    onchange={(event) => settings.change({ organise: event.currentTarget.value })}
  >
    {#each ORGANISATIONS as { id, name } (id)}<option value={id}>{name}</option>{/each}
  </select>
</label>
