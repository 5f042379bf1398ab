/** Where what is played and answered waits for the server: one box each for the whole page. */
import type { RecordedRow, SentReview } from '$lib/api/practice';
import { Outbox } from '../chart/outbox';

export const logBox = new Outbox<RecordedRow>('corvel-log', 'practice/log', 'rows');
export const reviewBox = new Outbox<SentReview>('corvel-reviews', 'practice/reviews', 'reviews');

/** Sends what an earlier page has left, and what is there when this one is left; returns how to stop. */
export function keepSending(): () => void {
  const boxes = [logBox, reviewBox];
  for (const box of boxes) void box.send();
  const leave = () => boxes.forEach((box) => void box.send(true));
  addEventListener('pagehide', leave);
  return () => removeEventListener('pagehide', leave);
}
