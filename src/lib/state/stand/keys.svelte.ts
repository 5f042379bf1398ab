/** The keys that the rounds go through, and the chart in each of them. */
/* eslint-disable svelte/prefer-svelte-reactivity -- the map here is a memory of what was made, which nothing shows */
import { readSheet } from '$lib/core/harmony/sheet';
import { shiftOf, type KeyOrder } from '$lib/core/practice/ladder';
import type { Draft } from '../chart/drafts';
import { chartInKey } from '../chart/in-key';
import type { Workspace } from '../chart/workspace.svelte';

/** Charts in other keys that are kept made. */
const MOST_CHARTS = 12;

export class Keys {
  /** Semitones by which chart and line are moved up, 0 to 11. */
  shift = $state(0);
  /** Whether a line goes round the keys with the rounds. */
  lineKeys: KeyOrder = $state('stay');
  /** The area that is practised, where the stand was opened for one; null as the plan has it. */
  area: number | null = $state(null);
  /** In which keys the rounds go. */
  readonly order: KeyOrder = $derived.by(() => this.#asked());
  readonly #workspace: Workspace;
  readonly #asked: () => KeyOrder;
  readonly #moved = new Map<string, Workspace>();

  /** `asked`: the order that desk, line and recording ask for. */
  constructor(workspace: Workspace, asked: () => KeyOrder) {
    this.#workspace = workspace;
    this.#asked = asked;
  }

  /** Semitones (0–11) by which chart and line are up in some round. */
  shiftIn(round: number): number {
    return (shiftOf(this.order, round) + this.shift) % 12;
  }

  /** The chart of a round; the player's own where nothing is moved and nothing has been edited. */
  chartIn(round: number, { source, plan }: Draft): Workspace {
    const workspace = this.#workspace;
    const { area } = this;
    const shift = this.shiftIn(round);
    if (shift === 0 && area === null && source === workspace.document.source) return workspace;
    const key = `${shift} ${area} ${JSON.stringify(plan)} ${source}`;
    const known = this.#moved.get(key);
    if (known) return known;
    const home =
      source === workspace.document.source ? workspace.analysis.key : readSheet(source).analysis.key;
    const moved = chartInKey(workspace.document.id, { source, plan }, home, shift, workspace.neck, area);
    if (this.#moved.size > MOST_CHARTS) this.close();
    this.#moved.set(key, moved);
    return moved;
  }

  /** The targets of a round to come are worked out while another is played, where they cannot be had at once. */
  prepare(round: number): void {
    const { source, plan } = this.#workspace.document;
    const { paths } = this.chartIn(round, { source, plan });
    if (paths !== this.#workspace.paths && !paths.isSolvedAtOnce && !paths.solver.latest)
      paths.solver.ask(paths.job);
  }

  close(): void {
    for (const moved of this.#moved.values()) moved.paths.close();
    this.#moved.clear();
  }
}
