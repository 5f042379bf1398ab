/** A rehearsal of one chart: the rooms of the stand, put together. Each does one thing; what one means for another is said here. */
import type { RecordedRow } from '$lib/api/practice';
import type { LaidRound } from '$lib/core/practice/clock';
import { tempoOf } from '$lib/core/practice/ladder';
import type { Now } from '$lib/core/practice/progress/live';
import type { PracticeRound } from '$lib/core/practice/round';
import { Backing } from './backing.svelte';
import { Follower } from './follower.svelte';
import { Pedals, type PedalAction } from './pedals.svelte';
import { logBox } from '../practice/practice-log';
import { Recorder } from '../practice/recorder';
import type { Workspace } from '../chart/workspace.svelte';
import type { Assignment } from '../practice/assignment';
import { Assigned } from './assignment.svelte';
import { Desk, startsAnew, type DeskSettings } from './desk.svelte';
import { Keys } from './keys.svelte';
import { Loop } from './loop.svelte';
import { Marks } from './marks.svelte';
import { Notice } from './notice.svelte';
import { Picture } from './picture.svelte';
import { Rest } from './rest.svelte';
import { Rounds, type BandRound } from './rounds.svelte';
import { Tempo } from './tempo.svelte';
import { Transport } from './transport.svelte';

/** Milliseconds after the last correction of a recording's beat at which what plays begins again with it. */
const SETTLED = 400;
/** Beats a minute that a pedal goes up or down. */
export const TEMPO_STEP = 4;
/** How much more the band gives by a key or pedal. */
export const INTENSITY_STEP = 0.1;

interface Options {
  /** Where the rows of the log go. */
  readonly write?: (...rows: RecordedRow[]) => void;
  /** The band alone, at one tempo and in one key, whatever the desk says: a take is played to it. */
  readonly isForTake?: boolean;
}

export class Rehearsal {
  readonly workspace: Workspace;
  readonly notice = new Notice();
  readonly desk: Desk;
  readonly tempo: Tempo;
  readonly loop: Loop;
  readonly keys: Keys;
  readonly rounds: Rounds;
  readonly transport: Transport;
  readonly picture: Picture;
  readonly marks: Marks;
  readonly assigned: Assigned;
  /** A recording of the player's own, which may take the band's place. */
  readonly backing: Backing;
  /** The band listens to a player whom the stand hears: told with every tick, and with what is heard. */
  readonly follower = new Follower();
  readonly pedals: Pedals;
  isHeard = $state(false);
  readonly rest = new Rest();
  readonly #isForTake: boolean;
  #again: ReturnType<typeof setTimeout> | undefined;

