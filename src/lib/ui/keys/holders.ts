/** Which keys belong to what has the focus. All others belong to the page. */

/** What has the focus, as far as keys are concerned. */
export type Holder = 'dialog' | 'editor' | 'field' | 'number' | 'select' | 'slider' | 'button' | 'page';

/** As much of a key press as decides. */
export type Press = Pick<KeyboardEvent, 'key' | 'ctrlKey' | 'metaKey' | 'altKey'>;

const MOVING = new Set([
  'ArrowUp',
  'ArrowDown',
  'ArrowLeft',
  'ArrowRight',
  'Home',
  'End',
  'PageUp',
  'PageDown'
]);
const PRESSING = new Set([' ', 'Enter']);
const isModified = ({ ctrlKey, metaKey, altKey }: Press) => ctrlKey || metaKey || altKey;
const isOneOf = (letters: string) => (press: Press) =>
  (press.ctrlKey || press.metaKey) && letters.includes(press.key.toLowerCase());
const finds = isOneOf('k');
const undoes = isOneOf('zy');

/** Whether a holder has a use of its own for a key. */
export const HOLDS: Readonly<Record<Holder, (press: Press) => boolean>> = {
  /** What is open above the page has all keys to itself. */
  dialog: () => true,
  /** Undo goes over text and plan alike, so that the page has it. */
  editor: (press) => !finds(press) && !undoes(press),
  field: (press) => !finds(press),
  /** Letters and Space mean nothing to a number. */
  number: (press) => (isModified(press) ? !finds(press) : press.key !== ' ' && !/^[a-z?]$/i.test(press.key)),
  select: (press) => !isModified(press) && press.key !== 'Escape',
  slider: (press) => !isModified(press) && MOVING.has(press.key),
  button: (press) => !isModified(press) && PRESSING.has(press.key),
  page: () => false
};

const KINDS: readonly (readonly [Holder, string])[] = [
  ['dialog', '[role="dialog"], [role="alertdialog"]'],
  ['editor', '[data-editor], [data-bar-field]'],
  ['number', 'input[type="number"]'],
  ['slider', 'input[type="range"], [role="slider"]'],
  ['button', 'input[type="checkbox"], input[type="radio"], input[type="button"], input[type="submit"]'],
  ['field', 'input, textarea, [contenteditable=""], [contenteditable="true"], [role="textbox"]'],
  ['select', 'select, [role="listbox"], [role="combobox"], [role="menu"]'],
  ['button', 'button, a[href], summary, [role="button"], [role="tab"], [role="switch"], [role="option"]']
];

export function holderOf(element: Element | null): Holder {
  return KINDS.find(([, css]) => element?.closest(css))?.[0] ?? 'page';
}
