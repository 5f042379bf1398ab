/** A rehearsal of one chart: what is played, how, and where the music is. The sound itself arrives when it is asked for. */
/* eslint-disable svelte/prefer-svelte-reactivity -- the maps here are made anew and never changed in place */
import { DEFAULT_PLAN, type Plan } from '$lib/api/plan';
import type { Player } from '$lib/audio/player';
import { skeletonLine, approachesOf } from '$lib/core/moment/approach-notes';
import { areasOf } from '$lib/core/neck/area';
import { countIn } from '$lib/core/practice/band';
import { drillOf, type DrillNote } from '$lib/core/practice/drill';
import { PARTS, type Part, type SoundEvent } from '$lib/core/practice/events';
import { excerptOf, playedAt, type LoopWish } from '$lib/core/practice/excerpt';
import { FEELS, feelOf } from '$lib/core/practice/feel';
import {
  boundedTempo,
  HIGHEST_TEMPO,
  LOWEST_TEMPO,
  shiftOf,
  tappedTempo,
  tempoOf,
  type KeyOrder,
  type Ladder
} from '$lib/core/practice/ladder';
import { practiceRound, type PracticeRound } from '$lib/core/practice/round';
import { transposeName, transposeText } from '$lib/core/chart/transpose';
import { Workspace } from './workspace.svelte';

/** What the player has set on the desk; kept in the browser, for it belongs to the room and the ears. */
export interface Desk {
  readonly feel: string | null;
  readonly drill: string | null;
  readonly perBeat: 2 | 3 | 4;
  readonly countsIn: boolean;
  readonly halfTime: boolean;
  readonly keys: KeyOrder;
  readonly ladder: (Ladder & { readonly isOn: boolean }) | null;
  /** What the stand hides, to test memory. */
  readonly hides: 'nothing' | 'all but roots' | 'everything';
  /** Minutes of playing after which a rest is proposed; 0 for never. */
  readonly restAfter: number;
  readonly mix: Readonly<Record<Part, { readonly decibels: number; readonly isMuted: boolean }>>;
}

const AT_FIRST: Desk = {
  feel: null,
  drill: null,
  perBeat: 2,
  countsIn: true,
  halfTime: false,
  keys: 'stay',
  ladder: null,
  hides: 'nothing',
  restAfter: 20,
  mix: {
    bass: { decibels: 0, isMuted: false },
    chords: { decibels: 0, isMuted: false },
    drums: { decibels: 0, isMuted: false },
    click: { decibels: -6, isMuted: true },
    line: { decibels: 0, isMuted: false }
  }
};

/** Settings that make other music: the band begins again with them. */
const STARTS_ANEW: readonly (keyof Desk)[] = ['feel', 'drill', 'perBeat', 'keys', 'ladder'];

const PLACE = 'corvel-desk';
const DEFAULT_TEMPO = 100;
/** Beats after a change for which hidden notes are shown. */
const REVEALED = 1;
/** Seconds that drawing a change takes to begin with, and the most that is drawn ahead of the sound. */
const FRAME = 1 / 60;
const LONGEST_AHEAD = 0.06;
/** Milliseconds after a stop for which the level is still shown. */
const LISTENING = 1500;
/** Beats before a change at which its notes begin to show. */
export const FADE_BEATS = 2;

function storedDesk(): Desk {
  try {
    const stored = JSON.parse(localStorage.getItem(PLACE) ?? '{}') as Partial<Desk>;
    return { ...AT_FIRST, ...stored, mix: { ...AT_FIRST.mix, ...stored.mix } };
  } catch {
    return AT_FIRST;
  }
}

export class Rehearsal {
  readonly workspace: Workspace;
  desk: Desk = $state.raw(AT_FIRST);
  loop: LoopWish = $state.raw({ kind: 'form' });
  tempo = $state(DEFAULT_TEMPO);
  /** Something the player should know: no sound, a loop that cannot be. */
  problem = $state('');
  isPlaying = $state(false);
  /** Beats since the first round began; negative while counting in. */
  beat = $state(0);
  round = $state(0);
  /** Rounds marked clean since the ladder began. */
  clean = $state(0);
  wantsRest = $state(false);
  /** Loudness of what sounds, 0 to 1. */
  level = $state(0);
  /** Seconds between the sound of a change and its being on the screen: how many were measured, and their median. */
  lag = $state({ count: 0, median: 0 });
  #lags: number[] = [];
  /** Seconds that the drawing of a change takes, as last seen. */
  #ahead = FRAME;

