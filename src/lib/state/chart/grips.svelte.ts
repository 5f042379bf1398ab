/** The grips of a chart: the string set and the way of the path, the grip it goes through, and what lies under the hand. */
// Maps and sets here are made anew and never changed in place, so that plain ones serve.
/* eslint-disable svelte/prefer-svelte-reactivity */
import { nth } from '$lib/core/base/list';
import { gripStages } from '$lib/core/moment/grips';
import { gripPathThrough, type GripDirection } from '$lib/core/neck/grip-path';
import { stringSets, voicingsOf, type Grip } from '$lib/core/neck/voicing';
import { settings } from '../settings.svelte';
import type { Workspace } from './workspace.svelte';

/** "6:3 5:5 4:5": where a grip is held. */
export const placesOf = ({ cells }: Grip): string =>
  cells.map(({ string, fret }) => `${string}:${fret}`).join(' ');

export const lowestFretOf = ({ cells }: Grip): number => Math.min(...cells.map(({ fret }) => fret));

export class Grips {
  readonly #workspace: Workspace;
  direction: GripDirection = $state('nearest');
  /** Which of the string sets. */
  setAt = $state(1);
  /** The grip that the path goes through, picked by the player. */
  #picked: { readonly change: number; readonly place: string } | null = $state.raw(null);

  constructor(workspace: Workspace) {
    this.#workspace = workspace;
  }

  readonly type = $derived.by(() => settings.now.voicing);
  readonly sets = $derived.by(() => stringSets(this.#workspace.neck, this.type));
  readonly set = $derived.by(() => this.sets[Math.min(this.setAt, this.sets.length - 1)]);
  readonly stages = $derived.by(() =>
    this.set ? gripStages(this.#workspace.analysis, this.#workspace.neck, this.type, this.set) : []
  );
  /** The path through the picked grip; from the one nearest the hand where none is picked. */
  readonly path = $derived.by(() => {
    const picked = this.#picked;
    const found = picked ? this.stages.findIndex(({ change }) => change === picked.change) : -1;
    const at = Math.max(0, found);
    const stage = this.stages[at];
    if (!stage) return null;
    const grip =
      stage.grips.find((one) => placesOf(one) === picked?.place) ?? this.#nearHand(stage.grips, stage.change);
    return grip ? gripPathThrough(this.stages, this.direction, at, grip) : null;
  });
  readonly byChange = $derived.by(() => new Map(this.path?.grips.map((grip) => [grip.change, grip])));
  /** All grips of the selected change that the hand reaches, on every string set. */
  readonly underHand = $derived.by(() => {
    const { change, neck, hands, selected } = this.#workspace;
    const chord = change?.chord;
    if (!chord) return [];
    const position = nth(hands, selected);
    return this.sets.flatMap((strings, at) =>
      voicingsOf(neck, chord, this.type, strings)
        .filter(({ cells }) =>
          cells.every(({ fret }) => fret >= Math.max(0, position - 1) && fret <= position + neck.span)
        )
        .map((grip) => ({ grip, at }))
    );
  });
  readonly shown = $derived.by(
    () => this.byChange.get(this.#workspace.selected) ?? this.underHand[0]?.grip ?? null
  );

  #nearHand(grips: readonly Grip[], change: number): Grip | undefined {
    const hand = nth(this.#workspace.hands, change);
    return [...grips].sort((a, b) => Math.abs(lowestFretOf(a) - hand) - Math.abs(lowestFretOf(b) - hand))[0];
  }

  pick(grip: Grip, at: number): void {
    this.setAt = at;
    this.#picked = { change: this.#workspace.selected, place: placesOf(grip) };
  }
}

const known = new WeakMap<Workspace, Grips>();

/** The grips of a workspace, the same for the view and for paper. */
export function gripsOf(workspace: Workspace): Grips {
  let grips = known.get(workspace);
  if (!grips) known.set(workspace, (grips = new Grips(workspace)));
  return grips;
}
