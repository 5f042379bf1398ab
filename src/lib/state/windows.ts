/** The windows of this browser in which Corvel is open: what one saves, the others hear of. */
import type { SettingsChange } from '$lib/api/settings';

export type News =
  | { readonly kind: 'saved'; readonly chart: string; readonly version: number }
  | { readonly kind: 'deleted' | 'brought back'; readonly chart: string }
  | { readonly kind: 'take'; readonly chart: string; readonly take: string; readonly version: number }
  | { readonly kind: 'settings'; readonly change: SettingsChange };

const CHANNEL = 'corvel';
const LOCK = 'corvel-window-';

/** This window's own name, new with each load of the page. */
export const thisWindow =
  typeof crypto !== 'undefined' && 'randomUUID' in crypto ? crypto.randomUUID() : String(Math.random());

let channel: BroadcastChannel | null | undefined;

function openChannel(): BroadcastChannel | null {
  if (channel === undefined) {
    channel =
      typeof window !== 'undefined' && 'BroadcastChannel' in window ? new BroadcastChannel(CHANNEL) : null;
    if (channel) holdLock();
  }
  return channel;
}

/**
 * As long as the page is there it holds a lock by its name; a page that crashed holds none. A page that was left may be
 * kept asleep by the browser: it lets go, and takes the lock again when it comes back.
 */
function holdLock(): void {
  let letGo = () => undefined as void;
  const hold = () =>
    void navigator.locks?.request(LOCK + thisWindow, () => new Promise<void>((release) => (letGo = release)));
  hold();
  addEventListener('pagehide', () => letGo());
  addEventListener('pageshow', (event) => {
    if (event.persisted) hold();
  });
}

const listeners = new Set<(news: News) => void>();

/** Tells the other windows, and whoever listens in this one. */
export function tell(news: News): void {
  openChannel()?.postMessage(news);
  for (const listen of listeners) listen(news);
}

/** Hears what is told; returns how to stop. */
export function hear(listen: (news: News) => void): () => void {
  const open = openChannel();
  const take = (event: MessageEvent<News>) => listen(event.data);
  open?.addEventListener('message', take);
  listeners.add(listen);
  return () => {
    open?.removeEventListener('message', take);
    listeners.delete(listen);
  };
}

/** The names of the other windows that are open now; none where the browser cannot tell. */
export async function otherWindows(): Promise<ReadonlySet<string>> {
  openChannel();
  const held = (await navigator.locks?.query())?.held ?? [];
  const names = held.flatMap(({ name }) => (name?.startsWith(LOCK) ? [name.slice(LOCK.length)] : []));
  return new Set(names.filter((name) => name !== thisWindow));
}
