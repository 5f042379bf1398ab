/** Reminders to rest, after as much playing as the player has set. */
import { settings } from '../settings.svelte';

export class Rest {
  isDue = $state(false);
  /** Seconds of playing at the last rest. */
  #rested = 0;

  /** The band starts anew. */
  start(): void {
    this.#rested = 0;
  }

  /** Told again and again how many seconds were played since the start. */
  at(seconds: number): void {
    const { restAfter } = settings.now;
    if (restAfter <= 0 || seconds - this.#rested < restAfter * 60) return;
    this.isDue = true;
    this.#rested = seconds;
  }
}
