/** One finger on the glass: taps, rests and swipes as real touch events. */
import { setViewport } from '../scripts/lib/browser.mjs';
import type { Page } from './page';

export interface Point {
  x: number;
  y: number;
}

/** Which of the elements that match, by number or by its text, and where on it, in pixels from its corner; its middle otherwise. */
export interface Spot {
  n?: number;
  text?: string;
  at?: Point;
}

export class Finger {
  readonly #page: Page;
  #isDown = false;

  constructor(page: Page) {
    this.#page = page;
  }

  /** Work on a touch screen of a size; whatever happens, the finger is lifted and the window is as it was. */
  async on(width: number, height: number, work: () => Promise<void>): Promise<void> {
    const { browser } = this.#page;
    const touched = (enabled: boolean) =>
      this.#page.devTools('Emulation.setTouchEmulationEnabled', { enabled });
    await setViewport(browser, width, height);
    await touched(true);
    try {
      await work();
    } finally {
      if (this.#isDown) await this.#send('touchCancel');
      await touched(false);
      await setViewport(browser, 1280, 800);
    }
  }

  /**
   * Where a finger meets an element: the element is brought into sight, has stayed where it is for two frames, and
   * nothing lies over it. A page that is still being drawn moves what was measured under the finger.
   */
  async over(css: string, { n = 0, text, at }: Spot = {}): Promise<Point> {
    let place: Point | null = null;
    await this.#page.until(
      async () => {
        place = await this.#page.browser.executeAsyncScript<Point | null>(
          `const [css, n, text, at, done] = arguments;
           const matches = [...document.querySelectorAll(css)];
           const one = matches.filter((e) => text === null || e.textContent.trim() === text)[n];
           if (!one || one.disabled) return done(null);
           const isWhole = ({ top, left, bottom, right }) => top >= 0 && left >= 0 && bottom <= innerHeight && right <= innerWidth;
           if (!isWhole(one.getBoundingClientRect()))
             one.scrollIntoView({ block: 'center', inline: 'nearest', behavior: 'instant' });
           const frame = () => new Promise(requestAnimationFrame);
           const corner = () => { const { x, y } = one.getBoundingClientRect(); return x + ':' + y; };
           (async () => {
             const before = corner();
             await frame();
             await frame();
             const { x, y, width, height } = one.getBoundingClientRect();
             const place = { x: x + (at?.x ?? width / 2), y: y + (at?.y ?? height / 2) };
             const met = document.elementFromPoint(place.x, place.y);
             done(corner() === before && met && (one.contains(met) || met.contains(one)) ? place : null);
           })();`,
          css,
          n,
          text ?? null,
          at ?? null
        );
        return place !== null;
      },
      `${css} ${text ?? ''} under the finger`
    );
    return place!;
  }

  async down(at: Point): Promise<void> {
    this.#isDown = true;
    await this.#send('touchStart', at);
  }

  to(at: Point): Promise<void> {
    return this.#send('touchMove', at);
  }

  async up(): Promise<void> {
    await this.#send('touchEnd');
    this.#isDown = false;
  }

  async tap(css: string, spot?: Spot): Promise<void> {
    await this.down(await this.over(css, spot));
    await this.up();
  }

  /** Along a straight way; `rest` in milliseconds before it begins, `isLifted: false` leaves the finger down at its end. */
  async swipe(from: Point, to: Point, { rest = 0, isLifted = true } = {}): Promise<void> {
    await this.down(from);
    if (rest > 0) {
      await this.#page.browser.sleep(rest);
      // A busy page has heard of the rest, too, before the finger moves.
      await this.#page.drawn();
    }
    const steps = 12;
    for (let step = 1; step <= steps; step++) {
      const part = step / steps;
      await this.to({ x: from.x + (to.x - from.x) * part, y: from.y + (to.y - from.y) * part });
      await this.#page.browser.sleep(16);
    }
    if (isLifted) await this.up();
  }

  #send(type: string, at?: Point): Promise<void> {
    return this.#page.devTools('Input.dispatchTouchEvent', { type, touchPoints: at ? [at] : [] });
  }
}
