/** The takes that are kept with a chart: their list, the one that is open, another beside it, and what is changed of them. */
import type { ListedTake, StoredTake, TakeData } from '$lib/api/take';
import { Refusal } from '../call';
import { dayHere } from '../day-here';
import { hear, tell, type News } from '../windows';
import * as client from './client';
import { Corrections, RETRY } from './corrections';
import { isBeingHeard } from './hearing.svelte';
import { SoundUpload } from './sound-upload';
import type { Notices } from './notices.svelte';

/** Samples a second of sounds that were made or read here. */
export const RATE = 44_100;

export interface NewTake {
  readonly name: string;
  readonly seconds: number;
  readonly data: TakeData;
}

/** Whether a take has a sound that was never listened to: its recording was torn off. */
export const isUnheard = ({ way, seconds, bytes }: Pick<ListedTake, 'way' | 'seconds' | 'bytes'>): boolean =>
  way === 'microphone' && seconds === 0 && bytes > 0;

export class TakeShelf {
  list: readonly ListedTake[] = $state.raw([]);
  isLoaded = $state(false);
  opened: StoredTake | null = $state.raw(null);
  /** Another take, read beside the opened one. */
  beside: StoredTake | null = $state.raw(null);
  isClosed = false;

  readonly corrections: Corrections;
  #letGo: (() => void) | undefined;

  readonly chart: string;
  readonly #notices: Notices;

  constructor(chart: string, notices: Notices) {
    this.chart = chart;
    this.#notices = notices;
    this.corrections = new Corrections(this, notices);
  }

  /** `asked`: the take that is opened first, where it is still there. */
  async load(asked: string | null = null): Promise<void> {
    this.#letGo ??= hear((news) => void this.#learn(news));
    await this.#notices.attempt(() => this.#list());
    this.isLoaded = true;
    const first = this.list.find(({ id }) => id === asked) ?? this.list[0];
    if (first && !this.opened) await this.open(first.id);
  }

