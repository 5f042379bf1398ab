/**
 * Keys that a file writes inside a tune, where its signature changes. What belongs to such a key is read in it; a chord that does not, a
 * secondary dominant or a ii–V to somewhere else, keeps the reading that the harmony gives it. Source: docs/music-rules.md, Files.
 */
import type { Analysis } from '../harmony/analysis';
import { heardAs } from '../harmony/heard';
import { inKey, readKey } from '../harmony/key';
import { accidentalsOf } from '../harmony/key-signature';

/** From a bar of the form on, counted from 1, another key is written: "G", "Ebm". */
export interface WrittenKey {
  readonly bar: number;
  readonly key: string;
}

/** The changes that are to be read in another key than they are by themselves. */
export function readingsOf(
  { changes }: Pick<Analysis, 'changes'>,
  keys: readonly WrittenKey[]
): readonly { readonly change: number; readonly key: string }[] {
  return changes.flatMap(({ index, bar, chord, key: own }) => {
    const written = keys.findLast((one) => one.bar <= bar);
    const key = written && readKey(written.key);
    // A signature does not tell a key from its relative: the harmony does.
    if (!chord || !key || accidentalsOf(key) === accidentalsOf(own)) return [];
    return inKey(heardAs(chord), key) ? [{ change: index, key: written.key }] : [];
  });
}
