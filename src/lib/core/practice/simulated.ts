/**
 * A player who practises by the plan, for the tests and the demo's weeks: goes wrong the more the faster it is for them (a logistic of tempo over
 * skill), learns near their limit, and forgets a little from day to day.
 */
import { chanceOf, type Chance } from '../line/chance';
import { dayAfter } from './log/day';
import type { LogRow, PracticeItem } from './log/model';
import type { Loop } from './progress/loops';
import { lengthOf, UNKNOWN_BARS } from './progress/loops';
import { nowIn } from './progress/live';
import { loopSeconds } from './progress/turn';
import { planSession, type SessionWish } from './session/session';
import type { SessionPart } from './session/parts';

export interface Player {
  /** Share of the goal of an item that is at hand when it is new. */
  readonly begins: number;
  /** How much is learnt by 16 bars at the limit, and forgotten by a day. */
  readonly learns: number;
  readonly forgets: number;
  /** Share of the goal that can be reached at all. */
  readonly ceiling: number;
  /** Share of days on which nothing is played. */
  readonly missesDays: number;
}

export const PLAYERS = {
  faultless: { begins: 9, learns: 0, forgets: 0, ceiling: 9, missesDays: 0 },
  strong: { begins: 0.85, learns: 0.02, forgets: 0.002, ceiling: 1.25, missesDays: 0 },
  average: { begins: 0.72, learns: 0.009, forgets: 0.003, ceiling: 1.12, missesDays: 0 },
  irregular: { begins: 0.72, learns: 0.009, forgets: 0.003, ceiling: 1.12, missesDays: 1 / 3 }
} as const satisfies Record<string, Player>;

/** How steeply mistakes come with the tempo, and how near to the limit something is learnt. */
const [STEEP, NEAR] = [25, 0.08];
/** Seconds between two loops. */
const BREATH = 2;

export interface Played {
  readonly day: string;
  readonly session: readonly SessionPart[];
  readonly held: readonly string[];
}

/** So many days of practice. Gives each day with what was planned, and all that was logged. */
export function practised(
  wish: Omit<SessionWish, 'log' | 'day'> & {
    readonly from: string;
    readonly days: number;
    readonly seed?: number;
  },
  player: Player,
  each: (day: string) => Partial<SessionWish> = () => ({})
): { readonly days: readonly Played[]; readonly log: readonly LogRow[] } {
  const chance = chanceOf(wish.seed ?? 1);
  const skills = new Map<string, number>();
  const log: LogRow[] = [];
  const days: Played[] = [];
  for (let n = 0; n < wish.days; n++) {
    const day = dayAfter(wish.from, n);
    for (const [id, skill] of skills) skills.set(id, skill * (1 - player.forgets));
    if (chance() < player.missesDays) continue;
    const today = { ...wish, log, day, ...each(day) };
    const { session, held } = planSession(today);
    for (const part of session) {
      const item = today.items.find(({ id }) => id === part.item);
      if (item) log.push(...playPart(part, item, day, player, skills, chance));
    }
    days.push({ day, session, held });
  }
  return { days, log };
}

/** A part as the player plays it by the ladder of the stand: a row for each loop. `skills`: tempos at the limit, by item. */
export function playPart(
  part: SessionPart,
  item: PracticeItem,
  day: string,
  player: Player,
  skills: Map<string, number>,
  chance: Chance
): LogRow[] {
  const { goal } = item.tempo;
  const rows: LogRow[] = [];
  const loops: Loop[] = [];
  const whole = item.bars ?? UNKNOWN_BARS;
  for (let seconds = 0; seconds < part.minutes * 60;) {
    const now = nowIn(part.steps ?? [], loops, seconds, item.tempo.step);
    if (!now || now.isDone) break;
    const { tempo } = now;
    const bars = now.bars ?? { from: 1, to: whole };
    const length = lengthOf(bars);
    const skill = skills.get(item.id) ?? player.begins * goal;
    const wrong = 1 / (1 + Math.exp(-STEEP * (tempo / skill - 1)));
    const perBar = 1 - (1 - wrong) ** (1 / 16);
    const at = Array.from({ length }, (_, i) => bars.from + i).filter(() => chance() < perBar);
    const near = Math.exp(-(((tempo / skill - 1) / NEAR) ** 2));
    skills.set(item.id, Math.min(player.ceiling * goal, skill * (1 + player.learns * near * (length / 16))));
    const own = loopSeconds(item, length, tempo);
    loops.push({ bars: now.bars, length, tempo, stumbles: at.length, at });
    rows.push({
      item: item.id,
      day,
      tempo,
      clean: at.length === 0,
      rounds: 1,
      seconds: own,
      bars,
      loops: [at]
    });
    seconds += own + BREATH;
  }
  return rows;
}
