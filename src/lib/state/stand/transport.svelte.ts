/** What plays: the sound, started and stopped, and where the music is by its clock. The sound itself arrives when it is asked for. */
import type { Player } from '$lib/audio/player';
import { firstOf } from '$lib/core/base/list';
import { countIn } from '$lib/core/practice/band';
import type { LaidRound } from '$lib/core/practice/clock';
import { PARTS } from '$lib/core/practice/events';
import type { Backing } from './backing.svelte';
import { NO_PLAYER, NO_SOUND } from '../no-sound';
import type { Workspace } from '../chart/workspace.svelte';
import type { Desk } from './desk.svelte';
import { Lag } from './lag.svelte';
import type { Notice } from './notice.svelte';
import type { BandRound, Rounds } from './rounds.svelte';
import type { Tempo } from './tempo.svelte';

/** Milliseconds after a stop for which the level is still shown. */
const LISTENING = 1500;

interface Hooks {
  readonly workspace: Workspace;
  readonly desk: Desk;
  readonly tempo: Tempo;
  readonly rounds: Rounds;
  readonly backing: Backing;
  readonly notice: Notice;
  /** The chart that a round would be of now. */
  readonly chartOfNow: () => Workspace;
  /** The round to come; null where the chart has nothing to play any more. */
  readonly lay: (round: number) => BandRound | null;
  /** Before the band starts; `isFresh`: it was silent. */
  readonly onstart: (isFresh: boolean) => void;
  /** A round, or a part of one, has sounded for some seconds. */
  readonly onsounded: (laid: LaidRound<BandRound>, seconds: number, isWhole: boolean) => void;
  readonly onround: (laid: LaidRound<BandRound>) => void;
  /** With every tick of the audio clock. `seconds`: of playing since the start. */
  readonly ontick: (beat: number, laid: LaidRound<BandRound> | null, seconds: number) => void;
  /** Whether anything but a gliding playhead is to be seen at a beat. */
  readonly isStep: (laid: LaidRound<BandRound> | null, beat: number) => boolean;
  /** A beat is shown. Gives the beats since the change that is seen for the first time with it; null where none is. */
  readonly onshown: (show: () => void) => number | null;
}

export class Transport {
  isPlaying = $state(false);
  /** Beats since the first round began; negative while counting in. */
  beat = $state(0);
  round = $state(0);
  /** What is laid down of the round that sounds: its notes, and the chart they were made of. */
  laid: LaidRound<BandRound> | null = $state.raw(null);
  /** Loudness of what sounds, 0 to 1. */
  level = $state(0);
  readonly lag = new Lag();
  /** Events of this playing that were handed to the sound after their time. */
  late = $state(0);
  /** What is known of the band's sounds. */
  sounds: 'on their way' | 'here' | 'plain' = $state('on their way');

  readonly #hooks: Hooks;
  #player: Player<BandRound> | null = null;
  #frame = 0;
  /** Seconds of playing at which the round that sounds began. */
  #roundBegan = 0;

  constructor(hooks: Hooks) {
    this.#hooks = hooks;
  }

  /** When the first beat sounds by the audio clock, and at which tempo; null at rest. */
  get firstBeat(): { readonly second: number; readonly tempo: number } | null {
    return this.#player?.firstBeat ?? null;
  }
  /** The audio clock, in seconds; null at rest. */
  get audioNow(): number | null {
    return this.#player?.now ?? null;
  }
  /** The beat that sounds now, by the clock and not by the picture; null at rest. */
  get soundingBeat(): number | null {
    return this.#player?.beat ?? null;
  }
  /** The beat that sounds at a second of the audio clock; null at rest. */
  beatAt(second: number): number | null {
    return this.#player?.beatAt(second) ?? null;
  }

  /** Fetches the sounds and all that plays them before they are asked for: then the network may go away. */
  async fetchSounds(): Promise<void> {
    try {
      const [{ loadSounds }] = await Promise.all([
        import('$lib/audio/sounds'),
        import('$lib/audio/player'),
        import('$lib/audio/backing')
      ]);
      this.sounds = (await loadSounds()).arePlain ? 'plain' : 'here';
    } catch {
      // Told when play is pressed, if it is still so.
      this.sounds = 'plain';
    }
  }

  toggle(): void {
    if (this.isPlaying) this.stop();
    else void this.play();
  }

