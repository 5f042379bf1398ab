<!-- Where the player knows the key or the function better than what was detected. -->
<script lang="ts">
  import { untrack } from 'svelte';
  import { FUNCTIONS, type HarmonicFunction } from '$lib/core/harmony/numeral';
  import { prettyNote } from '$lib/core/theory/typeset';
  import type { Workspace } from '$lib/state/chart/workspace.svelte';
  import Collapsible from '../kit/Collapsible.svelte';
  import Select from '../kit/Select.svelte';

  let { workspace }: { workspace: Workspace } = $props();
  const TONICS = ['C', 'Db', 'D', 'Eb', 'E', 'F', 'Gb', 'G', 'Ab', 'A', 'Bb', 'B'];
  const MINOR_TONICS = ['C', 'C#', 'D', 'Eb', 'E', 'F', 'F#', 'G', 'G#', 'A', 'Bb', 'B'];
  const DETECTED = 'detected';
  const KEYS = [
    { value: DETECTED, name: 'key as detected' },
    ...TONICS.map((tonic) => ({ value: tonic, name: `${prettyNote(tonic)} major` })),
    ...MINOR_TONICS.map((tonic) => ({ value: `${tonic}m`, name: `${prettyNote(tonic)} minor` }))
  ];
  const ROLES = [
    { value: DETECTED, name: 'function as detected' },
    ...FUNCTIONS.map((name) => ({ value: name as string, name }))
  ];
  const own = $derived(workspace.decision?.reading);
  let open = $state(untrack(() => own !== undefined));
</script>

<Collapsible title={own ? 'Your own key or function' : 'Change key or function'} bind:open>
  <div class="mt-1.5 flex flex-wrap gap-1.5">
    <Select
      label="Key of this change"
      value={own?.key ?? DETECTED}
      options={KEYS}
      onpick={(key) => workspace.overrule({ key: key === DETECTED ? '' : key })}
    />
    <Select
      label="Function of this change"
      value={own?.function ?? DETECTED}
      options={ROLES}
      onpick={(role) => workspace.overrule({ function: role === DETECTED ? '' : (role as HarmonicFunction) })}
    />
  </div>
</Collapsible>
