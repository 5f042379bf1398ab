/** Work that is done beside the page, on one thread: listening and making sound. It says how far it is, and can be stopped. */
import { proxy, wrap, type Remote } from 'comlink';
import type { ListenerApi } from '../../workers/listener';
import ListenerWorker from '../../workers/listener?worker';

export class BesidePage {
  /** What is under way, as a sentence; empty where nothing is. */
  doing = $state('');
  /** How much of it is done, 0 to 1; null where that is not known. */
  done: number | null = $state(null);
  isStoppable = $state(false);

  #worker: Worker | null = null;
  #listener: Remote<ListenerApi> | null = null;
  #stopped: (() => void) | null = null;

  /** Takes down how much is done, told from beside the page. */
  readonly onShare = () => proxy((share: number) => void (this.done = share));

  /** Runs work that can be stopped; null where it was. */
  async run<T>(says: string, work: (listener: Remote<ListenerApi>) => Promise<T>): Promise<T | null> {
    this.doing = says;
    this.done = null;
    this.isStoppable = true;
    try {
      return await Promise.race([
        work(this.#listening()),
        new Promise<null>((stop) => (this.#stopped = () => stop(null)))
      ]);
    } finally {
      this.#stopped = null;
      this.doing = '';
      this.done = null;
      this.isStoppable = false;
    }
  }

  #listening(): Remote<ListenerApi> {
    if (!this.#listener) {
      this.#worker = new ListenerWorker();
      this.#listener = wrap<ListenerApi>(this.#worker);
    }
    return this.#listener;
  }

  /** Ends what is worked out. */
  stop(): void {
    this.#worker?.terminate();
    this.#worker = null;
    this.#listener = null;
    this.#stopped?.();
    this.doing = '';
    this.isStoppable = false;
  }
}
