import { describe, expect, it } from 'vitest';
import { pressName, pressOf } from './press';

const event = (key: string, held = '') =>
  ({
    key,
    ctrlKey: held.includes('c'),
    metaKey: held.includes('m'),
    altKey: held.includes('a'),
    shiftKey: held.includes('s')
  }) as KeyboardEvent;

describe('a press that is kept for a shortcut', () => {
  it.each([
    ['j', '', '[Shift]+j', 'J'],
    ['J', 's', '[Shift]+j', 'J'],
    ['?', 's', '[Shift]+?', '?'],
    ['ArrowUp', '', 'ArrowUp', '↑'],
    ['ArrowUp', 's', 'Shift+ArrowUp', 'Shift ↑'],
    ['z', 'c', '$mod+z', 'Ctrl Z'],
    ['Z', 'cs', '$mod+Shift+z', 'Ctrl Shift Z'],
    ['k', 'm', '$mod+k', 'Ctrl K'],
    ['F2', '', 'F2', 'F2'],
    ['x', 'a', 'Alt+x', 'Alt X']
  ])('%s (%s) is %s, shown %s', (key, held, press, shown) => {
    expect(pressOf(event(key, held))).toBe(press);
    expect(pressName(press)).toBe(shown);
  });

  it.each(['Shift', 'Control', 'Tab', 'Escape', 'Enter', ' ', '+', 'Dead'])('%s alone is none', (key) => {
    expect(pressOf(event(key))).toBeNull();
  });
});
