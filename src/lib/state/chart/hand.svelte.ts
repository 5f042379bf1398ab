/** Where the hand is: moved, put into one place, given places of its own at some changes. */
// Maps and sets here are made anew and never changed in place, so that plain ones serve.
/* eslint-disable svelte/prefer-svelte-reactivity */
import { firstOf } from '$lib/core/base/list';
import type { AnalysedChange } from '$lib/core/harmony/analysis';
import type { NeckSystem } from '$lib/core/neck/systems/system';
import type { Arrangement } from '$lib/core/plan/arrange';
import { decisionAt, paint, settle } from '$lib/core/plan/edits';
import type { Plan } from '$lib/core/plan/model';
import { counted } from '$lib/core/theory/words';
import type { ChartDocument } from './document.svelte';

/** The chart and the place in it whose hand is moved. */
interface Place {
  readonly document: ChartDocument;
  readonly plan: Plan;
  readonly arrangement: Arrangement;
  readonly system: NeckSystem;
  readonly changes: readonly AnalysedChange[];
  readonly selected: number;
  readonly position: number;
  say(words: string): void;
}

export class Hand {
  readonly #place: Place;

  constructor(place: Place) {
    this.#place = place;
  }

  /** Moves the hand: of the selected change alone where it has a position of its own, else of the plan. */
  moveTo(position: number): void {
    const bounded = this.#place.arrangement.bounded(position);
    if (bounded === this.#place.position) return;
    if (this.hasOwnPosition(this.#place.selected)) {
      this.#place.document.decide(
        (plan) => paint(plan, new Map([[this.#place.selected, bounded]])),
        'paint',
        true
      );
    } else this.#place.document.decide((plan) => ({ ...plan, position: bounded }), 'position', true);
    this.#place.say(`Position ${bounded}`);
  }

  /** To the next window of the neck system, up (1) or down (−1) the neck; by the fret where it has none. */
  step(direction: 1 | -1): void {
    if (this.#place.system.id === 'positions') {
      this.moveTo(this.#place.position + direction);
      return;
    }
    const beyond = this.#place.arrangement.rows.filter(
      ({ position }) => (position - this.#place.position) * direction > 0
    );
    const next = direction > 0 ? beyond[0] : beyond.at(-1);
    if (!next) return;
    this.moveTo(next.position);
    this.#place.say(`${next.name.words}, fret ${next.position}`);
  }

  /** Puts the whole plan into one position. */
  settle(position: number): void {
    const bounded = this.#place.arrangement.bounded(position);
    this.#place.document.decide((plan) => settle(plan, bounded), 'settle');
    this.#place.say(`The whole chart in position ${bounded}`);
  }

  /** Gives changes positions of their own. */
  paint(positions: ReadonlyMap<number, number>): void {
    if (positions.size === 0) return;
    const bounded = new Map(
      [...positions].map(([change, position]) => [change, this.#place.arrangement.bounded(position)])
    );
    this.#place.document.decide((plan) => paint(plan, bounded), 'paint');
    const places = [...new Set(bounded.values())];
    const only =
      positions.size === 1 ? this.#place.changes[firstOf([...positions.keys()])]?.symbol : undefined;
    this.#place.say(`${only ?? counted(positions.size, 'change')} in position ${places.join(', ')}`);
  }

  hasOwnPosition(change: number): boolean {
    return decisionAt(this.#place.plan, change)?.position !== undefined;
  }
}
