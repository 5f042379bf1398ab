/** What the stand tells while it is played: the note that is heard, and how each change was met. */
/* eslint-disable svelte/prefer-svelte-reactivity -- maps here are made anew, never changed in place */
import { lastOf } from '$lib/core/base/list';
import type { BeatNote } from '$lib/core/takes/align';
import { metSoFar, type Meeting } from '$lib/core/takes/judge/landing';
import type { LiveMoment, LiveNote } from '$lib/core/takes/listen/live';
import { Ear } from '../input/ear.svelte';
import type { MeantLanding } from './picture.svelte';
import type { Rehearsal } from './rehearsal.svelte';

/** Beats for which a note is remembered: longer than a landing may be late, or held. */
const REMEMBERED = 16;

/** How a change was met; in this round, or in the one before it. */
export interface MetChange {
  readonly met: Meeting;
  readonly isPast: boolean;
}

interface Sounding {
  readonly at: number;
  readonly midi: number;
  end: number | null;
}

/** What was heard of a round that is over: the changes that were missed. */
export interface HeardRound {
  readonly missed: readonly number[];
}

/** Of the changes of a round so many have to be told before it can be said how it went. */
const ENOUGH = 0.8;
/** Beats without a moment after which there was no ear. */
const DEAF = 2;
/** Beats by which a change may lie before the ear is open. */
const JUST_BEFORE = 0.5;
/** Meetings that are none. */
const MISSED: readonly Meeting[] = ['silent', 'outside'];

export class Landings {
  readonly #rehearsal: Rehearsal;
  readonly ear: Ear;
  /** How the changes of the last rounds were met, by their place in the form. */
  met: ReadonlyMap<number, MetChange> = $state.raw(new Map());
  /** Of the changes since the band began: how many are told, and how many of them were landed. */
  told = $state(0);
  landed = $state(0);
  /** How the round that was played last was heard, until it is marked. */
  heard: HeardRound | null = $state.raw(null);
  #notes: Sounding[] = [];
  #open: readonly MeantLanding[] = [];
  #round: readonly MeantLanding[] | null = null;
  /** The beat from which there is an ear. */
  #since: number | null = null;
  #lastMoment = -Infinity;
  /** The beat of the last change that was opened. */
  #until = -Infinity;

  constructor(rehearsal: Rehearsal) {
    this.#rehearsal = rehearsal;
    this.ear = new Ear({
      onNote: (note) => this.#begin(note),
      onMoment: (moment) => this.#follow(moment)
    });
  }

  #begin({ at, midi }: LiveNote): void {
    const beat = this.#rehearsal.transport.beatAt(at);
    if (beat === null) return;
    this.#rehearsal.follower.hearNote();
    this.#end(beat);
    const written = midi - this.#rehearsal.workspace.neck.raised;
    this.#notes = [
      ...this.#notes.filter((note) => note.at > beat - REMEMBERED),
      { at: beat, midi: written, end: null }
    ];
  }

  #end(beat: number): void {
    const last = this.#notes.at(-1);
    if (last) last.end ??= Math.max(beat, last.at);
  }

  #follow({ at, sounds, peak }: LiveMoment): void {
    const beat = this.#rehearsal.transport.beatAt(at);
    this.#rehearsal.follower.hearLevel(peak);
    if (beat === null) {
      this.#forget();
      return;
    }
    if (sounds === null) this.#end(beat);
    // An ear that was closed for a while has heard nothing of what sounded then.
    if (this.#since === null || beat - this.#lastMoment > DEAF) this.#since = beat;
    this.#lastMoment = beat;
    this.#meetRound();
    const played = this.#notes.map(({ at: start, midi, end }): BeatNote => ({
      at: start,
      beats: (end ?? beat) - start,
      midi
    }));
    const told: (readonly [number, MetChange])[] = [];
    this.#open = this.#open.filter(({ change, wanted, place }) => {
      const met = metSoFar(wanted, played, place, beat);
      if (met) told.push([change, { met, isPast: false }]);
      return met === null;
    });
    if (told.length === 0) return;
    this.met = new Map([...this.met, ...told]);
    this.told += told.length;
    this.landed += told.filter(([, { met }]) => met === 'hit').length;
  }

  /** A round that has begun is met from its first change on; what the one before left open is still told. */
  #meetRound(): void {
    const { landings } = this.#rehearsal.picture;
    if (landings === this.#round || !landings) return;
    if (this.#round) this.heard = this.#heardOf(this.#round);
    this.#round = landings;
    const fresh = landings.filter(({ place }) => place.start > this.#until);
    if (fresh.length === 0) return;
    this.#until = lastOf(fresh).place.start;
    this.#open = [...this.#open, ...fresh];
    this.met = new Map([...this.met].map(([change, { met }]) => [change, { met, isPast: true }]));
  }

  /** What became of the changes of a round; null where too few of them were told. */
  #heardOf(round: readonly MeantLanding[]): HeardRound | null {
    const told = round.flatMap(({ change, place }) => {
      const own = this.met.get(change);
      // What sounded before there was an ear is not known.
      const isHeard = place.start >= (this.#since ?? 0) - JUST_BEFORE;
      return own && !own.isPast && isHeard ? [{ change, met: own.met }] : [];
    });
    if (round.length === 0 || told.length < ENOUGH * round.length) return null;
    return { missed: told.filter(({ met }) => MISSED.includes(met)).map(({ change }) => change) };
  }

  /** The player agrees: the last round went as it was heard. */
  confirm(): void {
    if (this.heard) this.#rehearsal.marks.confirm(this.heard.missed);
    this.heard = null;
  }

  #forget(): void {
    this.heard = null;
    this.#since = null;
    if (!this.#round) return;
    this.#round = null;
    this.#until = -Infinity;
    this.#open = [];
    this.#notes = [];
    this.met = new Map();
    this.told = 0;
    this.landed = 0;
  }

  close(): void {
    this.ear.close();
  }
}
