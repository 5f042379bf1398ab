/** The other views are fetched while there is nothing else to do, so that they open at once; one after another. */
import { VIEWS } from './views';

/** Milliseconds after which a page is taken to have settled, where the browser does not tell. */
const SETTLED = 2000;

const whenIdle = (work: () => void): void => {
  if (typeof requestIdleCallback === 'function') requestIdleCallback(work);
  else setTimeout(work, SETTLED);
};

/** Fetches the views, until what it gives back is called. */
export function prefetchViews(): () => void {
  let isGone = false;
  const fetchFrom = (at: number): void =>
    whenIdle(() => {
      const view = VIEWS[at];
      if (!view || isGone) return;
      // One that cannot be had now is asked for again when it is opened, and told of there.
      void view.part
        .fetch()
        .catch(() => undefined)
        .then(() => fetchFrom(at + 1));
    });
  const timer = setTimeout(() => fetchFrom(0), SETTLED);
  return () => {
    isGone = true;
    clearTimeout(timer);
  };
}
