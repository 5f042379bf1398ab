/** Keeps a workspace in step with what is stored and with what was left behind on the device. */
import type { Autosave, Stored } from './autosave.svelte';
import { Drafts, type Draft } from './drafts';
import { reach } from '../reach.svelte';
import { hear, otherWindows } from '../windows';

/** What of a workspace has to do with keeping. */
interface SavedChart {
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
  chart: SavedChart,
  drafts = new Drafts(),
  open = otherWindows()
): Promise<boolean> {
  const left = await drafts.leftFor(chart.id, await open);
  const stored = { source: chart.source, plan: chart.plan, version: chart.autosave.version };
  let isTakenUp = false;
  for (const draft of left) {
    drafts.drop(draft.place);
    if (isSame(draft, chart)) continue;
    if (draft.base < stored.version) chart.oppose(draft, stored);
    else {
      // The page is one that was kept on the device, and older than what was typed.
      if (draft.base > stored.version) chart.autosave.rebase(draft.base);
      chart.adopt(draft);
    }
    isTakenUp = true;
  }
  return isTakenUp;
}

/** Follows what other windows save; returns how to stop. `renewed` is called when a newer version is shown. */
export function followOthers(chart: SavedChart, renewed: () => void): () => void {
  async function look(): Promise<void> {
    chart.settle();
    const newer = await chart.autosave.look();
    if (!newer) return;
    chart.load(newer);
    renewed();
  }
  const stopHearing = hear((news) => {
    if (!('chart' in news) || news.kind === 'take' || news.chart !== chart.id) return;
    if (news.kind === 'saved' && news.version <= chart.autosave.version) return;
    void look();
  });
  const stopWaiting = reach.onBack(() => {
    chart.autosave.again();
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
