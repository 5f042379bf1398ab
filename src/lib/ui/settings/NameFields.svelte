<!-- How notes and modes are named. -->
<script lang="ts">
  import type { Letters } from '$lib/core/theory/letters';
  import { settings } from '$lib/state/settings.svelte';
  import Select from '../kit/Select.svelte';
  import Switch from '../kit/Switch.svelte';

  const LETTERS: readonly { value: Letters; name: string; hint: string }[] = [
    { value: 'b', name: 'B and B♭', hint: 'C D E F G A B' },
    { value: 'h', name: 'H and B', hint: 'C D E F G A H: B is a semitone below H' },
    { value: 'solfege', name: 'do re mi', hint: 'Do Re Mi Fa Sol La Si' }
  ];
  const LABELS = [
    { value: 'degree', name: 'degrees' },
    { value: 'name', name: 'names' },
    { value: 'finger', name: 'fingers' }
  ] as const;
</script>

<div class="grid grid-cols-[auto_1fr] items-center gap-x-4 gap-y-2.5">
  <span>Note names</span>
  <Select
    class="justify-self-start"
    label="Note names"
    value={settings.now.letters}
    options={LETTERS}
    onpick={(letters) => settings.rename(letters)}
  />
  <span>Notes on the neck show</span>
  <Select
    class="justify-self-start"
    label="Notes on the neck show"
    value={settings.now.labels}
    options={LABELS}
    onpick={(labels) => settings.change({ labels })}
  />
</div>
{#if settings.now.letters !== 'b'}
  <p class="text-sm text-soft" data-letters-say>
    Charts are still typed with B and B♭; what you read is written your way.
  </p>
{/if}
<Switch
  label="Simple spelling ({settings.note('B')} for C♭, {settings.note('G')} for F♯♯)"
  checked={settings.now.simpleSpelling}
  onswitch={(simpleSpelling) => settings.change({ simpleSpelling })}
/>
<Switch
  label="Name modes by their parent ({settings.note('Eb')} major from {settings.note('F')})"
  checked={settings.now.naming === 'parent'}
  onswitch={(checked) => settings.change({ naming: checked ? 'parent' : 'modal' })}
/>
