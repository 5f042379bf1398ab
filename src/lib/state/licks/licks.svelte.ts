/** The lick book as the page has it: fetched once, searched here, changed on the server first. */
import { Attempts } from '../attempts.svelte';
import type { LickData, LickList, StoredLick } from '$lib/api/lick';
import { readChord } from '$lib/core/theory/chord-reader';
import type { ChordFamily } from '$lib/core/theory/chord';
import { callRoute } from '../call';

const AWAY = 'the book was not changed';
const call = <T>(path: string, method?: string, body?: unknown) =>
  callRoute<T>(`licks${path}`, AWAY, method, body);

/** What the book is looked through for; what is empty is not asked. */
export interface LickSearch {
  /** Words in name, tags, chords, motion, source. */
  readonly text: string;
  readonly family: ChordFamily | '';
  /** The degree that it resolves to. */
  readonly resolves: string;
  readonly position: number | null;
  /** Bars at most, of four beats. */
  readonly bars: number | null;
  readonly tag: string;
}

export const NO_SEARCH: LickSearch = {
  text: '',
  family: '',
  resolves: '',
  position: null,
  bars: null,
  tag: ''
};

const FAR = 2;
const plainly = (text: string) =>
  text
    .toLowerCase()
    .normalize('NFKD')
    .replaceAll(/[\u0300-\u036f–-]/g, '');

function familiesOf({ over }: LickData): readonly ChordFamily[] {
  return over.flatMap(({ symbol }) => {
    const reading = readChord(symbol);
    return reading.kind === 'chord' ? [reading.chord.family] : [];
  });
}

/** True where a lick is what is looked for. */
export function isFound({ name, data, facts }: StoredLick, search: LickSearch): boolean {
  if (!data || !facts) return plainly(name).includes(plainly(search.text)) && search.tag === '';
  const { text, family, resolves, position, bars, tag } = search;
  const words = plainly(
    [name, ...data.tags, data.over.map(({ symbol }) => symbol).join(' '), facts.motion, data.source].join(' ')
  );
  return (
    plainly(text)
      .split(/\s+/)
      .every((word) => words.includes(word)) &&
    (family === '' || familiesOf(data).includes(family)) &&
    (resolves === '' || facts.resolves?.degree === resolves) &&
    (position === null || (facts.position !== null && Math.abs(facts.position - position) <= FAR)) &&
    (bars === null || facts.beats <= bars * data.meter.beats) &&
    (tag === '' || data.tags.includes(tag))
  );
}

export class LickBook extends Attempts {
  licks: readonly StoredLick[] = $state.raw([]);
  isLoaded = $state(false);

  /** `first`: the part of the book that came with the page; the rest follows. */
  constructor(first?: LickList) {
    super();
    if (!first) return;
    this.licks = first.licks;
    this.isLoaded = true;
    if (typeof window !== 'undefined' && first.licks.length < first.total) void this.load();
  }

  readonly tags: readonly string[] = $derived.by(() =>
    // Made anew and never changed.
    // eslint-disable-next-line svelte/prefer-svelte-reactivity
    [...new Set(this.licks.flatMap(({ data }) => data?.tags ?? []))].sort()
  );

  async load(): Promise<void> {
    await this.attempt(async () => {
      const all: StoredLick[] = [];
      for (;;) {
        const { licks, total } = await call<LickList>(`?offset=${all.length}`);
        all.push(...licks);
        if (licks.length === 0 || all.length >= total) break;
      }
      this.licks = all;
      this.isLoaded = true;
    });
  }

  async keep(name: string, data: LickData): Promise<void> {
    await this.attempt(async () => {
      const lick = await call<StoredLick>('', 'POST', { id: crypto.randomUUID(), name, data });
      this.licks = [lick, ...this.licks];
    });
  }

  async change(lick: StoredLick, edit: { readonly name?: string; readonly data?: LickData }): Promise<void> {
    await this.attempt(async () => {
      const changed = await call<StoredLick>(`/${lick.id}`, 'PUT', { base: lick.version, ...edit });
      this.licks = this.licks.map((one) => (one.id === changed.id ? changed : one));
    });
  }

  /** Deletes a lick; gives what brings it back, null where that failed. */
  async remove(lick: StoredLick): Promise<(() => Promise<void>) | null> {
    const before = this.licks;
    const done = await this.attempt(() => call(`/${lick.id}`, 'DELETE'));
    if (!done) return null;
    this.licks = before.filter(({ id }) => id !== lick.id);
    return async () => {
      const back = await this.attempt(() => call(`/${lick.id}/bring-back`, 'POST'));
      if (back) this.licks = before;
    };
  }
}
