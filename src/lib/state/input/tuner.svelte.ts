/** A tuner at work: the string that sounds, how far it is off, and where each of the others was left. */
/* eslint-disable svelte/prefer-svelte-reactivity -- the map here is made anew, never changed in place */
import type { LiveMoment } from '$lib/core/takes/listen/live';
import { middleOf, steadied, stringOf, type TunerReading } from '$lib/core/takes/tuner';
import { Ear } from './ear.svelte';
import { settings } from '../settings.svelte';

/** Seconds that a pitch is told from: long enough for the lowest string, and to a cent. */
const STEADY = 0.186;
/** Seconds of silence after which no string sounds any more. */
const LETS_GO = 0.7;
/** Pitches that make a reading. */
const FEWEST = 3;

export class Tuner {
  readonly ear = new Ear({ onMoment: (moment) => this.#follow(moment), steady: STEADY });
  /** The string that sounds; null where none does. */
  now: TunerReading | null = $state.raw(null);
  /** How far each string was off when it was last heard, in cents, by its number. */
  left: ReadonlyMap<number, number> = $state.raw(new Map());
  #pitches: readonly number[] = [];
  #heard = -Infinity;

  #follow({ at, pitch }: LiveMoment): void {
    this.#pitches = steadied(this.#pitches, pitch);
    if (pitch !== null) this.#heard = at;
    else if (at - this.#heard > LETS_GO) {
      this.#pitches = [];
      this.now = null;
    }
    const middle = this.#pitches.length >= FEWEST ? middleOf(this.#pitches) : null;
    if (middle === null || pitch === null) return;
    const reading = stringOf(middle, settings.instrument);
    if (reading?.string === this.now?.string && reading?.cents === this.now?.cents) return;
    this.now = reading;
    if (reading) this.left = new Map([...this.left, [reading.string, reading.cents]]);
  }

  /** The strings are others now. */
  forget(): void {
    this.left = new Map();
    this.now = null;
    this.#pitches = [];
  }

  close(): void {
    this.ear.close();
    this.now = null;
    this.#pitches = [];
  }
}