  /** Starts, or starts anew with what has changed. */
  async play(): Promise<void> {
    const { tempo, rounds, backing, desk, notice, chartOfNow, lay, onstart } = this.#hooks;
    const first = rounds.of(chartOfNow(), { round: 0, tempo: tempo.sounding, isLast: false });
    if (!first) {
      notice.problem = 'There is nothing to play yet; write a chord or two.';
      return;
    }
    const arrived = await import('$lib/audio/player').catch(() => null);
    try {
      this.#player ??= (await arrived?.Player.open<BandRound>()) ?? null;
    } catch {
      this.#player = null;
    }
    if (!this.#player) {
      notice.problem = arrived ? NO_SOUND : NO_PLAYER;
      this.isPlaying = false;
      return;
    }
    notice.problem = '';
    // What sounded until it begins anew.
    this.#tell(false);
    this.laid = null;
    this.round = 0;
    this.beat = 0;
    onstart(!this.isPlaying);
    this.#player.setChordSound(rounds.chordSound);
    this.#player.setBacking(backing.playing?.sound ?? null, (rate) => backing.stretched(rate));
    this.mix();
    this.#player.start({
      // In the meter of what is looped, which need not be that of the chart.
      countIn: desk.now.countsIn ? countIn(firstOf(first.excerpt.bars), rounds.feel) : [],
      roundOf: lay,
      tempo: tempo.sounding,
      onTick: () => this.#tick()
    });
    this.isPlaying = true;
    this.#tick();
    cancelAnimationFrame(this.#frame);
    this.#frame = requestAnimationFrame(() => this.#follow());
  }

  stop(): void {
    this.#tell(false);
    this.#player?.stop();
    cancelAnimationFrame(this.#frame);
    this.isPlaying = false;
    this.laid = null;
    this.beat = 0;
    this.round = 0;
    this.#fade(performance.now());
  }

  /** Another tempo from now on. */
  retime(): void {
    this.#player?.setTempo(this.#hooks.tempo.sounding);
  }

  mix(): void {
    for (const part of PARTS) {
      const { decibels, isMuted } = this.#hooks.desk.now.mix[part];
      this.#player?.setVolume(part, decibels, isMuted);
    }
  }

  /** What the band plays from the next bar on is made anew. */
  relay(): void {
    this.#player?.relay((laid, from) => this.#hooks.rounds.laidAnew(laid, from));
  }

  /** Goes on listening for a moment after the stop. */
  #fade(since: number): void {
    this.level = this.#player?.level ?? 0;
    if (!this.isPlaying && this.#player && performance.now() - since < LISTENING)
      this.#frame = requestAnimationFrame(() => this.#fade(since));
  }

  /** Tells of the round that has sounded so far. */
  #tell(isWhole: boolean): void {
    const { laid } = this;
    const player = this.#player;
    if (!laid || !player) return;
    const seconds = player.seconds - this.#roundBegan;
    this.#roundBegan = player.seconds;
    this.#hooks.onsounded(laid, seconds, isWhole);
  }

  /** What goes on by the audio clock whether the page is seen or not: rounds, ladder, rests, the end. */
  #tick(): void {
    const player = this.#player;
    const beat = player?.beat ?? null;
    if (!player || beat === null) return;
    this.#enter(player.roundAt(beat));
    this.#hooks.ontick(beat, this.laid, player.seconds);
    if (beat >= player.end && player.end > 0) {
      this.stop();
      this.#hooks.notice.problem = 'The chart has no chords any more; the band has stopped.';
    }
  }

  #enter(laid: LaidRound<BandRound> | null): void {
    if (!laid || laid === this.laid) return;
    if (laid.number === this.laid?.number) {
      this.laid = laid;
      return;
    }
    if (this.laid) this.#tell(true);
    else this.#roundBegan = this.#player?.seconds ?? 0;
    this.laid = laid;
    this.round = laid.number;
    this.#hooks.onround(laid);
  }

  /** Follows the audio clock, frame by frame. */
  #follow(): void {
    const player = this.#player;
    const beat = player?.beat ?? null;
    if (!player || beat === null || !this.isPlaying) return;
    // What is drawn now is seen when it has been drawn.
    const seen = beat < 0 ? beat : beat + (this.lag.ahead * player.tempoAt(beat)) / 60;
    this.#frame = requestAnimationFrame(() => this.#follow());
    if (!this.#hooks.isStep(player.roundAt(seen), seen)) return;
    this.level = player.level;
    this.late = player.late;
    const since = this.#hooks.onshown(() => {
      this.#enter(player.roundAt(seen));
      this.beat = seen;
    });
    if (since === null) return;
    const begun = performance.now();
    requestAnimationFrame(() => this.#measure(seen - since, (performance.now() - begun) / 1000));
  }

  /** Notes how far the sound has gone past a beat by the time that its change is on the screen. */
  #measure(beat: number, drawing: number): void {
    const now = this.#player?.beat ?? null;
    if (now !== null) this.lag.add((Math.abs(now - beat) * 60) / this.#hooks.tempo.sounding, drawing);
  }

  close(): void {
    this.stop();
    cancelAnimationFrame(this.#frame);
    this.#player?.close();
    this.#player = null;
  }
}
