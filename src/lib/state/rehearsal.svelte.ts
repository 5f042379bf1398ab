/** A rehearsal of one chart: what is played, how, and where the music is. The sound itself arrives when it is asked for. */
/* eslint-disable svelte/prefer-svelte-reactivity -- the maps here are made anew and never changed in place */
import { settings } from './settings.svelte';
import { excerptOf, grantedLoop, playedAt, type LoopWish } from '$lib/core/harmony/excerpt';
import { drillOf, OWN_LINE } from '$lib/core/line/drills';
import type { Plan } from '$lib/core/plan/model';
import type { Player } from '$lib/audio/player';
import { countIn } from '$lib/core/practice/band';
import { PARTS, type Part, type SoundEvent } from '$lib/core/practice/events';
import { sectionsOf } from '$lib/core/chart/sections';
import { readSheet } from '$lib/core/harmony/sheet';
import { switchedAt, type LaidRound, type Round } from '$lib/core/practice/clock';
import { intensityInArc } from '$lib/core/practice/arc';
import { chordsOn, feelNamed, feelOf, type ChordSound } from '$lib/core/practice/feel';
import { PLAIN_INTENSITY } from '$lib/core/practice/intensity';
import { pulsesOf } from '$lib/core/chart/pulses';
import { Follower } from './follower.svelte';
import {
  boundedTempo,
  DEFAULT_TEMPO,
  HIGHEST_TEMPO,
  LOWEST_TEMPO,
  shiftOf,
  tappedTempo,
  tempoOf,
  type KeyOrder,
  type Ladder
} from '$lib/core/practice/ladder';
import type { Line, NotePlace } from '$lib/core/line/model';
import { lineInKey } from '$lib/core/line/in-key';
import {
  momentsIn,
  passesOne,
  practiceRound,
  type Manner,
  type PlanMaterial,
  type PracticeRound
} from '$lib/core/practice/round';
import { semitonesUp } from '$lib/core/theory/note';
import { pitchClass } from '$lib/core/theory/note';
import { keyText, readKey } from '$lib/core/harmony/key';
import { runOver, type RunNote } from '$lib/core/practice/run-over';
import { formId, itemId } from '$lib/core/practice/items/proposals';
import type { Bars } from '$lib/core/practice/log/model';
import { nowIn, type Now } from '$lib/core/practice/progress/live';
import type { Loop } from '$lib/core/practice/progress/loops';
import type { Step } from '$lib/core/practice/progress/turn';
import type { RecordedRow } from '$lib/api/practice';
import { logBox } from './practice-log';
import type { EarInput } from './ear.svelte';
import { Recorder, type Playing, type Stumble } from './recorder';
import type { Draft } from './drafts';
import { NO_PLAYER, NO_SOUND } from './no-sound';
import { Pedals, type PedalAction } from './pedals.svelte';
import { secondOfRound } from '$lib/core/practice/beats';
import type { Place } from '$lib/core/takes/judge/landing';
import { Backing } from './backing.svelte';
import { chartInKey } from './in-key';
import type { Workspace } from './workspace.svelte';

/** What the player has set on the desk; kept in the browser, for it belongs to the room and the ears. */
export interface Desk {
  readonly feel: string | null;
  /** What the chords are played on. */
  /** What the chords are played on; as the feel has it where nothing is chosen. */
  readonly chordSound: ChordSound | 'feel';
  /** How much the band gives, 0 to 1, and how that goes from round to round. */
  readonly intensity: number;
  readonly arc: string;
  /** Whether the band follows a player whom it hears. */
  readonly follows: boolean;
  /** Whether files end on the I. */
  readonly ends: boolean;
  readonly drill: string | null;
  readonly perBeat: 2 | 3 | 4;
  readonly countsIn: boolean;
  readonly halfTime: boolean;
  readonly keys: KeyOrder;
  readonly ladder: (Ladder & { readonly isOn: boolean }) | null;
  /** What the stand hides, to test memory. */
  readonly hides: 'nothing' | 'all but roots' | 'everything';
  /** What is listened to, where the stand listens. */
  readonly hears: EarInput;
  readonly mix: Readonly<Record<Part, { readonly decibels: number; readonly isMuted: boolean }>>;
}

const AT_FIRST: Desk = {
  feel: null,
  chordSound: 'feel',
  intensity: PLAIN_INTENSITY,
  arc: 'steady',
  follows: true,
  ends: true,
  drill: null,
  perBeat: 2,
  countsIn: true,
  halfTime: false,
  keys: 'stay',
  ladder: null,
  hides: 'nothing',
  hears: 'microphone',
  mix: {
    bass: { decibels: 0, isMuted: false },
    chords: { decibels: 0, isMuted: false },
    drums: { decibels: 0, isMuted: false },
    click: { decibels: -6, isMuted: true },
    line: { decibels: 0, isMuted: false },
    backing: { decibels: 0, isMuted: false }
  }
};

/** Settings that make other music: the band begins again with them. */
const STARTS_ANEW: readonly (keyof Desk)[] = ['feel', 'chordSound', 'drill', 'perBeat', 'keys', 'ladder'];

