/** Keeps a workspace in step with what is stored and with what was left behind on the device. */
import type { Autosave, Stored } from './autosave.svelte';
import { Drafts, type Draft } from './drafts';
import { reach } from '../reach.svelte';
import { hear, otherWindows } from '../windows';

/** What of a workspace has to do with keeping. */
interface Kept {
  readonly id: string;
  readonly source: string;
  readonly plan: Draft['plan'];
  readonly autosave: Autosave;
  /** Takes over what is being typed. */
  settle(): void;
  adopt(draft: Draft): void;
  load(stored: Stored): void;
  oppose(draft: Draft, stored: Stored): void;
}

const isSame = (a: Draft, b: Draft) =>
  a.source === b.source && JSON.stringify(a.plan) === JSON.stringify(b.plan);

/**
 * Takes up again what was typed in a window that is gone and never reached the server: as an edit where the chart
 * still stands at that version, else beside the version that is stored. Returns whether there was any.
 */
export async function takeUpDrafts(
  kept: Kept,
  drafts = new Drafts(),
  open = otherWindows()
): Promise<boolean> {
  const left = await drafts.leftFor(kept.id, await open);
  const stored = { source: kept.source, plan: kept.plan, version: kept.autosave.version };
  let isTakenUp = false;
  for (const draft of left) {
    drafts.drop(draft.place);
    if (isSame(draft, kept)) continue;
    if (draft.base < stored.version) kept.oppose(draft, stored);
    else {
      // The page is one that was kept on the device, and older than what was typed.
      if (draft.base > stored.version) kept.autosave.rebase(draft.base);
      kept.adopt(draft);
    }
    isTakenUp = true;
  }
  return isTakenUp;
}

/** Follows what other windows save; returns how to stop. `renewed` is called when a newer version is shown. */
export function followOthers(kept: Kept, renewed: () => void): () => void {
  async function look(): Promise<void> {
    kept.settle();
    const newer = await kept.autosave.look();
    if (!newer) return;
    kept.load(newer);
    renewed();
  }
  const stopHearing = hear((news) => {
    if (!('chart' in news) || news.kind === 'take' || news.chart !== kept.id) return;
    if (news.kind === 'saved' && news.version <= kept.autosave.version) return;
    void look();
  });
  const stopWaiting = reach.onBack(() => {
    kept.autosave.again();
    void look();
  });
  const lookAgain = () => {
    if (document.visibilityState === 'visible') void look();
  };
  addEventListener('focus', lookAgain);
  document.addEventListener('visibilitychange', lookAgain);
  return () => {
    stopHearing();
    stopWaiting();
    removeEventListener('focus', lookAgain);
    document.removeEventListener('visibilitychange', lookAgain);
  };
}
