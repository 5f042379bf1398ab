/** The player's settings in the page: changed at once, stored behind. */
import { DEFAULT_SETTINGS, type Labels, type Settings } from '$lib/api/settings';
import { prettyNote, simpleSpelling } from '$lib/core/theory/note';
import { prettyDegree } from '$lib/core/theory/degree';

const LABELS: readonly Labels[] = ['degree', 'name', 'finger'];

class PlayerSettings {
  #now: Settings = $state.raw(DEFAULT_SETTINGS);

  get now(): Settings {
    return this.#now;
  }

  /** Takes over what the server has stored. */
  start(stored: Settings): void {
    this.#now = stored;
  }

  change(part: Partial<Settings>): void {
    this.#now = { ...this.#now, ...part };
    document.documentElement.dataset.theme = this.#now.theme;
    void fetch('/api/v1/settings', {
      method: 'PUT',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(this.#now)
    }).catch(() => undefined);
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

  /** What stands inside a note. */
  label(cell: { degree: string; note: string; finger?: number }): string {
    if (this.#now.labels === 'name') return this.note(cell.note);
    if (this.#now.labels === 'finger' && cell.finger !== undefined) return String(cell.finger);
    return prettyDegree(cell.degree);
  }
}

export const settings = new PlayerSettings();
