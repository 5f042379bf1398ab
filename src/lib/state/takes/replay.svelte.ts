/** Replaying a take: its sound, and where it is in the beats of the form. */
import { beatOf, secondOf } from '$lib/core/takes/align';
import type { Replay } from '$lib/audio/replay';
import { NO_PLAYER, NO_SOUND } from '../no-sound';
import { soundWithCall } from './sound';
import type { Takes } from './takes.svelte';

/** Seconds before a change that are heard with it. */
const INTO = 1.2;

export class Replaying {
  readonly #takes: Takes;
  /** From the press on, also while the sound is still being fetched. */
  isPlaying = $state(false);
  /** Beats since the take's form began; null at rest. */
  beat: number | null = $state(null);
  #replay: Replay | null = null;
  #frame = 0;
  /** Which start was asked for last: one that was stopped or followed by another while it was on its way does not sound. */
  #start = 0;

  constructor(takes: Takes) {
    this.#takes = takes;
  }

  /** The second of the sound that is heard now; null at rest. */
  get second(): number | null {
    const data = this.#takes.shelf.opened?.data;
    return data && this.beat !== null ? secondOf(data, this.beat) : null;
  }

  /** The whole take from a beat on. */
  async play(from = 0): Promise<void> {
    const data = this.#takes.shelf.opened?.data;
    if (data) await this.#begin(Math.max(0, secondOf(data, from) - (from > 0 ? 0 : 0.3)), Infinity, false);
  }

  /** From some beat to another, again and again, with what leads into it. */
  async loop(from: number, to: number): Promise<void> {
    const data = this.#takes.shelf.opened?.data;
    if (data) await this.#begin(Math.max(0, secondOf(data, from) - INTO), secondOf(data, to), true);
  }

  async #begin(from: number, to: number, isLooped: boolean): Promise<void> {
    this.stop();
    const start = ++this.#start;
    this.isPlaying = true;
    const problem = await this.#sounding(from, to, isLooped, () => this.#start === start);
    if (problem === null || this.#start !== start) return;
    this.stop();
    this.#takes.notices.problem ||= problem;
  }

  /** Has the sound begin where it is still wanted; gives why it cannot. */
  async #sounding(
    from: number,
    to: number,
    isLooped: boolean,
    isWanted: () => boolean
  ): Promise<string | null> {
    const takes = this.#takes;
    const [sound, audio] = await Promise.all([
      soundWithCall(takes),
      import('$lib/audio/replay').catch(() => null)
    ]);
    if (!audio) return NO_PLAYER;
    if (!sound) return 'The sound of this take is not kept; its notes are.';
    if (!isWanted()) return null;
    const end = Math.min(to, sound.samples.length / sound.rate);
    try {
      const replay = await audio.replay(sound, { from: Math.min(from, end), to: end, isLooped }, () => {
        if (isWanted()) this.stop();
      });
      if (!isWanted()) {
        replay.stop();
        return null;
      }
      this.#replay = replay;
    } catch {
      return NO_SOUND;
    }
    this.#follow();
    return null;
  }

  #follow(): void {
    const data = this.#takes.shelf.opened?.data;
    if (!this.#replay || !data) return;
    this.beat = beatOf(data, this.#replay.second());
    this.#frame = requestAnimationFrame(() => this.#follow());
  }

  stop(): void {
    this.#start++;
    cancelAnimationFrame(this.#frame);
    this.#replay?.stop();
    this.#replay = null;
    this.isPlaying = false;
    this.beat = null;
  }
}
