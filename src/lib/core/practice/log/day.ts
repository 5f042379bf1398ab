/** Days as players live them, "2026-03-05": names without a clock or a time zone, to be reckoned with. */

const MINUTE = 60_000;
const DAY = 24 * 60 * MINUTE;

/** True for a day that there is: not the 30th of February. */
export function isDay(text: string): boolean {
  return /^\d{4}-\d\d-\d\d$/.test(text) && dayAt(numberOf(text)) === text;
}

/** Days since 1970-01-01; NaN for what is no day. */
export function numberOf(day: string): number {
  const known = NUMBERS.get(day);
  if (known !== undefined) return known;
  // By its parts: a date that has to be parsed as text takes ten times as long.
  const [year, month, date] = [day.slice(0, 4), day.slice(5, 7), day.slice(8)];
  const number = Math.round(Date.UTC(Number(year), Number(month) - 1, Number(date)) / DAY);
  if (NUMBERS.size >= MOST_NUMBERS) NUMBERS.clear();
  NUMBERS.set(day, number);
  return number;
}
/** A log asks for the same few days again and again. */
const NUMBERS = new Map<string, number>();
const MOST_NUMBERS = 10_000;

/** The day of a number. */
export function dayAt(number: number): string {
  return Number.isFinite(number) ? new Date(number * DAY).toISOString().slice(0, 10) : '';
}

/**
 * The day of a moment where the player is. `at`: milliseconds since 1970; `offset`: minutes that the player's clock is behind
 * UTC, as the browser tells it (−60 in central Europe in winter). What is played over midnight belongs to the day it began.
 */
export function dayOf(at: number, offset: number): string {
  return dayAt(Math.floor((at - offset * MINUTE) / DAY));
}

/** The day so many days later, as YYYY-MM-DD. */
export function dayAfter(day: string, days: number): string {
  return dayAt(numberOf(day) + days);
}

/** Days from one to another; negative where the second lies before the first. */
export function daysBetween(from: string, to: string): number {
  return numberOf(to) - numberOf(from);
}

/** The Monday of a day's week. */
export function weekOf(day: string): string {
  const number = numberOf(day);
  // 1970-01-01 was a Thursday.
  return dayAt(number - ((number + 3) % 7));
}

/** "today", "yesterday", "5 days ago"; a day that a clock set back has left in the future counts as today. */
export function agoText(day: string, today: string): string {
  const days = Math.max(0, daysBetween(day, today));
  return days === 0 ? 'today' : days === 1 ? 'yesterday' : `${days} days ago`;
}
