/** What the stand shows: the change that sounds and the next one, how far it is, what is run over it, what is hidden. */
import { nth } from '$lib/core/base/list';
import { playedAt } from '$lib/core/harmony/excerpt';
import type { Line, NotePlace } from '$lib/core/line/model';
import type { LaidRound } from '$lib/core/practice/clock';
import { momentsIn, passesOne, type PracticeRound } from '$lib/core/practice/round';
import { runOver, type RunNote } from '$lib/core/practice/run-over';
import type { Place } from '$lib/core/takes/judge/landing';
import type { Workspace } from '../chart/workspace.svelte';
import type { Desk, DeskSettings } from './desk.svelte';
import type { Keys } from './keys.svelte';
import type { BandRound, Rounds } from './rounds.svelte';
import type { Tempo } from './tempo.svelte';
import type { Transport } from './transport.svelte';

/** Beats after a change for which hidden notes are shown. */
const REVEALED = 1;
/** Seconds before a change at which the next chord comes to the foreground, unless a bar is longer. */
const COMING_SECONDS = 2;

const wantsCalm = () => globalThis.matchMedia?.('(prefers-reduced-motion: reduce)').matches ?? false;

/** A change that sounds, and the note that is meant at it: MIDI number, null for any of its chord. */
export interface MeantLanding {
  readonly change: number;
  readonly wanted: number | null;
  readonly place: Place;
}

interface Seen {
  readonly workspace: Workspace;
  readonly desk: Desk;
  readonly keys: Keys;
  readonly tempo: Tempo;
  readonly rounds: Rounds;
  readonly transport: Transport;
}

export class Picture {
  readonly #of: Seen;

  constructor(of: Seen) {
    this.#of = of;
  }

  /** The chart in the key of the round: the player's own plan, or the same moved. */
  readonly shown: Workspace = $derived.by(() => {
    const { workspace, keys, transport } = this.#of;
    const sounding = transport.laid?.round;
    // A text that is edited while it sounds is shown, as it is played, from the next round on.
    const isOther = sounding && sounding.source !== workspace.document.source;
    return keys.chartIn(transport.round, isOther ? sounding : workspace.document);
  });
  /** The round that sounds, at rest the first one. */
  readonly now: PracticeRound | null = $derived.by(
    () =>
      this.#of.transport.laid?.round.practice ??
      this.#of.rounds.of(this.shown, { round: 0, tempo: this.#of.tempo.sounding, isLast: false })
  );
  readonly beats = $derived.by(() => this.now?.excerpt.beats ?? 0);
  /** The line in the key that is shown. */
  readonly line: Line | null = $derived.by(() => this.#of.rounds.lineIn(this.#of.transport.round));

  /** Where the music is within the round. */
  readonly inRound = $derived.by(() => {
    const { laid, beat } = this.#of.transport;
    return this.beats ? Math.min(Math.max(0, beat - (laid?.start ?? 0)), this.beats - 1e-6) : 0;
  });
  /** The same as it is written: what swings is drawn where its notes stand. */
  readonly written = $derived.by(() => this.now?.writtenAt(this.inRound) ?? 0);
  /** Place in the excerpt of the change that is shown: the sounding one, at rest the selected one; −1 where that is not played. */
  readonly at = $derived.by(() => {
    if (!this.now) return -1;
    const { excerpt } = this.now;
    if (this.#of.transport.isPlaying) return playedAt(excerpt, this.inRound);
    return excerpt.changes.findIndex(({ source }) => source.index === this.shown.selected);
  });
  readonly change = $derived.by(() => this.now?.excerpt.changes[this.at] ?? null);
  readonly next = $derived.by(() => {
    const changes = this.now?.excerpt.changes ?? [];
    return changes.length > 1 && this.at >= 0 ? nth(changes, (this.at + 1) % changes.length) : null;
  });
  /** Beats until the chord changes. */
  readonly left = $derived.by(() =>
    this.change ? Math.max(0, this.change.start + this.change.beats - this.inRound) : 0
  );
  /** How much of the change has sounded, as it is written, 0 to 1. */
  readonly into = $derived.by(() =>
    this.change ? Math.max(0, this.written - this.change.start) / this.change.beats : 0
  );
  /** Whether the next chord comes soon: within two seconds, or a bar where that is longer. */
  readonly isComing = $derived.by(() => {
    if (!this.#of.transport.isPlaying || !this.next || !this.now) return false;
    const bar = this.now.excerpt.bars.findLast(({ start }) => start <= this.inRound + 1e-9);
    const seconds = (this.left * 60) / this.#of.tempo.sounding;
    return seconds <= COMING_SECONDS || this.left <= (bar?.beats ?? 0) + 1e-9;
  });
  /** Beats still to be counted before the start. */
  readonly counting = $derived.by(() => {
    const { isPlaying, beat } = this.#of.transport;
    return isPlaying && beat < 0 ? Math.ceil(-beat) : 0;
  });
  /** What is hidden now: at the moment of change everything is shown for a beat, so that memory is answered. */
  readonly hides: DeskSettings['hides'] = $derived.by(() => {
    const isRevealed =
      this.#of.transport.isPlaying && this.change && this.inRound - this.change.start < REVEALED;
    return isRevealed ? 'nothing' : this.#of.desk.now.hides;
  });

  /** The drill's run over the change that is shown. */
  readonly run: readonly RunNote[] = $derived.by(() =>
    this.now && this.change ? runOver(this.now, this.change) : []
  );
  /** The first note of the run over the coming chord. */
  readonly firstOver = $derived.by(() => {
    const first = this.now && this.next ? runOver(this.now, this.next)[0] : undefined;
    return first?.place ? { place: first.place, degree: first.degree } : null;
  });
  /** The place of the drill's note that sounds. */
  readonly lit: NotePlace | null = $derived.by(() => {
    const { isPlaying, beat } = this.#of.transport;
    if (!isPlaying || beat < 0 || !this.now) return null;
    const at = this.inRound;
    const { notes, times } = this.now;
    const sounds = times.findIndex(({ start, beats }) => at >= start && at < start + beats);
    return notes[sounds]?.place ?? null;
  });

  /** The changes of the round that sounds with what is meant at them, in beats since the first round began; null at rest. */
  readonly landings: readonly MeantLanding[] | null = $derived.by(() => {
    const { laid } = this.#of.transport;
    if (!laid) return null;
    const { targets } = this.shown.paths;
    return laid.round.practice.excerpt.changes.flatMap(({ source, start, beats }): MeantLanding[] => {
      const { chord, index } = source;
      if (!chord) return [];
      const from = laid.start + start;
      const wanted = targets.get(index)?.cell.midi ?? null;
      return [{ change: index, wanted, place: { start: from, end: from + beats, chord } }];
    });
  });

  readonly #moments = $derived.by(() => (this.now ? momentsIn(this.now) : []));
  /** Whether anything but a gliding playhead is to be seen; where motion is not wished for, nothing glides. */
  isStep(laid: LaidRound<BandRound> | null, beat: number): boolean {
    const { transport } = this.#of;
    if (!wantsCalm() || laid !== transport.laid || beat < 0 || transport.beat < 0) return true;
    const start = laid?.start ?? 0;
    return beat < transport.beat || passesOne(this.#moments, transport.beat - start, beat - start);
  }

  /** Shows another beat, and selects the change that comes with it; gives the beats since that change, null where it is the same. */
  show(step: () => void): number | null {
    const before = this.change;
    step();
    if (this.change === before || !this.change) return null;
    this.shown.select(this.change.source.index, false);
    return this.inRound - this.change.start;
  }
}
