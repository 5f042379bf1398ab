/**
 * A session under way: its parts one after the other, each with its time. It outlives the page: kept on the device, taken up
 * again where it was.
 */
import { dayHere } from '../day-here';
import { logBox } from './practice-log';
import { sounds, type RunPart } from './run-part';

interface StoredRun {
  readonly parts: readonly RunPart[];
  readonly at: number;
  /** When the part began, in milliseconds since 1970; and how long it had run before a pause. */
  readonly began: number | null;
  readonly ran: number;
}

const PLACE = 'corvel-session';

class SessionRun {
  parts: readonly RunPart[] = $state.raw([]);
  at = $state(0);
  #began: number | null = $state(null);
  #ran = $state(0);
  /** Moves on with the clock of whoever shows it. */
  now = $state(0);

  readonly isOn = $derived.by(() => this.parts.length > 0);
  readonly current: RunPart | null = $derived.by(() => this.parts[this.at] ?? null);
  readonly isOver = $derived.by(() => this.isOn && this.at >= this.parts.length);
  /** Seconds that the part has run. */
  readonly ran = $derived.by(
    () => this.#ran + (this.#began === null ? 0 : Math.max(0, (this.now - this.#began) / 1000))
  );
  /** Seconds that are left of the part; negative once it is over. */
  readonly left = $derived.by(() => (this.current ? this.current.minutes * 60 - this.ran : 0));
  /** Minutes and seconds that are left; over the time with a plus. */
  readonly clock = $derived.by(() => {
    const seconds = Math.abs(Math.round(this.left));
    return `${this.left < 0 ? '+' : ''}${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}`;
  });
  get isPaused(): boolean {
    return this.#began === null;
  }

  /** Takes up what the device has stored. */
  restore(): void {
    try {
      const stored = JSON.parse(localStorage.getItem(PLACE) ?? 'null') as StoredRun | null;
      if (!stored || !Array.isArray(stored.parts) || stored.parts.length === 0) return;
      this.parts = stored.parts;
      this.at = stored.at;
      this.#began = stored.began;
      this.#ran = stored.ran;
      const part = this.current;
      this.isWaiting = part !== null && stored.began === null && stored.ran === 0 && sounds(part);
      this.tick();
    } catch {
      // Nothing that could be taken up.
    }
  }

  #keep(): void {
    try {
      const stored: StoredRun = { parts: this.parts, at: this.at, began: this.#began, ran: this.#ran };
      if (this.isOn) localStorage.setItem(PLACE, JSON.stringify(stored));
      else localStorage.removeItem(PLACE);
    } catch {
      // It goes on as long as the page does.
    }
  }

  tick(): void {
    this.now = Date.now();
  }

  start(parts: readonly RunPart[]): void {
    this.parts = parts;
    this.#goTo(0);
  }

  /** The player has asked for the part that is shown: it begins to sound by itself. */
  #isAsked = false;
  /** Whether the part was asked for and has not begun; asked once. */
  takeStart(): boolean {
    const isAsked = this.#isAsked;
    this.#isAsked = false;
    return isAsked;
  }

  /** The part sounds, or is done: its clock runs, unless it runs already or was paused. */
  begin(): void {
    if (!this.isWaiting) return;
    this.isWaiting = false;
    this.now = Date.now();
    this.#began = this.now;
    this.#keep();
  }
  /** The part is shown and its clock does not run yet: what sounds has not begun. */
  isWaiting = $state(false);

  #goTo(at: number): void {
    this.at = at;
    this.#ran = 0;
    this.now = Date.now();
    const part = this.parts[at];
    this.isWaiting = part !== undefined && sounds(part);
    this.#isAsked = this.isWaiting;
    this.#began = part && !this.isWaiting ? this.now : null;
    this.#keep();
  }

  /** The part has reached its goal before its time: the time that is left flows on into the next one that is played. */
  giveOn(): void {
    this.tick();
    const minutes = Math.floor(this.left / 60);
    const next = this.parts.findIndex(
      (part, i) => i > this.at && part.kind !== 'rest' && part.kind !== 'cards'
    );
    if (minutes < 1 || next < 0) return;
    this.parts = this.parts.map((part, i) =>
      i === this.at
        ? { ...part, minutes: part.minutes - minutes }
        : i === next
          ? { ...part, minutes: part.minutes + minutes }
          : part
    );
    this.#keep();
  }

  /** On to the next part; this one is done. `clean`: how something went that is played away from any chart. */
  next(clean?: boolean): void {
    this.tick();
    if (this.current && clean !== undefined) this.#tell(this.current, clean);
    this.parts = this.parts.map((part, i) => (i === this.at ? { ...part, isDone: true } : part));
    this.#goTo(this.at + 1);
  }

  #tell({ item, name, tempo }: RunPart, clean: boolean): void {
    const seconds = Math.round(this.ran);
    const startedAt = this.now - seconds * 1000;
    logBox.put({
      id: crypto.randomUUID(),
      item: item ?? null,
      chart: null,
      kind: 'own',
      what: name,
      startedAt,
      day: dayHere(startedAt),
      seconds,
      rounds: 1,
      tempo: tempo ?? null,
      clean,
      key: null,
      area: null,
      note: '',
      stumbles: [],
      revision: 1
    });
  }

  /** On to the next part without this one: no reproach. */
  skip(): void {
    this.#goTo(this.at + 1);
  }

  back(): void {
    if (this.at > 0) this.#goTo(this.at - 1);
  }

  prolong(minutes: number): void {
    this.parts = this.parts.map((part, i) =>
      i === this.at ? { ...part, minutes: Math.max(1, part.minutes + minutes) } : part
    );
    this.#keep();
  }

  /** The part after this one comes now, this one after it. */
  swap(): void {
    const { at, parts } = this;
    const [now, next] = [parts[at], parts[at + 1]];
    if (!now || !next) return;
    this.parts = [...parts.slice(0, at), next, now, ...parts.slice(at + 2)];
    this.#goTo(at);
  }

  pause(): void {
    this.isWaiting = false;
    this.tick();
    if (this.#began === null) this.#began = this.now;
    else {
      this.#ran += (this.now - this.#began) / 1000;
      this.#began = null;
    }
    this.#keep();
  }

  end(): void {
    this.parts = [];
    this.#goTo(0);
  }
}

export const sessionRun = new SessionRun();
