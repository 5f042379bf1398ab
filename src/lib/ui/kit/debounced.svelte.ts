/**
 * For what stands beside the thing that is looked at: it follows one step at once, and steps in quick succession, as of a key
 * that is held, when they come to rest.
 */
import { untrack } from 'svelte';

/** Milliseconds between two steps of a player in no hurry, and without a further one that count as rest. */
export const DEBOUNCE = 200;

export class Debounced<Value> {
  #shown: Value;
  #last = -Infinity;

  /**
   * For a component as it is made. `value`: what is followed, as it is now. `waits`: whether even one step is followed at rest
   * only, as where nobody sees it.
   */
  constructor(value: () => Value, waits: () => boolean = () => false) {
    this.#shown = $state.raw(untrack(value));
    $effect.pre(() => {
      const next = value();
      const now = performance.now();
      const isHurried = now - this.#last < DEBOUNCE;
      this.#last = now;
      if (!isHurried && !waits()) {
        this.#shown = next;
        return;
      }
      const timer = setTimeout(() => (this.#shown = next), DEBOUNCE);
      return () => clearTimeout(timer);
    });
  }

  get value(): Value {
    return this.#shown;
  }
}
