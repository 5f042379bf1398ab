/** How the rounds went: marked clean or not, missed where; written to the log, and what the ladder of a part makes of it. */
import { playedAt, type LoopWish } from '$lib/core/harmony/excerpt';
import type { LaidRound } from '$lib/core/practice/clock';
import type { Loop as MarkedLoop } from '$lib/core/practice/progress/loops';
import { nowIn, type Now } from '$lib/core/practice/progress/live';
import type { Step } from '$lib/core/practice/progress/turn';
import { Recorder, type Playing, type Stumble } from '../practice/recorder';
import type { Workspace } from '../chart/workspace.svelte';
import type { Loop } from './loop.svelte';
import type { BandRound } from './rounds.svelte';

/** The part of a session whose ladder the marks move. */
export interface MarkedPart {
  readonly over: LoopWish;
  readonly steps: readonly Step[];
  /** A rung of the ladder in per cent, where the item says one. */
  readonly rung?: number | undefined;
}

interface Hooks {
  readonly workspace: Workspace;
  readonly loop: Loop;
  /** The ladder of the part says another tempo, or another stretch. */
  readonly onclimb: (now: Now, isOtherStretch: boolean, hasLoops: boolean) => void;
  /** Whether the part's ladder moves the tempo: the desk has none of its own. */
  readonly moves: () => boolean;
}

export class Marks {
  /** The marks of the rounds played since the start. */
  given: readonly (boolean | null)[] = $state.raw([]);
  /** How often the player stumbled in the round that sounds. */
  stumbled = $state(0);
  /** Rounds marked clean since the desk's ladder began. */
  clean = $state(0);
  /** What the ladder says of the part that the stand was opened for; null where there is none. */
  climb: Now | null = $state.raw(null);

  readonly #hooks: Hooks;
  readonly #recorder: Recorder;
  #part: MarkedPart | null = null;
  #stumbles: Stumble[] = [];
  /** A mark given before the first round was over. */
  #ahead: boolean | null = null;
  /** Loops and seconds of the part from before the band was stopped. */
  #earlier: { readonly loops: readonly MarkedLoop[]; readonly seconds: number } = { loops: [], seconds: 0 };

  constructor(recorder: Recorder, hooks: Hooks) {
    this.#recorder = recorder;
    this.#hooks = hooks;
  }

  /** Another part, or none: nothing was played of it yet. */
  take(part: MarkedPart | null): void {
    this.#part = part;
    this.climb = part && nowIn(part.steps, [], 0, part.rung);
    if (!part) return;
    this.#recorder.begin();
    this.given = [];
    this.#earlier = { loops: [], seconds: 0 };
  }

  /** The band starts; where it was silent, marks no longer reach what was played before. For the part it counts on. */
  start(isFresh: boolean): void {
    this.clean = 0;
    if (!isFresh) return;
    this.#earlier = this.#soFar();
    this.#recorder.begin();
    this.given = [];
    this.#ahead = null;
  }

  /** Says of the last round that it was clean, or not; before the first is over, of that one. */
  mark(clean: boolean): void {
    if (clean) this.clean += 1;
    if (this.#recorder.rounds === 0) this.#ahead = clean;
    else this.#recorder.mark(clean);
    this.#hooks.workspace.say(clean ? 'The round was clean' : 'The round was not clean');
    this.#follow();
  }

  /** The same of every round that was not marked yet: when a part of a session is over. */
  markAll(clean: boolean): void {
    this.#recorder.mark(clean, true);
    this.#follow();
  }

  /** Here it went wrong: the round is not clean, and the change that sounds is where. `beat`: by the clock, for the picture may lag behind. */
  stumble({ round, start }: LaidRound<BandRound>, beat: number): void {
    const { excerpt } = round.practice;
    const at = playedAt(excerpt, Math.min(Math.max(0, beat - start), excerpt.beats - 1e-6));
    const change = excerpt.changes[at];
    if (!change) return;
    this.#stumbles.push({ change: change.source.index, bar: change.source.bar });
    this.stumbled = this.#stumbles.length;
    this.#hooks.workspace.say(`Missed at ${change.source.symbol}, bar ${change.source.bar}`);
  }

  /** As it was heard: the last round went wrong at these changes, or at none; the player has only to agree. */
  confirm(changes: readonly number[]): void {
    const { changes: all } = this.#hooks.workspace.analysis;
    this.#recorder.confirm(
      changes.flatMap((change) => {
        const bar = all[change]?.bar;
        return bar === undefined ? [] : [{ change, bar }];
      })
    );
    this.#follow();
  }

  /** Writes down a round, or a part of one, that has sounded. */
  write(playing: Playing, seconds: number, isWhole: boolean): void {
    this.#recorder.add(playing, seconds, this.#stumbles, isWhole);
    this.#stumbles = [];
    this.stumbled = 0;
    if (isWhole && this.#ahead !== null) this.#recorder.mark(this.#ahead);
    if (isWhole) this.#ahead = null;
    this.#follow();
  }

  #soFar() {
    const whole = this.#hooks.loop.barsOf(this.#part?.over ?? { kind: 'form' });
    return {
      loops: [...this.#earlier.loops, ...this.#recorder.loops(whole)],
      seconds: this.#earlier.seconds + this.#recorder.seconds
    };
  }

  /** Tempo and stretch of the next round follow the ladder of the part, unless the desk has one of its own. */
  #follow(): void {
    this.given = this.#recorder.marks;
    const part = this.#part;
    if (!part || part.steps.length === 0 || !this.#hooks.moves()) return;
    const { loops, seconds } = this.#soFar();
    const now = nowIn(part.steps, loops, seconds, part.rung);
    const before = this.climb;
    this.climb = now;
    if (!now) return;
    const isOther = before?.bars?.from !== now.bars?.from || before?.bars?.to !== now.bars?.to;
    this.#hooks.onclimb(now, isOther, loops.length > 0);
  }
}
