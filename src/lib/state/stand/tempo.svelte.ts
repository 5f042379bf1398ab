/** The tempo: as it is set, tapped or moved, and as it sounds. */
import type { BeatGrid } from '$lib/core/practice/beats';
import {
  boundedTempo,
  DEFAULT_TEMPO,
  HIGHEST_TEMPO,
  LOWEST_TEMPO,
  tappedTempo
} from '$lib/core/practice/ladder';
import type { Desk } from './desk.svelte';
import type { Notice } from './notice.svelte';

/** Taps of which the last are counted. */
const MOST_TAPS = 5;

interface Hooks {
  readonly desk: Desk;
  readonly notice: Notice;
  /** The beat of a recording that plays in the band's place. */
  readonly grid: () => BeatGrid | null;
  /** What sounds takes the new tempo. */
  readonly onset: () => void;
}

export class Tempo {
  /** Beats a minute, as the desk says them. */
  value = $state(DEFAULT_TEMPO);
  #taps: number[] = [];
  readonly #hooks: Hooks;

  constructor(tempo: number | null, hooks: Hooks) {
    this.#hooks = hooks;
    this.value = boundedTempo(tempo ?? DEFAULT_TEMPO);
  }

  /** Beats a minute as they sound: half of them at half speed. */
  get sounding(): number {
    return this.soundingAt(this.value);
  }

  soundingAt(tempo: number): number {
    const grid = this.#hooks.grid();
    // At its own tempo a recording sounds as it is, though the desk counts whole beats a minute.
    const own = grid ? (tempo * grid.tempo) / boundedTempo(grid.tempo) : tempo;
    return this.#hooks.desk.now.halfTime ? own / 2 : own;
  }

  /** Takes a tempo as typed; out of range it says so and stays. */
  set(tempo: number): void {
    const { notice, onset } = this.#hooks;
    if (!Number.isFinite(tempo) || tempo < LOWEST_TEMPO || tempo > HIGHEST_TEMPO) {
      notice.problem = `The band plays from ${LOWEST_TEMPO} to ${HIGHEST_TEMPO} beats a minute.`;
      return;
    }
    notice.problem = '';
    this.value = boundedTempo(tempo);
    onset();
  }

  /** The tempo that something else moves: a ladder, a recording. What sounds has it already. */
  follow(tempo: number): void {
    this.value = boundedTempo(tempo);
  }

  /** The same for a tempo as it is to sound. */
  followSounding(tempo: number): void {
    this.follow(this.#hooks.desk.now.halfTime ? tempo * 2 : tempo);
  }

  /** So many beats a minute more or less, as far as the band goes; where it goes no further that is said. */
  change(by: number): void {
    const wished = this.value + by;
    this.set(Math.min(HIGHEST_TEMPO, Math.max(LOWEST_TEMPO, wished)));
    const { notice } = this.#hooks;
    if (wished < LOWEST_TEMPO)
      notice.problem = `${LOWEST_TEMPO} beats a minute is as slow as the band plays.`;
    if (wished > HIGHEST_TEMPO)
      notice.problem = `${HIGHEST_TEMPO} beats a minute is as fast as the band plays.`;
  }

  tap(seconds: number): void {
    this.#taps = [...this.#taps, seconds].slice(-MOST_TAPS);
    const tempo = tappedTempo(this.#taps);
    if (tempo) this.set(tempo);
    else this.#taps = [seconds];
  }
}
