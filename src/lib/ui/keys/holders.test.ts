import { describe, expect, it } from 'vitest';
import { HOLDS, type Holder } from './holders';

const press = (keys: string) => {
  const parts = keys.split('+');
  return {
    key: parts.at(-1)!.replace('Space', ' '),
    ctrlKey: parts.includes('Ctrl'),
    metaKey: false,
    altKey: false
  };
};

describe('keys that belong to what has the focus', () => {
  it.each<[Holder, string, string]>([
    ['dialog', 'Space Enter a Ctrl+z Ctrl+k ArrowUp', ''],
    ['editor', 'Space Enter a 1 ArrowUp Home Ctrl+a Ctrl+c', 'Ctrl+z Ctrl+y Ctrl+k'],
    ['field', 'Space Enter a 1 ArrowUp Ctrl+a Ctrl+z', 'Ctrl+k'],
    ['number', '1 - . ArrowUp Backspace Enter Ctrl+z', 'Space l ? Ctrl+k'],
    ['select', 'Space Enter a ArrowUp Home', 'Escape Ctrl+z'],
    ['slider', 'ArrowUp ArrowLeft Home End PageUp', 'Space Enter a 1 Ctrl+z'],
    ['button', 'Space Enter', 'ArrowUp a 1 Ctrl+z Ctrl+k Home'],
    ['page', '', 'Space Enter a 1 ArrowUp Ctrl+z Ctrl+k']
  ])('a %s holds %s and leaves %s', (holder, holds, leaves) => {
    for (const keys of holds.split(' ').filter(Boolean)) expect(HOLDS[holder](press(keys)), keys).toBe(true);
    for (const keys of leaves.split(' ').filter(Boolean))
      expect(HOLDS[holder](press(keys)), keys).toBe(false);
  });
});
