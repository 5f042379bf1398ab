/** Corrected notes of a take: shown and judged at once, sent when nothing more comes for a moment. */
import type { StoredTake, TakeData } from '$lib/api/take';
import { Refusal } from '../call';
import * as client from './client';
import type { Notices } from './notices.svelte';

/** Milliseconds after which a server that was away is tried again. */
export const RETRY = 3000;
/** Milliseconds after the last correction at which it is sent. */
const CORRECTED = 500;

/** The shelf that the take lies on. */
interface Shelf {
  readonly chart: string;
  readonly isClosed: boolean;
  opened: StoredTake | null;
  /** A take was changed. `isLast`: nothing more of it is to be sent. */
  changed(id: string, version: number, isLast: boolean): Promise<void>;
}

export class Corrections {
  /** Something was corrected and is not sent yet. */
  isWaiting = false;
  #timer: ReturnType<typeof setTimeout> | undefined;
  readonly #shelf: Shelf;
  readonly #notices: Notices;

  constructor(shelf: Shelf, notices: Notices) {
    this.#shelf = shelf;
    this.#notices = notices;
  }

  correct(notes: TakeData['notes']): void {
    const take = this.#shelf.opened;
    if (!take?.data) return;
    this.#shelf.opened = { ...take, data: { ...take.data, notes } };
    this.isWaiting = true;
    clearTimeout(this.#timer);
    this.#timer = setTimeout(() => void this.send(), CORRECTED);
  }

  /** Sends what was corrected; a server that is away is tried again. */
  async send(): Promise<void> {
    clearTimeout(this.#timer);
    const shelf = this.#shelf;
    const take = shelf.opened;
    if (!this.isWaiting || !take?.data) return;
    const { data, id, version } = take;
    this.isWaiting = false;
    let isRefused = false;
    const isSent = await this.#notices.attempt(async () => {
      const changed = await client
        .changeTake(shelf.chart, id, { base: version, data })
        .catch((error: unknown) => {
          isRefused = error instanceof Refusal;
          throw error;
        });
      // What was corrected meanwhile stays.
      if (shelf.opened?.id === id) shelf.opened = { ...shelf.opened, version: changed.version };
      await shelf.changed(id, changed.version, !this.isWaiting);
    });
    // What was refused, as where another window has changed the take, is not asked again and again.
    if (isSent || isRefused) return;
    this.isWaiting = true;
    if (!shelf.isClosed) this.#timer = setTimeout(() => void this.send(), RETRY);
  }
}
