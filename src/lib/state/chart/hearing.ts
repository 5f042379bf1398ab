/** How things sound, on asking: what is meant by "this" in a workspace, and whether it sounds now. */
import type { OfferedChoice } from '$lib/core/approaches/registry';
import type { ScaleChoice } from '$lib/core/approaches/choice';
import type { LineNote } from '$lib/core/line/model';
import { pitchClass } from '$lib/core/theory/note';
import {
  collectionOver,
  gripAlone,
  noteOver,
  passageOver,
  phraseOver,
  pathOver,
  type Heard
} from '$lib/core/practice/hearing';
import type { TargetPath } from '$lib/core/targets/path';
import { listen, stopListening } from '$lib/audio/listen';
import { nth } from '$lib/core/base/list';
import { gripsOf } from './grips.svelte';
import { NO_SOUND } from '../no-sound';
import type { Workspace } from './workspace.svelte';

/** What can be asked for. */
export type Ask =
  | { readonly kind: 'note'; readonly midi: number }
  | { readonly kind: 'choice'; readonly choice: OfferedChoice | ScaleChoice }
  | { readonly kind: 'grip' }
  /** This change and the next, each on its target. */
  | { readonly kind: 'moment' }
  | { readonly kind: 'line'; readonly path?: TargetPath }
  /** Notes of a line over this change. */
  | { readonly kind: 'passage'; readonly notes: readonly LineNote[] }
  /** Notes of a line over some changes: from the first to the last, both in. */
  | {
      readonly kind: 'phrase';
      readonly notes: readonly LineNote[];
      readonly from: number;
      readonly to: number;
    };

/** What a player means who only asks to hear "this". */
export function meant(workspace: Workspace): Ask {
  const { preview } = workspace.choices;
  if (preview) return { kind: 'choice', choice: preview };
  return workspace.view === 'grips' ? { kind: 'grip' } : { kind: 'moment' };
}

function heardOf(workspace: Workspace, ask: Ask): Heard | null {
  const { change, changes, selected, nextIndex, paths } = workspace;
  if (!change) return null;
  const landingOn = (index: number) => ({
    change: nth(changes, index),
    midi: paths.targets.get(index)?.cell.midi ?? null
  });
  switch (ask.kind) {
    case 'note':
      return noteOver({ change, midi: ask.midi });
    case 'choice':
      return collectionOver(change, pitchClass(ask.choice.root), ask.choice.notes.map(pitchClass));
    case 'grip': {
      const grip = gripsOf(workspace).shown;
      return grip && gripAlone(grip.cells.map(({ midi }) => midi));
    }
    case 'passage':
      return passageOver(change, ask.notes);
    case 'phrase':
      return phraseOver(changes.slice(ask.from, ask.to + 1), ask.notes);
    case 'moment':
      return pathOver([selected, ...(nextIndex === null ? [] : [nextIndex])].map(landingOn));
    case 'line': {
      const landed = new Map(
        (ask.path ?? paths.path)?.targets
          .filter(({ beat }) => beat === 1)
          .map(({ change: at, cell }) => [at, cell.midi])
      );
      return pathOver(
        changes.slice(selected).map((at) => ({ change: at, midi: landed.get(at.index) ?? null }))
      );
    }
  }
}

/** What sounds now: the change it was asked for at, and what was asked for. */
let sounding: string | null = null;

/** Lets something be heard; the same asked for again stops it. Gives what the player should know, where it cannot be. */
export async function hear(workspace: Workspace, ask: Ask): Promise<string | null> {
  const own = JSON.stringify([workspace.selected, ask]);
  const isAgain = sounding === own;
  hush();
  const heard = isAgain ? null : heardOf(workspace, ask);
  if (!heard) return null;
  sounding = own;
  try {
    const isPlayed = await listen(heard, () => (sounding = null));
    if (isPlayed) return null;
    sounding = null;
    return 'The band is playing; stop it to hear this by itself.';
  } catch {
    sounding = null;
    return NO_SOUND;
  }
}

/** Whether this very thing sounds: asked for again it stops. */
export function isHeard(workspace: Workspace, ask: Ask): boolean {
  return sounding === JSON.stringify([workspace.selected, ask]);
}

/** Nothing of it sounds any more. */
export function hush(): void {
  sounding = null;
  stopListening();
}
