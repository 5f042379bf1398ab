/**
 * The takes of a chart: how they come in (microphone, file, MIDI, simulated player), how they are heard and judged, and what is kept. The
 * listening itself is done beside the page.
 */
/* eslint-disable svelte/prefer-svelte-reactivity -- the map here is of a recording under way, which nothing shows */
import { proxy, wrap, type Remote } from 'comlink';
import type { ListedTake, StoredTake, TakeData, WayIn } from '$lib/api/take';
import type { Microphone } from '$lib/audio/input/microphone';
import { settings } from './settings.svelte';
import { NotReadable } from '$lib/core/formats/not-readable';
import { readSheet } from '$lib/core/harmony/sheet';
import { beatsOf, endOf, noteOf, ticksOf, type LineNote } from '$lib/core/line/model';
import { excerptOf } from '$lib/core/harmony/excerpt';
import { swung } from '$lib/core/line/sound';
import { quarterTempo, swingAt, swingOver } from '$lib/core/practice/pulse';
import type { Arrangement } from '$lib/core/plan/arrange';
import type { Plan } from '$lib/core/plan/model';
import { arrangeVersion, carriedOver, haveSameChoices, type ChartVersion } from '$lib/core/plan/version';
import { linesOf } from '$lib/core/plan/lines';
import { beatOf, inBeats, secondOf } from '$lib/core/takes/align';
import { exchangesOf, ownNotes, turnAt, turnsIn, type Exchange, type TradeBars } from '$lib/core/takes/trade';
import { callsIn } from '$lib/core/takes/calls';
import { findClock } from '$lib/core/takes/find-clock';
import { meantTargets } from '$lib/core/plan/pin-times';
import { judgeTake, type Judgement, type JudgingGround, type MeantTarget } from '$lib/core/takes/judge/judge';
import { chartSwing } from '$lib/core/practice/chart-swing';
import { meantBy } from '$lib/core/takes/meant';
import { habitsOf, remarksOn, type TakeHabit, type TakeRemark } from '$lib/core/takes/judge/remarks';
import type { Listened, PlayedNote, RecordedBlock, Trouble } from '$lib/core/takes/model';
import { perform } from '$lib/core/takes/player/perform';
import type { Tone } from '$lib/core/takes/player/string';
import type { ListenerApi } from '../workers/listener';
import ListenerWorker from '../workers/listener?worker';
import { Attempts } from './attempts.svelte';
import { dayHere } from './day-here';
import { latencyFrom } from '$lib/core/takes/latency';
import { Ear } from './ear.svelte';
import { keepLatency, latencyOf, MIDI_INPUT } from './latency';
import { Rehearsal } from './rehearsal.svelte';
import { logBox } from './practice-log';
import { SoundUpload } from './sound-upload';
import * as client from './takes-client';
import type { Workspace } from './workspace.svelte';

/** Samples a second of sounds that were made or read here. */
const RATE = 44_100;
/** Milliseconds after which a server that was away is tried again. */
const RETRY = 3000;
/** Seconds of a take that is listened to. */
const LONGEST_SECONDS = 600;
const CLOCK = new Intl.DateTimeFormat(undefined, { hour: '2-digit', minute: '2-digit' });
/** How loud Corvel is beside the player in a replay, 0 to 1. */
const CALL_LOUDNESS = 0.4;
/** Seconds of silence before the simulated player begins. */
const LEAD = 0.5;
/** Levels, full scale 1: over the one it is too loud, under the other nothing is heard. */
export const LEVELS = { clips: 0.985, silent: 0.004 } as const;

export const TROUBLE_WORDS: Readonly<Record<Trouble | 'cut short', string>> = {
  silence: 'Nothing can be heard in it: is the cable in, and the right input chosen?',
  noise: 'No notes could be told from the noise in it. Come nearer to the microphone, or turn the band down.',
  clipped: 'It was too loud and is clipped: turn the input down. What could be read was read.',
  'several notes at once':
    'Several notes sound at once in it. Only one line at a time can be read, so the result may be wrong.',
  'cut short': 'The sound ends before it should; it is read as far as it goes.'
};

/** What the simulated player is asked for. */
export interface PlayerWish {
  readonly skill: number;
  readonly tone: Tone;
  readonly seed: number;
  /** The target line with what leads in, a found line, or a kept line by its id. */
  readonly what: string;
  readonly rounds: number;
}

/** Milliseconds in which the last sound comes in. */
const FLUSHED = 2000;

export const PLAYED = { targets: 'targets', found: 'found' } as const;

export class Takes extends Attempts {
  readonly workspace: Workspace;
  readonly rehearsal: Rehearsal;
  list: readonly ListedTake[] = $state.raw([]);
  isLoaded = $state(false);
  opened: StoredTake | null = $state.raw(null);
  /** What is under way, as a sentence; empty where nothing is. */
  doing = $state('');
  /** How much of it is done, 0 to 1; null where that is not known. */
  done: number | null = $state(null);
  /** The simulated player's, or a file's: it can be stopped. */
  isStoppable = $state(false);
  /** The light is on: the microphone is being listened to. */
  isRecording = $state(false);
  /** Of the input, 0 to 1, and whether it was too loud lately. */
  level = $state(0);
  isClipping = $state(false);
  /** What was measured or done, told once. */
  said = $state('');
  /** Sound that could not be sent yet. */
  waits = $state('');

