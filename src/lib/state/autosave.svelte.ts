/** Saves a chart a moment after each edit and says how it stands. */
import type { Plan } from '$lib/api/plan';
import type { StoredChart } from '$lib/api/songbook';
import { byteLength, MAX_CHART_BYTES, tooLargeMessage } from '$lib/api/limits';

export interface Draft {
  readonly source: string;
  readonly plan: Plan;
}

export type SaveStatus =
  | { readonly kind: 'saved' }
  | { readonly kind: 'pending' }
  | { readonly kind: 'saving' }
  /** The server cannot be reached; it is tried again by itself. */
  | { readonly kind: 'offline' }
  /** The chart is not savable as it stands, say too large; the text stays in the editor. */
  | { readonly kind: 'refused'; readonly message: string }
  /** Another window saved first; the player decides. */
  | { readonly kind: 'stale'; readonly stored: Draft & { version: number } };

const DELAY = 500;
const RETRY = 3000;

export class Autosave {
  status: SaveStatus = $state.raw({ kind: 'saved' });
  version: number;
  readonly #id: string;
  #latest: Draft | null = null;
  #timer: ReturnType<typeof setTimeout> | undefined;
  #running = false;

  constructor(chart: StoredChart) {
    this.#id = chart.id;
    this.version = chart.version;
  }

  /** Takes note of an edit; it is saved a moment later. */
  take(draft: Draft): void {
    this.#latest = draft;
    if (this.status.kind === 'stale') return;
    if (byteLength(draft.source) > MAX_CHART_BYTES) {
      clearTimeout(this.#timer);
      this.status = { kind: 'refused', message: tooLargeMessage(draft.source) };
      return;
    }
    this.status = { kind: 'pending' };
    this.#schedule(DELAY);
  }

  /** Read afresh: the answer may have changed it while the call was on its way. */
  #status(): SaveStatus {
    return this.status;
  }

  #schedule(delay: number): void {
    clearTimeout(this.#timer);
    this.#timer = setTimeout(() => void this.flush(), delay);
  }

  /** Saves what is pending at once. */
  async flush(): Promise<void> {
    clearTimeout(this.#timer);
    const draft = this.#latest;
    if (!draft || this.#running || this.status.kind === 'stale' || this.status.kind === 'refused') return;
    this.#running = true;
    this.status = { kind: 'saving' };
    try {
      const response = await fetch(`/api/v1/songbook/${this.#id}`, {
        method: 'PUT',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ base: this.version, ...draft }),
        // Lets the last edit reach the server while the page closes; browsers bound such bodies.
        keepalive: draft.source.length < 30_000
      });
      this.#settle(response.status, await response.json(), draft);
    } catch {
      this.status = { kind: 'offline' };
      this.#schedule(RETRY);
    } finally {
      this.#running = false;
      if (this.#latest && this.#status().kind === 'pending') this.#schedule(0);
    }
  }

  #settle(
    status: number,
    body: { version?: number; stored?: Draft & { version: number }; error?: { message: string } },
    draft: Draft
  ) {
    if (status === 200) {
      this.version = body.version!;
      const hasMore = this.#latest !== draft;
      if (!hasMore) this.#latest = null;
      this.status = { kind: hasMore ? 'pending' : 'saved' };
    } else if (status === 409) {
      this.status = { kind: 'stale', stored: body.stored! };
    } else if (status < 500) {
      this.status = { kind: 'refused', message: body.error?.message ?? 'This could not be saved.' };
    } else {
      this.status = { kind: 'offline' };
      this.#schedule(RETRY);
    }
  }

  /** After a stale save: goes on from the stored version, writing over it or not as the caller then decides. */
  rebase(version: number): void {
    this.version = version;
    this.#latest = null;
    this.status = { kind: 'saved' };
  }
}
