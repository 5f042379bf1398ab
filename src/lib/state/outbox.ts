/** What happened and has to reach the server: kept on the device until it is acknowledged, so that nothing is lost with the page. */
import { callRoute, Refusal } from './call';

/** A thing to be sent, by its id; a later state of it (`revision`) takes the place of an earlier one. */
interface Sendable {
  readonly id: string;
  readonly revision?: number;
}

const RETRY = 4000;
/** Things that go with one request. */
const AT_ONCE = 100;

export class Outbox<T extends Sendable> {
  readonly #place: string;
  readonly #path: string;
  readonly #field: string;
  #timer: ReturnType<typeof setTimeout> | undefined;
  #isSending = false;
  /** Called after things have reached the server. */
  onsent: (() => void) | undefined;
  /** Told what the server refused and why. */
  onrefused: ((why: string) => void) | undefined;

  /** `place`: where it is kept on the device; `path` and `field`: the route it goes to and the field it stands in. */
  constructor(place: string, path: string, field: string) {
    this.#place = place;
    this.#path = path;
    this.#field = field;
  }

  get #kept(): readonly T[] {
    try {
      const kept: unknown = JSON.parse(localStorage.getItem(this.#place) ?? '[]');
      return Array.isArray(kept) ? (kept as T[]) : [];
    } catch {
      return [];
    }
  }

  #keep(things: readonly T[]): void {
    try {
      if (things.length) localStorage.setItem(this.#place, JSON.stringify(things));
      else localStorage.removeItem(this.#place);
    } catch {
      // A browser that keeps nothing still sends.
      this.#unkept = things;
    }
  }
  #unkept: readonly T[] = [];

  get waiting(): readonly T[] {
    return [...this.#kept, ...this.#unkept];
  }

  put(...things: readonly T[]): void {
    const ids = new Set(things.map(({ id }) => id));
    this.#keep([...this.waiting.filter(({ id }) => !ids.has(id)), ...things]);
    void this.send();
  }

  /** Sends what waits; what is refused is let go and told, what does not reach the server waits on. */
  async send(isLast = false): Promise<void> {
    clearTimeout(this.#timer);
    const things = this.waiting.slice(0, AT_ONCE);
    if (things.length === 0 || (this.#isSending && !isLast)) return;
    this.#isSending = true;
    try {
      await callRoute(this.#path, '', 'POST', { [this.#field]: things }, isLast);
      this.#forget(things);
      this.onsent?.();
      if (this.waiting.length > 0) this.#timer = setTimeout(() => void this.send(), 0);
    } catch (error) {
      if (error instanceof Refusal) {
        this.#forget(things);
        this.onrefused?.(error.message);
      } else this.#timer = setTimeout(() => void this.send(), RETRY);
    } finally {
      this.#isSending = false;
    }
  }

  /** What has changed since it was sent waits on. */
  #forget(sent: readonly T[]): void {
    const known = new Map(sent.map(({ id, revision }) => [id, revision ?? 0]));
    this.#unkept = [];
    this.#keep(this.#kept.filter(({ id, revision }) => !known.has(id) || (revision ?? 0) > known.get(id)!));
  }
}
