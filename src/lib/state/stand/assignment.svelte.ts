/** What the stand is opened for: an item, or a part of a session. The desk is lent to it, and comes back as it was. */
import { keyText, readKey } from '$lib/core/harmony/key';
import type { LoopWish } from '$lib/core/harmony/excerpt';
import { drillOf } from '$lib/core/line/drills';
import type { Line } from '$lib/core/line/model';
import type { LaidRound } from '$lib/core/practice/clock';
import { formId, itemId } from '$lib/core/practice/items/proposals';
import { pitchClass, semitonesUp } from '$lib/core/theory/note';
import type { Assignment } from '../practice/assignment';
import type { Playing } from '../practice/recorder';
import type { Workspace } from '../chart/workspace.svelte';
import type { Desk } from './desk.svelte';
import type { Keys } from './keys.svelte';
import type { Loop } from './loop.svelte';
import type { Marks } from './marks.svelte';
import type { Notice } from './notice.svelte';
import type { BandRound, Rounds } from './rounds.svelte';
import type { Tempo } from './tempo.svelte';

/** What an assignment sets. */
interface Set {
  readonly workspace: Workspace;
  readonly desk: Desk;
  readonly keys: Keys;
  readonly tempo: Tempo;
  readonly loop: Loop;
  readonly rounds: Rounds;
  readonly marks: Marks;
  readonly notice: Notice;
}

export class Assigned {
  /** What is practised, where the stand was opened for it: the log counts it for that. */
  now: Assignment | null = $state.raw(null);
  readonly #sets: Set;
  /** Loop and tempo as the player had them before. */
  #own: { readonly loop: LoopWish; readonly tempo: number } | null = null;

  constructor(sets: Set) {
    this.#sets = sets;
  }

  /** Sets drill or line, key, place, tempo and loop. */
  async take(assignment: Assignment): Promise<void> {
    const { workspace, desk, keys, tempo, loop, rounds, marks } = this.#sets;
    const { what, line, key, over, start, steps, area } = assignment;
    marks.take(assignment);
    this.#own ??= { loop: loop.wish, tempo: tempo.value };
    this.now = assignment;
    const to = key === null ? null : readKey(key);
    keys.shift = to ? semitonesUp(pitchClass(workspace.analysis.key.tonic), pitchClass(to.tonic)) : 0;
    keys.area = area;
    desk.lend(drillOf(what)?.id ?? null);
    keys.lineKeys = 'stay';
    rounds.line = await this.#lineOf(what, line);
    const bars = steps[0]?.bars;
    loop.grant(bars ? { kind: 'bars', ...bars } : over);
    if (start !== null) tempo.follow(start);
  }

  /** Back to the desk as it was before: its drill, keys, loop and tempo. */
  end(): void {
    const { desk, keys, tempo, loop, rounds, marks } = this.#sets;
    const own = this.#own;
    this.#own = null;
    this.now = null;
    marks.take(null);
    rounds.line = null;
    keys.shift = 0;
    keys.area = null;
    if (!own) return;
    desk.takeBack();
    loop.wish = own.loop;
    tempo.value = own.tempo;
  }

  async #lineOf(what: string, id: string | undefined): Promise<Line | null> {
    const { workspace, rounds, notice } = this.#sets;
    if (what === 'melody') return workspace.melody?.line ?? null;
    if (what !== 'line' || id === undefined) return null;
    try {
      await workspace.fetchLines();
    } catch {
      notice.problem = 'The line could not be loaded; the server does not answer.';
      return null;
    }
    const data = workspace.storedLines.find((one) => one.id === id)?.data;
    if (!data) notice.problem = 'This line is no longer kept with the chart.';
    return data ? { meter: rounds.meter, notes: data.notes } : null;
  }

  /** What the log says is being played in a round of a chart. */
  playing({ round }: LaidRound<BandRound>, { analysis, arrangement, plan }: Workspace): Playing {
    const { workspace, rounds, loop } = this.#sets;
    const assigned = this.now;
    const { drill, line } = rounds;
    const key = keyText(analysis.key);
    const area = plan.decisions.some(({ position }) => position !== undefined) ? null : arrangement.home;
    const chart = workspace.document.id;
    // A drill over the whole form in one place is the item of that place, and the band alone the whole form, also where the
    // stand was not opened for it.
    const isPlain = loop.wish.kind === 'form' && !line;
    const own = !isPlain
      ? null
      : drill
        ? area !== null && itemId(chart, key, area, drill.id)
        : formId(chart, key);
    return {
      item: assigned?.item ?? (own || null),
      chart,
      what: assigned?.name ?? drill?.name ?? 'With the band',
      key,
      area,
      tempo: Math.round(round.tempo),
      bars: loop.barsOf(loop.wish)
    };
  }
}
