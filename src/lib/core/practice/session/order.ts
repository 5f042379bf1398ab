/** The parts of a session one after another: due first, no item twice running, keys in turn, rests between, the form at the end. */
import { PART_ORDER, REST_FOR, restsIn, type SessionPart } from './parts';

/** `mixesKeys`: the next part prefers another key than the one before. */
export function inOrder(
  parts: readonly SessionPart[],
  minutes: number,
  mixesKeys: boolean
): readonly SessionPart[] {
  const rank = ({ kind }: SessionPart) => PART_ORDER.indexOf(kind);
  const sorted = parts
    .map((part, at) => ({ part, at }))
    .sort(
      (a, b) => (a.part.fourths ?? 0) - (b.part.fourths ?? 0) || rank(a.part) - rank(b.part) || a.at - b.at
    )
    .map(({ part }) => part);
  const ofItems = sorted.filter(({ kind }) => !['cards', 'form', 'free'].includes(kind));
  const first = sorted.filter(({ kind }) => kind === 'cards');
  const last = sorted.filter(({ kind }) => kind === 'form' || kind === 'free').flatMap(inPieces);
  return rested([...first, ...neverTwice(ofItems, mixesKeys), ...last], minutes);
}

/** What a part is about. */
const thingOf = ({ item, chart, change }: SessionPart) => item ?? `${chart} ${change}`;

/** As they stand, but never one item twice running where that can be had. */
function neverTwice(parts: readonly SessionPart[], mixesKeys: boolean): SessionPart[] {
  const left = [...parts];
  const ordered: SessionPart[] = [];
  while (left.length > 0) {
    const before = ordered.at(-1);
    const isOther = (part: SessionPart) => !before || thingOf(part) !== thingOf(before);
    // An item that makes up more than half of what is left has to come now, or it will stand beside itself.
    const pressing = left.find(
      (part) => isOther(part) && 2 * left.filter((one) => thingOf(one) === thingOf(part)).length > left.length
    );
    const inTurn = mixesKeys && left.find((part) => isOther(part) && part.key !== before?.key);
    const next = pressing ?? (inTurn || left.find(isOther)) ?? left[0]!;
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
    const free = gaps.map((end, at) => ({ at, far: Math.abs(end - wished), taken: after[at]! }));
    const [best] = free.sort((a, b) => a.taken - b.taken || a.far - b.far || a.at - b.at);
    if (best) after[best.at]! += 1;
  }
  return parts.flatMap((part, at) => (after[at] ? [part, rest(after[at])] : [part]));
}
