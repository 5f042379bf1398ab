/** What is played over the selected change: what is offered, taken, compared, and carried to others like it. */
// Maps and sets here are made anew and never changed in place, so that plain ones serve.
/* eslint-disable svelte/prefer-svelte-reactivity */
import type { Chain } from '$lib/core/approaches/chains';
import type { ScaleChoice } from '$lib/core/approaches/choice';
import { sameCollection, sameKind } from '$lib/core/approaches/collection';
import { scaleChoices, type AnsweredQuestions } from '$lib/core/approaches/registry';
import { nth } from '$lib/core/base/list';
import type { AnalysedChange, Analysis } from '$lib/core/harmony/analysis';
import { romanText } from '$lib/core/harmony/numeral';
import { compare } from '$lib/core/moment/moment';
import { decisionAt, leaveChoice, moveChangeOver, takeChoices, takenFrom } from '$lib/core/plan/edits';
import type { Instrument } from '$lib/core/neck/tuning';
import type { TakenChoice } from '$lib/core/plan/model';
import { pitchClass, semitonesUp } from '$lib/core/theory/note';
import type { ChartDocument } from './document.svelte';

const isSame = (a: ScaleChoice, b: ScaleChoice) =>
  a.approach === b.approach && sameCollection(a.facts, b.facts);

/** Where the player is: what the choices are made for. */
interface Place {
  readonly document: ChartDocument;
  readonly analysis: Analysis;
  readonly changes: readonly AnalysedChange[];
  readonly change: AnalysedChange | undefined;
  readonly selected: number;
  readonly neck: Instrument;
  readonly position: number;
}

export class Choices {
  readonly #place: Place;
  readonly #document: ChartDocument;
  /** Shown on the neck while the player looks at a choice that is not taken. */
  preview: ScaleChoice | null = $state.raw(null);
  /** At most two choices of the selected change, held against each other. */
  compared: readonly ScaleChoice[] = $state.raw([]);

  constructor(place: Place) {
    this.#place = place;
    this.#document = place.document;
  }

  readonly #answered: AnsweredQuestions = new Map();
  /** What every approach offers, change by change; computed when the Choices panel asks. */
  readonly offered = $derived.by(() => scaleChoices(this.#place.analysis, { answered: this.#answered }));
  readonly comparison = $derived.by(() => {
    const [first, second] = this.compared;
    const { change, neck, position } = this.#place;
    return first && second && change?.chord ? compare(change.chord, first, second, neck, position) : null;
  });
  /** Where within the selected change the player goes over to another sound; null where they do not. */
  readonly changeOver = $derived.by(
    () => decisionAt(this.#document.plan, this.#place.selected)?.choice?.then ?? null
  );
  /** The changes of the same function and numeral as the selected one, itself among them. */
  readonly alike = $derived.by(() => {
    const { change, changes } = this.#place;
    const roman = change?.numeral && romanText(change.numeral);
    return changes.filter(
      (one) =>
        one.chord && one.function === change?.function && (one.numeral && romanText(one.numeral)) === roman
    );
  });

  /** Lets go of what was looked at, as another change is selected. */
  reset(): void {
    this.preview = null;
    this.compared = [];
  }

  /** Takes a choice for the selected change. */
  take(choice: ScaleChoice): void {
    const { selected, change } = this.#place;
    this.#take(new Map([[selected, takenFrom(choice)]]));
    this.preview = null;
    this.#document.announcement = `${choice.name} taken for ${change?.symbol ?? ''}`;
  }

  #take(taken: ReadonlyMap<number, TakenChoice>): void {
    this.#document.decide((plan) => takeChoices(plan, taken), 'choice');
  }

  /** Leaves the selected change to the plan's approach again. */
  leave(): void {
    this.#document.decide((plan) => leaveChoice(plan, this.#place.selected), 'choice');
  }

  isTaken(change: number): boolean {
    return decisionAt(this.#document.plan, change)?.choice !== undefined;
  }

  /** Takes the like of a choice for every change of the same function: the same collection from the same degree. */
  takeForAllAlike(choice: ScaleChoice): void {
    const distance = (root: string, chordRoot: string) =>
      semitonesUp(pitchClass(chordRoot), pitchClass(root));
    const here = this.#place.change?.chord;
    if (!here) return;
    const own = distance(choice.facts.root, here.root);
    const taken = this.alike.flatMap(({ index, chord }): [number, TakenChoice][] => {
      const like = nth(this.offered, index).find(
        (other) =>
          other.approach === choice.approach &&
          sameKind(other.facts, choice.facts) &&
          chord !== null &&
          distance(other.facts.root, chord.root) === own
      );
      return like ? [[index, takenFrom(like)]] : [];
    });
    this.#take(new Map(taken));
    this.#document.announcement = `Taken for ${taken.length} changes`;
  }

  /**
   * Takes a proposal for several changes at once. Where the change-over is free, `beat` says from which beat of that
   * change on its next sound is played; past the end of the change it is played from the next change on.
   */
  takeChain({ approach, changes, collections, freeWithin }: Chain, beat: number): void {
    const taken = changes.map((change, i): [number, TakenChoice] => {
      const isFree = change === freeWithin && beat <= nth(this.#place.changes, change).beats;
      const collection = nth(collections, i).facts;
      const then = { beat, collection: collections[i + 1]?.facts ?? collection };
      return [change, { approach, collection, ...(isFree ? { then } : {}) }];
    });
    this.#take(new Map(taken));
    this.#document.announcement = `Taken for ${changes.length} changes`;
  }

  moveChangeOver(beat: number): void {
    this.#document.decide((plan) => moveChangeOver(plan, this.#place.selected, beat), 'change-over', true);
  }

  /** Holds a choice against another; a third takes the place of the second. */
  compare(choice: ScaleChoice): void {
    this.compared = this.isCompared(choice)
      ? this.compared.filter((one) => !isSame(one, choice))
      : [...this.compared.slice(-1), choice];
  }

  isCompared(choice: ScaleChoice): boolean {
    return this.compared.some((one) => isSame(one, choice));
  }
}
