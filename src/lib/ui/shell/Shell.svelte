<!-- What every page has: the keys that answer everywhere, the finder, the help, the focus that is never lost. -->
<script lang="ts" module>
  import { Part } from '../app/part';

  const helpPart = new Part(() => import('./Help.svelte'));
  const palettePart = new Part(() => import('./Palette.svelte'));
</script>

<script lang="ts">
  import { onMount } from 'svelte';
  import { settings } from '$lib/state/settings.svelte';
  import { shell, type ShellDialog } from '$lib/state/shell.svelte';
  import Arriving from '../app/Arriving.svelte';
  import { bindKeys, layKeys, ownKeys } from '../keys/keys';
  import { keepFocus } from '../kit/focus';
  import { showHints } from '../kit/hint';
  import { SHELL_KEYS } from './shell-keys';

  const keys = bindKeys(SHELL_KEYS, null);
  onMount(() => layKeys('Everywhere', () => keys, true));
  onMount(() =>
    ownKeys(
      () => settings.now.singleKeys,
      () => settings.now.keys
    )
  );
  onMount(showHints);
  onMount(keepFocus);

  const opened = (name: ShellDialog) =>
    [
      () => shell.open === name,
      (isOpen: boolean) => void (shell.open = isOpen ? name : shell.open === name ? null : shell.open)
    ] as const;
  const [isHelping, setHelping] = opened('help');
  const [isFinding, setFinding] = opened('find');
  /** Each arrives when it is opened for the first time, and stays. */
  const met: Partial<Record<ShellDialog, boolean>> = $state({});
  $effect(() => {
    if (shell.open) met[shell.open] = true;
  });
</script>

{#if met.help}<Arriving isQuiet part={helpPart}
    >{#snippet children(Help)}<Help bind:open={isHelping, setHelping} />{/snippet}</Arriving
  >{/if}
{#if met.find}<Arriving isQuiet part={palettePart}
    >{#snippet children(Palette)}<Palette bind:open={isFinding, setFinding} />{/snippet}</Arriving
  >{/if}
