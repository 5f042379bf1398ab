/** The player's settings in the page: changed at once, stored behind. */
import { prettyNote, prettyDegree } from '$lib/core/theory/typeset';
import { DEFAULT_SETTINGS, type Labels, type Settings, type SettingsChange } from '$lib/api/settings';
import { collectionTitle, type Collection } from '$lib/core/approaches/collection';
import { APPROACHES, type ApproachFacts } from '$lib/core/approaches/registry';
import { readInstrument, STANDARD, type Instrument } from '$lib/core/neck/tuning';
import { simpleSpelling } from '$lib/core/theory/note';
import { hear, tell } from './windows';

/** Milliseconds until a server that was away is tried again. */
const RETRY = 3000;

const LABELS: readonly Labels[] = ['degree', 'name', 'finger'];

class PlayerSettings {
  #now: Settings = $state.raw(DEFAULT_SETTINGS);
  /** The guitar under the player's hand. */
  readonly instrument: Instrument = $derived.by(() => {
    const { tuning, frets, capo, capoChords, span, openStrings } = this.#now;
    return readInstrument({ tuning, frets, capo, capoChords, span, openStrings }) ?? STANDARD;
  });

  get now(): Settings {
    return this.#now;
  }

  /** Takes over what the server has stored. */
  start(stored: Settings): void {
    this.#now = stored;
  }

  change(part: SettingsChange): void {
    this.#show(part);
    this.#unsent = { ...this.#unsent, ...part };
    tell({ kind: 'settings', change: part });
    void this.#send();
  }

  /** Takes over what another window has set. */
  follow(): () => void {
    return hear((news) => {
      if (news.kind === 'settings') this.#show(news.change);
    });
  }

  #show(part: SettingsChange): void {
    this.#now = { ...this.#now, ...part };
    document.documentElement.dataset.theme = this.#now.theme;
  }

  /** What the server does not know yet; it is sent until it does. */
  #unsent: SettingsChange = {};
  #timer: ReturnType<typeof setTimeout> | undefined;

  async #send(): Promise<void> {
    clearTimeout(this.#timer);
    const change = this.#unsent;
    if (Object.keys(change).length === 0) return;
    this.#unsent = {};
    const response = await fetch('/api/v1/settings', {
      method: 'PUT',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(change),
      keepalive: true
    }).catch(() => null);
    if (response && response.status < 500) return;
    this.#unsent = { ...change, ...this.#unsent };
    this.#timer = setTimeout(() => void this.#send(), RETRY);
  }

  toggleTheme(): void {
    this.change({ theme: this.#now.theme === 'day' ? 'stage' : 'day' });
  }

  cycleLabels(): void {
    const at = LABELS.indexOf(this.#now.labels);
    this.change({ labels: LABELS[(at + 1) % LABELS.length]! });
  }

  /** A note name as this player reads it. */
  note(name: string): string {
    return prettyNote(this.#now.simpleSpelling ? simpleSpelling(name) : name);
  }

  /** The name of a collection: modal or by its parent, as the player reads names. */
  collection({ facts, root, parent }: Collection): string {
    if (this.#now.naming === 'parent' && parent) {
      return `${this.note(parent.tonic)} ${parent.scale} from ${this.note(root)}`;
    }
    return collectionTitle(facts, root, (name) => this.note(name));
  }

  /** The approaches in the player's own order. */
  get approaches(): readonly ApproachFacts[] {
    const rank = (id: string) => {
      const at = this.#now.approaches.indexOf(id);
      return at < 0 ? this.#now.approaches.length : at;
    };
    return [...APPROACHES].sort((a, b) => rank(a.id) - rank(b.id));
  }

  /** Moves an approach one place up. */
  raiseApproach(id: string): void {
    const order = this.approaches.map((approach) => approach.id);
    const at = order.indexOf(id);
    if (at <= 0) return;
    order.splice(at - 1, 2, id, order[at - 1]!);
    this.change({ approaches: order });
  }

  /** What stands inside a note. */
  label(cell: { degree: string; note: string; finger?: number }): string {
    if (this.#now.labels === 'name') return this.note(cell.note);
    if (this.#now.labels === 'finger' && cell.finger !== undefined) return String(cell.finger);
    return prettyDegree(cell.degree);
  }
}

export const settings = new PlayerSettings();
