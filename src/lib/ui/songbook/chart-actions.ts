/** What is done to charts of the list: each says what it did, and what can be undone is undone by one press. */
import { toast } from 'svelte-sonner';
import type { ChartSummary } from '$lib/api/songbook';
import { counted } from '$lib/core/theory/words';
import { deleteChart, duplicateChart, renameChart, restoreChart } from '$lib/state/songbook/client';
import type { Many } from '$lib/state/songbook/many.svelte';

/** Says why something failed. */
export function tell(error: unknown): void {
  toast.error(error instanceof Error ? error.message : String(error));
}

/** Does something that may fail, and says so where it does. */
export async function attempt(work: () => Promise<unknown>): Promise<void> {
  try {
    await work();
  } catch (error) {
    tell(error);
  }
}

/** @param refresh has the list show what has changed */
export function chartActions(refresh: () => Promise<void>, many: Many) {
  const undoable = (says: string, undo: () => Promise<unknown>) =>
    toast(says, {
      action: { label: 'Undo', onClick: () => void attempt(() => undo().then(refresh)) }
    });
  /** What it was done to keeps it, also where the rest failed. */
  const changeThem: Many['change'] = async (...change) => {
    const done = await many.change(...change);
    if (many.failure) tell(many.failure);
    return done;
  };
  return {
    duplicate: (chart: ChartSummary) =>
      attempt(async () => {
        await duplicateChart(chart.id);
        await refresh();
        toast.success(`“${chart.title}” was duplicated.`);
      }),
    rename: (chart: ChartSummary, title: string) =>
      attempt(async () => {
        await renameChart(chart.id, title);
        await refresh();
      }),
    remove: (chart: ChartSummary) =>
      attempt(async () => {
        await deleteChart(chart.id);
        await refresh();
        undoable(`“${chart.title}” was deleted.`, () => restoreChart(chart.id));
      }),
    tagMany: (what: 'tag' | 'untag', tag: string) =>
      attempt(async () => {
        const done = await changeThem(what, tag);
        await refresh();
        if (done.length === 0) return;
        const words = what === 'tag' ? `tagged “${tag.trim()}”` : `no longer tagged “${tag.trim()}”`;
        undoable(`${counted(done.length, 'chart')} ${done.length === 1 ? 'is' : 'are'} ${words}.`, () =>
          changeThem(what === 'tag' ? 'untag' : 'tag', tag, done)
        );
      }),
    removeMany: () =>
      attempt(async () => {
        const done = await changeThem('delete');
        if (!many.failure) many.end();
        await refresh();
        if (done.length === 0) return;
        undoable(`${counted(done.length, 'chart')} ${done.length === 1 ? 'was' : 'were'} deleted.`, () =>
          changeThem('bring back', undefined, done)
        );
      }),
    saveMany: () =>
      attempt(async () => {
        const { saveFile } = await import('../export/file');
        const zip = await many.asFiles();
        if (zip) saveFile(zip, 'Corvel charts', 'zip');
      }),
    /** Charts have come in from files. */
    cameIn: (ids: readonly string[]) => {
      if (ids.length === 0) return;
      void refresh();
      undoable(`${counted(ids.length, 'chart')} came into the songbook.`, async () => {
        for (const id of ids) await deleteChart(id);
      });
    }
  };
}
