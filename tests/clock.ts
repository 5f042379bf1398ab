/**
 * Music on a clock that the page itself drives. Nothing is rendered: the audio clock goes on by a step with each picture that the page draws,
 * and the worker that wakes the band ticks with it. A busy machine draws fewer pictures, and the music waits for it; an idle one goes
 * through a round in a fraction of its time.
 */

/** Seconds of music from one picture to the next: fewer than the band is handed out ahead, so that nothing can come too late. */
const STEP = 0.04;

/** To be run in each new page before its own scripts. */
export const DRIVEN_CLOCK = `(() => {
  let [second, isGoing] = [0, false];
  const tickers = new Set();
  const Sounding = window.AudioContext;
  const suspend = Sounding.prototype.suspend;
  // The context itself never runs.
  window.AudioContext = class AudioContext extends Sounding {
    #state = 'suspended';
    constructor(...options) {
      super(...options);
      void suspend.call(this);
    }
    get currentTime() { return second; }
    get state() { return this.#state; }
    #become(state) {
      this.#state = state;
      this.dispatchEvent(new Event('statechange'));
      return Promise.resolve();
    }
    resume() { isGoing = true; return this.#become('running'); }
    suspend() { return this.#become('suspended'); }
  };
  const Thread = window.Worker;
  // Workers that are made from a text of the page only tick: the band's, and that of the sound library.
  window.Worker = function Worker(url, options) {
    if (!String(url).startsWith('blob:')) return new Thread(url, options);
    const ticker = new EventTarget();
    ticker.onmessage = null;
    ticker.addEventListener('message', (event) => ticker.onmessage?.(event));
    ticker.postMessage = () => {};
    ticker.terminate = () => tickers.delete(ticker);
    tickers.add(ticker);
    return ticker;
  };
  const step = () => {
    if (isGoing && !document.hidden) {
      second += ${STEP};
      for (const ticker of tickers) ticker.dispatchEvent(new MessageEvent('message', { data: 0 }));
    }
    requestAnimationFrame(step);
  };
  requestAnimationFrame(step);
})();`;
