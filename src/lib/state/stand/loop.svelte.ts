/** What is looped: the form, a section, bars, a change, a pair. */
import { nth } from '$lib/core/base/list';
import { sectionsOf } from '$lib/core/chart/sections';
import { excerptOf, grantedLoop, type LoopWish } from '$lib/core/harmony/excerpt';
import type { Bars } from '$lib/core/practice/log/model';
import type { Workspace } from '../chart/workspace.svelte';
import type { Notice } from './notice.svelte';

interface Hooks {
  readonly notice: Notice;
  /** The bar that sounds or is selected. */
  readonly bar: () => number;
  /** What plays begins again with another loop. */
  readonly onset: () => void;
}

export class Loop {
  wish: LoopWish = $state.raw({ kind: 'form' });
  readonly #workspace: Workspace;
  readonly #hooks: Hooks;

  constructor(workspace: Workspace, hooks: Hooks) {
    this.#workspace = workspace;
    this.#hooks = hooks;
  }

  set(loop: LoopWish): void {
    const { notice, onset } = this.#hooks;
    const { sheet, analysis } = this.#workspace;
    if (loop.kind === 'bars' && loop.to < loop.from) {
      notice.problem = `The loop ends in bar ${loop.to}, before it starts in bar ${loop.from}; set the end later.`;
      return;
    }
    if (!excerptOf(sheet.form, analysis, loop)) {
      notice.problem = 'There is nothing to loop there; choose other bars.';
      return;
    }
    notice.problem = '';
    this.wish = loop;
    onset();
  }

  /** What something else asks for, as far as the chart has it; the form where it has nothing of it. */
  grant(loop: LoopWish): void {
    const { sheet, analysis } = this.#workspace;
    this.wish = grantedLoop(sheet.form, analysis, loop)?.loop ?? { kind: 'form' };
  }

  /** A loop that an edit has cut off is brought back into the chart, and that is said. */
  clamp(): void {
    const { sheet, analysis } = this.#workspace;
    const granted = grantedLoop(sheet.form, analysis, this.wish);
    if (!granted?.said) return;
    this.wish = granted.loop;
    this.#hooks.notice.problem = granted.said;
  }

  /** The bars of a stretch, both in; null where it is none, such as two chords alone. */
  barsOf(loop: LoopWish): Bars | null {
    const { bars } = this.#workspace.sheet.form;
    switch (loop.kind) {
      case 'form':
        return bars.length ? { from: 1, to: bars.length } : null;
      case 'bars':
        return { from: loop.from, to: loop.to };
      case 'section':
        return sectionsOf({ bars }).find(({ from }) => from === loop.bar) ?? null;
      default:
        return null;
    }
  }

  /** The bars in which sections begin. */
  get #openings(): readonly number[] {
    const { bars } = this.#workspace.sheet.form;
    return bars
      .filter(({ section }, i) => i === 0 || section !== nth(bars, i - 1).section)
      .map(({ number }) => number);
  }

  /** The bar in which the section begins that sounds or is selected. */
  get #opening(): number {
    const bar = this.#hooks.bar();
    return this.#openings.findLast((opening) => opening <= bar) ?? 1;
  }

  /** Goes on to the next section, which is looped; after the last the first comes again. */
  nextSection(): void {
    const openings = this.#openings;
    const { wish } = this;
    const at = openings.indexOf(wish.kind === 'section' ? wish.bar : this.#opening);
    this.set({ kind: 'section', bar: openings[(at + 1) % openings.length] ?? 1 });
  }

  /** Loops the section that sounds; from there the whole form again. */
  toggleSection(): void {
    this.set(this.wish.kind === 'form' ? { kind: 'section', bar: this.#opening } : { kind: 'form' });
  }
}
