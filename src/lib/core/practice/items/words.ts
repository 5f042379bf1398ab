/** Items and parts of a session in words, as a player reads them. */
import { readKey } from '../../harmony/key';
import { prettyNote } from '../../theory/typeset';
import type { LoopWish } from '../../harmony/excerpt';

/** "E♭ major", "F dorian"; as typed where it is no key. */
export function keyName(text: string): string {
  const key = readKey(text);
  return key ? `${prettyNote(key.tonic)} ${key.mode}` : text;
}

/** "E♭", "Gm": a key as a row of keys has room for. */
export function keyShort(text: string): string {
  const key = readKey(text);
  if (!key) return text;
  return key.mode === 'major'
    ? prettyNote(key.tonic)
    : key.mode === 'minor'
      ? `${prettyNote(key.tonic)}m`
      : `${prettyNote(key.tonic)} ${key.mode.slice(0, 3)}`;
}

/** What is played of a chart: nothing said of all of it. */
export function loopName(loop: LoopWish): string {
  switch (loop.kind) {
    case 'form':
      return '';
    case 'section':
      return `the section from bar ${loop.bar}`;
    case 'bars':
      return loop.from === loop.to ? `bar ${loop.from}` : `bars ${loop.from} to ${loop.to}`;
    case 'change':
      return `chord ${loop.change + 1} alone`;
    case 'pair':
      return `the change after chord ${loop.change + 1}`;
  }
}
