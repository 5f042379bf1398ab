import { dayOf } from '../../core/practice/log/day';

/** The day where the server stands, which is where the player sits, and how many minutes its clock is behind UTC. */
export function dayHere(): { day: string; offset: number } {
  const now = Date.now();
  const offset = new Date(now).getTimezoneOffset();
  return { day: dayOf(now, offset), offset };
}
