/** Finding lines: what is asked for, worked out beside the page, gone through from the best on. */
import { nth, sure } from '$lib/core/base/list';
import { wrap, type Remote } from 'comlink';
import { readStyle, type Style } from '$lib/core/harmony/style';
import type { Stretch } from '$lib/core/line/edit';
import { levelOf } from '$lib/core/line/find/registry';
import { ordered, type LineNote } from '$lib/core/line/model';
import type { OnePhrase } from '$lib/core/line/phrase/alone';
import type { LineWish } from '$lib/core/plan/lines';
import { counted } from '$lib/core/theory/words';
import type { FinderApi, FinderJob } from '../../workers/finder';
import type { Workspace } from '../chart/workspace.svelte';
import type { CurrentLine, Found } from './current.svelte';

const FIRST: Found = { level: 'phrases', subdivision: 2, seed: 0, rank: 0 };
/** The best lines that are had at once, to go through them. */
const BEST = 6;
/** Changes a line is found over at once; of a longer chart those from the selected one on. */
const MOST_CHANGES = 128;
/** Seeds of phrases that are asked for one after another. */
const SEEDS_APART = 104_729;

export class Finding {
  isFinding = $state(false);
  /** What was asked last; the next press goes on from there. */
  asked: Found = $state.raw(FIRST);
  readonly #workspace: Workspace;
  readonly #current: CurrentLine;
  #worker: Worker | null = null;
  #remote: Remote<FinderApi> | null = null;
  /** The best lines of the last finding. */
  #best: { readonly key: string; readonly lines: readonly (readonly LineNote[])[] } | null = null;
  #ask = 0;

  constructor(workspace: Workspace, current: CurrentLine) {
    this.#workspace = workspace;
    this.#current = current;
  }

  /** The style of the chart, as it is heard or declared. */
  readonly style = $derived.by(() => {
    const { sheet, analysis } = this.#workspace;
    const said = sheet.head.style === null ? null : readStyle(sheet.head.style);
    return { style: analysis.style, isDeclared: said !== null };
  });

