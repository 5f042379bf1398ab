/** Four weeks looked ahead: what comes if all goes as now. Nothing of it is promised; every plan is made anew on its day. */
import { entryOf } from '../../base/list';
import { dayAfter } from '../log/day';
import type { LogRow, PracticeItem } from '../log/model';
import { settled, standingsOf, takeRow, type Standing } from '../progress/fold';
import { lengthOf } from '../progress/loops';
import { stepped, stepsUp } from '../progress/rungs';
import { RUN_BARS } from '../progress/runs';
import type { SessionPart } from './parts';
import { forTheDate, sessionIn, type SessionWish } from './session';

export const WEEKS_AHEAD = 4;
const WEEK = 7;
/** Rungs a day where nothing was measured. */
const USUAL_PACE = 2;

export interface WeekAhead {
  /** Days, both in. */
  readonly from: string;
  readonly to: string;
  /** The tunes in it, the most minutes first, with the tempo that their forms will have at its end. */
  readonly tunes: readonly {
    readonly chart: string;
    readonly minutes: number;
    readonly tempo: number | null;
  }[];
  readonly keys: readonly string[];
  /** Items that open in it, and those that are held at its end. */
  readonly opens: readonly string[];
  readonly held: number;
}

/** The weeks after a day, each day with the same minutes. */
export function aheadOf(wish: SessionWish): readonly WeekAhead[] {
  const items = forTheDate(wish);
  const standings = standingsOf(items, wish.log);
  const paces = new Map(items.map((item) => [item.id, paceOf(entryOf(standings, item.id))]));
  const known = new Set(
    [...standings.values()].filter(({ lastDay }) => lastDay !== null).map(({ item }) => item.id)
  );
  const plain = { ...wish, items, cards: [], log: [] };
  return Array.from({ length: WEEKS_AHEAD }, (_, week) => {
    const from = dayAfter(wish.day, 1 + week * WEEK);
    const minutes = new Map<string, number>();
    const [keys, opens] = [new Set<string>(), [] as string[]];
    for (let n = 0; n < WEEK; n++) {
      const day = dayAfter(from, n);
      for (const part of sessionIn({ ...plain, day }, standings).session) {
        if (part.item === undefined) continue;
        const standing = entryOf(standings, part.item);
        if (part.chart !== undefined) minutes.set(part.chart, (minutes.get(part.chart) ?? 0) + part.minutes);
        if (part.key !== undefined) keys.add(part.key);
        if (!known.has(part.item)) opens.push(part.item);
        known.add(part.item);
        takeRow(standing, asPlayed(part, standing, entryOf(paces, part.item), day));
      }
    }
    return {
      from,
      to: dayAfter(from, WEEK - 1),
      tunes: [...minutes]
        .sort((a, b) => b[1] - a[1] || (a[0] < b[0] ? -1 : 1))
        .map(([chart, own]) => ({ chart, minutes: own, tempo: formTempo(items, standings, chart) })),
      keys: [...keys],
      opens,
      held: [...standings.values()].filter((one) => settled(one).held.isHeld).length
    };
  });
}

function formTempo(
  items: readonly PracticeItem[],
  standings: ReadonlyMap<string, Standing>,
  chart: string
): number | null {
  const form = items.find((item) => item.form && item.chart === chart);
  return form ? settled(entryOf(standings, form.id)).best : null;
}

/** Rungs that an item gains on a day it is played; where nothing was measured yet, as usual. */
function paceOf({ settledDays, firstBest, best, item }: Standing): number {
  if (firstBest === null || best === null || settledDays < 2) return USUAL_PACE;
  return stepsUp(firstBest, best, item.tempo.step) / (settledDays - 1);
}

/** A part as it will have been played: clean, as much faster as usual. */
function asPlayed(part: SessionPart, standing: Standing, pace: number, day: string): LogRow {
  const { item, bars } = standing;
  const step = part.steps?.at(-1);
  const { goal, step: rung } = item.tempo;
  const own = step?.bars;
  const length = own ? lengthOf(own) : bars;
  const from = step?.tempo ?? part.tempo ?? goal;
  return {
    item: item.id,
    day,
    tempo: Math.min(step?.goal ?? goal, stepped(from, Math.round(pace), rung)),
    clean: true,
    rounds: Math.ceil(RUN_BARS / length),
    seconds: part.minutes * 60,
    ...(own ? { bars: own } : {})
  };
}