  #player: Player | null = null;
  #frame = 0;
  #taps: number[] = [];
  #playedSince = 0;

  constructor(workspace: Workspace) {
    this.workspace = workspace;
    this.tempo = boundedTempo(workspace.sheet.head.tempo ?? DEFAULT_TEMPO);
    if (typeof localStorage !== 'undefined') this.desk = storedDesk();
  }

  readonly meter = $derived.by(() => this.workspace.sheet.head.meter);
  readonly feel = $derived.by(
    () =>
      FEELS.find(({ id }) => id === this.desk.feel) ??
      feelOf(this.workspace.sheet.head.feel, this.meter.beats)
  );
  readonly drill = $derived.by(() => (this.desk.drill ? (drillOf(this.desk.drill) ?? null) : null));
  readonly shift = $derived.by(() => shiftOf(this.desk.keys, this.round));
  /** The chart in the key of the round: the player's own plan, or the same moved. */
  readonly shown = $derived.by(() => this.#workspaceIn(this.shift));
  readonly now: PracticeRound | null = $derived.by(() => this.#roundOf(this.round));
  readonly beats = $derived.by(() => this.now?.excerpt.beats ?? 0);

  /** Where the music is within the round. */
  readonly inRound = $derived.by(() => (this.beats ? Math.max(0, this.beat) % this.beats : 0));
  /** Place of the sounding change in the excerpt. */
  readonly at = $derived.by(() => (this.now ? playedAt(this.now.excerpt, this.inRound) : 0));
  readonly change = $derived.by(() => this.now?.excerpt.changes[this.at] ?? null);
  readonly next = $derived.by(() => {
    const changes = this.now?.excerpt.changes ?? [];
    return changes.length > 1 ? changes[(this.at + 1) % changes.length]! : null;
  });
  /** Beats until the chord changes. */
  readonly left = $derived.by(() =>
    this.change ? Math.max(0, this.change.start + this.change.beats - this.inRound) : 0
  );
  /** What is hidden now: at the moment of change everything is shown for a beat, so that memory is answered. */
  readonly hides = $derived.by((): Desk['hides'] => {
    const isRevealed = this.isPlaying && this.change && this.inRound - this.change.start < REVEALED;
    return isRevealed ? 'nothing' : this.desk.hides;
  });
  /** Beats still to be counted before the start. */
  readonly counting = $derived(this.isPlaying && this.beat < 0 ? Math.ceil(-this.beat) : 0);
  /** The note of the drill that sounds. */
  readonly lit: DrillNote | null = $derived.by(() => {
    if (!this.isPlaying || this.beat < 0) return null;
    const at = this.inRound;
    return this.now?.notes.find(({ start, beats }) => at >= start && at < start + beats) ?? null;
  });

  readonly #moved = new Map<string, Workspace>();
  #workspaceIn(shift: number): Workspace {
    const { workspace } = this;
    if (shift === 0) return workspace;
    const key = `${shift} ${JSON.stringify(workspace.plan)} ${workspace.source}`;
    const known = this.#moved.get(key);
    if (known) return known;
    const { tonic } = workspace.analysis.key;
    const moved = new Workspace(
      {
        id: workspace.id,
        version: 0,
        damaged: false,
        source: transposeText(workspace.source, tonic, shift),
        plan: movedPlan(workspace, tonic, shift)
      },
      true
    );
    if (this.#moved.size > 12) this.#moved.clear();
    this.#moved.set(key, moved);
    return moved;
  }

  #roundOf(round: number): PracticeRound | null {
    const shown = this.#workspaceIn(shiftOf(this.desk.keys, round));
    const excerpt = excerptOf(shown.sheet.form, shown.analysis, this.loop);
    if (!excerpt) return null;
    return practiceRound(materialOf(shown), excerpt, this.feel, this.drill, this.desk.perBeat);
  }

  set(part: Partial<Desk>): void {
    this.desk = { ...this.desk, ...part };
    try {
      localStorage.setItem(PLACE, JSON.stringify(this.desk));
    } catch {
      // A browser that keeps nothing still plays.
    }
    if (part.mix) this.#mix();
    if ('halfTime' in part) this.#player?.setTempo(this.#sounding);
    // What is played changes; what is shown, counted or proposed does not stop the band.
    if (this.isPlaying && STARTS_ANEW.some((setting) => setting in part)) void this.play();
  }

  setLoop(loop: LoopWish): void {
    const { form } = this.workspace.sheet;
    if (loop.kind === 'bars' && loop.to < loop.from) {
      this.problem = `The loop ends in bar ${loop.to}, before it starts in bar ${loop.from}; set the end later.`;
      return;
    }
    if (!excerptOf(form, this.workspace.analysis, loop)) {
      this.problem = 'There is nothing to loop there; choose other bars.';
      return;
    }
    this.problem = '';
    this.loop = loop;
    if (this.isPlaying) void this.play();
  }

  /** Takes a tempo as typed; out of range it says so and stays. */
  setTempo(tempo: number): void {
    if (!Number.isFinite(tempo) || tempo < LOWEST_TEMPO || tempo > HIGHEST_TEMPO) {
      this.problem = `The band plays from ${LOWEST_TEMPO} to ${HIGHEST_TEMPO} beats a minute.`;
      return;
    }
    this.problem = '';
    this.tempo = boundedTempo(tempo);
    this.#player?.setTempo(this.#sounding);
  }

  tap(seconds: number): void {
    this.#taps = [...this.#taps, seconds].slice(-5);
    const tempo = tappedTempo(this.#taps);
    if (tempo) this.setTempo(tempo);
    else this.#taps = [seconds];
  }

  /** Beats a minute as they sound: half of them in half-time. */
  get #sounding(): number {
    return this.desk.halfTime ? this.tempo / 2 : this.tempo;
  }

  setMix(part: Part, change: Partial<Desk['mix'][Part]>): void {
    this.set({ mix: { ...this.desk.mix, [part]: { ...this.desk.mix[part], ...change } } });
  }

  #mix(): void {
    for (const part of PARTS) {
      const { decibels, isMuted } = this.desk.mix[part];
      this.#player?.setVolume(part, decibels, isMuted);
    }
  }

