/** How something sounds, on asking; the sound arrives then. */
import type { Ask } from '$lib/state/hearing';
import type { Workspace } from '$lib/state/workspace.svelte';

/** Lets the player hear something over its chord; without more, what they are at. */
export async function hear(workspace: Workspace, ask?: Ask): Promise<void> {
  const hearing = await import('$lib/state/hearing');
  await hearing.hear(workspace, ask ?? hearing.meant(workspace));
}
