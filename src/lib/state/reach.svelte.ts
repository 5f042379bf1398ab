/** Whether Corvel's server answers: told by whoever asked in vain, and looked for until it is back. */
import { resolve } from '$app/paths';

/** Milliseconds between looks: what is back is noticed within five seconds. */
const LOOK = 2000;
/** Milliseconds after which a look that hangs counts as failed. */
const PATIENCE = 2500;

export class Reach {
  isAway = $state(false);
  readonly #fetch: typeof fetch;
  #back: readonly (() => void)[] = [];
  #timer: ReturnType<typeof setTimeout> | undefined;

  constructor(fetchFile: typeof fetch = (...asked) => fetch(...asked)) {
    this.#fetch = fetchFile;
  }

  /** Something was asked in vain. */
  lost(): void {
    if (this.isAway) return;
    this.isAway = true;
    this.#again();
  }

  /** Looks now, as a page does that may have been opened without its server. */
  async look(): Promise<void> {
    clearTimeout(this.#timer);
    const answers = await this.#fetch(resolve('/') + '_app/version.json', {
      cache: 'no-store',
      signal: AbortSignal.timeout(PATIENCE)
    }).then(
      ({ ok }) => ok,
      () => false
    );
    if (!answers) {
      this.isAway = true;
      this.#again();
    } else if (this.isAway) {
      this.isAway = false;
      for (const told of this.#back) told();
    }
  }

  #again(): void {
    clearTimeout(this.#timer);
    this.#timer = setTimeout(() => void this.look(), LOOK);
  }

  /** Calls back each time the server is back; gives how to stop. */
  onBack(told: () => void): () => void {
    this.#back = [...this.#back, told];
    return () => void (this.#back = this.#back.filter((one) => one !== told));
  }
}

export const reach = new Reach();
