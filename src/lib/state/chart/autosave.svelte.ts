/**
 * Saves a chart a moment after each edit and says how it stands. What is typed is kept on the device until the server
 * has acknowledged it.
 */
import { reach } from '../reach.svelte';
import { byteLength, MAX_CHART_BYTES, tooLargeMessage } from '$lib/api/limits';
import type { StoredChart } from '$lib/api/songbook';
import { Drafts, type Draft } from './drafts';
import { tell, type News } from '../windows';

export type Stored = Draft & { readonly version: number };

export type SaveStatus =
  | { readonly kind: 'saved' }
  | { readonly kind: 'pending' }
  | { readonly kind: 'saving' }
  /** The server cannot be reached or cannot save; it is tried again by itself. */
  | { readonly kind: 'offline'; readonly message?: string }
  /** The chart is not savable as it stands, say too large; the text stays in the editor. */
  | { readonly kind: 'refused'; readonly message: string }
  /** Another window saved first; the player decides. */
  | { readonly kind: 'stale'; readonly stored: Stored }
  /** The chart was deleted elsewhere; the player decides. */
  | { readonly kind: 'gone' };

const DELAY = 500;
const RETRY = 3000;

/** What a save reaches out to; a test brings its own. */
export interface Outside {
  readonly fetch: typeof fetch;
  readonly drafts: Drafts;
  readonly tell: (news: News) => void;
}

/** The one that looks after each chart in this window; a page that was left goes on trying until the next one takes over. */
// Nothing that is drawn follows from it.
// eslint-disable-next-line svelte/prefer-svelte-reactivity
const inCharge = new Map<string, Autosave>();

interface Answer {
  readonly version?: number;
  readonly stored?: Stored;
  readonly error?: { readonly message: string };
}

export class Autosave {
  status: SaveStatus = $state.raw({ kind: 'saved' });
  version: number;
  readonly #id: string;
  readonly #outside: Outside;
  #latest: Draft | null = null;
  #timer: ReturnType<typeof setTimeout> | undefined;
  #running = false;
  /** What is typed is also on the device, so that leaving loses nothing. */
  isKept = false;

  constructor(
    chart: Pick<StoredChart, 'id' | 'version'>,
    outside: Outside = { fetch: (...call) => fetch(...call), drafts: new Drafts(), tell }
  ) {
    this.#id = chart.id;
    this.version = chart.version;
    this.#outside = outside;
  }

  get hasUnsaved(): boolean {
    return this.#latest !== null;
  }

  /** Takes note of an edit; it is saved a moment later. */
  take(draft: Draft): void {
    if (inCharge.get(this.#id) !== this) inCharge.get(this.#id)?.close();
    inCharge.set(this.#id, this);
    this.#latest = draft;
    this.isKept = this.#outside.drafts.keep(this.#id, this.version, draft, Date.now());
    if (this.status.kind === 'stale' || this.status.kind === 'gone') return;
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
    if (!draft || this.#running || ['stale', 'refused', 'gone'].includes(this.status.kind)) return;
    this.#running = true;
    this.status = { kind: 'saving' };
    try {
      const response = await this.#outside.fetch(`/api/v1/songbook/${this.#id}`, {
        method: 'PUT',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ base: this.version, ...draft }),
        // Lets the last edit reach the server while the page closes; browsers bound such bodies.
        keepalive: draft.source.length < 30_000
      });
      this.#settle(response.status, (await response.json()) as Answer, draft);
    } catch {
      reach.lost();
      this.#tryAgain();
    } finally {
      this.#running = false;
      if (this.#latest && this.#status().kind === 'pending') this.#schedule(0);
    }
  }

  #tryAgain(message?: string): void {
    this.status = { kind: 'offline', ...(message ? { message } : {}) };
    this.#schedule(RETRY);
  }

  #settle(status: number, body: Answer, draft: Draft): void {
    if (status === 200) {
      this.version = body.version!;
      const hasMore = this.#latest !== draft;
      if (hasMore) this.#outside.drafts.keep(this.#id, this.version, this.#latest!, Date.now());
      else this.#settled();
      this.status = { kind: hasMore ? 'pending' : 'saved' };
      this.#outside.tell({ kind: 'saved', chart: this.#id, version: this.version });
    } else if (status === 409) {
      this.status = { kind: 'stale', stored: body.stored! };
    } else if (status === 404) {
      this.status = { kind: 'gone' };
    } else if (status < 500) {
      this.status = { kind: 'refused', message: body.error?.message ?? 'This could not be saved.' };
    } else {
      this.#tryAgain(body.error?.message);
    }
  }

  #settled(): void {
    this.#latest = null;
    this.#outside.drafts.settle(this.#id);
  }

  /** After a stale save: goes on from the stored version, writing over it or not as the caller then decides. */
  rebase(version: number): void {
    this.version = version;
    this.#settled();
    this.status = { kind: 'saved' };
  }

  /** What was typed on an older version stands against the one that is stored; the player decides. */
  standAgainst(stored: Stored, mine: Draft): void {
    this.take(mine);
    clearTimeout(this.#timer);
    this.status = { kind: 'stale', stored };
  }

  /**
   * Looks whether the chart has moved on elsewhere. The newer version comes back where nothing here is unsaved, to be
   * shown; else both stand against each other. A server that is away changes nothing.
   */
  async look(): Promise<Stored | null> {
    if (this.#running || this.status.kind === 'stale') return null;
    try {
      const response = await this.#outside.fetch(`/api/v1/songbook/${this.#id}`);
      if (response.status === 404) {
        this.status = { kind: 'gone' };
        return null;
      }
      if (!response.ok) return null;
      const stored = (await response.json()) as StoredChart;
      if (this.#status().kind === 'gone') this.status = { kind: this.#latest ? 'pending' : 'saved' };
      if (this.#running || stored.version <= this.version) return null;
      if (!this.#latest) return stored;
      clearTimeout(this.#timer);
      this.status = { kind: 'stale', stored };
    } catch {
      // The next save tells.
    }
    return null;
  }

  /** Brings a chart back that was deleted elsewhere, and saves what is here on top of it. */
  async restore(): Promise<void> {
    try {
      const response = await this.#outside.fetch(`/api/v1/songbook/${this.#id}/bring-back`, {
        method: 'POST'
      });
      if (!response.ok) return;
      this.status = { kind: this.#latest ? 'pending' : 'saved' };
      this.#outside.tell({ kind: 'brought back', chart: this.#id });
      await this.flush();
    } catch {
      // The banner stays; it can be pressed again.
    }
  }

  /** Keeps a draft as a chart of its own; returns its id. */
  async keepAsNew(draft: Draft): Promise<string | null> {
    try {
      const id = crypto.randomUUID();
      const response = await this.#outside.fetch('/api/v1/songbook', {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ id, source: draft.source, plan: draft.plan })
      });
      if (!response.ok) return null;
      this.#settled();
      return id;
    } catch {
      return null;
    }
  }

  /** The server is back: what waits is saved at once. */
  again(): void {
    if (this.status.kind === 'offline') this.#schedule(0);
  }

  /** Saves no more; what is unsaved stays on the device. */
  close(): void {
    clearTimeout(this.#timer);
    this.#latest = null;
  }
}
