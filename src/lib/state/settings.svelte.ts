/** The player's settings in the page: changed at once, stored behind. */
import { prettyNote, prettyDegree } from '$lib/core/theory/typeset';
import { DEFAULT_SETTINGS } from '$lib/api/default-settings';
import type { Labels, Settings, SettingsChange } from '$lib/api/settings';
import { collectionTitle, type Collection } from '$lib/core/approaches/collection';
import { APPROACHES, type ApproachFacts } from '$lib/core/approaches/registry';
import { nth } from '$lib/core/base/list';
import { readInstrument, STANDARD, type Instrument } from '$lib/core/neck/tuning';
import { simpleSpelling } from '$lib/core/theory/note';
import { writeLetters } from '$lib/core/theory/letters';
import { MediaQuery } from 'svelte/reactivity';
import { reach } from './reach.svelte';
import { hear, tell } from './windows';

/** Changes that can be taken back. */
const STEPS_BACK = 100;
/** Milliseconds until a server that was away is tried again. */
const RETRY = 3000;

const LABELS: readonly Labels[] = ['degree', 'name', 'finger'];

/** The device asks for a dark page. */
const darkDevice = new MediaQuery('(prefers-color-scheme: dark)');

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
    writeLetters(stored.letters);
  }

  change(part: SettingsChange): void {
    const before = Object.fromEntries(
      Object.keys(part).map((name) => [name, this.#now[name as keyof Settings]])
    ) as SettingsChange;
    this.#before = [...this.#before, before].slice(-STEPS_BACK);
    void this.#set(part);
  }

  /** What the changes of this page replaced, the last one last. */
  #before: readonly SettingsChange[] = $state.raw([]);

  get canUndo(): boolean {
    return this.#before.length > 0;
  }

  /** Takes the last change of this page back. */
  undo(): void {
    const before = this.#before.at(-1);
    if (!before) return;
    this.#before = this.#before.slice(0, -1);
    const stored = this.#set(before);
    if (before.letters !== undefined) void stored.then(() => location.reload());
  }

  #set(part: SettingsChange): Promise<void> {
    this.#show(part);
    this.#unsent = { ...this.#unsent, ...part };
    tell({ kind: 'settings', change: part });
    return this.#send();
  }

  /** Note names are written otherwise from now on: everything on the page is written anew. */
  async rename(letters: Settings['letters']): Promise<void> {
    if (letters === this.#now.letters) return;
    await this.#set({ letters });
    location.reload();
  }

  /** Takes over what another window has set. */
  follow(): () => void {
    return hear((news) => {
      if (news.kind !== 'settings') return;
      const isRenamed = news.change.letters !== undefined && news.change.letters !== this.#now.letters;
      this.#show(news.change);
      if (isRenamed) location.reload();
    });
  }

  #show(part: SettingsChange): void {
    writeLetters(part.letters ?? this.#now.letters);
    this.#now = { ...this.#now, ...part };
    document.documentElement.dataset.theme = this.#now.theme;
  }

  /** Whether the page is drawn as on stage. */
  get isStage(): boolean {
    const { theme } = this.#now;
    return theme === 'system' ? darkDevice.current : theme === 'stage';
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
    if (!response) reach.lost();
    this.#unsent = { ...change, ...this.#unsent };
    this.#timer = setTimeout(() => void this.#send(), RETRY);
  }

  toggleTheme(): void {
    this.change({ theme: this.isStage ? 'day' : 'stage' });
  }

  cycleLabels(): void {
    const at = LABELS.indexOf(this.#now.labels);
    this.change({ labels: nth(LABELS, (at + 1) % LABELS.length) });
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
    order.splice(at - 1, 2, id, nth(order, at - 1));
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
