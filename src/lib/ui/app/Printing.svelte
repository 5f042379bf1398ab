<!-- What goes to paper: the sheet of what is on the screen, fetched as soon as the page is at rest, drawn only to be printed. -->
<script lang="ts">
  import { flushSync, type Component } from 'svelte';
  import { toast } from 'svelte-sonner';
  import type { Workspace } from '$lib/state/chart/workspace.svelte';
  import { SHEETS } from '../sheets';

  interface Props {
    workspace: Workspace;
    /** The sheet of what is on the screen. */
    shown: string;
  }
  let { workspace, shown }: Props = $props();

  let fetched: Readonly<Record<string, Component<{ workspace: Workspace }>>> = $state.raw({});
  /** The sheet that is being printed. */
  let printed: string | null = $state(null);
  /** One that was asked for by name. */
  let wanted: string | null = null;
  const Sheet = $derived(printed === null ? undefined : fetched[printed]);

  // The browser's own print asks for the sheet at once.
  $effect(() => {
    for (const { id, load, prepare } of SHEETS) {
      // What needs the engraver waits until it is shown, or asked for.
      if (prepare && id !== shown) continue;
      void load().then(
        (module) => (fetched = { ...fetched, [id]: module.default }),
        () => undefined
      );
    }
  });

  // What is on the screen can be printed by the browser's own command at any moment.
  $effect(() => {
    void SHEETS.find(({ id }) => id === shown)
      ?.prepare?.(workspace)
      .catch(() => undefined);
  });

  /** Prints a sheet by its id. */
  export async function printSheet(id: string) {
    const sheet = SHEETS.find((one) => one.id === id);
    try {
      const [module] = await Promise.all([sheet?.load(), sheet?.prepare?.(workspace)]);
      if (module) fetched = { ...fetched, [id]: module.default };
    } catch {
      toast('The server does not answer, so that this sheet cannot be drawn yet. Try again in a moment.');
      return;
    }
    wanted = id;
    print();
    wanted = null;
  }
</script>

<svelte:window
  onbeforeprint={() => flushSync(() => (printed = wanted ?? shown))}
  onafterprint={() => (printed = null)}
/>

{#if Sheet}<Sheet {workspace} />{/if}
