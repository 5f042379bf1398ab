/** What the stand is opened for: an item, or a part of a session. */
import type { LoopWish } from '$lib/core/harmony/excerpt';
import type { Step } from '$lib/core/practice/progress/turn';

export interface Assignment {
  /** The item that the log counts it for. */
  readonly item: string | null;
  readonly name: string;
  /** A drill's id, "melody", "line", "band". */
  readonly what: string;
  readonly line?: string | undefined;
  readonly over: LoopWish;
  readonly area: number | null;
  readonly key: string | null;
  /** Beats a minute of the first round; null as the chart says. */
  readonly start: number | null;
  /** The stretches of a part with the ladders that the marks move the tempo on; empty where it stays. */
  readonly steps: readonly Step[];
  /** A rung of them in per cent, where the item says one. */
  readonly rung?: number | undefined;
}
