<!-- What every page has: the keys that answer everywhere, the finder, the help, the focus that is never lost. -->
<script lang="ts" module>
  import { Part } from '../app/part';

  const helpPart = new Part(() => import('./Help.svelte'));
  const palettePart = new Part(() => import('./Palette.svelte'));
</script>

<script lang="ts">
  import { onMount } from 'svelte';
  import { afterNavigate, beforeNavigate } from '$app/navigation';
  import { updated } from '$app/state';
  import { keepVisited, visited } from '$lib/state/visited';
  import { reach } from '$lib/state/reach.svelte';
  import { standing } from '$lib/state/stand/standing.svelte';
  import { settings } from '$lib/state/settings.svelte';
  import { shell, type ShellDialog } from '$lib/state/shell.svelte';
  import Arriving from '../app/Arriving.svelte';
  import { bindKeys, layKeys, ownKeys } from '../keys/keys';
  import { focusPage, keepFocus } from '../kit/focus';
  import { showHints } from '../kit/hint';
  import { SHELL_KEYS } from './shell-keys';

  const keys = bindKeys(SHELL_KEYS, null);
  onMount(() => layKeys('Everywhere', () => keys, 'everywhere'));
  onMount(() =>
    ownKeys(
      () => settings.now.singleKeys,
      () => settings.now.keys
    )
  );
  onMount(showHints);
  // Keys and buttons act from here on.
  onMount(() => void (document.documentElement.dataset.alive = ''));
  onMount(keepFocus);

  /** A page that is kept may have been opened without its server. */
  onMount(() => {
    if (navigator.serviceWorker?.controller) void reach.look();
    return keepVisited();
  });
  /** A new build was made meanwhile: the next page is loaded whole, with the code that belongs to it. */
  beforeNavigate(({ willUnload, to, cancel }) => {
    if (!updated.current || willUnload || !to?.url) return;
    cancel();
    location.href = to.url.href;
  });
  /** The page that was come to, so that it opens again without the server. */
  afterNavigate(({ type, to }) => {
    if (type === 'enter' || !to) return;
    shell.open = null;
    visited(to.url.pathname);
    setTimeout(focusPage);
  });

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
{#if reach.isAway && !standing.isUp}
  <p
    class="fixed inset-x-2 bottom-2 z-40 mx-auto w-fit max-w-xl rounded-md border border-edge bg-lit px-4 py-2 shadow-lg max-sm:bottom-15 print:hidden"
    role="status"
    data-away
  >
    Corvel’s server does not answer. What you looked at lately still opens; what you write is kept here and
    saved once the server is back.
  </p>
{/if}
