/** What a player is told while takes are made: what went wrong, and what was measured or done. */
import { Attempts } from '../attempts.svelte';

export class Notices extends Attempts {
  /** What was measured or done, told once. */
  said = $state('');

  /** Something new begins: what was told before is over. */
  clear(): void {
    this.problem = '';
    this.said = '';
  }

  override attempt(work: () => Promise<unknown>): Promise<boolean> {
    return super.attempt(work);
  }
}