  #worker: Worker | null = null;
  #listener: Remote<ListenerApi> | null = null;
  #microphone: Microphone | null = null;
  #isClosed = false;

  /** Bars that Corvel and the player trade in the next take; null where the player has them all. */
  trading: TradeBars | null = $state(null);
  /** Whose turn it is while bars are traded, and the beats left of it; null before and after. */
  readonly turn: { readonly isOwn: boolean; readonly left: number } | null = $derived.by(() => {
    const { trading, rehearsal, isRecording } = this;
    if (!trading || !isRecording || !rehearsal.isPlaying || rehearsal.beat < 0) return null;
    const { form } = this.workspace.sheet;
    const turn = turnAt(turnsIn(form, trading, rehearsal.round + 2), rehearsal.beat);
    return turn ? { isOwn: turn.isOwn, left: turn.to - rehearsal.beat } : null;
  });

  constructor(workspace: Workspace) {
    super();
    this.workspace = workspace;
    this.rehearsal = new Rehearsal(workspace, (...rows) =>
      logBox.put(...rows.map((row) => ({ ...row, kind: 'take' as const })))
    );
    this.rehearsal.isForTake = true;
  }

  get #chart(): string {
    return this.workspace.document.id;
  }

  /** Another take, read beside the opened one. */
  beside: StoredTake | null = $state.raw(null);

  async putBeside(id: string): Promise<void> {
    await this.attempt(async () => {
      const take = await client.openTake(this.#chart, id);
      if (!this.#isClosed) this.beside = take;
    });
  }

  putAway(): void {
    this.beside = null;
  }

  /** What is decided today, carried over to the text of the take that is open. */
  readonly #todayOver: Plan | null = $derived.by(() => {
    const { document, plan } = this.workspace;
    const data = this.opened?.data;
    return data ? carriedOver({ source: document.source, plan }, data.source).plan : null;
  });
  /** Whether the take that is open was played to another text of the chart, or to other decisions. */
  readonly isOfThen: boolean = $derived.by(() => {
    const data = this.opened?.data;
    return !!data && (data.source !== this.workspace.document.source || this.isJudgedOtherwise);
  });
  /** Whether it is judged by other decisions than today's. */
  readonly isJudgedOtherwise: boolean = $derived.by(() => {
    const plan = this.opened?.data?.plan;
    return plan !== undefined && this.#todayOver !== null && !haveSameChoices(plan, this.#todayOver);
  });

  /** The chart of a take as it was then. */
  #arrangementOf(data: TakeData): Arrangement {
    const { arrangement, plan, neck, system, document } = this.workspace;
    const today: ChartVersion = { source: document.source, plan };
    // A take of before plans were kept with takes is read with today's, each decision on its change.
    const version: ChartVersion = data.plan
      ? { source: data.source, plan: data.plan }
      : carriedOver(today, data.source);
    const isToday = version.source === today.source && haveSameChoices(version.plan, plan);
    return isToday ? arrangement : arrangeVersion(version, neck, system);
  }
  readonly arranged: Arrangement | null = $derived.by(() =>
    this.opened?.data ? this.#arrangementOf(this.opened.data) : null
  );
  readonly #ground = $derived(this.arranged && groundOf(this.arranged));
  readonly judgement: Judgement | null = $derived.by(() =>
    this.opened?.data && this.arranged && this.#ground
      ? judged(this.opened.data, this.arranged, this.#ground)
      : null
  );
  readonly besideJudged = $derived.by(() => {
    const data = this.beside?.data;
    const arranged = data && this.#arrangementOf(data);
    const ground = arranged && groundOf(arranged);
    return ground ? { arranged, judgement: judged(data, arranged, ground) } : null;
  });
  /** Where bars were traded: how each answer stands to its call. */
  readonly exchanges: readonly Exchange[] = $derived.by(() => {
    const data = this.opened?.data;
    const { judgement } = this;
    const form = this.arranged?.sheet.form;
    if (!data?.trade || !judgement || !form) return [];
    return exchangesOf(
      turnsIn(form, data.trade.bars, judgement.figures.rounds),
      inBeats(data.notes, data),
      data.trade.call.map(({ start, length, midi }) => noteOf(start, length, midi)),
      judgement.changes.map(({ change, round, verdict }) => ({
        start: form.changes[change]!.start + round * form.beats,
        verdict
      }))
    );
  });
  /** Ways of playing that hold for the whole take. */
  readonly habits: readonly TakeHabit[] = $derived.by(() =>
    this.judgement && this.#ground && this.judgement.figures.fits
      ? habitsOf(this.judgement, this.#ground)
      : []
  );
  /** Where the band has the second half of a beat. */
  readonly bandSwing: number = $derived.by(() =>
    this.arranged && this.opened?.data ? chartSwing(this.arranged.sheet, this.opened.data.tempo) : 0.5
  );
  readonly remarks: readonly TakeRemark[] = $derived.by(() =>
    this.judgement && this.#ground ? remarksOn(this.judgement, this.#ground) : []
  );

  /** The target line as it is meant now. */
  get #targets(): MeantTarget[] {
    return [...this.workspace.paths.targets.values()].map(({ change, cell }) => ({
      change,
      midi: cell.midi
    }));
  }

  /** `asked`: the take that is opened first, where it is still there. */
  async load(asked: string | null = null): Promise<void> {
    await this.attempt(async () => {
      this.list = (await client.listTakes(this.#chart)).takes;
    });
    this.isLoaded = true;
    const first = this.list.find(({ id }) => id === asked) ?? this.list[0];
    if (first && !this.opened) await this.open(first.id);
  }

  async open(id: string): Promise<void> {
    await this.attempt(async () => {
      const take = await client.openTake(this.#chart, id);
      if (this.#isClosed) return;
      this.opened = take;
      if (this.beside?.id === id) this.beside = null;
    });
  }

  #listening(): Remote<ListenerApi> {
    if (!this.#listener) {
      this.#worker = new ListenerWorker();
      this.#listener = wrap<ListenerApi>(this.#worker);
    }
    return this.#listener;
  }

  /** Ends what is worked out beside the page. */
  stopWork(): void {
    this.#worker?.terminate();
    this.#worker = null;
    this.#listener = null;
    this.#stopped?.();
    this.doing = '';
    this.isStoppable = false;
  }
  #stopped: (() => void) | null = null;

  /** Takes down how much is done, told from beside the page. */
  readonly #onShare = () => proxy((share: number) => void (this.done = share));

  /** Work beside the page that can be stopped; null where it was. */
  async #work<T>(says: string, work: (listener: Remote<ListenerApi>) => Promise<T>): Promise<T | null> {
    this.doing = says;
    this.done = null;
    this.isStoppable = true;
    try {
      return await Promise.race([
        work(this.#listening()),
        new Promise<null>((stop) => (this.#stopped = () => stop(null)))
      ]);
    } finally {
      this.#stopped = null;
      this.doing = '';
      this.done = null;
      this.isStoppable = false;
    }
  }

  /** The simulated player plays: a line is performed, made into sound, and heard like any other. */
  async simulate({ skill, tone, seed, what, rounds: wished }: PlayerWish): Promise<void> {
    this.problem = '';
    this.#calls.clear();
    const { workspace, rehearsal } = this;
    const line = this.#lineFor(what);
    if (!line || line.length === 0) {
      this.problem = 'There is no line to play yet. Write a chord or two first.';
      return;
    }
    const { form } = workspace.sheet;
    const tempo = rehearsal.sounding;
    if (this.trading && !this.#canCall(this.trading)) return;
    // In a form that is one turn long the player's turn is the second round.
    const rounds = this.trading ? Math.max(2, wished) : wished;
    const trade = this.#trade(rounds, Infinity);
    const turns = trade && turnsIn(form, trade.bars, rounds);
    const all = Array.from({ length: rounds }, (_, round) =>
      line.map((note) => ({ ...note, start: note.start + ticksOf(round * form.beats) }))
    )
      .flat()
      .filter(({ start }) => !turns || turnAt(turns, beatsOf(start))?.isOwn);
    const beatAt = this.#swung(tempo);
    const strokes = perform(all, {
      skill,
      seed,
      secondOf: (tick) => LEAD + (beatAt(beatsOf(tick)) * 60) / tempo,
      changes: Array.from({ length: rounds }, (_, round) =>
        form.changes.map(({ start }) => ticksOf(start + round * form.beats))
      ).flat()
    });
    const heard = await this.#work('The simulated player plays and is read', async (listener) => {
      const samples = await listener.sound(strokes, tone);
      return { ...(await listener.listen(samples, RATE, this.#onShare())), seconds: samples.length / RATE };
    });
    if (!heard) return;
    await this.#keep({
      name: `Simulated player, skill ${Math.round(skill * 100)} %`,
      seconds: heard.seconds,
      data: this.#own({
        ...this.#frame('player', tempo, LEAD),
        // A line of its own lands where it was written to; the target line where it is meant.
        ...(what === PLAYED.targets
          ? {}
          : { targets: meantBy(line, workspace.analysis.changes, workspace.sheet.form) }),
        ...told(heard),
        player: { skill, tone, seed, strokes },
        ...(trade ? { trade } : {})
      })
    });
  }

  /** Beats as the feel of the chart sounds them, round after round. */
  #swung(tempo: number): (beat: number) => number {
    const { sheet, analysis } = this.workspace;
    const { form } = sheet;
    const excerpt = excerptOf(form, analysis, { kind: 'form' });
    const [bar] = excerpt?.bars ?? [];
    if (!excerpt || !bar) return (beat) => beat;
    const swing = swingOver(excerpt.bars, swingAt(this.rehearsal.feel.swing, quarterTempo(tempo, bar)));
    return (beat) => {
      const begun = Math.floor(beat / form.beats) * form.beats;
      return begun + swung(beat - begun, swing);
    };
  }

  #lineFor(what: string): readonly LineNote[] | null {
    const { workspace } = this;
    const { arrangement, paths } = workspace;
    if (what === PLAYED.targets) return paths.path && arrangement.skeleton(paths.path).notes;
    if (what === PLAYED.found) {
      const wish = { level: 'phrases', subdivision: 2, seed: 0, alternatives: 1, pickup: false } as const;
      // One voice: of two notes at once the upper one.
      const notes = linesOf(arrangement, wish).lines[0]?.notes ?? null;
      return notes && notes.filter(({ start, ghost }, i) => !ghost && notes[i + 1]?.start !== start);
    }
    return workspace.keptLines.find(({ id }) => id === what)?.data?.notes ?? null;
  }

  /** What Corvel calls with, by the bars that are traded and the round; made when it is asked for. */
  readonly #calls = new Map<string, readonly LineNote[]>();

  /** What Corvel plays in a round of a trade: as a line over the form. */
  #callIn(bars: TradeBars, round: number): readonly LineNote[] {
    const key = `${bars} ${round}`;
    const known = this.#calls.get(key);
    if (known) return known;
    const call = callsIn(this.workspace.arrangement, bars, round);
    this.#calls.set(key, call);
    return call;
  }

  /** The trade of a take of some rounds, up to a beat. */
  #trade(rounds: number, until: number): TakeData['trade'] {
    const bars = this.trading;
    if (!bars) return undefined;
    const { form } = this.workspace.sheet;
    const call = Array.from({ length: rounds }, (_, round) =>
      this.#callIn(bars, round).map(({ start, length, midi }) => ({
        start: start + ticksOf(round * form.beats),
        length,
        midi
      }))
    ).flat();
    return { bars, call: call.filter(({ start }) => beatsOf(start) < until) };
  }

  /** The trade of a take of so many seconds, where bars are traded. */
  #tradeFor(tempo: number, seconds: number): Pick<TakeData, 'trade'> {
    const beats = (seconds * tempo) / 60;
    const trade = this.#trade(Math.ceil(beats / this.workspace.sheet.form.beats), beats);
    return trade ? { trade } : {};
  }

  /** The stand plays what Corvel calls with, or the band alone. False, and told, where there is nothing to call with. */
  #callOnStand(): boolean {
    const bars = this.trading;
    const { rehearsal } = this;
    const { meter } = this.workspace.sheet.head;
    this.#calls.clear();
    rehearsal.lineOfRound = null;
    if (!bars) return true;
    if (!this.#canCall(bars)) return false;
    // A call that is muted at the desk could not be answered.
    if (rehearsal.desk.mix.line.isMuted) rehearsal.setMix('line', { isMuted: false });
    rehearsal.lineOfRound = (round) => ({ meter, notes: this.#callIn(bars, round) });
    return true;
  }

  #canCall(bars: TradeBars): boolean {
    if ([0, 1].some((round) => this.#callIn(bars, round).length > 0)) return true;
    this.problem =
      'Corvel finds no line to call with here. Move the hand, or pin fewer targets; or play the whole form yourself.';
    return false;
  }

  /** A take with the player's own notes alone, as they are written: behind a capo they may sound higher. */
  #own(data: TakeData): TakeData {
    const { raised } = this.workspace.neck;
    const isSounding = data.way === 'microphone' || data.way === 'file' || data.way === 'midi';
    const written =
      raised && isSounding ? data.notes.map((note) => ({ ...note, midi: note.midi - raised })) : data.notes;
    if (!data.trade) return { ...data, notes: written };
    const { form } = readSheet(data.source);
    const call = data.trade.call.map(({ start, length, midi }) => noteOf(start, length, midi));
    const last = Math.max(0, ...written.map(({ at }) => beatOf(data, at)));
    const turns = turnsIn(form, data.trade.bars, Math.floor(last / form.beats) + 1);
    const end = ticksOf(turns.at(-1)?.to ?? 0);
    return {
      ...data,
      notes: ownNotes(written, ({ at }) => beatOf(data, at), turns, call),
      trade: { ...data.trade, call: data.trade.call.filter(({ start }) => start < end) }
    };
  }

  /** What every take of now has. */
  #frame(way: WayIn, tempo: number, start: number) {
    return {
      way,
      source: this.workspace.document.source,
      plan: this.workspace.plan,
      tempo,
      start,
      targets: this.#targets,
      latency: null,
      isLoved: false,
      remark: ''
    };
  }

  async #keep(
    take: { readonly name: string; readonly seconds: number; readonly data: TakeData },
    sound?: Float32Array
  ): Promise<void> {
    const id = crypto.randomUUID();
    const now = Date.now();
    const keep = () =>
      this.attempt(async () => {
        this.opened = await client.keepTake(this.#chart, { id, playedAt: now, day: dayHere(now), ...take });
        if (sound) await this.#sendSound(id, sound);
        this.list = (await client.listTakes(this.#chart)).takes;
      });
    // What a hand has played cannot be had again: a server that is away is waited for.
    while (!(await keep()) && take.data.way === 'midi' && !this.#isClosed) {
      await new Promise((resolve) => setTimeout(resolve, RETRY));
    }
  }

  async #sendSound(id: string, samples: Float32Array): Promise<void> {
    const upload = new SoundUpload(this.#chart, id, RATE);
    upload.add(samples);
    if (!(await upload.send())) throw new Error(upload.problem);
  }

  /** A sound or MIDI file that was dropped or chosen. */
  async bring(file: File): Promise<void> {
    this.problem = '';
    const isMidi = /\.midi?$/i.test(file.name) || file.type.includes('midi');
    await (isMidi ? this.#bringMidi(file) : this.#bringSound(file));
  }

  async #bringSound(file: File): Promise<void> {
    this.doing = 'The file is read';
    const { mono, readRecording } = await import('$lib/audio/backing');
    const buffer = await readRecording(file).catch(() => null);
    this.doing = '';
    if (!buffer) {
      this.problem = `“${file.name}” is no sound that this browser reads; try WAV, MP3, OGG or FLAC.`;
      return;
    }
    if (buffer.duration > LONGEST_SECONDS) {
      this.problem = `“${file.name}” lasts ${Math.round(buffer.duration / 60)} minutes; a take has ${LONGEST_SECONDS / 60} at most. Cut out the part that you want to hear about.`;
      return;
    }
    const samples = mono(buffer);
    const heard = await this.#work('The file is listened to', (listener) =>
      listener.listen(samples, buffer.sampleRate, this.#onShare())
    );
    if (!heard) return;
    const { tempo, start } = findClock(heard.notes, this.rehearsal.sounding);
    await this.#keep(
      {
        name: nameOf(file),
        seconds: buffer.duration,
        data: this.#own({ ...this.#frame('file', tempo, start), ...told(heard) })
      },
      samples
    );
  }

  async #bringMidi(file: File): Promise<void> {
    const { readMidi } = await import('$lib/core/formats/midi/read');
    try {
      const { lines, melody } = readMidi(new Uint8Array(await file.arrayBuffer()));
      const voices = [...lines.map(({ notes }) => notes), ...(melody ? [melody] : [])];
      const [voice] = voices.sort((a, b) => b.length - a.length);
      if (!voice) throw new NotReadable('There is no line in this MIDI file: one voice is needed.');
      const tempo = this.rehearsal.sounding;
      const seconds = (ticks: number) => ((ticks / ticksOf(1)) * 60) / tempo;
      const notes = voice.map(({ start, length, midi }) => ({
        at: seconds(start),
        seconds: seconds(length),
        midi
      }));
      await this.#keep({
        name: nameOf(file),
        seconds: seconds(Math.max(...voice.map(endOf))),
        data: { ...this.#frame('midi file', tempo, 0), ...plain(notes) }
      });
    } catch (error) {
      this.problem = error instanceof NotReadable ? error.message : `“${file.name}” is no MIDI file.`;
    }
  }

  #midi: {
    readonly notes: PlayedNote[];
    readonly sounding: Map<number, number>;
    readonly stop: () => void;
  } | null = null;

  /** Records what a MIDI instrument plays with the band. */
  async recordMidi(): Promise<void> {
    this.problem = '';
    const audio = await import('$lib/audio/midi-in').catch(() => null);
    let zero = 0;
    const notes: PlayedNote[] = [];
    const sounding = new Map<number, number>();
    const latency = latencyOf(MIDI_INPUT);
    const second = (at: number) => at / 1000 - zero - (latency ?? 0);
    const release = ({ midi, at }: { readonly midi: number; readonly at: number }) => {
      const from = sounding.get(midi);
      sounding.delete(midi);
      if (from !== undefined) notes.push({ at: from, seconds: Math.max(0.02, second(at) - from), midi });
    };
    const stop = await audio
      ?.listenToMidi((stroke) => {
        release(stroke);
        sounding.set(stroke.midi, second(stroke.at));
        this.level = 1;
      }, release)
      .catch(() => null);
    if (!audio || !stop) {
      this.problem =
        'This browser can’t use MIDI instruments. Record with the microphone, or import a MIDI file.';
      return;
    }
    if (audio.midiInputs() === 0) {
      stop();
      this.problem = 'No MIDI instrument is plugged in. Plug one in and try again.';
      return;
    }
    if (!this.#callOnStand()) {
      stop();
      return;
    }
    await this.rehearsal.play();
    const first = this.rehearsal.firstBeat;
    const now = this.rehearsal.audioNow;
    if (!first || now === null) {
      stop();
      this.problem = this.rehearsal.problem;
      return;
    }
    // Times of the page against those of the audio clock: the second 0 of the take is the first beat.
    zero = performance.now() / 1000 + (first.second - now);
    this.#midi = { notes, sounding, stop };
    this.isRecording = true;
  }

  async #finishMidi(): Promise<void> {
    const recording = this.#midi;
    const first = this.rehearsal.firstBeat;
    if (!recording || !first) return;
    this.#midi = null;
    recording.stop();
    const end = (this.rehearsal.audioNow ?? first.second) - first.second;
    this.rehearsal.stop();
    this.#closeMicrophone();
    for (const [midi, at] of recording.sounding)
      recording.notes.push({ at, seconds: Math.max(0.02, end - at), midi });
    const notes = recording.notes.filter(({ at }) => at > -1).sort((a, b) => a.at - b.at);
    if (notes.length === 0) {
      this.problem = 'No note came in from the instrument; nothing was kept.';
      return;
    }
    const name = `Take of ${CLOCK.format(Date.now())}`;
    await this.#keep({
      name,
      seconds: end,
      data: this.#own({
        ...this.#frame('midi', first.tempo, 0),
        latency: latencyOf(MIDI_INPUT),
        ...plain(notes),
        ...this.#tradeFor(first.tempo, end)
      })
    });
  }

  /** The same for MIDI instruments. */
  async calibrateMidi(): Promise<void> {
    this.problem = '';
    this.said = '';
    const strokes: number[] = [];
    const ear = new Ear({ isRaw: true, onNote: ({ at }) => strokes.push(at) });
    await ear.open('midi');
    if (!ear.input) {
      this.problem = ear.problem;
      return;
    }
    try {
      const { playClicks } = await import('$lib/audio/input/clicks');
      const clicks = await playClicks();
      this.doing = 'Play a short note with each of eight clicks';
      await clicks.over;
      clicks.stop();
      this.#tellLatency(MIDI_INPUT, latencyFrom(clicks.at, strokes));
    } catch (error) {
      this.problem = (error as Error).message;
    } finally {
      this.doing = '';
      ear.close();
    }
  }

  #tellLatency(input: string, measured: ReturnType<typeof latencyFrom>): void {
    if (measured) {
      keepLatency(input, measured);
      this.said = `This input comes in ${Math.round(1000 * measured.seconds)} ms late, give or take ${Math.round(500 * measured.spread)}. Takes from now on are moved by that.`;
    } else {
      this.problem =
        'Too few of the clicks were answered in time. Play one short note with each, and nothing between.';
    }
  }

  /** Eight clicks to play with: how late this input comes in is measured, and kept for it. */
  async calibrate(): Promise<void> {
    this.problem = '';
    this.said = '';
    this.doing = 'The browser asks whether it may listen';
    const blocks: RecordedBlock[] = [];
    let microphone: Microphone | null = null;
    try {
      const [{ openMicrophone }, { playClicks }] = await Promise.all([
        import('$lib/audio/input/microphone'),
        import('$lib/audio/input/clicks')
      ]);
      microphone = await openMicrophone(
        (block) => {
          this.#hear(block);
          blocks.push(block);
        },
        () => (this.problem = 'The microphone was disconnected; nothing was measured.'),
        settings.now.input
      );
      const clicks = await playClicks();
      this.doing = 'Play a short note, or tap the guitar, with each of eight clicks';
      await clicks.over;
      clicks.stop();
      await microphone.flush();
      const { rate, name } = microphone;
      const begun = (blocks[0]?.frame ?? 0) / rate;
      const onsets = await this.#work('The clicks are looked for', (listener) =>
        listener.onsets(joined(blocks), rate)
      );
      if (onsets) {
        const heard = onsets.map((onset) => onset + begun);
        this.#tellLatency(name, latencyFrom(clicks.at, heard));
      }
    } catch (error) {
      this.problem = (error as Error).message;
    } finally {
      this.doing = '';
      microphone?.close();
      this.level = 0;
      this.isClipping = false;
    }
  }

  #recording: { readonly id: string; readonly upload: SoundUpload; blocks: RecordedBlock[] } | null = null;

  /** Asks for the microphone, counts in, and records while the band plays. */
  async record(): Promise<void> {
    if (this.isRecording) return this.finish();
    this.problem = '';
    this.doing = 'The browser asks whether it may listen';
    const { openMicrophone } = await import('$lib/audio/input/microphone');
    try {
      const microphone = await openMicrophone(
        (block) => this.#hear(block),
        () => {
          void this.finish().then(
            () => (this.problem = 'The microphone was disconnected. What was recorded until then is kept.')
          );
        },
        settings.now.input
      );
      this.#microphone = microphone;
    } catch (error) {
      this.problem = (error as Error).message;
      this.doing = '';
      return;
    }
    this.doing = '';
    if (!this.#callOnStand()) {
      this.#closeMicrophone();
      return;
    }
    await this.rehearsal.play();
    const first = this.rehearsal.firstBeat;
    if (!first) {
      this.#closeMicrophone();
      this.problem = this.rehearsal.problem;
      return;
    }
    const id = crypto.randomUUID();
    const { rate } = this.#microphone;
    const now = Date.now();
    const origin = this.#microphone.now();
    const latency = latencyOf(this.#microphone.name);
    const start = first.second - origin + (latency ?? 0);
    this.#origin = Math.round(origin * rate);
    const take = {
      id,
      name: `Take of ${CLOCK.format(now)}`,
      playedAt: now,
      day: dayHere(now),
      seconds: 0,
      data: {
        ...this.#frame('microphone', first.tempo, start),
        ...plain([]),
        latency,
        ...this.#tradeFor(first.tempo, LONGEST_SECONDS)
      }
    };
    // The take is there from its first moment on: what is torn off is kept as far as it came.
    const upload = new SoundUpload(this.#chart, id, rate, () => client.keepTake(this.#chart, take));
    this.#recording = { id, upload, blocks: [] };
    this.isRecording = true;
    void upload.send();
  }
  /** Frame of the clock at which the recording begins. */
  #origin = 0;

  #hear(block: RecordedBlock): void {
    const loudest = block.samples.reduce((most, sample) => Math.max(most, Math.abs(sample)), 0);
    this.level = loudest;
    if (loudest >= LEVELS.clips) this.isClipping = true;
    const recording = this.#recording;
    if (!recording) return;
    const skip = Math.max(0, this.#origin - block.frame);
    const samples = block.samples.subarray(skip);
    if (samples.length === 0) return;
    recording.blocks.push({ frame: block.frame + skip, samples: samples as Float32Array<ArrayBuffer> });
    recording.upload.add(samples);
    this.waits = recording.upload.problem;
    if (block.frame - this.#origin > LONGEST_SECONDS * recording.upload.rate) {
      this.said = `A take has ${LONGEST_SECONDS / 60} minutes at most; this one was ended there.`;
      void this.finish();
    }
  }

  #closeMicrophone(): void {
    this.#microphone?.close();
    this.#microphone = null;
    this.isRecording = false;
    this.isClipping = false;
    this.level = 0;
  }

  /** Ends the recording: the rest of the sound is sent, then it is listened to. */
  async finish(): Promise<void> {
    if (this.#midi) return this.#finishMidi();
    const recording = this.#recording;
    const rate = this.#microphone?.rate ?? RATE;
    if (!recording) return;
    this.rehearsal.stop();
    // A page that has slept may hear nothing of it any more: what has come in is read.
    await Promise.race([this.#microphone?.flush(), new Promise((over) => setTimeout(over, FLUSHED))]);
    this.#recording = null;
    this.#closeMicrophone();
    const samples = joined(recording.blocks);
    const heard = await this.#work('What you played is listened to', (listener) =>
      listener.listen(samples, rate, this.#onShare())
    );
    // A server that is away is waited for: the take is in the page until it has arrived.
    while (!(await recording.upload.send()) && !this.#isClosed) {
      this.waits = recording.upload.problem;
      await new Promise((resolve) => setTimeout(resolve, RETRY));
    }
    this.waits = '';
    await this.#judgeRecording(recording.id, heard, samples.length / rate);
  }

  async #judgeRecording(id: string, heard: Listened | null, seconds: number): Promise<void> {
    await this.attempt(async () => {
      const take = await client.openTake(this.#chart, id);
      if (take.data && heard) {
        const data = this.#own({ ...take.data, ...told(heard) });
        await client.changeTake(this.#chart, id, { base: take.version, seconds, data });
      }
      this.opened = await client.openTake(this.#chart, id);
      this.list = (await client.listTakes(this.#chart)).takes;
    });
  }

  /** Whether a take has a sound that was never listened to: it was torn off. */
  get isTornOff(): boolean {
    const { opened } = this;
    return opened !== null && opened.way === 'microphone' && opened.seconds === 0 && opened.bytes > 0;
  }

  /** Listens to the sound of the opened take again. */
  async listenAgain(): Promise<void> {
    const take = this.opened;
    if (!take) return;
    const sound = await this.sound();
    if (!sound) return;
    const heard = await this.#work('The take is listened to', (listener) =>
      listener.listen(sound.samples, sound.rate, this.#onShare())
    );
    if (heard) await this.#judgeRecording(take.id, heard, sound.samples.length / sound.rate);
  }

  /** The sound of the opened take: as it was kept, or made again where the simulated player played it. */
  async sound(): Promise<{ samples: Float32Array<ArrayBuffer>; rate: number } | null> {
    const take = this.opened;
    if (!take?.data) return null;
    const { player } = take.data;
    if (player) {
      const samples = await this.#work('Its sound is made', (listener) =>
        listener.sound(player.strokes, player.tone)
      );
      return samples && { samples: samples as Float32Array<ArrayBuffer>, rate: RATE };
    }
    if (take.bytes === 0) return null;
    const { readWav } = await import('$lib/core/formats/wav/read');
    let sound: { samples: Float32Array<ArrayBuffer>; rate: number } | null = null;
    await this.attempt(async () => {
      const response = await fetch(client.soundPath(this.#chart, take.id)).catch(() => null);
      if (!response?.ok)
        throw new Error('The sound of this take could not be loaded; the server does not answer.');
      sound = readWav(new Uint8Array(await response.arrayBuffer()), Infinity);
    });
    return sound;
  }

  /** The sound of the opened take; where bars were traded, with what Corvel had played on the same string as the simulated player. */
  async soundWithCall(): Promise<{ samples: Float32Array<ArrayBuffer>; rate: number } | null> {
    const sound = await this.sound();
    const data = this.opened?.data;
    if (!sound || !data?.trade?.call.length) return sound;
    const beatAt = this.#swung(data.tempo);
    const strokes = data.trade.call.map(({ start, length, midi }) => ({
      at: secondOf(data, beatAt(beatsOf(start))),
      seconds: (beatsOf(length) * 60) / data.tempo,
      midi,
      loudness: CALL_LOUDNESS
    }));
    const call = await this.#work('What Corvel played is made', (listener) =>
      listener.sound(
        strokes.filter(({ at }) => at >= 0),
        'dark'
      )
    );
    if (!call) return null;
    const { samples, rate } = sound;
    // Both are at their own rates; the nearest sample is near enough for what is only heard along.
    const both = samples.map((sample, i) => sample + (call[Math.round((i * RATE) / rate)] ?? 0));
    return { samples: both, rate };
  }

  /** Another clock for the opened take: the tempo, or the second of its first beat, as the player says. */
  async setClock(tempo: number, start: number): Promise<void> {
    await this.#edit((data) => ({ ...data, tempo, start }));
  }

  /** Moves the opened take by beats, later above 0; gives how to move it back, null where that failed. */
  async moveBy(beats: number): Promise<(() => Promise<void>) | null> {
    const before = this.opened?.data;
    if (!before) return null;
    const start = before.start - (beats * 60) / before.tempo;
    await this.setClock(before.tempo, start);
    if (this.opened?.data?.start !== start) return null;
    return () => this.setClock(before.tempo, before.start);
  }

  /** Reads the opened take by what is decided today; gives what reads it as before, null where that failed. */
  async judgeByToday(): Promise<(() => Promise<void>) | null> {
    const before = this.opened?.data;
    const plan = this.#todayOver;
    if (!before || !plan) return null;
    await this.#edit((data) => ({ ...data, plan, today: true }));
    if (this.opened?.data?.today !== true) return null;
    const { plan: then, today } = before;
    return () => this.#edit((data) => ({ ...data, plan: then, today }));
  }

  async setLoved(isLoved: boolean): Promise<void> {
    await this.#edit((data) => ({ ...data, isLoved }));
  }

  async rename(name: string): Promise<void> {
    await this.#change({ name });
  }

  async #edit(change: (data: TakeData) => TakeData): Promise<void> {
    const data = this.opened?.data;
    if (data) await this.#change({ data: change(data) });
  }

  async #change(edit: { readonly name?: string; readonly data?: TakeData }): Promise<void> {
    const take = this.opened;
    if (!take) return;
    await this.attempt(async () => {
      await client.changeTake(this.#chart, take.id, { base: take.version, ...edit });
      this.opened = await client.openTake(this.#chart, take.id);
      this.list = (await client.listTakes(this.#chart)).takes;
    });
  }

  async remove(take: ListedTake): Promise<boolean> {
    return this.attempt(async () => {
      await client.deleteTake(this.#chart, take.id);
      this.list = this.list.filter(({ id }) => id !== take.id);
      if (this.opened?.id !== take.id) return;
      const [first] = this.list;
      this.opened = first ? await client.openTake(this.#chart, first.id) : null;
    });
  }

  async bringBack(id: string): Promise<void> {
    await this.attempt(async () => {
      await client.bringBackTake(this.#chart, id);
      this.list = (await client.listTakes(this.#chart)).takes;
      this.opened = await client.openTake(this.#chart, id);
    });
  }

  /** Takes the sound off the disk. */
  async forgetSound(): Promise<void> {
    const take = this.opened;
    if (!take) return;
    await this.attempt(async () => {
      await client.forgetSound(this.#chart, take.id);
      this.opened = await client.openTake(this.#chart, take.id);
      this.list = (await client.listTakes(this.#chart)).takes;
    });
  }

  /** The sound of a take was taken off elsewhere. */
  async soundGone(id: string): Promise<void> {
    if (this.opened?.id === id) await this.open(id);
  }

  close(): void {
    this.#isClosed = true;
    const end = () => {
      this.#closeMicrophone();
      this.rehearsal.close();
      this.stopWork();
    };
    // What is being recorded when the view is left is read to its end.
    if (this.isRecording) void this.finish().finally(end);
    else end();
  }
}

/** What takes of a chart are judged against; null where it has no chords. */
function groundOf({ sheet, analysis, chosen, neck }: Arrangement): JudgingGround | null {
  if (analysis.changes.length === 0) return null;
  return { form: sheet.form, analysis, chosen, meter: sheet.head.meter, neck };
}

/** A take against what was meant when it was played: targets that the plan pins early or late are wanted then. */
function judged(
  { notes, tempo, start, targets, trade }: TakeData,
  { plan, sheet }: Arrangement,
  ground: JudgingGround
): Judgement {
  const meant = meantTargets(targets, plan, ground.form);
  return judgeTake(
    { notes, clock: { tempo, start }, targets: meant, trade: trade?.bars, swing: chartSwing(sheet, tempo) },
    ground
  );
}

const nameOf = (file: File) => file.name.replace(/\.[^.]+$/, '').slice(0, 120) || 'A file';

/** What was heard, as it is kept. */
function told({ notes, tuning, troubles }: Listened) {
  return {
    notes: notes.map((note) => ({ ...note, curve: [...note.curve] })),
    tuning,
    troubles: [...troubles]
  };
}

/** Notes that came as notes. */
const plain = (notes: readonly PlayedNote[]) => ({
  notes: notes.map((note) => ({ ...note, cents: 0, confidence: 1, curve: [] })),
  tuning: 0,
  troubles: []
});

/** Blocks in their places: what was lost on the way is silence. */
function joined(blocks: readonly RecordedBlock[]): Float32Array {
  const first = blocks[0]?.frame ?? 0;
  const last = blocks.at(-1);
  const samples = new Float32Array(last ? last.frame + last.samples.length - first : 0);
  for (const block of blocks) samples.set(block.samples, block.frame - first);
  return samples;
}
