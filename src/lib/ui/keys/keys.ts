/**
 * The one owner of keys. Every view lays its shortcuts on a pile; a key goes to what has the focus where that has a use
 * for it, else to the topmost shortcut that matches.
 */
import { firstOf } from '../../core/base/list';
import { matchKeyBindingPress, parseKeybinding, type KeyBindingPress } from 'tinykeys';
import { giveKeysBack } from '../kit/focus';
import { HOLDS, holderOf } from './holders';
import { pressName } from './press';

/** What a key does, in a table: bound to what it acts on when it is laid. */
export interface KeyRow<Context> {
  /** Names it in the player's settings: never changed. */
  readonly id: string;
  /** As shown: "→", "1 3 5 7", "Ctrl Z"; empty for a command alone. */
  readonly keys: string;
  readonly name: string;
  /** Key presses that are this shortcut, as the package that matches them writes them; none for a command alone. */
  readonly presses: readonly string[];
  readonly run: (context: Context, event: KeyboardEvent | null) => void;
  /** Acts without a modifier, and so only while single keys are switched on; yes where nothing is said. */
  readonly single?: boolean;
  /** Offered in the command palette; no where nothing is said. */
  readonly command?: boolean;
}

export interface Shortcut {
  readonly id: string;
  readonly keys: string;
  readonly name: string;
  readonly presses: readonly string[];
  readonly run: (event: KeyboardEvent | null) => void;
  readonly single: boolean;
  readonly command: boolean;
}

/** Rows of a table, bound to what they act on. */
export function bindKeys<Context>(rows: readonly KeyRow<Context>[], context: Context): Shortcut[] {
  return rows.map(({ run, single = true, command = false, ...row }) => ({
    ...row,
    single,
    command,
    run: (event) => run(context, event)
  }));
}

/** How high keys lie, the lowest first: views are there before or after the chart that they belong to. */
const HEIGHTS = ['everywhere', 'chart', 'view'] as const;
type Height = (typeof HEIGHTS)[number];

interface Layer {
  /** What the keys belong to, as the help says it. */
  readonly name: string;
  readonly height: number;
  readonly shortcuts: () => readonly Shortcut[];
}

/** Lower layers first. */
const layers: Layer[] = [];
/** The player's own keys: a press for the id of a shortcut. */
let ownPresses: () => Readonly<Record<string, string>> = () => ({});

/** The presses of a shortcut: the player's own where there is one. */
const pressesOf = ({ id, presses }: Shortcut): readonly string[] => {
  const own = ownPresses()[id];
  return own === undefined ? presses : [own];
};
const parsed = new Map<string, readonly KeyBindingPress[]>();

/** What stands before a press that may come with Shift: signs lie on other keys from layout to layout. */
const SHIFT_OR_NOT = /^\[Shift\]\+/;

function readPress(press: string): readonly KeyBindingPress[] {
  const bare = press.replace(SHIFT_OR_NOT, '');
  return (bare === press ? [press] : [bare, `Shift+${bare}`]).map((one) => firstOf(parseKeybinding(one)));
}

function matches(event: KeyboardEvent, press: string): boolean {
  let bindings = parsed.get(press);
  if (!bindings) parsed.set(press, (bindings = readPress(press)));
  return bindings.some((binding) => matchKeyBindingPress(event, binding));
}

/** Lays shortcuts on the pile, under a name for the help, on top of all that lie as high; returns how to take them off again. */
export function layKeys(
  name: string,
  shortcuts: () => readonly Shortcut[],
  height: Height = 'view'
): () => void {
  const layer = { name, height: HEIGHTS.indexOf(height), shortcuts };
  layers.splice(layers.findLastIndex((one) => one.height <= layer.height) + 1, 0, layer);
  return () => void layers.splice(layers.indexOf(layer), 1);
}

