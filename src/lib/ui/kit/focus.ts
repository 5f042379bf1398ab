/**
 * Where the focus goes when what had it is gone. A press that removes, hides or disables what was pressed would leave the
 * focus to the page's body: a screen reader begins anew, and Tab starts at the head. It goes to what follows instead.
 */

const FOCUSABLE =
  'a[href], button:not(:disabled), input:not(:disabled), select:not(:disabled), textarea:not(:disabled), summary, [tabindex]:not([tabindex="-1"]), [contenteditable="true"]';
/** How many rooms around what was pressed are looked through before the page's main part takes the focus. */
const NEAR = 4;

const isShown = (element: Element) => element.checkVisibility({ visibilityProperty: true });
const isUsable = (element: Element) =>
  element.isConnected &&
  !element.matches(':disabled, [tabindex="-1"]') &&
  element.closest('[inert]') === null &&
  isShown(element);

/** The page's main part: it takes the focus, and with it the keys, where nothing else is to have them. */
function mainPart(): HTMLElement | null {
  const main = document.querySelector<HTMLElement>('main');
  if (main && !main.hasAttribute('tabindex')) main.tabIndex = -1;
  return main;
}

/** What has the focus gives it to the page, whose keys act again. */
export function giveKeysBack(from: HTMLElement | SVGElement): void {
  from.blur();
  if (document.querySelector('[role="dialog"][data-state="open"]')) return;
  mainPart()?.focus({ preventScroll: true });
}

/** After another page has come, its main part has the focus that the framework leaves to the body. */
export function focusPage(): void {
  if (document.activeElement === document.body) mainPart()?.focus({ preventScroll: true });
}

/** Where something stood: the rooms around it, and what came after it in each. */
interface Trace {
  readonly element: Element;
  readonly rooms: readonly { readonly room: Element; readonly at: number }[];
}

function traceOf(element: Element): Trace {
  const rooms: { room: Element; at: number }[] = [];
  let room = element.parentElement;
  while (room && rooms.length < NEAR && !room.matches('main, body, [role="dialog"]')) {
    rooms.push({ room, at: [...room.querySelectorAll(FOCUSABLE)].indexOf(element) });
    room = room.parentElement;
  }
  return { element, rooms };
}

/** What takes the place of something that is gone: what now stands where it stood, or just before; null where all around it is gone. */
function successor({ rooms }: Trace): HTMLElement | null {
  for (const { room, at } of rooms) {
    if (!room.isConnected || !isShown(room)) continue;
    const there = [...room.querySelectorAll<HTMLElement>(FOCUSABLE)].filter(isUsable);
    const next = there[Math.min(Math.max(at, 0), there.length - 1)];
    if (next) return next;
  }
  return null;
}

/** Milliseconds after a press in which what follows from it is expected; a server may be asked on the way. */
const WATCHED = 4000;

/** Keeps the focus on the page's parts, until what it gives back is called. */
export function keepFocus(): () => void {
  let trace: Trace | null = null;
  let until = 0;
  let isAsked = false;

  function mend(): void {
    isAsked = false;
    if (!trace || performance.now() > until) return;
    const now = document.activeElement;
    // The browser lets go of what was disabled only a little later.
    if (now && now !== document.body && !now.matches(':disabled') && !now.closest('[inert]')) return;
    // It is still there and can be used: the player has let go of it.
    if (isUsable(trace.element)) return;
    // What is opened above the page looks after itself.
    if (document.querySelector('[role="dialog"][data-state="open"], [role="menu"], [role="listbox"]')) return;
    (successor(trace) ?? mainPart())?.focus({ preventScroll: true });
  }
  /** Once all that the press has changed is drawn. */
  function ask(): void {
    if (isAsked || !trace || performance.now() > until) return;
    isAsked = true;
    requestAnimationFrame(() => requestAnimationFrame(mend));
  }
  const remember = () => {
    const element = document.activeElement;
    if (!element || element === document.body || element.matches('main')) return;
    trace = traceOf(element);
    until = performance.now() + WATCHED;
    ask();
  };
  const observer = new MutationObserver(ask);
  observer.observe(document.body, {
    subtree: true,
    childList: true,
    attributes: true,
    attributeFilter: ['disabled', 'hidden', 'inert', 'class']
  });
  const events = ['click', 'keydown', 'focusin'] as const;
  for (const event of events) addEventListener(event, remember, true);
  // A list from which something was chosen says so: it arrives on its own, and loads nothing for this.
  const back = ({ target }: Event) => {
    if (target instanceof HTMLElement || target instanceof SVGElement) giveKeysBack(target);
  };
  addEventListener('keysback', back);
  return () => {
    removeEventListener('keysback', back);
    observer.disconnect();
    for (const event of events) removeEventListener(event, remember, true);
  };
}
