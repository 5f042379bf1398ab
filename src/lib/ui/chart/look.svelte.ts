/** How the player writes charts: on bars, as text, or both; with the pad or the keyboard. Kept on the device. */
export type EditorLook = 'bars' | 'both' | 'text';

const PLACE = 'corvel-chart-editor';
const LOOKS: readonly string[] = ['bars', 'both', 'text'];

class Look {
  now: EditorLook = $state('bars');
  hasPad = false;
  /** The text was worked in last, so that it has the focus when the editor opens. */
  isTyped = false;

  constructor() {
    if (typeof localStorage === 'undefined') return;
    try {
      const [look = '', pad, typed] = (localStorage.getItem(PLACE) ?? '').split(' ');
      if (LOOKS.includes(look)) this.now = look as EditorLook;
      else this.now = innerWidth < 768 ? 'bars' : 'both';
      this.hasPad = pad === undefined ? matchMedia('(pointer: coarse)').matches : pad === 'pad';
      this.isTyped = typed === 'text';
    } catch {
      // Without a store the usual look stands.
    }
  }

  set(look: EditorLook): void {
    this.now = look;
    this.#keep();
  }

  setPad(hasPad: boolean): void {
    this.hasPad = hasPad;
    this.#keep();
  }

  /** Whether the text or the bars are worked in. */
  setTyped(isTyped: boolean): void {
    if (isTyped === this.isTyped) return;
    this.isTyped = isTyped;
    this.#keep();
  }

  #keep(): void {
    try {
      localStorage.setItem(
        PLACE,
        `${this.now} ${this.hasPad ? 'pad' : 'keys'} ${this.isTyped ? 'text' : 'bars'}`
      );
    } catch {
      // A full or closed store: it is so until the page is left.
    }
  }
}

export const editorLook = new Look();
