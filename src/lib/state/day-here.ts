import { dayOf } from '$lib/core/practice/log/day';

/** The day of a moment (milliseconds since 1970) where the player is. */
export function dayHere(at: number): string {
  return dayOf(at, new Date(at).getTimezoneOffset());
}
