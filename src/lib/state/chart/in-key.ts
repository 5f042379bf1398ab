/** A chart as it is shown in another key: text and plan moved, nothing that can be changed. */
import { transposeText } from '$lib/core/chart/transpose';
import { settle } from '$lib/core/plan/edits';
import { movedPlan } from '$lib/core/plan/move';
import type { Instrument } from '$lib/core/neck/tuning';
import type { Home } from '$lib/core/theory/tonic';
import type { Draft } from './drafts';
import { Workspace } from './workspace.svelte';

/** `shift` in semitones up from `home`, the key of the draft; with an `area`, the whole hand settled there. */
export function chartInKey(
  id: string,
  { source, plan }: Draft,
  home: Home,
  shift: number,
  neck: Instrument,
  area: number | null = null
): Workspace {
  const moved = movedPlan(plan, neck, home, shift);
  return new Workspace(
    {
      id,
      version: 0,
      damaged: false,
      source: transposeText(source, home, shift),
      plan: area === null ? moved : settle(moved, area)
    },
    true
  );
}
