/** Ticks that a page in the background gets all the same. */
const EVERY = 40;

setInterval(() => postMessage(0), EVERY);
