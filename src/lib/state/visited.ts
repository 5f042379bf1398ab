/** Tells the service worker which pages were come to or changed, so that they open as they are without the server. */

/** Milliseconds of rest before a page is kept: one that is passed through, or still being written, is not. */
const REST = 2500;

let timer: ReturnType<typeof setTimeout> | undefined;
let waiting: string | null = null;

function send(): void {
  clearTimeout(timer);
  if (waiting !== null) navigator.serviceWorker?.controller?.postMessage({ keep: waiting });
  waiting = null;
}

/** A page was come to, or what it shows was saved. */
export function visited(path: string): void {
  if (waiting !== null && waiting !== path) send();
  waiting = path;
  clearTimeout(timer);
  timer = setTimeout(send, REST);
}

/** What waits is told when the page is left; gives how to stop. */
export function keepVisited(): () => void {
  const hidden = () => {
    if (document.visibilityState === 'hidden') send();
  };
  document.addEventListener('visibilitychange', hidden);
  return () => document.removeEventListener('visibilitychange', hidden);
}
