/** A word before a session: after a break, after a bad day, on a short one. Said once, without reproach. */
import { counted } from '../../theory/words';
import { daysBetween } from '../log/day';
import type { LogRow } from '../log/model';

/** Days away that are a break, and minutes that are few. */
const [BREAK, FEW] = [4, 10];
/** Share of a day's marked loops that went wrong, from which it was a hard one, and how many there have to be. */
const HARD = { share: 0.6, rounds: 4 };

/** What is said of a day's session; empty where there is nothing to say. `log`: in any order. */
export function wordFor(log: readonly LogRow[], day: string, minutes: number): string {
  const last = log.reduce((latest, row) => (row.day < day && row.day > latest ? row.day : latest), '');
  if (last && daysBetween(last, day) > BREAK) {
    return `${counted(daysBetween(last, day), 'day')} away: everything starts a little slower today, and comes back loop by loop.`;
  }
  if (last && wasHard(log.filter((row) => row.day === last))) {
    return 'Last time much went wrong. Today starts lower; a slow clean loop is worth more than a fast one.';
  }
  return minutes <= FEW && last ? 'A short day: few things, each long enough to change something.' : '';
}

function wasHard(rows: readonly LogRow[]): boolean {
  let [wrong, all] = [0, 0];
  for (const { clean, rounds } of rows) {
    if (clean === null) continue;
    all += rounds;
    if (!clean) wrong += rounds;
  }
  return all >= HARD.rounds && wrong / all >= HARD.share;
}