  markClean(): void {
    this.clean += 1;
  }

  toggle(): void {
    if (this.isPlaying) this.stop();
    else void this.play();
  }

  /** Starts, or starts anew with what has changed. */
  async play(): Promise<void> {
    if (!this.#roundOf(0)) {
      this.problem = 'There is nothing to play yet; write a chord or two.';
      return;
    }
    try {
      const { Player } = await import('$lib/audio/player');
      this.#player ??= await Player.open();
    } catch {
      this.problem =
        'The browser gives no sound. Look whether it is muted for this page, then press play again.';
      this.isPlaying = false;
      return;
    }
    this.problem = '';
    this.round = 0;
    this.clean = 0;
    this.beat = 0;
    this.#startLadder();
    this.#mix();
    const rounds = new Map<number, PracticeRound>();
    const { beats } = this.#roundOf(0)!.excerpt;
    this.#player.start({
      beats,
      countIn: this.desk.countsIn ? countIn(this.meter.beats) : [],
      roundOf: (round) => {
        let known = rounds.get(round);
        if (!known) rounds.set(round, (known = this.#roundOf(round)!));
        return known;
      },
      tempo: this.#sounding
    });
    this.isPlaying = true;
    this.#playedSince = performance.now();
    cancelAnimationFrame(this.#frame);
    this.#frame = requestAnimationFrame(() => this.#follow());
  }

  #startLadder(): void {
    const { ladder } = this.desk;
    if (ladder?.isOn) this.tempo = tempoOf(ladder, 0, 0);
  }

  stop(): void {
    this.#player?.stop();
    cancelAnimationFrame(this.#frame);
    this.isPlaying = false;
    this.beat = 0;
    this.round = 0;
    this.#fade(performance.now());
  }

  /** Goes on listening for a moment after the stop. */
  #fade(since: number): void {
    this.level = this.#player?.level ?? 0;
    if (!this.isPlaying && this.#player && performance.now() - since < LISTENING) {
      this.#frame = requestAnimationFrame(() => this.#fade(since));
    }
  }

