/**
 * Words in the margin of a row that lead through the form: docs/music-rules.md, Chart text. A word on the left stands at the row's first
 * bar, one on the right at its last.
 */

/** Where a jump leads: to the head of the chart or to the sign. */
type JumpTo = 'head' | 'sign';
/** Where the music ends after a jump: at *fine*, by way of the coda, or wherever it does. */
type JumpUntil = 'fine' | 'coda' | 'end';

export type MarginWord =
  | { readonly kind: 'sign' | 'coda' | 'to coda' | 'fine' }
  | { readonly kind: 'jump'; readonly to: JumpTo; readonly until: JumpUntil };

const LEFT: readonly (readonly [RegExp, MarginWord])[] = [
  [/^(segno|sign)$/i, { kind: 'sign' }],
  [/^coda$/i, { kind: 'coda' }]
];

const JUMP = /^(?:(d\.? ?c\.?|da capo)|d\.? ?s\.?|dal segno)(?: al (fine|coda))?$/i;
const RIGHT: readonly (readonly [RegExp, MarginWord])[] = [
  [/^to (?:the )?coda$/i, { kind: 'to coda' }],
  [/^fine$/i, { kind: 'fine' }]
];

const found = (words: readonly (readonly [RegExp, MarginWord])[], text: string): MarginWord | null =>
  words.find(([pattern]) => pattern.test(text))?.[1] ?? null;

/** What stands left of a row, where it leads through the form; null for any other label. */
export const leftWord = (text: string): MarginWord | null => found(LEFT, text.trim());

/** What stands right of a row, where it leads through the form; null for any other remark. */
export function rightWord(text: string): MarginWord | null {
  const plain = text.trim().replaceAll(/\s+/g, ' ');
  const jump = JUMP.exec(plain);
  if (!jump) return found(RIGHT, plain);
  const until = (jump[2]?.toLowerCase() ?? 'end') as JumpUntil;
  return { kind: 'jump', to: jump[1] === undefined ? 'sign' : 'head', until };
}
