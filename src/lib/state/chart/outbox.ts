/** What happened and has to reach the server: kept on the device until it is acknowledged, so that nothing is lost with the page. */
import { entryOf, firstOf } from '../../core/base/list';
import { callRoute, Refusal } from '../call';

/** A thing to be sent, by its id; a later state of it (`revision`) takes the place of an earlier one. */
export interface Sendable {
  readonly id: string;
  readonly revision?: number;
}

const RETRY = 4000;
/** Things that go with one request. */
const AT_ONCE = 100;

/** Things refused that are kept at most. */
const MOST_REFUSED = 200;

/** A thing that the server did not take, and what it said. */
export interface Refused<T> {
  readonly thing: T;
  readonly why: string;
}

function storedList<T>(place: string): readonly T[] {
  try {
    const stored: unknown = JSON.parse(localStorage.getItem(place) ?? '[]');
    return Array.isArray(stored) ? (stored as T[]) : [];
  } catch {
    return [];
  }
}

/** Keeps a list on the device; false where it cannot be kept. */
function store(place: string, things: readonly unknown[]): boolean {
  try {
    if (things.length) localStorage.setItem(place, JSON.stringify(things));
    else localStorage.removeItem(place);
    return true;
  } catch {
    return false;
  }
}

export class Outbox<T extends Sendable> {
  readonly #place: string;
  readonly #path: string;
  readonly #field: string;
  #timer: ReturnType<typeof setTimeout> | undefined;
  #sending: Promise<void> | null = null;
  /** Called after things have reached the server. */
  onsent: (() => void) | undefined;
  readonly #watching = new Set<() => void>();

  /** `place`: where it is kept on the device; `path` and `field`: the route it goes to and the field it stands in. */
  constructor(place: string, path: string, field: string) {
    this.#place = place;
    this.#path = path;
    this.#field = field;
  }

  get #stored(): readonly T[] {
    return storedList<T>(this.#place);
  }

  #keep(things: readonly T[]): void {
    // A browser that keeps nothing still sends.
    if (!store(this.#place, things)) this.#unstored = things;
  }
  #unstored: readonly T[] = [];

  get waiting(): readonly T[] {
    return [...this.#stored, ...this.#unstored];
  }

  put(...things: readonly T[]): void {
    const ids = new Set(things.map(({ id }) => id));
    this.#keep([...this.waiting.filter(({ id }) => !ids.has(id)), ...things]);
    void this.send();
  }

  /**
   * Sends what waits. What does not reach the server waits on. A batch that is refused is halved until what is refused stands alone; that is
   * set aside on the device and told, everything else goes through.
   */
  async send(isLast = false): Promise<void> {
    clearTimeout(this.#timer);
    // Who reads after a send has to find what is on its way.
    if (this.#sending && !isLast) return this.#sending;
    const things = this.waiting.slice(0, AT_ONCE);
    if (things.length === 0) return;
    this.#sending = this.#sendAll(things, isLast);
    await this.#sending;
  }

  async #sendAll(things: readonly T[], isLast: boolean): Promise<void> {
    try {
      await this.#deliver(things, isLast);
      this.onsent?.();
      if (this.waiting.length > 0) this.#timer = setTimeout(() => void this.send(), 0);
    } catch {
      this.#timer = setTimeout(() => void this.send(), RETRY);
    } finally {
      this.#sending = null;
    }
  }

  async #deliver(things: readonly T[], isLast: boolean): Promise<void> {
    try {
      await callRoute(this.#path, '', 'POST', { [this.#field]: things }, isLast);
      this.#forget(things);
    } catch (error) {
      if (!(error instanceof Refusal)) throw error;
      if (things.length > 1) {
        const half = Math.ceil(things.length / 2);
        await this.#deliver(things.slice(0, half), isLast);
        await this.#deliver(things.slice(half), isLast);
        return;
      }
      this.#setAside(firstOf(things), error.message);
      this.#forget(things);
      this.#tell();
    }
  }

  /** Tells whenever something is refused, or what was refused is decided on; returns how to stop. */
  watch(look: () => void): () => void {
    this.#watching.add(look);
    return () => this.#watching.delete(look);
  }

  #tell(): void {
    for (const look of this.#watching) look();
  }

  get #asidePlace(): string {
    return `${this.#place}-refused`;
  }

  /** What the server refused and why: kept on the device, so that nothing is lost in silence. */
  get refused(): readonly Refused<T>[] {
    return storedList<Refused<T>>(this.#asidePlace);
  }

  /** Sends something that was refused once more. */
  retry(id: string): void {
    const again = this.refused.find(({ thing }) => thing.id === id);
    this.drop(id);
    if (again) this.put(again.thing);
  }

  /** Lets go of something that was refused. */
  drop(id: string): void {
    store(
      this.#asidePlace,
      this.refused.filter(({ thing }) => thing.id !== id)
    );
    this.#tell();
  }

  #setAside(thing: T, why: string): void {
    const others = this.refused.filter(({ thing: own }) => own.id !== thing.id);
    store(this.#asidePlace, [...others, { thing, why }].slice(-MOST_REFUSED));
  }

  /** What has changed since it was sent waits on. */
  #forget(sent: readonly T[]): void {
    const known = new Map(sent.map(({ id, revision }) => [id, revision ?? 0]));
    this.#unstored = [];
    this.#keep(
      this.#stored.filter(({ id, revision }) => !known.has(id) || (revision ?? 0) > entryOf(known, id))
    );
  }
}
