/** Trading bars: what Corvel calls with, whose turn it is, and what is kept of it with a take. */
/* eslint-disable svelte/prefer-svelte-reactivity -- the map here is a memory of what was made, which nothing shows */
import type { TakeData } from '$lib/api/take';
import { beatsOf, ticksOf, type LineNote } from '$lib/core/line/model';
import { callsIn } from '$lib/core/takes/calls';
import { turnAt, turnsIn, type TradeBars } from '$lib/core/takes/trade';
import type { Rehearsal } from '../stand/rehearsal.svelte';
import type { Workspace } from '../chart/workspace.svelte';
import type { Notices } from './notices.svelte';

export class Trading {
  /** Bars that Corvel and the player trade in the next take; null where the player has them all. */
  bars: TradeBars | null = $state(null);
  /** Calls by the bars that are traded and the round; made when they are asked for. */
  readonly #calls = new Map<string, readonly LineNote[]>();

  readonly #workspace: Workspace;
  readonly #rehearsal: Rehearsal;
  readonly #notices: Notices;

  constructor(workspace: Workspace, rehearsal: Rehearsal, notices: Notices) {
    this.#workspace = workspace;
    this.#rehearsal = rehearsal;
    this.#notices = notices;
  }

  /** Whose turn it is at the beat that sounds, and the beats left of it; null where none is traded. */
  turnNow(): { readonly isOwn: boolean; readonly left: number } | null {
    const { bars } = this;
    const rehearsal = this.#rehearsal;
    if (!bars || !rehearsal.transport.isPlaying || rehearsal.transport.beat < 0) return null;
    const { form } = this.#workspace.sheet;
    const turn = turnAt(turnsIn(form, bars, rehearsal.transport.round + 2), rehearsal.transport.beat);
    return turn ? { isOwn: turn.isOwn, left: turn.to - rehearsal.transport.beat } : null;
  }

  /** Calls are made anew. */
  forget(): void {
    this.#calls.clear();
  }

  /** What Corvel plays in a round of a trade: as a line over the form. */
  #callIn(bars: TradeBars, round: number): readonly LineNote[] {
    const key = `${bars} ${round}`;
    const known = this.#calls.get(key);
    if (known) return known;
    const call = callsIn(this.#workspace.arrangement, bars, round);
    this.#calls.set(key, call);
    return call;
  }

  /** The trade of a take of some rounds, up to a beat. */
  over(rounds: number, until = Infinity): TakeData['trade'] {
    const { bars } = this;
    if (!bars) return undefined;
    const { form } = this.#workspace.sheet;
    const call = Array.from({ length: rounds }, (_, round) =>
      this.#callIn(bars, round).map(({ start, length, midi }) => ({
        start: start + ticksOf(round * form.beats),
        length,
        midi
      }))
    ).flat();
    return { bars, call: call.filter(({ start }) => beatsOf(start) < until) };
  }

  /** The same for a take of so many seconds. */
  overSeconds(tempo: number, seconds: number): Pick<TakeData, 'trade'> {
    const beats = (seconds * tempo) / 60;
    const trade = this.over(Math.ceil(beats / this.#workspace.sheet.form.beats), beats);
    return trade ? { trade } : {};
  }

  /** The stand plays what Corvel calls with, or the band alone. False, and told, where there is nothing to call with. */
  callOnStand(): boolean {
    const { bars } = this;
    const rehearsal = this.#rehearsal;
    const { meter } = this.#workspace.sheet.head;
    this.forget();
    rehearsal.rounds.lineOfRound = null;
    if (!bars) return true;
    if (!this.canCall(bars)) return false;
    // A call that is muted at the desk could not be answered.
    if (rehearsal.desk.now.mix.line.isMuted) rehearsal.desk.setMix('line', { isMuted: false });
    rehearsal.rounds.lineOfRound = (round) => ({ meter, notes: this.#callIn(bars, round) });
    return true;
  }

  canCall(bars: TradeBars): boolean {
    if ([0, 1].some((round) => this.#callIn(bars, round).length > 0)) return true;
    this.#notices.problem =
      'Corvel finds no line to call with here. Move the hand, or pin fewer targets; or play the whole form yourself.';
    return false;
  }
}
