import type { LickData, StoredLick } from '$lib/api/lick';
import { keyText } from '$lib/core/harmony/key';
import type { LickThere } from '$lib/core/line/lick-elsewhere';
import { lickChart } from '$lib/core/line/lick-facts';
import { DEFAULT_PLAN } from '$lib/core/plan/model';
import { Workspace } from '$lib/state/chart/workspace.svelte';

/** The chords of a lick as a chart of their own, shown and heard, never changed. */
export const lickWorkspace = ({ id, name, facts }: StoredLick, { meter }: LickData, there: LickThere) =>
  new Workspace(
    {
      id,
      source: lickChart({ meter, key: keyText(there.key), over: there.over }, name),
      plan: { ...DEFAULT_PLAN, position: facts?.position ?? null },
      version: 1,
      damaged: false
    },
    true
  );
