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
  isPlaying = $state(false);
  /** Beats since the take's form began; null at rest. */
  beat: number | null = $state(null);
  #replay: Replay | null = null;
  #frame = 0;

  constructor(takes: Takes) {
    this.#takes = takes;
  }

  /** The whole take from a beat on. */
  async play(from = 0): Promise<void> {
    const data = this.#takes.shelf.opened?.data;
    if (data) await this.#start(Math.max(0, secondOf(data, from) - (from > 0 ? 0 : 0.3)), Infinity, false);
  }

  /** From some beat to another, again and again, with what leads into it. */
  async loop(from: number, to: number): Promise<void> {
    const data = this.#takes.shelf.opened?.data;
    if (data) await this.#start(Math.max(0, secondOf(data, from) - INTO), secondOf(data, to), true);
  }

  async #start(from: number, to: number, isLooped: boolean): Promise<void> {
    this.stop();
    const takes = this.#takes;
    const [sound, audio] = await Promise.all([
      soundWithCall(takes),
      import('$lib/audio/replay').catch(() => null)
    ]);
    if (!audio) {
      takes.notices.problem = NO_PLAYER;
      return;
    }
    if (!sound) {
      takes.notices.problem ||= 'The sound of this take is not kept; its notes are.';
      return;
    }
    const end = Math.min(to, sound.samples.length / sound.rate);
    try {
      this.#replay = await audio.replay(sound, { from: Math.min(from, end), to: end, isLooped }, () =>
        this.stop()
      );
    } catch {
      takes.notices.problem = NO_SOUND;
      return;
    }
    this.isPlaying = true;
    this.#follow();
  }

  #follow(): void {
    const data = this.#takes.shelf.opened?.data;
    if (!this.#replay || !data) return;
    this.beat = beatOf(data, this.#replay.second());
    this.#frame = requestAnimationFrame(() => this.#follow());
  }

  stop(): void {
    cancelAnimationFrame(this.#frame);
    this.#replay?.stop();
    this.#replay = null;
    this.isPlaying = false;
    this.beat = null;
  }
}
