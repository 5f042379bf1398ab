/** The rounds that the band plays: of which chart, with which drill or line, how much it gives. */
import { excerptOf, grantedLoop } from '$lib/core/harmony/excerpt';
import { drillOf, OWN_LINE } from '$lib/core/line/drills';
import { lineInKey } from '$lib/core/line/in-key';
import type { Line } from '$lib/core/line/model';
import type { Plan } from '$lib/core/plan/model';
import { intensityInArc } from '$lib/core/practice/arc';
import { secondOfRound } from '$lib/core/practice/beats';
import { switchedAt, type LaidRound, type Round } from '$lib/core/practice/clock';
import type { SoundEvent } from '$lib/core/practice/events';
import { chordsOn, feelNamed, feelOf } from '$lib/core/practice/feel';
import { tempoOf } from '$lib/core/practice/ladder';
import { practiceRound, type Manner, type PlanMaterial, type PracticeRound } from '$lib/core/practice/round';
import type { Backing } from './backing.svelte';
import type { Follower } from './follower.svelte';
import type { Workspace } from '../chart/workspace.svelte';
import type { Desk } from './desk.svelte';
import type { Keys } from './keys.svelte';
import type { Loop } from './loop.svelte';
import type { Tempo } from './tempo.svelte';

/** A round as it was laid down: with the text and plan that it was made of. */
export interface BandRound extends Round {
  readonly practice: PracticeRound;
  readonly source: string;
  readonly plan: Plan;
}

/** What rounds are made of. */
interface Ingredients {
  readonly workspace: Workspace;
  readonly desk: Desk;
  readonly keys: Keys;
  readonly tempo: Tempo;
  readonly loop: Loop;
  readonly backing: Backing;
  readonly follower: Follower;
  /** The band alone, at one tempo and in one key, whatever the desk says: a take is played to it. */
  readonly isForTake: boolean;
}

export class Rounds {
  /** A line that is played in the drill's place, as it is in the chart's own key. */
  line: Line | null = $state.raw(null);
  /** The line of each round, where they differ: it goes before `line`. */
  lineOfRound: ((round: number) => Line) | null = $state.raw(null);
  /** The form is shown and the melody sounds, for a player who has lost the place. */
  isLost = $state(false);
  readonly #of: Ingredients;
  /** What the band plays is decided by it: another one each time the stand is opened. */
  readonly #seed = Math.floor(Math.random() * 2 ** 31);

  constructor(of: Ingredients) {
    this.#of = of;
  }

