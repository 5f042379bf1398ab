/** The band's own ear: what the player does in a bar moves what the band does from the next one on. */
import { nth } from '$lib/core/base/list';
import { pulsesOf } from '$lib/core/chart/pulses';
import type { ExcerptBar } from '$lib/core/harmony/excerpt';
import { afterBar, startFollowing, type Following } from '$lib/core/practice/following';

export class Follower {
  /** Null while the player is not listened to. */
  #following: Following | null = $state.raw(null);
  #notes = 0;
  #peak = 0;
  /** The bar that sounds, counted from the start. */
  #bar: number | null = null;

  /** How much the band gives, 0 to 1; null where it goes its own way. */
  get intensity(): number | null {
    return this.#following?.intensity ?? null;
  }

  get room(): number {
    return this.#following?.room ?? 0;
  }

  hearNote(): void {
    this.#notes += 1;
  }

  hearLevel(peak: number): void {
    this.#peak = Math.max(this.#peak, peak);
  }

  /** The same, by the beat that sounds of a round, which has these bars. */
  along(
    beat: number,
    { start, number }: { readonly start: number; readonly number: number },
    bars: readonly ExcerptBar[],
    base: number
  ): boolean {
    const at = bars.findLastIndex((bar) => bar.start <= beat - start + 1e-9);
    return at >= 0 && this.at(number * bars.length + at, pulsesOf(nth(bars, at)).length, base);
  }

  /**
   * Told where the music is, again and again. Tells whether a bar is over that changes what the band does.
   * @param bar counted over all rounds
   * @param pulses of a bar
   * @param base what the band gives where the player is silent
   */
  at(bar: number, pulses: number, base: number): boolean {
    if (this.#bar === null || bar < this.#bar) {
      this.#bar = bar;
      this.#notes = this.#peak = 0;
      return false;
    }
    if (bar === this.#bar) return false;
    this.#bar = bar;
    const before = this.#following ?? startFollowing(base);
    const heard = { notes: this.#notes, pulses, peak: this.#peak };
    this.#notes = this.#peak = 0;
    this.#following = afterBar(before, heard, base);
    return true;
  }

  forget(): void {
    this.#following = null;
    this.#bar = null;
    this.#notes = this.#peak = 0;
  }
}