/** The shortcuts that act now, by what they belong to: what lies on top first, without what is covered there. */
export function laidKeys(): { readonly name: string; readonly shortcuts: readonly Shortcut[] }[] {
  const taken = new Set<string>();
  const groups: { name: string; shortcuts: Shortcut[] }[] = [];
  for (const { name, shortcuts } of [...layers].reverse()) {
    const acting = shortcuts().flatMap((shortcut) => {
      const presses = pressesOf(shortcut);
      const free = presses.filter((press) => !taken.has(press.replace(SHIFT_OR_NOT, '')));
      if (presses.length > 0 && free.length === 0) return [];
      const own = ownPresses()[shortcut.id];
      return [own === undefined ? shortcut : { ...shortcut, keys: pressName(own) }];
    });
    for (const shortcut of acting)
      for (const press of pressesOf(shortcut)) taken.add(press.replace(SHIFT_OR_NOT, ''));
    const same = groups.find((group) => group.name === name);
    if (same) same.shortcuts.push(...acting);
    else if (acting.length > 0) groups.push({ name, shortcuts: acting });
  }
  return groups;
}

/** A select in which something has been chosen since it got the focus: once typing in it is over, Space is the page's. */
let chosenIn: EventTarget | null = null;
/** Milliseconds for which a select goes on taking letters as one word. */
const TYPING = 1000;
let lastPress = 0;
/** The last press was of a pointer, not of a key. */
let isPointing = false;

function belongsToFocus(event: KeyboardEvent): boolean {
  const target = event.target instanceof Element ? event.target : null;
  // A dialog that is open has the keys also where nothing in it has the focus.
  if (document.querySelector('[role="dialog"][data-state="open"]')) return true;
  const holder = holderOf(target);
  const pause = event.timeStamp - lastPress;
  lastPress = event.timeStamp;
  if (holder === 'select' && target === chosenIn && pause > TYPING) {
    return HOLDS.slider(event) || event.key === 'Enter';
  }
  return HOLDS[holder](event);
}

function press(event: KeyboardEvent, singleKeys: boolean): void {
  isPointing = false;
  if (event.defaultPrevented || event.isComposing) return;
  if (event.key === 'Escape' || event.key === 'Enter') leaveField(event);
  if (belongsToFocus(event)) return;
  const found = layers
    .flatMap(({ shortcuts }) => [shortcuts()])
    .reverse()
    .flat()
    .find(
      (shortcut) =>
        (singleKeys || !shortcut.single) && pressesOf(shortcut).some((binding) => matches(event, binding))
    );
  if (!found) return;
  event.preventDefault();
  found.run(event);
}

/** Escape leaves a select, slider or number; Enter ends a number. */
function leaveField(event: KeyboardEvent): void {
  const target = event.target;
  if (!(target instanceof HTMLElement)) return;
  const holder = holderOf(target);
  const leaves = event.key === 'Escape' ? ['select', 'slider', 'number'] : ['number'];
  if (target.matches('input, select') && leaves.includes(holder)) giveKeysBack(target);
}

/**
 * Listens for the page as long as it lives. `singleKeys` says whether keys act without a modifier, `own` which keys the
 * player has changed. What was chosen with the pointer gives the keys back at once; inside `[data-keys-return]`, the desk
 * under a guitar, buttons do so too.
 */
export function ownKeys(singleKeys: () => boolean, own: () => Readonly<Record<string, string>>): () => void {
  ownPresses = own;
  const down = (event: KeyboardEvent) => press(event, singleKeys());
  const point = () => (isPointing = true);
  const change = (event: Event) => {
    const { target } = event;
    if (!(target instanceof HTMLSelectElement)) return;
    chosenIn = target;
    if (isPointing) giveKeysBack(target);
  };
  const release = () => {
    // Not the event's target: the drawing inside a button may have been changed by the press.
    const target = isPointing ? document.activeElement : null;
    if (!(target instanceof HTMLElement || target instanceof SVGElement)) return;
    if (target.matches('input[type="range"], [role="slider"], [data-keys-return] :is(button, summary)'))
      giveKeysBack(target);
  };
  const focus = (event: FocusEvent) => {
    if (event.target !== chosenIn) chosenIn = null;
  };
  addEventListener('keydown', down);
  addEventListener('pointerdown', point, true);
  addEventListener('mousedown', point, true);
  addEventListener('change', change);
  addEventListener('click', release);
  addEventListener('focusin', focus);
  return () => {
    removeEventListener('keydown', down);
    removeEventListener('pointerdown', point, true);
    removeEventListener('mousedown', point, true);
    removeEventListener('change', change);
    removeEventListener('click', release);
    removeEventListener('focusin', focus);
  };
}