  readonly meter = $derived.by(() => this.#of.workspace.sheet.head.meter);
  readonly feel = $derived.by(() => {
    const { feel } = this.#of.desk.now;
    return (feel ? feelNamed(feel) : undefined) ?? feelOf(this.#of.workspace.sheet.head.feel, this.meter);
  });
  readonly chordSound = $derived.by(() => {
    const { chordSound } = this.#of.desk.now;
    return chordSound === 'feel' ? chordsOn(this.feel) : chordSound;
  });
  readonly drill = $derived.by(() => {
    if (this.line || this.lineOfRound) return OWN_LINE;
    const { drill } = this.#of.desk.now;
    return drill && !this.#of.isForTake ? (drillOf(drill) ?? null) : null;
  });

  /** The line of a round in its key: up or down along its strings, in the nearest octave it can be played in. */
  lineIn(round: number): Line | null {
    const line = this.lineOfRound?.(round) ?? this.line;
    const shift = this.#of.keys.shiftIn(round);
    if (!line || shift === 0) return line;
    const { neck, analysis } = this.#of.workspace;
    return { ...line, notes: lineInKey(line.notes, analysis.key, shift, neck) };
  }

  /** What the player asks of the band in a round, 0 to 1. */
  askedIn(round: number): number {
    const { arc, intensity } = this.#of.desk.now;
    return intensityInArc(arc, intensity, round);
  }

  /** How much the band gives in a round: where it follows a player, what their playing asks for. */
  intensityIn(round: number): number {
    return this.#of.follower.intensity ?? this.askedIn(round);
  }

  /** A round of a chart; null where there is nothing to play in it. */
  of(shown: Workspace, moment: Pick<Manner, 'round' | 'tempo' | 'isLast' | 'ending'>): PracticeRound | null {
    const { desk, loop, follower } = this.#of;
    const granted = grantedLoop(shown.sheet.form, shown.analysis, loop.wish);
    const excerpt = granted && excerptOf(shown.sheet.form, shown.analysis, granted.loop);
    if (!excerpt) return null;
    const material = materialOf(shown);
    const line = this.lineIn(moment.round);
    return practiceRound(line ? { ...material, skeleton: () => line } : material, excerpt, {
      feel: this.feel,
      drill: this.drill,
      sung: (this.isLost && shown.melody?.line) || null,
      perBeat: desk.now.perBeat,
      seed: this.#seed,
      intensity: this.intensityIn(moment.round),
      room: follower.room,
      ...moment
    });
  }

  /** The round that the band plays next, of the chart as it is at that moment. `clean`: rounds marked clean since the ladder began. */
  lay(round: number, clean: number): BandRound | null {
    const { workspace, keys, loop, tempo, desk, isForTake } = this.#of;
    const { source, plan } = workspace.document;
    loop.clamp();
    const ladder = isForTake ? null : desk.ladder;
    const sounding = tempo.soundingAt(ladder ? tempoOf(ladder, round, clean) : tempo.value);
    const shown = keys.chartIn(round, { source, plan });
    const practice = this.of(shown, { round, tempo: sounding, isLast: false });
    if (!practice) return null;
    return {
      practice,
      source,
      plan,
      events: this.#withBacking(practice, round, sounding, shown),
      beats: practice.excerpt.beats,
      tempo: sounding
    };
  }

  /** A round that is laid down, made anew from the next bar on. `from`: beats of it that are handed over already. */
  laidAnew({ round, number }: LaidRound<BandRound>, from: number): BandRound {
    const { excerpt } = round.practice;
    const beat = excerpt.bars.find(({ start }) => start >= from - 1e-9)?.start;
    if (beat === undefined) return round;
    const shown = this.#of.keys.chartIn(number, round);
    const practice = this.of(shown, { round: number, tempo: round.tempo, isLast: false });
    // A loop that has been changed meanwhile comes with the next round.
    if (!practice || practice.excerpt.beats !== excerpt.beats) return round;
    const events = this.#withBacking(practice, number, round.tempo, shown);
    return { ...round, events: switchedAt(round.events, events, beat) };
  }

  /** The player's own recording in the band's place, with the click and the drill over it. */
  #withBacking(
    { events, excerpt }: PracticeRound,
    round: number,
    tempo: number,
    shown: Workspace
  ): readonly SoundEvent[] {
    const { backing } = this.#of;
    const { playing } = backing;
    if (!playing) return events;
    const { grid, sound } = playing;
    const part = { from: excerpt.from, beats: excerpt.beats, form: shown.sheet.form.beats };
    const from = secondOfRound(grid, part, round, sound.duration);
    void backing.stretch(tempo / grid.tempo);
    const event: SoundEvent = {
      part: 'backing',
      start: 0,
      beats: excerpt.beats,
      midi: 0,
      velocity: 1,
      backing: { from, rate: tempo / grid.tempo }
    };
    return [event, ...events.filter(({ part: own }) => own === 'line' || own === 'click')];
  }
}

/** What a plan gives to a round. */
function materialOf({ arrangement, paths }: Workspace): PlanMaterial {
  const { analysis, areas, areasUp, neck, skeleton } = arrangement;
  const { path, targets } = paths;
  return { analysis, areas, areasUp, neck, targets, skeleton: () => path && skeleton(path) };
}