  constructor(
    workspace: Workspace,
    { write = (...rows) => logBox.put(...rows), isForTake = false }: Options = {}
  ) {
    this.workspace = workspace;
    this.#isForTake = isForTake;
    const { notice, follower } = this;
    this.backing = new Backing(workspace.document.id, () => this.#followBacking());
    this.desk = new Desk((part) => this.#onset(part));
    this.tempo = new Tempo(workspace.sheet.head.tempo, {
      desk: this.desk,
      notice,
      grid: () => this.backing.playing?.grid ?? null,
      onset: () => this.transport.retime()
    });
    this.loop = new Loop(workspace, {
      notice,
      bar: () => (this.transport.isPlaying ? this.picture.change?.source.bar : workspace.change?.bar) ?? 1,
      onset: () => this.#playAgain()
    });
    // A recording stays in its own key, a line where it is told.
    this.keys = new Keys(workspace, () =>
      this.backing.playing || isForTake ? 'stay' : this.rounds.line ? this.keys.lineKeys : this.desk.now.keys
    );
    const { desk, tempo, loop, keys, backing } = this;
    this.rounds = new Rounds({ workspace, desk, keys, tempo, loop, backing, follower, isForTake });
    const { rounds } = this;
    this.marks = new Marks(new Recorder(write), {
      workspace,
      loop,
      moves: () => this.#ladder === null,
      onclimb: (...climb) => this.#climb(...climb)
    });
    this.transport = new Transport({
      workspace,
      desk,
      tempo,
      rounds,
      backing,
      notice,
      chartOfNow: () => keys.chartIn(0, workspace.document),
      lay: (round) => rounds.lay(round, this.marks.clean),
      onstart: (isFresh) => this.#start(isFresh),
      onsounded: (laid, seconds, isWhole) =>
        this.marks.write(this.assigned.playing(laid, this.picture.shown), seconds, isWhole),
      onround: (laid) => this.#enter(laid),
      ontick: (...tick) => this.#tick(...tick),
      isStep: (laid, beat) => this.picture.isStep(laid, beat),
      onshown: (show) => this.picture.show(show)
    });
    const { transport, marks } = this;
    this.picture = new Picture({ workspace, desk, keys, tempo, rounds, transport });
    this.assigned = new Assigned({ workspace, desk, keys, tempo, loop, rounds, marks, notice });
    this.pedals = new Pedals((action) => this.#press(action));
  }

  /** The desk's ladder, where it moves the tempo. */
  get #ladder() {
    return this.#isForTake ? null : this.desk.ladder;
  }

  /** One round for a file: the band ends with it, on the I where it is wished. */
  get forFile(): PracticeRound | null {
    const { rounds, picture, transport, tempo, desk } = this;
    return rounds.of(picture.shown, {
      round: transport.round,
      tempo: tempo.sounding,
      isLast: true,
      ending: desk.now.ends
    });
  }

  /** How much the band gives now. */
  readonly intensity = $derived.by(() => this.rounds.intensityIn(this.transport.round));

  /** More or less of the band, heard from the next bar on. */
  changeIntensity(by: number): void {
    this.setIntensity(this.desk.now.intensity + by);
  }

  setIntensity(intensity: number): void {
    this.desk.set({ intensity: Math.round(Math.min(1, Math.max(0, intensity)) * 20) / 20 });
    this.transport.relay();
  }

  toggleLost(): void {
    this.rounds.isLost = !this.rounds.isLost;
    this.transport.relay();
  }

  /** Here it went wrong. */
  stumble(): void {
    const { laid, isPlaying, soundingBeat } = this.transport;
    if (isPlaying && laid && soundingBeat !== null) this.marks.stumble(laid, soundingBeat);
  }

  /** Opens the stand for something that is practised. */
  async assign(assignment: Assignment): Promise<void> {
    if (this.transport.isPlaying) this.transport.stop();
    await this.assigned.take(assignment);
  }

  #press(action: PedalAction): void {
    const { transport, loop, tempo, marks } = this;
    const act: Readonly<Record<PedalAction, () => void>> = {
      play: () => transport.toggle(),
      next: () => loop.nextSection(),
      loop: () => loop.toggleSection(),
      faster: () => tempo.change(TEMPO_STEP),
      slower: () => tempo.change(-TEMPO_STEP),
      more: () => this.changeIntensity(INTENSITY_STEP),
      less: () => this.changeIntensity(-INTENSITY_STEP),
      clean: () => marks.mark(true),
      stumble: () => this.stumble(),
      lost: () => transport.isPlaying && this.toggleLost()
    };
    act[action]();
  }

  #playAgain(): void {
    if (this.transport.isPlaying) void this.transport.play();
  }

  /** What is played changes; what is shown, counted or proposed does not stop the band. */
  #onset(part: Partial<DeskSettings>): void {
    if (part.mix) this.transport.mix();
    if ('halfTime' in part) this.transport.retime();
    if (startsAnew(part)) this.#playAgain();
  }

  #start(isFresh: boolean): void {
    this.marks.start(isFresh);
    this.rest.start();
    this.follower.forget();
    this.rounds.isLost = false;
    this.backing.stopTapping();
    const ladder = this.#ladder;
    if (ladder) this.tempo.value = tempoOf(ladder, 0, 0);
  }

  #enter({ number, round }: LaidRound<BandRound>): void {
    this.keys.prepare(number + 1);
    // A ladder brings its tempo with the round; what the player has set since stands.
    if (this.#ladder) this.tempo.followSounding(round.tempo);
  }

  #tick(beat: number, laid: LaidRound<BandRound> | null, seconds: number): void {
    this.#listenAlong(beat, laid);
    this.rest.at(seconds);
  }

  #listenAlong(beat: number, laid: LaidRound<BandRound> | null): void {
    const { follower, desk } = this;
    if (!laid || !this.isHeard || !desk.now.follows || this.#isForTake) {
      if (follower.intensity !== null) follower.forget();
      return;
    }
    const asked = this.rounds.askedIn(laid.number);
    if (follower.along(beat, laid, laid.round.practice.excerpt.bars, asked)) this.transport.relay();
  }

  /** Another stretch of the part, with a count-in where the band plays; and the tempo of its ladder. */
  #climb(now: Now, isOtherStretch: boolean, hasLoops: boolean): void {
    if (isOtherStretch) {
      this.loop.grant(
        now.bars ? { kind: 'bars', ...now.bars } : (this.assigned.now?.over ?? { kind: 'form' })
      );
      this.#playAgain();
    }
    if (isOtherStretch || hasLoops) this.tempo.followSounding(now.tempo);
  }

  /** Another recording, or another beat of it: the tempo is its own, and what plays begins again. */
  #followBacking(): void {
    const grid = this.backing.playing?.grid;
    if (grid) this.tempo.follow(grid.tempo);
    // Not with every step of a drag.
    clearTimeout(this.#again);
    if (this.transport.isPlaying) this.#again = setTimeout(() => this.#playAgain(), SETTLED);
  }

  close(): void {
    clearTimeout(this.#again);
    this.transport.close();
    this.keys.close();
    this.pedals.close();
    this.backing.close();
  }
}