const PLACE = 'corvel-desk';
/** Beats after a change for which hidden notes are shown. */
const REVEALED = 1;
/** Seconds that drawing a change takes to begin with, and the most that is drawn ahead of the sound. */
const FRAME = 1 / 60;
const LONGEST_AHEAD = 0.06;
/** Milliseconds after a stop for which the level is still shown. */
const LISTENING = 1500;
/** Seconds before a change at which the next chord comes to the foreground, unless a bar is longer. */
const COMING_SECONDS = 2;

function storedDesk(): Desk {
  try {
    const stored = JSON.parse(localStorage.getItem(PLACE) ?? '{}') as Partial<Desk>;
    return { ...AT_FIRST, ...stored, mix: { ...AT_FIRST.mix, ...stored.mix } };
  } catch {
    return AT_FIRST;
  }
}

/** Milliseconds after the last correction of a recording's beat at which what plays begins again with it. */
const SETTLED = 400;
/** Beats a minute that a pedal goes up or down. */
export const TEMPO_STEP = 4;
/** How much more the band gives by a key or pedal. */
export const INTENSITY_STEP = 0.1;
/** Changes whose lag is remembered. */
const MOST_LAGS = 400;

/** A change that sounds, and the note that is meant at it: MIDI number, null for any of its chord. */
export interface MeantLanding {
  readonly change: number;
  readonly wanted: number | null;
  readonly place: Place;
}

/** What the stand is opened for: an item, or a part of a session. */
export interface Assignment {
  /** The item that the log counts it for. */
  readonly item: string | null;
  readonly name: string;
  /** A drill's id, "melody", "line", "band". */
  readonly what: string;
  readonly line?: string | undefined;
  readonly over: LoopWish;
  readonly area: number | null;
  readonly key: string | null;
  /** Beats a minute of the first round; null as the chart says. */
  readonly start: number | null;
  /** The stretches of a part with the ladders that the marks move the tempo on; empty where it stays. */
  readonly steps: readonly Step[];
  /** A rung of them in per cent, where the item says one. */
  readonly rung?: number | undefined;
}

/** A round as it was laid down: with the text and plan that it was made of. */
interface BandRound extends Round {
  readonly practice: PracticeRound;
  readonly source: string;
  readonly plan: Plan;
}

