/** How something sounds, on asking; the sound arrives then. */
import { toast } from 'svelte-sonner';
import { NO_PLAYER } from '$lib/state/no-sound';
import type { Ask } from '$lib/state/hearing';
import type { Workspace } from '$lib/state/workspace.svelte';

let hearing: typeof import('$lib/state/hearing') | undefined;

/** Lets the player hear something over its chord; without more, what they are at. */
export async function hear(workspace: Workspace, ask?: Ask): Promise<void> {
  try {
    hearing ??= await import('$lib/state/hearing');
  } catch {
    toast(NO_PLAYER);
    return;
  }
  const problem = await hearing.hear(workspace, ask ?? hearing.meant(workspace));
  if (problem) toast(problem);
}

/** What is being heard stops: the chart is left. */
export function hush(): void {
  hearing?.hush();
}
