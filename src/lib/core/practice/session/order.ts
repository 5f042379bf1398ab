/** The parts of a session one after another: cards, seams, new, the rest in turn from day to day, the form last, rests between. */
import { firstOf, nth } from '../../base/list';
import { numberOf } from '../log/day';
import { REST_FOR, restsIn, type PartKind, type SessionPart } from './parts';

const FIRST: readonly PartKind[] = ['cards', 'seam', 'new'];
const LAST: readonly PartKind[] = ['form', 'free'];

/** `parts`: as they were chosen; forms in the order in which they are to be played. */
export function inOrder(parts: readonly SessionPart[], minutes: number, day: string): readonly SessionPart[] {
  const of = (kind: PartKind) => parts.filter((part) => part.kind === kind);
  const rest = parts.filter(({ kind }) => !FIRST.includes(kind) && !LAST.includes(kind));
  const [cards, last] = [of('cards'), LAST.flatMap(of).flatMap(inPieces)];
  const played = apart([...of('seam'), ...of('new'), ...turned(rest, numberOf(day))], last[0]);
  return rested([...cards, ...played, ...last], minutes);
}

/** Another one of them begins each day. */
function turned<T>(things: readonly T[], turns: number): readonly T[] {
  const at = things.length ? turns % things.length : 0;
  return [...things.slice(at), ...things.slice(0, at)];
}

const tuneOf = ({ chart, item }: SessionPart) => chart ?? item ?? '';

/** As they stand, but no item and no tune twice running where that can be had, nor the tune of the form that follows. */
function apart(parts: readonly SessionPart[], then: SessionPart | undefined): SessionPart[] {
  const left = [...parts];
  const ordered: SessionPart[] = [];
  while (left.length > 0) {
    const before = ordered.at(-1);
    const isOther = (part: SessionPart) =>
      !before || (tuneOf(part) !== tuneOf(before) && (part.item ?? part.kind) !== before.item);
    const many = (part: SessionPart) => left.filter((one) => tuneOf(one) === tuneOf(part)).length;
    // A tune that makes up more than half of what is left has to come now, or it will stand beside itself.
    const pressing = left.find((part) => isOther(part) && 2 * many(part) > left.length);
    const isLastOne = left.length === 2 && then !== undefined && tuneOf(nth(left, 1)) === tuneOf(then);
    const other = isLastOne && isOther(nth(left, 1)) ? left[1] : left.find(isOther);
    const next = pressing ?? other ?? left.find(({ item }) => item !== before?.item) ?? firstOf(left);
    left.splice(left.indexOf(next), 1);
    ordered.push(next);
  }
  return ordered;
}

/** A long stretch of playing in pieces that a rest fits between. */
function inPieces(part: SessionPart): SessionPart[] {
  const count = Math.ceil(part.minutes / REST_FOR);
  return Array.from({ length: count }, (_, i) => ({
    ...part,
    minutes: Math.floor((part.minutes * (i + 1)) / count) - Math.floor((part.minutes * i) / count)
  }));
}

const rest = (minutes: number): SessionPart => ({
  kind: 'rest',
  minutes,
  why: 'Hands off the guitar; shake them out.'
});

/** Rests where the playing is divided most evenly. */
function rested(parts: readonly SessionPart[], minutes: number): readonly SessionPart[] {
  const rests = restsIn(minutes);
  if (rests === 0) return parts;
  const ends = parts.reduce<number[]>((sums, part) => [...sums, (sums.at(-1) ?? 0) + part.minutes], []);
  const whole = ends.at(-1) ?? 0;
  /** Minutes of rest after each part. */
  const after = parts.map(() => 0);
  // After the last part only where there is no other place.
  const gaps = parts.length > 1 ? ends.slice(0, -1) : ends;
  for (let i = 1; i <= rests; i++) {
    const wished = (whole * i) / (rests + 1);
    const free = gaps.map((end, at) => ({ at, far: Math.abs(end - wished), taken: nth(after, at) }));
    const [best] = free.sort((a, b) => a.taken - b.taken || a.far - b.far || a.at - b.at);
    if (best) after[best.at]! += 1;
  }
  return parts.flatMap((part, at) => (after[at] ? [part, rest(after[at])] : [part]));
}
