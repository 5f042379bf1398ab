/** What the neck shows: the hand's window, the whole collection, one degree everywhere, or the melody. */
import type { ScaleChoice } from '$lib/core/approaches/choice';
import type { AnalysedChange, Analysis } from '$lib/core/harmony/analysis';
import { marksEverywhere } from '$lib/core/moment/moment';
import type { Instrument } from '$lib/core/neck/tuning';
import type { Degree } from '$lib/core/theory/degree';
import type { Choices } from './choices.svelte';
import type { Paths } from './paths.svelte';

export type NeckMode = 'hand' | 'whole' | 'find' | 'melody';

/** The change whose neck is shown. */
interface Place {
  readonly analysis: Analysis;
  readonly selected: number;
  readonly change: AnalysedChange | undefined;
  readonly chosen: readonly (ScaleChoice | null)[];
  readonly neck: Instrument;
  readonly choices: Choices;
  readonly paths: Paths;
  readonly melody: object | null;
  say(words: string): void;
}

export class ShownNeck {
  mode: NeckMode = $state('hand');
  /** The degree to be found everywhere; the target's, until the player picks another. */
  sought: Degree | null = $state(null);

  readonly #place: Place;

  constructor(place: Place) {
    this.#place = place;
  }

  /** What is played on the selected change, on the whole neck. */
  readonly everywhere = $derived.by(() => {
    const { analysis, selected, neck, choices, chosen } = this.#place;
    return marksEverywhere(analysis, selected, neck, choices.preview ?? chosen[selected] ?? null);
  });
  /** The degree that *find* shows: the one picked, else the target's, as far as it is there. */
  readonly degree: Degree = $derived.by(() => {
    const { change, chosen, selected, paths } = this.#place;
    const held = [...(change?.chord?.tones ?? []), ...(chosen[selected]?.degrees ?? [])];
    const wanted = [this.sought, paths.targets.get(selected)?.cell.degree, held[0]];
    return wanted.find((degree) => degree && held.includes(degree)) ?? '1';
  });

  /** Shows the melody round the hand in every octave, or goes back to what lies under the hand. */
  showMelody(): void {
    if (!this.#place.melody) {
      this.#place.say('This chart has no melody; type it in the chart editor.');
      return;
    }
    this.mode = this.mode === 'melody' ? 'hand' : 'melody';
  }

  /** Finds the next degree of the change everywhere. */
  findNext(): void {
    const tones = this.#place.change?.chord?.tones ?? [];
    const at = this.mode === 'find' ? tones.indexOf(this.degree) : -2;
    if (at >= -1) this.sought = tones[(at + 1) % tones.length] ?? null;
    this.mode = 'find';
  }
}
