/** How something sounds, on asking; the sound arrives then. */
import { toast } from 'svelte-sonner';
import { NO_PLAYER } from '$lib/state/no-sound';
import type { Ask } from '$lib/state/chart/hearing';
import type { Workspace } from '$lib/state/chart/workspace.svelte';

let hearing: typeof import('$lib/state/chart/hearing') | undefined;

/** Lets the player hear something over its chord; without more, what they are at. Tells whether it began, and did not stop. */
export async function hear(workspace: Workspace, ask?: Ask): Promise<boolean> {
  try {
    hearing ??= await import('$lib/state/chart/hearing');
  } catch {
    toast(NO_PLAYER);
    return false;
  }
  const wanted = ask ?? hearing.meant(workspace);
  const stops = hearing.isHeard(workspace, wanted);
  const problem = await hearing.hear(workspace, wanted);
  if (problem) toast(problem);
  return !stops && !problem;
}

/** What is being heard stops: the chart is left. */
export function hush(): void {
  hearing?.hush();
}