  async #list(): Promise<void> {
    this.list = (await client.listTakes(this.chart)).takes;
  }

  async #reopen(id: string): Promise<void> {
    this.opened = await client.openTake(this.chart, id);
    await this.#list();
    this.#tell(id, this.opened.version);
  }

  #tell(take: string, version: number): void {
    tell({ kind: 'take', chart: this.chart, take, version });
  }

  /** A take was changed here. `isLast`: nothing more of it is to be sent. */
  async changed(id: string, version: number, isLast: boolean): Promise<void> {
    if (isLast) await this.#list();
    this.#tell(id, version);
  }

  /** A take was changed in another window, or by a view that was left while it recorded. What is corrected here stays. */
  async #learn(news: News): Promise<void> {
    if (news.kind !== 'take' || news.chart !== this.chart || this.isClosed) return;
    const listed = this.list.find(({ id }) => id === news.take);
    if (listed && listed.version >= news.version) return;
    const { opened } = this;
    await this.#notices.attempt(async () => {
      if (opened?.id === news.take && opened.version < news.version && !this.corrections.isWaiting)
        this.opened = await client.openTake(this.chart, news.take);
      await this.#list();
    });
  }

  close(): void {
    void this.corrections.send();
    this.isClosed = true;
    this.#letGo?.();
  }

  async open(id: string): Promise<void> {
    await this.corrections.send();
    await this.#notices.attempt(async () => {
      const take = await client.openTake(this.chart, id);
      if (this.isClosed) return;
      this.opened = take;
      if (this.beside?.id === id) this.beside = null;
    });
  }

  async putBeside(id: string): Promise<void> {
    await this.#notices.attempt(async () => {
      const take = await client.openTake(this.chart, id);
      if (!this.isClosed) this.beside = take;
    });
  }

  closeBeside(): void {
    this.beside = null;
  }

  /** Keeps a take that was just made, and opens it. What a hand has played cannot be had again: a server that is away is waited for. */
  async keep(take: NewTake, sound?: Float32Array): Promise<void> {
    const id = crypto.randomUUID();
    const now = Date.now();
    const keep = () =>
      this.#notices.attempt(async () => {
        this.opened = await client.keepTake(this.chart, { id, playedAt: now, day: dayHere(now), ...take });
        if (sound) await this.#sendSound(id, sound);
        await this.#list();
        this.#tell(id, this.opened.version);
      });
    while (!(await keep()) && take.data.way === 'midi' && !this.isClosed) {
      await new Promise((resolve) => setTimeout(resolve, RETRY));
    }
  }

  async #sendSound(id: string, samples: Float32Array): Promise<void> {
    const upload = new SoundUpload(this.chart, id, RATE);
    upload.add(samples);
    if (!(await upload.send())) throw new Error(upload.problem);
  }

  /** Writes what was heard into a take that is kept already, and opens it. `heard` makes its data of what it has; null where nothing was heard. */
  async hear(id: string, seconds: number, heard: ((data: TakeData) => TakeData) | null): Promise<void> {
    await this.#notices.attempt(async () => {
      const take = await client.openTake(this.chart, id);
      if (take.data && heard) {
        const edit = { base: take.version, seconds, data: heard(take.data) };
        await client.changeTake(this.chart, id, edit).catch((error: unknown) => {
          // Another view has listened to the same sound meanwhile: what it heard is shown.
          if (!(error instanceof Refusal && error.status === 409)) throw error;
        });
      }
      await this.#reopen(id);
    });
  }

  async rename(name: string): Promise<void> {
    await this.#change({ name });
  }

  async edit(change: (data: TakeData) => TakeData): Promise<void> {
    await this.corrections.send();
    const data = this.opened?.data;
    if (data) await this.#change({ data: change(data) });
  }

  async #change(edit: { readonly name?: string; readonly data?: TakeData }): Promise<void> {
    const take = this.opened;
    if (!take) return;
    await this.#notices.attempt(async () => {
      await client.changeTake(this.chart, take.id, { base: take.version, ...edit });
      await this.#reopen(take.id);
    });
  }

  async setLoved(isLoved: boolean): Promise<void> {
    await this.edit((data) => ({ ...data, isLoved }));
  }

  /** Another clock for the opened take: the tempo, or the second of its first beat, as the player says. */
  async setClock(tempo: number, start: number): Promise<void> {
    await this.edit((data) => ({ ...data, tempo, start }));
  }

  /** Moves the opened take by beats, later above 0; gives how to move it back, null where that failed. */
  async moveBy(beats: number): Promise<(() => Promise<void>) | null> {
    const before = this.opened?.data;
    if (!before) return null;
    const start = before.start - (beats * 60) / before.tempo;
    await this.setClock(before.tempo, start);
    if (this.opened?.data?.start !== start) return null;
    return () => this.setClock(before.tempo, before.start);
  }

  async remove(take: ListedTake): Promise<boolean> {
    return this.#notices.attempt(async () => {
      await client.deleteTake(this.chart, take.id);
      this.list = this.list.filter(({ id }) => id !== take.id);
      if (this.opened?.id !== take.id) return;
      const [first] = this.list;
      this.opened = first ? await client.openTake(this.chart, first.id) : null;
    });
  }

  async restore(id: string): Promise<void> {
    await this.#notices.attempt(async () => {
      await client.restoreTake(this.chart, id);
      await this.#reopen(id);
    });
  }

  /** Takes the sound of the opened take off the disk. */
  async forgetSound(): Promise<void> {
    const take = this.opened;
    if (!take) return;
    await this.#notices.attempt(async () => {
      await client.forgetSound(this.chart, take.id);
      await this.#reopen(take.id);
    });
  }

  /** The sound of a take was taken off elsewhere. */
  async soundGone(id: string): Promise<void> {
    if (this.opened?.id === id) await this.open(id);
  }

  /** Whether the opened take was never listened to: it is now, or it was torn off. */
  get unheard(): 'being heard' | 'torn off' | null {
    if (!this.opened || !isUnheard(this.opened)) return null;
    return isBeingHeard(this.opened.id) ? 'being heard' : 'torn off';
  }
}
