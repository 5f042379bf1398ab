/** Drawing the target line to another tone: by the mouse anywhere in a column, by a finger on a tone. */
import type { Workspace } from '$lib/state/chart/workspace.svelte';
import type { ThreadsLayout } from './layout';

/** The tone that the line is drawn to. */
interface Aimed {
  readonly change: number;
  readonly midi: number;
}

export class ThreadDragging {
  aimed: Aimed | null = $state.raw(null);

  /** The column a finger has come down on beside its tones: a tap selects it, a swipe scrolls. */
  #tapped: number | null = null;

  readonly #workspace: () => Workspace;
  readonly #layout: () => ThreadsLayout;

  constructor(workspace: () => Workspace, layout: () => ThreadsLayout) {
    this.#workspace = workspace;
    this.#layout = layout;
  }

  grab(event: PointerEvent, change: number): void {
    const isOnTone = (event.target as Element).closest('[data-drag]') !== null;
    this.#tapped = event.pointerType === 'touch' && !isOnTone ? change : null;
    if (this.#tapped !== null) return;
    const midi = this.#nearest(change, event);
    this.#workspace().select(change);
    if (midi === null || event.button !== 0) return;
    (event.currentTarget as Element).setPointerCapture(event.pointerId);
    this.aimed = { change, midi };
  }

  /** While the player drags, the line shows where it would go. */
  drag(event: PointerEvent): void {
    if (!this.aimed) return;
    const { change } = this.aimed;
    const midi = this.#nearest(change, event);
    if (midi === null || midi === this.aimed.midi) return;
    this.aimed = { change, midi };
    const { tones, paths } = this.#workspace();
    const cell = tones[change]?.find((tone) => tone.midi === midi);
    paths.considered = cell ? { change, cell } : null;
  }

  letGo(): void {
    this.#tapped = null;
    this.aimed = null;
    this.#workspace().paths.considered = null;
  }

  /** Pins the target to the tone; the pinned one itself is unpinned. */
  drop(change: number): void {
    const workspace = this.#workspace();
    const { aimed } = this;
    if (this.#tapped === change) workspace.select(change);
    this.letGo();
    const tone = aimed && workspace.tones[change]?.find(({ midi }) => midi === aimed.midi);
    if (!tone) return;
    const current = workspace.paths.targets.get(change);
    if (current?.isFixed && current.cell.midi === tone.midi) workspace.targetLine.unpin(change);
    else workspace.targetLine.pin(change, tone);
  }

  /** The tone of a change nearest to the pointer; null where it has none. */
  #nearest(change: number, event: PointerEvent): number | null {
    const top = (event.currentTarget as Element).closest('svg')?.getBoundingClientRect().top ?? 0;
    const { pitch } = this.#layout();
    const away = (midi: number) => Math.abs(pitch(midi) - (event.clientY - top));
    const [nearest] = [...(this.#workspace().tones[change] ?? [])].sort(
      (a, b) => away(a.midi) - away(b.midi)
    );
    return nearest?.midi ?? null;
  }
}
