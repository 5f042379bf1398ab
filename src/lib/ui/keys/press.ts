/** Key presses as they are kept, shown and taken from the keyboard. */

const SIGNS: Readonly<Record<string, string>> = {
  ArrowUp: '↑',
  ArrowDown: '↓',
  ArrowLeft: '←',
  ArrowRight: '→',
  Escape: 'Esc',
  $mod: 'Ctrl',
  Control: 'Ctrl',
  Space: 'Space'
};
const MODIFIERS = new Set([
  'Shift',
  'Control',
  'Alt',
  'Meta',
  'AltGraph',
  'CapsLock',
  'Dead',
  'Unidentified'
]);
/** What leaves a field, walks the page or presses a button stays as it is. */
const KEPT = new Set(['Tab', 'Escape', 'Enter', ' ']);

/** A press as a player reads it: "[Shift]+j" is "J", "$mod+Shift+z" "Ctrl Shift Z". */
export function pressName(press: string): string {
  return press
    .replace('[Shift]+', '')
    .split('+')
    .map((part) => SIGNS[part] ?? (part.length === 1 ? part.toUpperCase() : part))
    .join(' ');
}

/** The press that an event is, to be kept for a shortcut; null for a key that cannot be one. */
export function pressOf({ key, ctrlKey, metaKey, altKey, shiftKey }: KeyboardEvent): string | null {
  if (MODIFIERS.has(key) || KEPT.has(key) || key === '+' || key === '(' || key === ')') return null;
  const letter = key.length === 1 ? key.toLowerCase() : key;
  if (ctrlKey || metaKey) return ['$mod', ...(shiftKey ? ['Shift'] : []), letter].join('+');
  if (altKey) return ['Alt', ...(shiftKey ? ['Shift'] : []), letter].join('+');
  // Signs lie on other keys from layout to layout: with Shift or without.
  if (key.length === 1) return `[Shift]+${letter}`;
  return [...(shiftKey ? ['Shift'] : []), key].join('+');
}