  /** Follows the audio clock, frame by frame. */
  #follow(): void {
    const beat = this.#player?.beat ?? null;
    if (beat === null || !this.isPlaying) return;
    this.level = this.#player?.level ?? 0;
    const before = this.at;
    // What is drawn now is seen when it has been drawn.
    const seen = beat < 0 ? beat : beat + (this.#ahead * this.#sounding) / 60;
    const round = Math.max(0, Math.floor(seen / Math.max(1, this.beats)));
    if (round !== this.round) this.#nextRound(round);
    this.beat = seen;
    if (this.at !== before && this.change) {
      this.shown.select(this.change.source.index, false);
      const sounded = seen - (this.inRound - this.change.start);
      const begun = performance.now();
      requestAnimationFrame(() => this.#measure(sounded, (performance.now() - begun) / 1000));
    }
    const minutes = (performance.now() - this.#playedSince) / 60_000;
    if (this.desk.restAfter > 0 && minutes >= this.desk.restAfter) {
      this.wantsRest = true;
      this.#playedSince = performance.now();
    }
    this.#frame = requestAnimationFrame(() => this.#follow());
  }

  /** Notes how far the sound has gone past a beat by the time that its change is on the screen. */
  #measure(beat: number, drawing: number): void {
    const now = this.#player?.beat ?? null;
    if (now === null) return;
    this.#ahead = Math.min(LONGEST_AHEAD, 0.8 * this.#ahead + 0.2 * drawing);
    this.#lags = [...this.#lags, (Math.abs(now - beat) * 60) / this.#sounding];
    const ordered = [...this.#lags].sort((a, b) => a - b);
    this.lag = { count: ordered.length, median: ordered[Math.floor(ordered.length / 2)]! };
  }

  #nextRound(round: number): void {
    this.round = round;
    const { ladder } = this.desk;
    if (!ladder?.isOn) return;
    const tempo = tempoOf(ladder, round, this.clean);
    if (tempo !== this.tempo) this.setTempo(tempo);
  }

  close(): void {
    this.stop();
    cancelAnimationFrame(this.#frame);
    this.#player?.close();
    this.#player = null;
  }

  /** All that is heard in one round: for files. */
  get events(): readonly SoundEvent[] {
    return this.now?.events ?? [];
  }
}

/** What a plan gives to a round. */
function materialOf(workspace: Workspace) {
  const { analysis, path, chosen, neck, tones, plan } = workspace;
  const approaches = workspace.approaches.size
    ? workspace.approaches
    : path
      ? approachesOf(analysis, path, chosen, neck, plan.loop, () => 'fitting' as const)
      : new Map<number, never[]>();
  return {
    analysis,
    areas: workspace.areas,
    targets: workspace.targets,
    line: path ? skeletonLine(analysis, path, approaches, tones) : [],
    areasUp: (change: number) => {
      const subject = workspace.subjects[change];
      return subject ? areasOf(neck, workspace.organisation, analysis.key, subject) : [];
    }
  };
}

/** The plan in another key: the hand moves as far, an octave down where the neck ends; choices keep their kind. */
function movedPlan({ plan, neck, highestPosition }: Workspace, tonic: string, shift: number): Plan {
  const by = plan.position + shift > highestPosition ? shift - 12 : shift;
  const moved = (position: number) => Math.min(highestPosition, Math.max(neck.capo, position + by));
  return {
    ...DEFAULT_PLAN,
    ...plan,
    position: moved(plan.position),
    positions: plan.positions.map((own) => ({ ...own, position: moved(own.position) })),
    fixed: plan.fixed
      .map((pin) => ({ ...pin, fret: pin.fret + by }))
      .filter(({ fret }) => fret >= neck.capo && fret <= neck.frets),
    choices: plan.choices.map((choice) => ({
      ...choice,
      name: transposeName(choice.name, tonic, shift),
      ...(choice.then
        ? { then: { ...choice.then, name: transposeName(choice.then.name, tonic, shift) } }
        : {})
    })),
    overrules: plan.overrules.map((own) => ({
      ...own,
      ...(own.key ? { key: transposeName(own.key, tonic, shift) } : {})
    }))
  };
}
