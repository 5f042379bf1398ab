/**
 * Writes the log while the player plays: round by round, rounds at one tempo and marked alike in one row. A round that is
 * marked otherwise than those before it begins a row of its own.
 */
import type { RecordedRow } from '$lib/api/practice';
import { firstOf } from '$lib/core/base/list';
import { dayHere } from '../day-here';
import type { Bars } from '$lib/core/practice/log/model';
import { lengthOf, UNKNOWN_BARS, type Loop } from '$lib/core/practice/progress/loops';

/** What is being played. */
export interface Playing {
  readonly item: string | null;
  readonly chart: string | null;
  readonly what: string;
  readonly key: string | null;
  readonly area: number | null;
  readonly tempo: number | null;
  /** The stretch that is looped: bars of the unrolled form, both in; null where it is none, such as two chords alone. */
  readonly bars: Bars | null;
}

/** Where a round went wrong: the change, and the bar it stands in. */
export interface Stumble {
  readonly change: number;
  readonly bar: number;
}

interface PlayedRound extends Playing {
  readonly startedAt: number;
  readonly seconds: number;
  readonly isWhole: boolean;
  clean: boolean | null;
  stumbles: readonly Stumble[];
  /** The row it belongs to. */
  row: string;
}

/** Seconds of a round that was not played to its end which are worth telling. */
const WORTH_TELLING = 5;

export class Recorder {
  #rounds: PlayedRound[] = [];
  readonly #revisions = new Map<string, number>();
  readonly #send: (...rows: RecordedRow[]) => void;
  readonly #now: () => number;
  readonly #newId: () => string;

  constructor(
    send: (...rows: RecordedRow[]) => void,
    now: () => number = Date.now,
    newId: () => string = () => crypto.randomUUID()
  ) {
    this.#send = send;
    this.#now = now;
    this.#newId = newId;
  }

  /** Rounds played to their end since the beginning. */
  get rounds(): number {
    return this.#rounds.filter(({ isWhole }) => isWhole).length;
  }

  /** The marks of the rounds played to their end. */
  get marks(): readonly (boolean | null)[] {
    return this.#rounds.filter(({ isWhole }) => isWhole).map(({ clean }) => clean);
  }

  /** The whole rounds that were marked, as the ladder reads them. `whole`: bars of what is practised; none where not known. */
  loops(whole: Bars | null): readonly Loop[] {
    return this.#rounds.flatMap(({ isWhole, clean, tempo, bars, stumbles }): Loop[] => {
      if (!isWhole || clean === null || tempo === null) return [];
      const isAll = !bars || !whole || lengthOf(bars) >= lengthOf(whole);
      const length = bars ? lengthOf(bars) : whole ? lengthOf(whole) : UNKNOWN_BARS;
      const at = barsOf(stumbles);
      // Marked as not clean without a place: more than is forgiven.
      const count = clean ? 0 : at.length || UNCLEAN;
      return [{ bars: isAll ? null : bars, length, tempo, stumbles: count, at }];
    });
  }

  /** Seconds of all rounds since the beginning. */
  get seconds(): number {
    return this.#rounds.reduce((sum, { seconds }) => sum + seconds, 0);
  }

  /** Another playing begins: marks no longer reach what was before. */
  begin(): void {
    this.#rounds = [];
  }

  /** A round has been played; `stumbles`: where the player stumbled in it. */
  add(playing: Playing, seconds: number, stumbles: readonly Stumble[] = [], isWhole = true): void {
    if (!isWhole && seconds < WORTH_TELLING) return;
    const before = this.#rounds.at(-1);
    const clean = stumbles.length > 0 ? false : null;
    const round: PlayedRound = {
      ...playing,
      startedAt: Math.round(this.#now() - seconds * 1000),
      seconds,
      isWhole,
      clean,
      stumbles: [...stumbles],
      row: ''
    };
    round.row = before && isAlike(before, round) ? before.row : this.#newId();
    this.#rounds.push(round);
    this.#write(round.row);
  }

  /** The last whole round went wrong in these places, or nowhere. */
  confirm(stumbles: readonly Stumble[]): void {
    const last = this.#rounds.findLast(({ isWhole }) => isWhole);
    if (!last) return;
    last.stumbles = stumbles;
    this.mark(stumbles.length === 0);
  }

  /** Marks the last whole round; `all`: every round that was not marked yet. */
  mark(clean: boolean, all = false): void {
    const whole = this.#rounds.filter(({ isWhole }) => isWhole);
    const meant = all ? whole.filter((round) => round.clean === null) : whole.slice(-1);
    const rows = new Set<string>();
    for (const round of meant) {
      rows.add(round.row);
      if (round.clean === clean) continue;
      round.clean = clean;
      if (clean) round.stumbles = [];
      const others = this.#rounds.filter((one) => one.row === round.row && one !== round);
      if (others.some((one) => one.clean !== clean)) {
        const at = this.#rounds.indexOf(round);
        const before = this.#rounds[at - 1];
        round.row = before && before.row !== round.row && isAlike(before, round) ? before.row : this.#newId();
        // Neighbours that were just marked alike go together.
        rows.add(round.row);
      }
    }
    this.#write(...rows);
  }

  #write(...ids: readonly string[]): void {
    const rows = ids.flatMap((id) => {
      const own = this.#rounds.filter(({ row }) => row === id);
      return own.length ? [this.#rowOf(id, own)] : [];
    });
    if (rows.length) this.#send(...rows);
  }

  #rowOf(id: string, rounds: readonly PlayedRound[]): RecordedRow {
    const revision = (this.#revisions.get(id) ?? 0) + 1;
    this.#revisions.set(id, revision);
    const first = firstOf(rounds);
    return {
      id,
      item: first.item,
      chart: first.chart,
      kind: 'rehearse',
      what: first.what,
      startedAt: first.startedAt,
      day: dayHere(first.startedAt),
      seconds: Math.round(rounds.reduce((sum, { seconds }) => sum + seconds, 0)),
      rounds: rounds.filter(({ isWhole }) => isWhole).length,
      tempo: first.tempo,
      clean: first.clean,
      key: first.key,
      area: first.area,
      note: '',
      stumbles: rounds.flatMap(({ stumbles }) => stumbles.map(({ change }) => change)),
      ...(first.bars ? { bars: first.bars, ...loopsTold(rounds) } : {}),
      revision
    };
  }
}

/** What a round marked as not clean counts where nobody said where it went wrong. */
const UNCLEAN = 2;

/** A bar once in a round, in their order. */
const barsOf = (stumbles: readonly Stumble[]): number[] =>
  [...new Set(stumbles.map(({ bar }) => bar))].sort((a, b) => a - b);

/** For each whole round the bars in which it went wrong; nothing where one of them was not marked, or not in its place. */
function loopsTold(rounds: readonly PlayedRound[]): { loops?: number[][] } {
  const whole = rounds.filter(({ isWhole }) => isWhole);
  const isTold = whole.every(
    ({ clean, stumbles }) => clean === true || (clean === false && stumbles.length > 0)
  );
  return isTold && whole.length > 0 ? { loops: whole.map(({ stumbles }) => barsOf(stumbles)) } : {};
}

function isAlike(a: PlayedRound, b: PlayedRound): boolean {
  return (
    a.item === b.item &&
    a.chart === b.chart &&
    a.what === b.what &&
    a.key === b.key &&
    a.area === b.area &&
    a.bars?.from === b.bars?.from &&
    a.bars?.to === b.bars?.to &&
    a.tempo === b.tempo &&
    a.clean === b.clean
  );
}
