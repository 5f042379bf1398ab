/**
 * Hints: a few words about a control, shown when the pointer rests on it, when it has the focus by keyboard, and after a
 * long press of a finger.
 */
import { autoPlacement, computePosition, offset, shift } from '@floating-ui/dom';
import type { Attachment } from 'svelte/attachments';

/** Milliseconds of rest before a hint is shown, by pointer and by finger. */
const REST = 500;
/** Milliseconds for which a hint that a finger asked for stays. */
const STAYS = 2500;
const ID = 'hint';

let bubble: HTMLElement | null = null;
let owner: Element | null = null;
/** Whether the player walks from control to control by keys: what a dialog puts the focus on explains nothing unasked. */
let isWalking = false;
let isListening = false;

function listenForWalking(): void {
  if (isListening) return;
  isListening = true;
  document.addEventListener(
    'keydown',
    ({ key }) => {
      isWalking = key === 'Tab' || key.startsWith('Arrow');
      // Wherever the focus is: a hint that the pointer asked for can be put away without moving it.
      if (key === 'Escape') dismiss();
    },
    { capture: true, passive: true }
  );
}

/** The one hint that is on its way: there is one bubble, and who asked last has it. */
let waiting: { readonly control: Element; readonly timer: ReturnType<typeof setTimeout> } | null = null;

function after(control: Element, delay: number, work: () => void): void {
  clearTimeout(waiting?.timer);
  waiting = { control, timer: setTimeout(work, delay) };
}

function forget(control: Element): void {
  if (waiting?.control !== control) return;
  clearTimeout(waiting.timer);
  waiting = null;
}

function dismiss(): void {
  clearTimeout(waiting?.timer);
  waiting = null;
  if (owner) hide(owner);
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

async function show(control: Element, words: string): Promise<void> {
  const element = bubbleOf();
  owner = control;
  element.textContent = words;
  element.hidden = false;
  control.setAttribute('aria-describedby', ID);
  const { x, y } = await computePosition(control, element, {
    strategy: 'fixed',
    middleware: [offset(8), autoPlacement({ allowedPlacements: ['bottom', 'top'] }), shift({ padding: 8 })]
  });
  element.style.translate = `${x}px ${y}px`;
}

function hide(control: Element): void {
  control.removeAttribute('aria-describedby');
  if (owner !== control) return;
  owner = null;
  if (bubble) bubble.hidden = true;
}

/** A hint for a control; none where there is nothing to say. */
export function hint(words: string | undefined): Attachment<Element> {
  return (control) => {
    if (!words) return;
    listenForWalking();
    const enter = (event: Event) => {
      if ((event as PointerEvent).pointerType !== 'touch')
        after(control, REST, () => void show(control, words));
    };
    const leave = () => {
      forget(control);
      hide(control);
    };
    const focus = () => {
      if (isWalking && control.matches(':focus-visible'))
        after(control, REST, () => void show(control, words));
    };
    const press = (event: Event) => {
      if ((event as PointerEvent).pointerType !== 'touch') return leave();
      after(control, REST, () => {
        void show(control, words);
        after(control, STAYS, leave);
      });
    };
    const release = () => {
      if (owner !== control) forget(control);
    };
    const listeners: readonly (readonly [string, (event: Event) => void])[] = [
      ['pointerenter', enter],
      ['pointerleave', leave],
      ['pointerdown', press],
      ['pointerup', release],
      ['pointercancel', release],
      ['focus', focus],
      ['blur', leave]
    ];
    for (const [name, listener] of listeners) control.addEventListener(name, listener, { passive: true });
    return () => {
      leave();
      for (const [name, listener] of listeners) control.removeEventListener(name, listener);
    };
  };
}
