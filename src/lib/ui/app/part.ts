/** A part of the page that is fetched when it is first used, and there at once from then on. */
export class Part<Component> {
  readonly #load: () => Promise<{ default: Component }>;
  #now: Component | null = null;

  /** `load`: an import of the component's module. */
  constructor(load: () => Promise<{ default: Component }>) {
    this.#load = load;
  }

  /** The component, once it has come. */
  get now(): Component | null {
    return this.#now;
  }

  /** Rejects where it cannot be had now; it may be asked for again. */
  async fetch(): Promise<Component> {
    this.#now ??= (await this.#load()).default;
    return this.#now;
  }
}
