/** Takes whose sound is being listened to in this window, also by a view that was left meanwhile. */
import { SvelteSet } from 'svelte/reactivity';

const inWork = new SvelteSet<string>();

export const isBeingHeard = (id: string): boolean => inWork.has(id);

/** Does the work of listening to a take; while it goes on the take counts as being heard, not as torn off. */
export async function hearing<Result>(id: string, work: () => Promise<Result>): Promise<Result> {
  inWork.add(id);
  try {
    return await work();
  } finally {
    inWork.delete(id);
  }
}
