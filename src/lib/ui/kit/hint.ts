/**
 * Hints: a few words about a control, in its `data-hint`, shown when the pointer rests on it, when it has the focus by
 * keyboard, and after a long press of a finger. One set of listeners serves the page, however many controls it has.
 */
/** Milliseconds of rest before a hint is shown, by pointer and by finger. */
const REST = 500;
/** Milliseconds for which a hint that a finger asked for stays. */
const STAYS = 2500;
/** Milliseconds within which the click of a finger that was lifted comes, or not at all. */
const CLICK = 400;
const ID = 'hint';

let bubble: HTMLElement | null = null;
/** The control that the bubble speaks of, and what looks out for its going. */
let shown: { readonly control: Element; readonly watch: MutationObserver } | null = null;
/** The one hint that is on its way: there is one bubble, and who asked last has it. */
let waiting: { readonly control: Element; readonly timer: ReturnType<typeof setTimeout> } | null = null;
/** Where the pointer is. */
let under: Element | null = null;
/** Whether the player walks from control to control by keys: what a dialog puts the focus on explains nothing unasked. */
let isWalking = false;

/** A control that a finger rests on for its hint: what was asked about is not pressed by letting go. */
let explained: Element | null = null;

const controlOf = (event: Event) =>
  event.target instanceof Element ? event.target.closest('[data-hint]') : null;
const isTouch = (event: Event) => (event as PointerEvent).pointerType === 'touch';

function after(control: Element, delay: number, work: () => void): void {
  clearTimeout(waiting?.timer);
  waiting = { control, timer: setTimeout(work, delay) };
}

function bubbleOf(): HTMLElement {
  if (bubble?.isConnected) return bubble;
  bubble = document.createElement('div');
  bubble.id = ID;
  bubble.setAttribute('role', 'tooltip');
  bubble.className =
    'pointer-events-none fixed top-0 left-0 z-60 w-max max-w-72 rounded-md bg-ink px-2.5 py-1.5 text-sm text-paper shadow-lg print:hidden';
  document.body.append(bubble);
  return bubble;
}

/** What finds a place for the bubble comes with the first pointer that moves over the page, before its first hint. */
const placing = () => import('@floating-ui/dom');

async function show(control: Element): Promise<void> {
  const words = control.getAttribute('data-hint');
  if (!words || !control.isConnected) return;
  hide();
  const element = bubbleOf();
  element.textContent = words;
  element.hidden = false;
  element.style.visibility = 'hidden';
  control.setAttribute('aria-describedby', ID);
  const watch = new MutationObserver(() => control.isConnected || hide());
  watch.observe(document.body, { childList: true, subtree: true });
  shown = { control, watch };
  const floating = await placing().catch(() => null);
  // The player may have gone on meanwhile.
  if (!floating || shown?.control !== control) return;
  const { autoPlacement, computePosition, offset, shift } = floating;
  const { x, y } = await computePosition(control, element, {
    strategy: 'fixed',
    middleware: [offset(8), autoPlacement({ allowedPlacements: ['bottom', 'top'] }), shift({ padding: 8 })]
  });
  element.style.translate = `${x}px ${y}px`;
  element.style.visibility = '';
}

function hide(): void {
  shown?.control.removeAttribute('aria-describedby');
  shown?.watch.disconnect();
  shown = null;
  if (bubble) bubble.hidden = true;
}

/** Puts away what speaks of a control, or is about to; of any control where none is named. */
function leave(control: Element | null = null): void {
  if (!control || waiting?.control === control) {
    clearTimeout(waiting?.timer);
    waiting = null;
  }
  if (!control || shown?.control === control) hide();
}

const LISTENERS: Readonly<Record<string, (event: Event) => void>> = {
  keydown: (event) => {
    const { key } = event as KeyboardEvent;
    isWalking = key === 'Tab' || key.startsWith('Arrow');
    // Wherever the focus is: a hint that the pointer asked for can be put away without moving it.
    if (key === 'Escape') leave();
  },
  pointerover: (event) => {
    const control = controlOf(event);
    if (control === under) return;
    if (under) leave(under);
    under = control;
    void placing().catch(() => undefined);
    if (control && !isTouch(event)) after(control, REST, () => void show(control));
  },
  pointerdown: (event) => {
    const control = controlOf(event);
    if (!control) return;
    if (!isTouch(event)) return leave(control);
    after(control, REST, () => {
      void show(control);
      explained = control;
      after(control, STAYS, () => leave(control));
    });
  },
  pointerup: released,
  pointercancel: released,
  // Out of the window.
  pointerout: (event) => {
    if ((event as PointerEvent).relatedTarget !== null || !under) return;
    if (!isTouch(event)) leave(under);
    under = null;
  },
  focusin: (event) => {
    const control = controlOf(event);
    if (control && isWalking && control.matches(':focus-visible'))
      after(control, REST, () => void show(control));
  },
  focusout: (event) => {
    const control = controlOf(event);
    if (control) leave(control);
  }
};

/** A finger that has gone before its hint came wants none; one that is shown stays its time. */
function released(event: Event): void {
  if (explained) setTimeout(() => (explained = null), CLICK);
  const control = controlOf(event);
  if (control && isTouch(event) && waiting?.control === control && shown?.control !== control) leave(control);
}

/** The click that letting go would be. */
function swallow(event: Event): void {
  if (!explained || controlOf(event) !== explained) return;
  explained = null;
  event.preventDefault();
  event.stopImmediatePropagation();
}

/** Shows the hints of the page, until what it gives back is called. */
export function showHints(): () => void {
  document.addEventListener('click', swallow, true);
  for (const [name, listener] of Object.entries(LISTENERS)) {
    document.addEventListener(name, listener, { capture: true, passive: true });
  }
  return () => {
    leave();
    document.removeEventListener('click', swallow, true);
    for (const [name, listener] of Object.entries(LISTENERS)) {
      document.removeEventListener(name, listener, { capture: true });
    }
  };
}
