/**
 * A session under way: its parts one after the other, each with its time. It outlives the page: kept on the device, taken up
 * again where it was.
 */
import type { ItemData, ItemWithProgress } from '$lib/api/practice';
import { keyName, loopName } from '$lib/core/practice/items/words';
import type { SessionPart } from '$lib/core/practice/session/parts';
import { lickPlaceOf } from '$lib/core/practice/items/lick-items';
import { PARTS } from '$lib/core/practice/session/parts';
import { logBox } from './practice-log';
import { dayHere } from '../day-here';
import type { Assignment } from './assignment';

/** A part as it is run: with what it opens. */
export interface RunPart extends SessionPart {
  readonly id: string;
  readonly name: string;
  /** Title of the chart. */
  readonly title: string | null;
  readonly data: ItemData | null;
  readonly isDone?: boolean;
}

interface Kept {
  readonly parts: readonly RunPart[];
  readonly at: number;
  /** When the part began, in milliseconds since 1970; and how long it had run before a pause. */
  readonly began: number | null;
  readonly ran: number;
}

const PLACE = 'corvel-session';

/** The parts of a plan with what each opens. */
export function runParts(
  parts: readonly SessionPart[],
  items: readonly ItemWithProgress[],
  titles: ReadonlyMap<string, string>,
  tunings: ReadonlyMap<string, string> = NO_TUNINGS
): RunPart[] {
  return parts.map((part, i) => {
    const item = items.find(({ id }) => id === part.item);
    return {
      ...part,
      id: `${i} ${part.kind} ${part.item ?? ''} ${part.bars?.from ?? ''}`,
      ...namesOf(part, item?.data?.name, titles, tunings),
      data: item?.data ?? null
    };
  });
}

const NO_TUNINGS: ReadonlyMap<string, string> = new Map();

/** What a part is called, and the title of its chart; with the tuning that a form wants on the day. */
function namesOf(
  { chart, kind, bars }: SessionPart,
  own: string | undefined,
  titles: ReadonlyMap<string, string>,
  tunings: ReadonlyMap<string, string>
): { readonly name: string; readonly title: string | null } {
  const title = (chart === undefined ? undefined : titles.get(chart)) ?? null;
  if (kind === 'form' && title !== null) {
    const tuning = tunings.get(chart!);
    return { name: `${title}, whole form`, title: tuning ? `${title} · tuning: ${tuning}` : title };
  }
  const name = own ?? PARTS[kind].name;
  return { name: kind === 'seam' && bars ? `${name}, ${loopName({ kind: 'bars', ...bars })}` : name, title };
}

/** What comes next, as it is announced: the part; of a form its key too. */
export function announced({ name, key, kind }: RunPart): string {
  return kind === 'form' && key ? `${name} · ${keyName(key)}` : name;
}

/** What the stand is opened for; null for a part that is not played there. */
export function assignmentOf({ kind, item, data, key, tempo, name, steps }: RunPart): Assignment | null {
  if (kind === 'form' && !data) {
    return {
      item: null,
      name: 'The whole form',
      what: 'band',
      over: { kind: 'form' },
      area: null,
      key: key ?? null,
      start: tempo ?? null,
      steps: []
    };
  }
  if (!data) return null;
  return {
    item: item ?? null,
    name,
    what: data.what,
    line: data.line,
    over: data.over,
    area: data.area,
    key: key ?? data.key,
    start: tempo ?? null,
    steps: steps ?? [],
    rung: data.tempo.step
  };
}

/** Where a part is played. */
export function placeOfPart({ kind, chart, item }: RunPart): string {
  if (kind === 'cards') return '/trainer';
  if (item !== undefined && lickPlaceOf(item)) return `/licks?item=${encodeURIComponent(item)}`;
  if (kind === 'rest' || chart === undefined) return '/today';
  if (kind === 'free') return `/charts/${chart}`;
  return `/charts/${chart}?view=rehearse`;
}

/** Whether a part is played at the stand or asked on cards: its time begins when that does. */
const sounds = (part: RunPart) => part.kind !== 'free' && /^\/(charts|trainer)/.test(placeOfPart(part));

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

  /** Takes up what the device has kept. */
  restore(): void {
    try {
      const kept = JSON.parse(localStorage.getItem(PLACE) ?? 'null') as Kept | null;
      if (!kept || !Array.isArray(kept.parts) || kept.parts.length === 0) return;
      this.parts = kept.parts;
      this.at = kept.at;
      this.#began = kept.began;
      this.#ran = kept.ran;
      const part = this.current;
      this.isWaiting = part !== null && kept.began === null && kept.ran === 0 && sounds(part);
      this.tick();
    } catch {
      // Nothing that could be taken up.
    }
  }

  #keep(): void {
    try {
      const kept: Kept = { parts: this.parts, at: this.at, began: this.#began, ran: this.#ran };
      if (this.isOn) localStorage.setItem(PLACE, JSON.stringify(kept));
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