  /** Declares the style of the chart; null takes the declaration back. Phrases that are shown are found anew. */
  async setStyle(style: Style | null): Promise<void> {
    this.#workspace.document.declare('style', style);
    if (this.#current.shown?.finding?.level === 'phrases') await this.find({});
  }

  /** Another line of the same kind. */
  another(): Promise<void> {
    return this.find({ seed: this.asked.seed + 1 });
  }

  /** The next best in the same rhythm; after the last the best again. */
  nextBest(): Promise<void> {
    return this.find({ rank: this.asked.rank + 1 });
  }

  /** Finds a line: a level, another figure, another seed, or the next best. What is left out stays. */
  async find(part: Partial<Found>): Promise<void> {
    const current = this.#current;
    // Another kind of line begins with its best.
    const isOther = ['level', 'figure', 'subdivision', 'density', 'boldness', 'seed'].some(
      (name) => name in part
    );
    const asked: Found = { ...this.asked, ...(isOther ? { rank: 0 } : {}), ...part };
    this.asked = asked;
    const own = ++this.#ask;
    // Nobody waits for a line that is not wanted any more.
    if (this.isFinding) this.close();
    this.isFinding = true;
    // What is locked now is what the others are found beside, whatever is locked meanwhile.
    const locks = this.#locksFor(asked);
    const held = this.#lockedNotes(locks);
    try {
      const { lines, message } = await this.#linesFor(asked);
      if (own !== this.#ask) return;
      if (lines.length === 0) {
        current.problem = message ?? 'No such line is possible here.';
        return;
      }
      const rank = asked.rank % lines.length;
      this.asked = { ...asked, rank };
      const { name } = sure(levelOf(asked.level), 'levelOf');
      const notes = locks.length > 0 ? ordered([...held, ...nth(lines, rank)]) : nth(lines, rank);
      const differs = differing(current.shown?.notes, notes);
      current.show({
        notes,
        name,
        id: null,
        finding: this.asked,
        ...(locks.length > 0 ? { locks } : {}),
        ...(differs ? { differs } : {})
      });
      this.#workspace.say(said(name, rank, differs));
    } catch {
      if (own === this.#ask) current.problem = 'The line could not be worked out; try again.';
    } finally {
      if (own === this.#ask) this.isFinding = false;
    }
  }

  /** What stays as it is when phrases are found: other kinds of lines take nothing over. */
  #locksFor({ level }: Found): readonly Stretch[] {
    return level === 'phrases' ? (this.#current.shown?.locks ?? []) : [];
  }

  #lockedNotes(locks: readonly Stretch[]): readonly LineNote[] {
    return (this.#current.shown?.notes ?? []).filter(({ start }) =>
      locks.some(({ from, to }) => start >= from && start < to)
    );
  }

  /** One phrase by itself, as dense and bold as the others; null where it cannot be had, which is said. */
  async findPhrase(only: Omit<OnePhrase, 'part'>, turn: number): Promise<readonly LineNote[] | null> {
    const { density, boldness, seed, subdivision } = this.asked;
    this.isFinding = true;
    try {
      const wish: LineWish = {
        level: 'phrases',
        subdivision,
        density,
        boldness,
        seed: seed + SEEDS_APART * turn,
        alternatives: 1,
        only
      };
      const { lines, noLine } = await this.#send(wish);
      const notes = lines[0]?.notes;
      if (!notes) this.#current.problem = noLine?.message ?? 'No such phrase is possible here.';
      return notes ?? null;
    } catch {
      this.#current.problem = 'The phrase could not be worked out; try again.';
      return null;
    } finally {
      this.isFinding = false;
    }
  }

  async #linesFor(finding: Found) {
    const { level, figure, subdivision, density, boldness, seed } = finding;
    const { selected, changes } = this.#workspace;
    const part = changes.length > MOST_CHANGES ? { from: selected, to: selected + MOST_CHANGES - 1 } : {};
    // The next phrases are those of another seed.
    const alternatives = level === 'phrases' ? 1 : BEST;
    const held = this.#locksFor(finding);
    const wish: LineWish = {
      level,
      figure,
      subdivision,
      density,
      boldness,
      seed,
      alternatives,
      held,
      ...part
    };
    const key = JSON.stringify(this.#jobOf(wish));
    if (this.#best?.key === key) return { lines: this.#best.lines };
    const { lines, noLine } = await this.#send(wish);
    const found = lines.map(({ notes }) => notes);
    this.#best = { key, lines: found };
    return { lines: found, message: noLine?.message };
  }

  #jobOf(wish: LineWish) {
    const { document, neck, system } = this.#workspace;
    return { source: document.source, plan: document.plan, neck, system: system.id, wish };
  }

  #send(wish: LineWish) {
    // An address is no state.
    // eslint-disable-next-line svelte/prefer-svelte-reactivity
    this.#worker ??= new Worker(new URL('../../workers/finder.ts', import.meta.url), { type: 'module' });
    this.#remote ??= wrap<FinderApi>(this.#worker);
    // Plain copies: what the page holds is watched, and cannot be sent.
    return this.#remote.find(JSON.parse(JSON.stringify(this.#jobOf(wish))) as FinderJob);
  }

  /** Ends what is worked out. */
  close(): void {
    this.#worker?.terminate();
    this.#worker = null;
    this.#remote = null;
  }
}

/** How many notes of a line are others than before; null where there was none, or it is another rhythm. */
function differing(before: readonly LineNote[] | undefined, now: readonly LineNote[]): number | null {
  if (before?.length !== now.length) return null;
  if (now.some(({ start }, i) => start !== nth(before, i).start)) return null;
  return now.filter(({ midi }, i) => midi !== nth(before, i).midi).length;
}

function said(name: string, rank: number, differs: number | null): string {
  const which = rank === 0 ? name : `${name}, number ${rank + 1} of the best`;
  return differs === null || differs === 0 ? which : `${which}: ${counted(differs, 'note')} differ`;
}