const wantsCalm = () => globalThis.matchMedia?.('(prefers-reduced-motion: reduce)').matches ?? false;

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
  /** Events of this playing that were handed to the sound after their time. */
  late = $state(0);
  #lags: number[] = [];
  /** Seconds that the drawing of a change takes, as last seen. */
  #ahead = FRAME;

  #player: Player<BandRound> | null = null;
  #frame = 0;
  #taps: number[] = [];
  #again: ReturnType<typeof setTimeout> | undefined;
  /** What the band plays is decided by it: another one each time the stand is opened. */
  readonly #seed = Math.floor(Math.random() * 2 ** 31);
  /** Seconds of playing at the last rest. */
  #rested = 0;

  /** A recording of the player's own, which may take the band's place. */
  readonly backing: Backing;

  /** Writes down what is played. */
  readonly #recorder: Recorder;
  /** What is practised, where the stand was opened for it: the log counts it for that. */
  assigned: Assignment | null = $state.raw(null);
  /** The marks of the rounds played since the start, and how often the player stumbled in the one that sounds. */
  marks: readonly (boolean | null)[] = $state.raw([]);
  stumbled = $state(0);
  #stumbles: Stumble[] = [];
  /** A mark given before the first round was over. */
  #markAhead: boolean | null = null;
  /** Seconds of playing at which the round that sounds began. */
  #roundBegan = 0;

  /** `write`: where the rows of the log go. */
  constructor(
    workspace: Workspace,
    write: (...rows: RecordedRow[]) => void = (...rows) => logBox.put(...rows)
  ) {
    this.#recorder = new Recorder(write);
    this.workspace = workspace;
    this.backing = new Backing(workspace.document.id, () => this.#followBacking());
    this.tempo = boundedTempo(workspace.sheet.head.tempo ?? DEFAULT_TEMPO);
    if (typeof localStorage !== 'undefined') this.desk = storedDesk();
  }

  readonly meter = $derived.by(() => this.workspace.sheet.head.meter);
  readonly feel = $derived.by(
    () =>
      (this.desk.feel ? feelNamed(this.desk.feel) : undefined) ??
      feelOf(this.workspace.sheet.head.feel, this.meter)
  );
  readonly chordSound = $derived.by(() =>
    this.desk.chordSound === 'feel' ? chordsOn(this.feel) : this.desk.chordSound
  );
  /** The band alone, at one tempo and in one key, whatever the desk says: a take is played to it. */
  isForTake = $state(false);
  /** The desk's ladder, where it moves the tempo. */
  get #ladder(): Ladder | null {
    const { ladder } = this.desk;
    return ladder?.isOn && !this.isForTake ? ladder : null;
  }
  /** A line that is played in the drill's place, as it is in the chart's own key. */
  line: Line | null = $state.raw(null);
  /** The line of each round, where they differ: it goes before `line`. */
  lineOfRound: ((round: number) => Line) | null = $state.raw(null);
  /** Semitones by which chart and line are moved up, 0 to 11. */
  shift = $state(0);
  /** Whether a line goes round the keys with the rounds. */
  lineKeys: KeyOrder = $state('stay');
  /** Semitones (0–11) by which chart and line are up in some round. */
  #shiftIn(round: number): number {
    return (shiftOf(this.keys, round) + this.shift) % 12;
  }
  /** The line in the key that is shown. */
  readonly lineShown: Line | null = $derived.by(() => this.#lineIn(this.round));
  /** The line of a round in its key: up or down along its strings, in the nearest octave it can be played in. */
  #lineIn(round: number): Line | null {
    const line = this.lineOfRound?.(round) ?? this.line;
    const shift = this.#shiftIn(round);
    if (!line || shift === 0) return line;
    const { neck, analysis } = this.workspace;
    return { ...line, notes: lineInKey(line.notes, analysis.key, shift, neck) };
  }
  readonly drill = $derived.by(() =>
    this.line || this.lineOfRound
      ? OWN_LINE
      : this.desk.drill && !this.isForTake
        ? (drillOf(this.desk.drill) ?? null)
        : null
  );
  /** What is laid down of the round that sounds: its notes, and the chart they were made of. */
  #laid: LaidRound<BandRound> | null = $state.raw(null);
  /** The chart in the key of the round: the player's own plan, or the same moved. */
  readonly shown = $derived.by(() => {
    const { workspace } = this;
    const shift = this.#shiftIn(this.round);
    const sounding = this.#laid?.round;
    // A text that is edited while it sounds is shown, as it is played, from the next round on.
    if (sounding && sounding.source !== workspace.document.source) return this.#chartIn(shift, sounding);
    return this.#chartIn(shift, workspace.document);
  });
  readonly now: PracticeRound | null = $derived.by(
    () =>
      this.#laid?.round.practice ??
      this.#roundOf(this.shown, { round: 0, tempo: this.sounding, isLast: false })
  );
  readonly beats = $derived.by(() => this.now?.excerpt.beats ?? 0);

  /** Where the music is within the round. */
  readonly inRound = $derived.by(() => {
    const start = this.#laid?.start ?? 0;
    return this.beats ? Math.min(Math.max(0, this.beat - start), this.beats - 1e-6) : 0;
  });
  /** Place in the excerpt of the change that is shown: the sounding one, at rest the selected one; −1 where that is not played. */
  readonly at = $derived.by(() => {
    if (!this.now) return -1;
    const { excerpt } = this.now;
    if (this.isPlaying) return playedAt(excerpt, this.inRound);
    return excerpt.changes.findIndex(({ source }) => source.index === this.shown.selected);
  });
  readonly change = $derived.by(() => this.now?.excerpt.changes[this.at] ?? null);
  readonly next = $derived.by(() => {
    const changes = this.now?.excerpt.changes ?? [];
    return changes.length > 1 && this.at >= 0 ? changes[(this.at + 1) % changes.length]! : null;
  });
  /** Where the music is within the round as it is written: what swings is drawn where its notes stand. */
  readonly written = $derived.by(() => this.now?.writtenAt(this.inRound) ?? 0);
  /** Whether the next chord comes soon: within two seconds, or a bar where that is longer. */
  readonly isComing = $derived.by(() => {
    if (!this.isPlaying || !this.next || !this.now) return false;
    const bar = this.now.excerpt.bars.findLast(({ start }) => start <= this.inRound + 1e-9);
    const seconds = (this.left * 60) / this.sounding;
    return seconds <= COMING_SECONDS || this.left <= (bar?.beats ?? 0) + 1e-9;
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
  /** The drill's run over the change that is shown. */
  readonly run: readonly RunNote[] = $derived.by(() =>
    this.now && this.change ? runOver(this.now, this.change) : []
  );
  /** The first note of the run over the coming chord. */
  readonly firstOver = $derived.by(() => {
    const first = this.now && this.next ? runOver(this.now, this.next)[0] : undefined;
    return first?.place ? { place: first.place, degree: first.degree } : null;
  });
  /** How much of the change has sounded, as it is written, 0 to 1. */
  readonly into = $derived.by(() =>
    this.change ? Math.max(0, this.written - this.change.start) / this.change.beats : 0
  );
  /** The place of the drill's note that sounds. */
  readonly lit: NotePlace | null = $derived.by(() => {
    if (!this.isPlaying || this.beat < 0 || !this.now) return null;
    const at = this.inRound;
    const { notes, times } = this.now;
    const sounds = times.findIndex(({ start, beats }) => at >= start && at < start + beats);
    return notes[sounds]?.place ?? null;
  });

  readonly #moved = new Map<string, Workspace>();
  /** The chart so many semitones higher; the player's own where nothing is moved and nothing has been edited. */
  #chartIn(shift: number, { source, plan }: Draft): Workspace {
    const { workspace } = this;
    const area = this.assigned?.area ?? null;
    if (shift === 0 && area === null && source === workspace.document.source) return workspace;
    const key = `${shift} ${area} ${JSON.stringify(plan)} ${source}`;
    const known = this.#moved.get(key);
    if (known) return known;
    const home =
      source === workspace.document.source ? workspace.analysis.key : readSheet(source).analysis.key;
    const moved = chartInKey(workspace.document.id, { source, plan }, home, shift, workspace.neck, area);
    if (this.#moved.size > 12) this.#letGo();
    this.#moved.set(key, moved);
    return moved;
  }

  #letGo(): void {
    for (const moved of this.#moved.values()) moved.paths.close();
    this.#moved.clear();
  }

  /** The next key's targets are worked out while this one is played, where they cannot be had at once. */
  #prepare(round: number): void {
    const { source, plan } = this.workspace.document;
    const { paths } = this.#chartIn(this.#shiftIn(round), { source, plan });
    if (paths !== this.workspace.paths && !paths.isSolvedAtOnce && !paths.solver.latest) {
      paths.solver.ask(paths.job);
    }
  }

  /** One round for a file: the band ends with it, on the I where it is wished. */
  get forFile(): PracticeRound | null {
    const ending = this.desk.ends;
    return this.#roundOf(this.shown, { round: this.round, tempo: this.sounding, isLast: true, ending });
  }

  #roundOf(
    shown: Workspace,
    moment: Pick<Manner, 'round' | 'tempo' | 'isLast' | 'ending'>
  ): PracticeRound | null {
    const granted = grantedLoop(shown.sheet.form, shown.analysis, this.loop);
    const excerpt = granted && excerptOf(shown.sheet.form, shown.analysis, granted.loop);
    if (!excerpt) return null;
    const { feel } = this;
    const material = materialOf(shown);
    const line = this.#lineIn(moment.round);
    return practiceRound(line ? { ...material, skeleton: () => line } : material, excerpt, {
      feel,
      drill: this.drill,
      sung: (this.isLost && shown.melody?.line) || null,
      perBeat: this.desk.perBeat,
      seed: this.#seed,
      intensity: this.#intensityIn(moment.round),
      room: this.follower.room,
      ...moment
    });
  }

  /** What the player asks of the band in a round. */
  #askedIn(round: number): number {
    return intensityInArc(this.desk.arc, this.desk.intensity, round);
  }

  #intensityIn(round: number): number {
    return this.follower.intensity ?? this.#askedIn(round);
  }

  /** The form is shown and the melody sounds, for a player who has lost the place. */
  isLost = $state(false);
  toggleLost(): void {
    this.isLost = !this.isLost;
    this.#relay();
  }

  /** How much the band gives now. */
  readonly intensity = $derived.by(() => this.#intensityIn(this.round));

  /** More or less of the band, heard from the next bar on. */
  changeIntensity(by: number): void {
    this.setIntensity(this.desk.intensity + by);
  }

  setIntensity(intensity: number): void {
    this.set({ intensity: Math.round(Math.min(1, Math.max(0, intensity)) * 20) / 20 });
    this.#relay();
  }

  /** What the band plays from the next bar on is made anew. */
  #relay(): void {
    this.#player?.relay((laid, from) => {
      const { round, number } = laid;
      const { excerpt } = round.practice;
      const beat = excerpt.bars.find(({ start }) => start >= from - 1e-9)?.start;
      if (beat === undefined) return round;
      const shown = this.#chartIn(this.#shiftIn(number), round);
      const practice = this.#roundOf(shown, { round: number, tempo: round.tempo, isLast: false });
      // A loop that has been changed meanwhile comes with the next round.
      if (!practice || practice.excerpt.beats !== excerpt.beats) return round;
      const events = this.#withBacking(practice, number, round.tempo, shown);
      return { ...round, events: switchedAt(round.events, events, beat) };
    });
  }

  /** The band listens to a player whom the stand hears: told with every tick, and with what is heard. */
  readonly follower = new Follower();
  isHeard = $state(false);
  #listenAlong(beat: number): void {
    const laid = this.#laid;
    if (!laid || !this.isHeard || !this.desk.follows || this.isForTake) {
      if (this.follower.intensity !== null) this.follower.forget();
      return;
    }
    const { bars } = laid.round.practice.excerpt;
    const within = beat - laid.start;
    const at = bars.findLastIndex(({ start }) => start <= within + 1e-9);
    if (at < 0) return;
    const number = laid.number * bars.length + at;
    if (this.follower.at(number, pulsesOf(bars[at]!).length, this.#askedIn(laid.number))) this.#relay();
  }

  /** The round that the band plays next, of the chart as it is at that moment. */
  #layRound(round: number): BandRound | null {
    const { source, plan } = this.workspace.document;
    this.#clampLoop();
    const ladder = this.#ladder;
    const tempo = this.#sounding(ladder ? tempoOf(ladder, round, this.clean) : this.tempo);
    const shown = this.#chartIn(this.#shiftIn(round), { source, plan });
    const practice = this.#roundOf(shown, { round, tempo, isLast: false });
    if (!practice) return null;
    return {
      practice,
      source,
      plan,
      events: this.#withBacking(practice, round, tempo, shown),
      beats: practice.excerpt.beats,
      tempo
    };
  }

  /** The player's own recording in the band's place, with the click and the drill over it. */
  #withBacking(
    { events, excerpt }: PracticeRound,
    round: number,
    tempo: number,
    shown: Workspace
  ): readonly SoundEvent[] {
    const playing = this.backing.playing;
    if (!playing) return events;
    const { grid, sound } = playing;
    const part = { from: excerpt.from, beats: excerpt.beats, form: shown.sheet.form.beats };
    const from = secondOfRound(grid, part, round, sound.duration);
    void this.backing.stretch(tempo / grid.tempo);
    const backing: SoundEvent = {
      part: 'backing',
      start: 0,
      beats: excerpt.beats,
      midi: 0,
      velocity: 1,
      backing: { from, rate: tempo / grid.tempo }
    };
    return [backing, ...events.filter(({ part: own }) => own === 'line' || own === 'click')];
  }

  /** A loop that an edit has cut off is brought back into the chart, and that is said. */
  #clampLoop(): void {
    const { sheet, analysis } = this.workspace;
    const granted = grantedLoop(sheet.form, analysis, this.loop);
    if (!granted?.said) return;
    this.loop = granted.loop;
    this.problem = granted.said;
  }

  set(part: Partial<Desk>): void {
    this.desk = { ...this.desk, ...part };
    try {
      // What the stand was opened for is not the player's own: it is gone with the page.
      const { drill, keys, halfTime, ladder } = this.#own?.desk ?? this.desk;
      localStorage.setItem(PLACE, JSON.stringify({ ...this.desk, drill, keys, halfTime, ladder }));
    } catch {
      // A browser that keeps nothing still plays.
    }
    if (part.mix) this.#mix();
    if ('halfTime' in part) this.#player?.setTempo(this.sounding);
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

  /** Another recording, or another beat of it: the tempo is its own, and what plays begins again. */
  #followBacking(): void {
    const grid = this.backing.playing?.grid;
    if (grid) this.tempo = boundedTempo(grid.tempo);
    // Not with every step of a drag.
    clearTimeout(this.#again);
    if (this.isPlaying) this.#again = setTimeout(() => this.isPlaying && void this.play(), SETTLED);
  }

  /** The bars in which sections begin. */
  get #openings(): readonly number[] {
    const { bars } = this.workspace.sheet.form;
    return bars
      .filter(({ section }, i) => i === 0 || section !== bars[i - 1]!.section)
      .map(({ number }) => number);
  }

  /** The section that sounds or is selected, as a loop. */
  get #here(): LoopWish {
    const bar = (this.isPlaying ? this.change?.source.bar : this.workspace.change?.bar) ?? 1;
    return { kind: 'section', bar: this.#openings.findLast((opening) => opening <= bar) ?? 1 };
  }

  /** Goes on to the next section, which is looped; after the last the first comes again. */
  nextSection(): void {
    const openings = this.#openings;
    const { loop } = this;
    const at = openings.indexOf(loop.kind === 'section' ? loop.bar : (this.#here as { bar: number }).bar);
    this.setLoop({ kind: 'section', bar: openings[(at + 1) % openings.length] ?? 1 });
  }

  /** Loops the section that sounds; from there the whole form again. */
  toggleSectionLoop(): void {
    this.setLoop(this.loop.kind === 'form' ? this.#here : { kind: 'form' });
  }

  /** In which keys the rounds go; a recording stays in its own, a line where it is told. */
  readonly keys = $derived.by((): KeyOrder => {
    if (this.backing.playing || this.isForTake) return 'stay';
    return this.line ? this.lineKeys : this.desk.keys;
  });

  readonly pedals = new Pedals((action) => {
    const act: Readonly<Record<PedalAction, () => void>> = {
      play: () => this.toggle(),
      next: () => this.nextSection(),
      loop: () => this.toggleSectionLoop(),
      faster: () => this.changeTempo(TEMPO_STEP),
      slower: () => this.changeTempo(-TEMPO_STEP),
      more: () => this.changeIntensity(INTENSITY_STEP),
      less: () => this.changeIntensity(-INTENSITY_STEP),
      clean: () => this.mark(true),
      stumble: () => this.stumble(),
      lost: () => this.isPlaying && this.toggleLost()
    };
    act[action]();
  });

  /** Takes a tempo as typed; out of range it says so and stays. */
  setTempo(tempo: number): void {
    if (!Number.isFinite(tempo) || tempo < LOWEST_TEMPO || tempo > HIGHEST_TEMPO) {
      this.problem = `The band plays from ${LOWEST_TEMPO} to ${HIGHEST_TEMPO} beats a minute.`;
      return;
    }
    this.problem = '';
    this.tempo = boundedTempo(tempo);
    this.#player?.setTempo(this.sounding);
  }

  /** So many beats a minute more or less, as far as the band goes; where it goes no further that is said. */
  changeTempo(by: number): void {
    const wished = this.tempo + by;
    this.setTempo(Math.min(HIGHEST_TEMPO, Math.max(LOWEST_TEMPO, wished)));
    if (wished < LOWEST_TEMPO) this.problem = `${LOWEST_TEMPO} beats a minute is as slow as the band plays.`;
    if (wished > HIGHEST_TEMPO)
      this.problem = `${HIGHEST_TEMPO} beats a minute is as fast as the band plays.`;
  }

  tap(seconds: number): void {
    this.#taps = [...this.#taps, seconds].slice(-5);
    const tempo = tappedTempo(this.#taps);
    if (tempo) this.setTempo(tempo);
    else this.#taps = [seconds];
  }

  /** Beats a minute as they sound: half of them at half speed. */
  get sounding(): number {
    return this.#sounding(this.tempo);
  }

  #sounding(tempo: number): number {
    const grid = this.backing.playing?.grid;
    // At its own tempo a recording sounds as it is, though the desk counts whole beats a minute.
    const own = grid ? (tempo * grid.tempo) / boundedTempo(grid.tempo) : tempo;
    return this.desk.halfTime ? own / 2 : own;
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

  /** Says of the last round that it was clean, or not; before the first is over, of that one. */
  mark(clean: boolean): void {
    if (clean) this.clean += 1;
    if (this.#recorder.rounds === 0) this.#markAhead = clean;
    else this.#recorder.mark(clean);
    this.workspace.say(clean ? 'The round was clean' : 'The round was not clean');
    this.#followMarks();
  }

  /** The same of every round that was not marked yet: when a part of a session is over. */
  markAll(clean: boolean): void {
    this.#recorder.mark(clean, true);
    this.#followMarks();
  }

  /** Here it went wrong: the round is not clean, and the change that sounds is where. */
  stumble(): void {
    const beat = this.#player?.beat ?? null;
    const laid = this.#laid;
    if (!this.isPlaying || !laid || beat === null) return;
    // By the clock, not by the picture: that may lag behind, or stand still in a hidden page.
    const { excerpt } = laid.round.practice;
    const at = playedAt(excerpt, Math.min(Math.max(0, beat - laid.start), excerpt.beats - 1e-6));
    const change = excerpt.changes[at];
    if (!change) return;
    this.#stumbles.push({ change: change.source.index, bar: change.source.bar });
    this.stumbled = this.#stumbles.length;
    this.workspace.say(`Missed at ${change.source.symbol}, bar ${change.source.bar}`);
  }

  /** As it was heard: the last round went wrong at these changes, or at none; the player has only to agree. */
  confirm(changes: readonly number[]): void {
    const { changes: all } = this.workspace.analysis;
    this.#recorder.confirm(
      changes.flatMap((change) => {
        const bar = all[change]?.bar;
        return bar === undefined ? [] : [{ change, bar }];
      })
    );
    this.#followMarks();
  }

  /** What the ladder says of the part that the stand was opened for; null where there is none. */
  climb: Now | null = $state.raw(null);
  /** Loops and seconds of the part from before the band was stopped. */
  #earlier: { readonly loops: readonly Loop[]; readonly seconds: number } = { loops: [], seconds: 0 };

  /** Marks no longer reach what was played before; for the part it counts on. */
  #beginAnew(): void {
    const { loops, seconds } = this.#soFar();
    this.#earlier = { loops, seconds };
    this.#recorder.begin();
    this.marks = [];
  }
  #soFar() {
    const own = this.#recorder.loops(this.#whole);
    return {
      loops: [...this.#earlier.loops, ...own],
      seconds: this.#earlier.seconds + this.#recorder.seconds
    };
  }
  /** The bars of what is practised. */
  get #whole(): Bars | null {
    return this.#barsOf(this.assigned?.over ?? { kind: 'form' });
  }
  #barsOf(loop: LoopWish): Bars | null {
    const { bars } = this.workspace.sheet.form;
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

  /** Tempo and stretch of the next round follow the ladder of the part, unless the desk has one of its own. */
  #followMarks(): void {
    this.marks = this.#recorder.marks;
    const { assigned } = this;
    if (!assigned || assigned.steps.length === 0 || this.#ladder) return;
    const { loops, seconds } = this.#soFar();
    const now = nowIn(assigned.steps, loops, seconds, assigned.rung);
    const before = this.climb;
    this.climb = now;
    if (!now) return;
    const isOther = before?.bars?.from !== now.bars?.from || before?.bars?.to !== now.bars?.to;
    if (isOther) this.#turnTo(now.bars ? { kind: 'bars', ...now.bars } : assigned.over);
    if (isOther || loops.length > 0)
      this.tempo = boundedTempo(this.desk.halfTime ? now.tempo * 2 : now.tempo);
  }

  /** Another stretch of the part: with a count-in where the band plays. */
  #turnTo(loop: LoopWish): void {
    const { sheet, analysis } = this.workspace;
    this.loop = grantedLoop(sheet.form, analysis, loop)?.loop ?? { kind: 'form' };
    if (this.isPlaying) void this.play();
  }

  /** Opens the stand for something that is practised: its drill or line, key, place, tempo and loop. */
  async assign(assignment: Assignment): Promise<void> {
    if (this.isPlaying) this.stop();
    const { workspace } = this;
    const { what, line, key, over, start, steps } = assignment;
    this.#recorder.begin();
    this.marks = [];
    this.#earlier = { loops: [], seconds: 0 };
    this.climb = nowIn(steps, [], 0, assignment.rung);
    const { desk, loop, tempo } = this;
    this.#own ??= { desk, loop, tempo };
    this.assigned = assignment;
    const to = key === null ? null : readKey(key);
    this.shift = to ? semitonesUp(pitchClass(workspace.analysis.key.tonic), pitchClass(to.tonic)) : 0;
    const { ladder } = this.desk;
    this.set({
      drill: drillOf(what)?.id ?? null,
      keys: 'stay',
      halfTime: false,
      ladder: ladder && { ...ladder, isOn: false }
    });
    this.lineKeys = 'stay';
    this.line = await this.#lineOf(what, line);
    const bars = steps[0]?.bars;
    const wish: LoopWish = bars ? { kind: 'bars', ...bars } : over;
    this.loop = grantedLoop(workspace.sheet.form, workspace.analysis, wish)?.loop ?? { kind: 'form' };
    if (start !== null) this.tempo = boundedTempo(start);
  }

  /** What the player had on the desk before the stand was opened for something. */
  #own: { readonly desk: Desk; readonly loop: LoopWish; readonly tempo: number } | null = null;
  /** Back to the desk as it was before: its drill, keys, loop and tempo. What has been turned since, of the mix or the feel, stays. */
  unassign(): void {
    const own = this.#own;
    this.#own = null;
    this.assigned = null;
    this.climb = null;
    this.line = null;
    this.shift = 0;
    if (!own) return;
    const { drill, keys, halfTime, ladder } = own.desk;
    this.set({ drill, keys, halfTime, ladder });
    this.loop = own.loop;
    this.tempo = own.tempo;
  }

  async #lineOf(what: string, id: string | undefined): Promise<Line | null> {
    const { workspace } = this;
    if (what === 'melody') return workspace.melody?.line ?? null;
    if (what !== 'line' || id === undefined) return null;
    try {
      await workspace.fetchLines();
    } catch {
      this.problem = 'The line could not be loaded; the server does not answer.';
      return null;
    }
    const data = workspace.keptLines.find((one) => one.id === id)?.data;
    if (!data) this.problem = 'This line is no longer kept with the chart.';
    return data ? { meter: this.meter, notes: data.notes } : null;
  }

  /** What the log says is being played in a round. */
  #playing({ round }: LaidRound<BandRound>): Playing {
    const { assigned, drill, loop, line } = this;
    const { analysis, arrangement, plan } = this.shown;
    const key = keyText(analysis.key);
    const area = plan.decisions.some(({ position }) => position !== undefined) ? null : arrangement.home;
    const chart = this.workspace.document.id;
    // A drill over the whole form in one place is the item of that place, and the band alone the whole form, also where the
    // stand was not opened for it.
    const isPlain = loop.kind === 'form' && !line;
    const own = !isPlain
      ? null
      : drill
        ? area !== null && itemId(chart, key, area, drill.id)
        : formId(chart, key);
    return {
      item: assigned?.item ?? (own || null),
      chart,
      what: assigned?.name ?? drill?.name ?? 'With the band',
      key,
      area,
      tempo: Math.round(round.tempo),
      bars: this.#barsOf(loop)
    };
  }

  /** Writes down the round that has sounded so far. */
  #tell(isWhole: boolean): void {
    const laid = this.#laid;
    const player = this.#player;
    if (!laid || !player) return;
    const seconds = player.seconds - this.#roundBegan;
    this.#roundBegan = player.seconds;
    this.#recorder.add(this.#playing(laid), seconds, this.#stumbles, isWhole);
    this.#stumbles = [];
    this.stumbled = 0;
    if (isWhole && this.#markAhead !== null) this.#recorder.mark(this.#markAhead);
    if (isWhole) this.#markAhead = null;
    this.#followMarks();
  }

  toggle(): void {
    if (this.isPlaying) this.stop();
    else void this.play();
  }

  /** What is known of the band's sounds. */
  sounds: 'on their way' | 'here' | 'plain' = $state('on their way');
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

  /** Starts, or starts anew with what has changed. */
  async play(): Promise<void> {
    const first = this.#roundOf(this.#chartIn(this.#shiftIn(0), this.workspace.document), {
      round: 0,
      tempo: this.sounding,
      isLast: false
    });
    if (!first) {
      this.problem = 'There is nothing to play yet; write a chord or two.';
      return;
    }
    const arrived = await import('$lib/audio/player').catch(() => null);
    try {
      this.#player ??= (await arrived?.Player.open<BandRound>()) ?? null;
    } catch {
      this.#player = null;
    }
    if (!this.#player) {
      this.problem = arrived ? NO_SOUND : NO_PLAYER;
      this.isPlaying = false;
      return;
    }
    this.problem = '';
    // What sounded until it begins anew.
    this.#tell(false);
    this.#laid = null;
    if (!this.isPlaying) {
      this.#beginAnew();
      this.#markAhead = null;
    }
    this.round = 0;
    this.clean = 0;
    this.beat = 0;
    this.#rested = 0;
    this.follower.forget();
    this.isLost = false;
    const ladder = this.#ladder;
    this.backing.stopTapping();
    if (ladder) this.tempo = tempoOf(ladder, 0, 0);
    this.#player.setChordSound(this.chordSound);
    this.#player.setBacking(this.backing.playing?.sound ?? null, (rate) => this.backing.stretched(rate));
    this.#mix();
    this.#player.start({
      // In the meter of what is looped, which need not be that of the chart.
      countIn: this.desk.countsIn ? countIn(first.excerpt.bars[0]!, this.feel) : [],
      roundOf: (round) => this.#layRound(round),
      tempo: this.sounding,
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
    this.#laid = null;
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

  /** What goes on by the audio clock whether the page is seen or not: rounds, ladder, rests, the end. */
  #tick(): void {
    const player = this.#player;
    const beat = player?.beat ?? null;
    if (!player || beat === null) return;
    this.#enter(player.roundAt(beat));
    this.#listenAlong(beat);
    if (beat >= player.end && player.end > 0) {
      this.stop();
      this.problem = 'The chart has no chords any more; the band has stopped.';
      return;
    }
    const { restAfter } = settings.now;
    if (restAfter > 0 && player.seconds - this.#rested >= restAfter * 60) {
      this.wantsRest = true;
      this.#rested = player.seconds;
    }
  }

  #enter(laid: LaidRound<BandRound> | null): void {
    if (!laid || laid === this.#laid) return;
    if (laid.number === this.#laid?.number) {
      this.#laid = laid;
      return;
    }
    if (this.#laid) this.#tell(true);
    else this.#roundBegan = this.#player?.seconds ?? 0;
    this.#laid = laid;
    this.round = laid.number;
    this.#prepare(laid.number + 1);
    const { tempo } = laid.round;
    // A ladder brings its tempo with the round; what the player has set since stands.
    if (this.#ladder) this.tempo = boundedTempo(this.desk.halfTime ? tempo * 2 : tempo);
  }

  /** Follows the audio clock, frame by frame. */
  #follow(): void {
    const player = this.#player;
    const beat = player?.beat ?? null;
    if (!player || beat === null || !this.isPlaying) return;
    const before = this.change;
    // What is drawn now is seen when it has been drawn.
    const seen = beat < 0 ? beat : beat + (this.#ahead * player.tempoAt(beat)) / 60;
    this.#frame = requestAnimationFrame(() => this.#follow());
    if (!this.#isStep(player.roundAt(seen), seen)) return;
    this.level = player.level;
    this.late = player.late;
    this.#enter(player.roundAt(seen));
    this.beat = seen;
    if (this.change !== before && this.change) {
      this.shown.select(this.change.source.index, false);
      const sounded = seen - (this.inRound - this.change.start);
      const begun = performance.now();
      requestAnimationFrame(() => this.#measure(sounded, (performance.now() - begun) / 1000));
    }
  }

  /** Whether anything but a gliding playhead is to be seen; where motion is not wished for, nothing glides. */
  #isStep(laid: LaidRound<BandRound> | null, beat: number): boolean {
    if (!wantsCalm() || laid !== this.#laid || beat < 0 || this.beat < 0) return true;
    const start = laid?.start ?? 0;
    return beat < this.beat || passesOne(this.#moments, this.beat - start, beat - start);
  }
  readonly #moments = $derived.by(() => (this.now ? momentsIn(this.now) : []));

  /** Notes how far the sound has gone past a beat by the time that its change is on the screen. */
  #measure(beat: number, drawing: number): void {
    const now = this.#player?.beat ?? null;
    if (now === null) return;
    this.#ahead = Math.min(LONGEST_AHEAD, 0.8 * this.#ahead + 0.2 * drawing);
    this.#lags = [...this.#lags.slice(-MOST_LAGS), (Math.abs(now - beat) * 60) / this.sounding];
    const ordered = [...this.#lags].sort((a, b) => a - b);
    this.lag = { count: ordered.length, median: ordered[Math.floor(ordered.length / 2)]! };
  }

  close(): void {
    this.stop();
    clearTimeout(this.#again);
    cancelAnimationFrame(this.#frame);
    this.#letGo();
    this.pedals.close();
    this.backing.close();
    this.#player?.close();
    this.#player = null;
  }

  /** When the first beat sounds by the audio clock, and at which tempo; null at rest. */
  get firstBeat(): { readonly second: number; readonly tempo: number } | null {
    return this.#player?.firstBeat ?? null;
  }

  /** The audio clock, in seconds; null at rest. */
  get audioNow(): number | null {
    return this.#player?.now ?? null;
  }

  /** The beat that sounds at a second of the audio clock; null at rest. */
  beatAt(second: number): number | null {
    return this.#player?.beatAt(second) ?? null;
  }

  /** The changes of the round that sounds with what is meant at them, in beats since the first round began; null at rest. */
  readonly landings: readonly MeantLanding[] | null = $derived.by(() => {
    const laid = this.#laid;
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

  /** All that is heard in one round: for files. */
  get events(): readonly SoundEvent[] {
    return this.now?.events ?? [];
  }
}

/** What a plan gives to a round. */
function materialOf({ arrangement, paths }: Workspace): PlanMaterial {
  const { analysis, areas, areasUp, neck, skeleton } = arrangement;
  const { path, targets } = paths;
  return { analysis, areas, areasUp, neck, targets, skeleton: () => path && skeleton(path) };
}
