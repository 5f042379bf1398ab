/** What the tests of the rooms share: a workspace that saves nothing. */
import { DEFAULT_PLAN } from '$lib/core/plan/model';
import { Workspace } from './chart/workspace.svelte';

export const TUNE = `{key: Gm}
{tempo: 120}
{start_of_grid label="A"}
| Gm6 | Am7b5 D7b9 |
{end_of_grid}
{start_of_grid label="B"}
| Gm6 | Cm7 F7 |
{end_of_grid}`;

export function workspaceOf(source = TUNE): Workspace {
  const workspace = new Workspace({ id: 'one', version: 1, damaged: false, source, plan: DEFAULT_PLAN });
  workspace.document.autosave.take = () => undefined;
  return workspace;
}
