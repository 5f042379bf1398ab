/**
 * The lines of a chart: those that are kept with it, the one that is shown, how it was found, what is heard in it, and how it is
 * mended and moved. What is shown can be undone step by step until it is kept.
 */
import { wrap, type Remote } from 'comlink';
import type { LineData, StoredLine } from '$lib/api/line';
import { readStyle, type Style } from '$lib/core/harmony/style';
import { levelOf, type LevelId } from '$lib/core/line/find/registry';
import { beatsOf, endOf, ordered, ticksOf, type LineNote } from '$lib/core/line/model';
import { atPitch, byDegrees, laidOut, measureOf, type MovedWhere } from '$lib/core/line/move';
import { askedOf, mendOf, outlineLine, withChanges, type Mend } from '$lib/core/line/outline';
import { melodyText, withMelody, withRoomFor } from '$lib/core/line/melody-out';
import { frettedPitch, placeNotes } from '$lib/core/line/place';
import { changeHeardAt } from '$lib/core/line/read';
import type { Stretch } from '$lib/core/line/edit';
import type { Motif } from '$lib/core/line/find/motif';
import type { OnePhrase } from '$lib/core/line/phrase/alone';
import { linesOf, type LineWish } from '$lib/core/plan/lines';
import type { AnalysedChange } from '$lib/core/harmony/analysis';
import { lowestFret, type Instrument } from '$lib/core/neck/tuning';
import { readChord } from '$lib/core/theory/chord-reader';
import { counted } from '$lib/core/theory/words';
import type { FinderApi, FinderJob } from '../workers/finder';
import { draftOf, flushDraft, keepDraft, keepDraftSoon, takeUpDraft } from './line-draft';
import * as client from './lines-client';
import { otherWindows } from './windows';
import type { Workspace } from './workspace.svelte';

/** Ways a line was found, so that it can be had again and the next one asked for. */
export interface Finding {
  readonly level: LevelId;
  readonly figure?: string;
  readonly subdivision: number;
  /** How dense and how bold phrases are, 0 to 1; as the style has it where nothing is said. */
  readonly density?: number | undefined;
  readonly boldness?: number | undefined;
  readonly seed: number;
  /** Which of the best it is, 0 the best. */
  readonly rank: number;
}

export interface ShownLine {
  readonly notes: readonly LineNote[];
  readonly name: string;
  /** The kept line it is; null for one that is not kept. */
  readonly id: string | null;
  readonly finding: Finding | null;
  /** How many of its notes are others than those shown before it, in the same rhythm. */
  readonly differs?: number;
  /** Stretches of phrases, in ticks, that stay as they are when others are made anew. */
  readonly locks?: readonly Stretch[];
}

/** A note that is struck, however it was reached before. */
function struckPlainly({ slide: _slide, slur: _slur, ...note }: LineNote): LineNote {
  return note;
}

/** Where a kept line has its name, the melody of the chart has this. */
export const MELODY = 'melody';
const FIRST: Finding = { level: 'phrases', subdivision: 2, seed: 0, rank: 0 };
/** The best lines that are had at once, to go through them. */
const BEST = 6;
/** Changes a line is found over at once; of a longer chart those from the selected one on. */
const MOST_CHANGES = 128;
/** Seeds of phrases that are asked for one after another. */
const SEEDS_APART = 104_729;
/** Steps that can be undone. */
const MOST_STEPS = 200;

export class Lines {
  readonly #workspace: Workspace;
  kept: readonly StoredLine[] = $state.raw([]);
  /** They have come, or could not. */
  isLoaded = $state(false);
  shown: ShownLine | null = $state.raw(null);
  /** Something the player should know. */
  problem = $state('');
  isFinding = $state(false);
  /** What was asked last; the next press goes on from there. */
  asked: Finding = $state.raw(FIRST);
  #past: readonly (ShownLine | null)[] = $state.raw([]);
  #future: readonly (ShownLine | null)[] = $state.raw([]);
  #worker: Worker | null = null;
  #remote: Remote<FinderApi> | null = null;
  /** The best lines of the last finding. */
  #best: { readonly key: string; readonly lines: readonly (readonly LineNote[])[] } | null = null;
  #ask = 0;

  constructor(workspace: Workspace) {
    this.#workspace = workspace;
  }

  readonly asks = $derived.by(() => askedOf(this.#workspace.changes));
  /** What is judged: the line that is shown, or while it is written what it was when the hand last rested. */
  judged: readonly LineNote[] | null = $state.raw(null);
  readonly outline = $derived.by(() => {
    const notes = this.judged ?? this.shown?.notes;
    return notes ? outlineLine(notes, this.asks) : null;
  });
  /** The smallest change that lets the selected change be heard; null where there is none to be had, or needed. */
  readonly mend: Mend | null = $derived.by(() => {
    const { shown, outline, asks } = this;
    const at = this.#workspace.selected;
    const verdict = outline?.windows[at]?.verdict;
    if (!shown || !outline || (verdict !== 'partly' && verdict !== 'not')) return null;
    if (this.judged && this.judged !== shown.notes) return null;
    return mendOf(shown.notes, asks, at, outline.listening);
  });
  /** The kept line as it is stored, where one is shown. */
  readonly stored = $derived.by(() => this.kept.find(({ id }) => id === this.shown?.id) ?? null);
  /** What is shown is kept as it is. */
  readonly isKept = $derived.by(() => {
    const { shown, stored } = this;
    if (shown?.id === MELODY) {
      const form = withRoomFor(shown.notes, this.#workspace.sheet.form);
      const own = this.#workspace.melody?.line.notes ?? [];
      return melodyText(shown.notes, form) === melodyText(own, form);
    }
    return stored !== null && stored.data?.notes === shown?.notes && stored.name === shown?.name;
  });
  /** The chords have been edited since the line was kept. */
  readonly isOverOthers = $derived.by(() => {
    const over = this.stored?.data?.over;
    if (!over || this.stored?.data?.notes !== this.shown?.notes) return false;
    const now = this.#over();
    return over.length !== now.length || over.some((one, i) => !isSameSpan(one, now[i]!));
  });
  readonly canUndo = $derived(this.#past.length > 0);
  readonly canRedo = $derived(this.#future.length > 0);

  async load(): Promise<void> {
    try {
      this.kept = (await client.listLines(this.#workspace.document.id)).lines;
    } catch (error) {
      this.problem = sentence(error);
    }
    this.isLoaded = true;
    const draft = takeUpDraft(this.#workspace.document.id, await otherWindows());
    const first = this.kept.find(({ data }) => data);
    // What was written and not kept is there again.
    if (!this.shown && draft) this.shown = { ...draft, finding: null };
    else if (!this.shown && first) this.open(first.id);
    else if (!this.shown) await this.find({});
  }

  /** Shows another line; what was shown can be brought back. */
  #show(line: ShownLine | null): void {
    this.#past = [...this.#past.slice(-MOST_STEPS), this.shown];
    this.#future = [];
    this.shown = line;
    this.problem = '';
  }

  /** A line that has been written on; what has lost its place is placed anew. */
  edit(notes: readonly LineNote[], said: string): void {
    const before = this.shown;
    const all = notes.every(({ place }) => place) ? notes : this.#placedAnew(notes);
    this.#show({ name: 'A line of my own', id: null, ...before, notes: all, finding: null });
    keepDraftSoon(this.#workspace.document.id, this.shown);
    this.#workspace.say(said);
  }

  /** The same line with some of its phrases made anew; how it was found is still so of the rest. */
  revise(notes: readonly LineNote[], said: string, locks: readonly Stretch[]): void {
    const { shown } = this;
    if (!shown) return;
    const { differs: _, ...rest } = shown;
    this.#show({ ...rest, notes, locks });
    keepDraftSoon(this.#workspace.document.id, this.shown);
    if (said) this.#workspace.say(said);
  }

  /** An empty line, to be written. */
  blank(): void {
    this.#show({ notes: [], name: 'A line of my own', id: null, finding: null });
    this.#workspace.say('An empty line');
  }

  undo(): void {
    const last = this.#past.at(-1);
    if (last === undefined) return;
    this.#future = [...this.#future, this.shown];
    this.#past = this.#past.slice(0, -1);
    this.shown = last;
    this.problem = '';
    this.#redraft();
    this.#workspace.say('Line: one step back');
  }

  redo(): void {
    const next = this.#future.at(-1);
    if (next === undefined) return;
    this.#past = [...this.#past, this.shown];
    this.#future = this.#future.slice(0, -1);
    this.shown = next;
    this.problem = '';
    this.#redraft();
    this.#workspace.say('Line: one step on');
  }

  /** What survives a reload goes along with undo and redo. */
  #redraft(): void {
    const chart = this.#workspace.document.id;
    flushDraft();
    if (draftOf(chart)) keepDraft(chart, this.isKept ? null : this.shown);
  }

  open(id: string): void {
    const line = this.kept.find((one) => one.id === id);
    if (!line) return;
    if (!line.data) {
      this.problem = `“${line.name}” cannot be read any more. It is kept as it is; delete it, or leave it for a later version.`;
      return;
    }
    this.#show({ notes: line.data.notes, name: line.name, id, finding: null });
    this.#workspace.say(`Line ${line.name}`);
  }

  /** The melody of the chart, shown and written on as a line is; one that has none begins empty. */
  openMelody(): void {
    const notes = this.#workspace.melody?.line.notes ?? [];
    this.#show({ notes: this.#placedAnew(notes), name: 'The melody', id: MELODY, finding: null });
    this.#workspace.say('The melody');
  }

  get isMelody(): boolean {
    return this.shown?.id === MELODY;
  }

  /** Finds a line: a level, another figure, another seed, or the next best. What is left out stays. */
  async find(part: Partial<Finding>): Promise<void> {
    // Another kind of line begins with its best.
    const isOther = ['level', 'figure', 'subdivision', 'density', 'boldness', 'seed'].some(
      (name) => name in part
    );
    const asked: Finding = { ...this.asked, ...(isOther ? { rank: 0 } : {}), ...part };
    this.asked = asked;
    const own = ++this.#ask;
    // Nobody waits for a line that is not wanted any more.
    if (this.isFinding) this.#letGo();
    this.isFinding = true;
    // What is locked now is what the others are found beside, whatever is locked meanwhile.
    const locks = this.#locksFor(asked);
    const held = this.#lockedNotes(locks);
    try {
      const { lines, message } = await this.#linesFor(asked);
      if (own !== this.#ask) return;
      if (lines.length === 0) {
        this.problem = message ?? 'No such line is possible here.';
        return;
      }
      const rank = asked.rank % lines.length;
      this.asked = { ...asked, rank };
      const { name } = levelOf(asked.level)!;
      const notes = locks.length > 0 ? ordered([...held, ...lines[rank]!]) : lines[rank]!;
      const differs = differing(this.shown?.notes, notes);
      this.#show({
        notes,
        name,
        id: null,
        finding: this.asked,
        ...(locks.length > 0 ? { locks } : {}),
        ...(differs ? { differs } : {})
      });
      this.#workspace.say(said(name, rank, differs));
    } catch {
      if (own === this.#ask) this.problem = 'The line could not be worked out; try again.';
    } finally {
      if (own === this.#ask) this.isFinding = false;
    }
  }

  /** What stays as it is when phrases are found: other kinds of lines take nothing over. */
  #locksFor({ level }: Finding): readonly Stretch[] {
    return level === 'phrases' ? (this.shown?.locks ?? []) : [];
  }

  #lockedNotes(locks: readonly Stretch[]): readonly LineNote[] {
    return (this.shown?.notes ?? []).filter(({ start }) =>
      locks.some(({ from, to }) => start >= from && start < to)
    );
  }

  /** One phrase by itself, as dense and bold as the others; null where it cannot be had, which is said. */
  async findPhrase(only: Omit<OnePhrase, 'part'>, turn: number): Promise<readonly LineNote[] | null> {
    const { density, boldness, seed, subdivision } = this.asked;
    this.isFinding = true;
    try {
      const wish: LineWish = {
        level: 'phrases',
        subdivision,
        density,
        boldness,
        seed: seed + SEEDS_APART * turn,
        alternatives: 1,
        only
      };
      const { lines, noLine } = await this.#send(wish);
      const notes = lines[0]?.notes;
      if (!notes) this.problem = noLine?.message ?? 'No such phrase is possible here.';
      return notes ?? null;
    } catch {
      this.problem = 'The phrase could not be worked out; try again.';
      return null;
    } finally {
      this.isFinding = false;
    }
  }

  async #linesFor(finding: Finding) {
    const { level, figure, subdivision, density, boldness, seed } = finding;
    const { selected, changes } = this.#workspace;
    const part = changes.length > MOST_CHANGES ? { from: selected, to: selected + MOST_CHANGES - 1 } : {};
    // The next phrases are those of another seed.
    const alternatives = level === 'phrases' ? 1 : BEST;
    const held = this.#locksFor(finding);
    const wish: LineWish = {
      level,
      figure,
      subdivision,
      density,
      boldness,
      seed,
      alternatives,
      held,
      ...part
    };
    const key = JSON.stringify(this.#jobOf(wish));
    if (this.#best?.key === key) return { lines: this.#best.lines };
    const { lines, noLine } = await this.#send(wish);
    const found = lines.map(({ notes }) => notes);
    this.#best = { key, lines: found };
    return { lines: found, message: noLine?.message };
  }

  #jobOf(wish: LineWish) {
    const { document, neck, system } = this.#workspace;
    return { source: document.source, plan: document.plan, neck, system: system.id, wish };
  }

  #send(wish: LineWish) {
    // An address is no state.
    // eslint-disable-next-line svelte/prefer-svelte-reactivity
    this.#worker ??= new Worker(new URL('../workers/finder.ts', import.meta.url), { type: 'module' });
    this.#remote ??= wrap<FinderApi>(this.#worker);
    // Plain copies: what the page holds is watched, and cannot be sent.
    return this.#remote.find(JSON.parse(JSON.stringify(this.#jobOf(wish))) as FinderJob);
  }

  /** Another line of the same kind. */
  another(): Promise<void> {
    return this.find({ seed: this.asked.seed + 1 });
  }

  /** The style of the chart, as it is heard or declared. */
  readonly style = $derived.by(() => {
    const { sheet, analysis } = this.#workspace;
    const said = sheet.head.style === null ? null : readStyle(sheet.head.style);
    return { style: analysis.style, isDeclared: said !== null };
  });

  /** Declares the style of the chart; null takes the declaration back. Phrases that are shown are found anew. */
  async setStyle(style: Style | null): Promise<void> {
    this.#workspace.document.declare('style', style);
    if (this.shown?.finding?.level === 'phrases') await this.find({});
  }

  /** The next best in the same rhythm; after the last the best again. */
  nextBest(): Promise<void> {
    return this.find({ rank: this.asked.rank + 1 });
  }

  /** Takes a mend; the notes that are changed are placed anew. */
  take({ changes }: Mend): void {
    const { shown } = this;
    if (!shown) return;
    const notes = this.#placedAnew(withChanges(shown.notes, changes));
    this.#show({ ...shown, notes });
    this.#workspace.say(`${counted(changes.length, 'note')} changed`);
  }

  /** The line as it would be with a mend, to be heard first. */
  mended({ changes }: Mend): readonly LineNote[] {
    return this.shown ? this.#placedAnew(withChanges(this.shown.notes, changes)) : [];
  }

  /** Notes without a place are placed as near the others as can be; those that have one stay. What no string reaches has none. */
  #placedAnew(notes: readonly LineNote[]): readonly LineNote[] {
    const { neck } = this.#workspace;
    const placed = (some: readonly LineNote[], keepsPlaces: boolean) =>
      placeNotes(some, { neck, keepsPlaces, alternatives: 1 }).places[0]?.notes;
    const whole = placed(notes, true) ?? placed(notes, false);
    if (whole) return whole;
    const reached = notes.filter((note) => isOnNeck(neck, frettedPitch(note)));
    const found = placed(reached, false) ?? [];
    // Made anew and never changed.
    // eslint-disable-next-line svelte/prefer-svelte-reactivity
    const places = new Map(reached.map((note, i) => [note, found[i]?.place]));
    return notes.map(({ place: _, ...note }, i) => {
      const place = places.get(notes[i]!);
      return place ? { ...note, place } : note;
    });
  }

  /** Moves the line by semitones or octaves along its strings, or lays it in a position. */
  move({
    semitones = 0,
    where,
    position
  }: {
    semitones?: number;
    where: MovedWhere;
    position?: number;
  }): void {
    const { shown } = this;
    if (!shown) return;
    const { neck } = this.#workspace;
    const moved = shown.notes.map((note) => atPitch(note, note.midi + semitones));
    const wish = { neck, where, position, anyOctave: position !== undefined };
    const laid = laidOut(shown.notes, moved, wish);
    // What cannot be slid or slurred there on one string is struck.
    const struck = laid.notes ? laid : laidOut(shown.notes, moved.map(struckPlainly), wish);
    if (!struck.notes) {
      this.problem = struck.message;
      return;
    }
    this.#show({ ...shown, notes: struck.notes });
    const how = position === undefined ? 'Line moved' : `Line in position ${position}`;
    this.#workspace.say(laid.notes ? how : `${how}; its slides and slurs were dropped`);
  }

  /** Plays the same notes on some strings only, where they lie there. */
  onStrings(strings: readonly number[]): void {
    const { shown } = this;
    if (!shown) return;
    const { neck } = this.#workspace;
    const { places, noPlace } = placeNotes(shown.notes, { neck, strings, alternatives: 1 });
    if (!places[0]) {
      this.problem = noPlace?.message ?? 'The line does not lie on those strings.';
      return;
    }
    this.#show({ ...shown, notes: places[0].notes });
    this.#workspace.say(`Line on strings ${strings.join(', ')}`);
  }

  /**
   * Carries the bar of the selected change, or it and the next, through the rest of the tune: its rhythm and contour over each next
   * stretch, shifted exactly or led to the nearest tones, each time in the next of the forms asked for. What comes before stays.
   */
  carry({ bars, how, operations }: { readonly bars: number } & Pick<Motif, 'how' | 'operations'>): void {
    const { shown } = this;
    const { change, changes, chosen, sheet, arrangement } = this.#workspace;
    const all = sheet.form.bars;
    const first = all.findIndex(({ number }) => number === change?.bar);
    const [begin, end] = [all[first], all[Math.min(all.length, first + bars) - 1]];
    if (!shown || !begin || !end) return;
    const [from, to] = [ticksOf(begin.start), ticksOf(end.start + end.beats)];
    const notes = shown.notes
      .filter(({ start }) => start >= from && start < to)
      .map((note) => ({ ...note, start: note.start - from }));
    if (notes.length === 0) {
      this.problem = 'There is nothing in this bar to repeat.';
      return;
    }
    const measureAt = (ticks: number) => {
      const at = changes.findLast(({ start, chord }) => chord && ticksOf(start) <= from + ticks);
      const sounding = at?.chord ?? changes.find(({ chord }) => chord)!.chord!;
      return measureOf(sounding, (at && chosen[at.index]) ?? null);
    };
    const { lines, noLine } = linesOf(arrangement, {
      level: 'motif',
      motif: { notes, length: to - from, measureAt, how, operations },
      subdivision: this.asked.subdivision,
      seed: 0,
      alternatives: 1,
      from: Math.max(
        0,
        changes.findIndex(({ start }) => ticksOf(start) >= to)
      )
    });
    if (!lines[0]) {
      this.problem = noLine?.message ?? 'The motif cannot be repeated there.';
      return;
    }
    const before = shown.notes.filter(({ start }) => start < to);
    this.#show({ ...shown, notes: [...before, ...lines[0].notes.filter(({ start }) => start >= to)] });
    this.#workspace.say(`${counted(bars, 'bar')} repeated through the tune`);
  }

  /** Moves a kept line from the chords it was written over to those that stand there now, degree by degree. */
  moveToChords(): void {
    const { shown, stored } = this;
    const over = stored?.data?.over;
    if (!shown || !over) return;
    const { changes, chosen, neck } = this.#workspace;
    const measures = shown.notes.map((note) => {
      const now = changes[changeHeardAt(note, changes)];
      const was = over.findLast(({ start }) => ticksOf(start) <= note.start) ?? over[0];
      const reading = was && readChord(was.symbol);
      const to = now?.chord ? measureOf(now.chord, chosen[now.index] ?? null) : null;
      const from = reading?.kind === 'chord' ? measureOf(reading.chord, null) : to;
      return from && to ? ([from, to] as const) : null;
    });
    if (measures.some((both) => both === null)) {
      this.problem = 'Some of its notes have no chord under them any more; move or delete those first.';
      return;
    }
    const pitches = byDegrees(
      shown.notes.map(({ midi }) => midi),
      measures.map((both) => both!)
    );
    const moved = shown.notes.map((note, i) => atPitch(note, pitches[i]!));
    const laid = laidOut(shown.notes, moved, { neck, where: 'in place', anyOctave: true });
    this.#show({ ...shown, notes: laid.notes ?? moved });
    this.#workspace.say('Line moved to the chords that stand there now');
  }

  #over(): LineData['over'] {
    return this.#workspace.changes.map(({ symbol, start, beats }) => ({ symbol, start, beats }));
  }

  /** Keeps what is shown: a new line, or the one it was, with what has changed. */
  async keep(): Promise<void> {
    const { shown, stored } = this;
    if (!shown) return;
    if (shown.id === MELODY) {
      const { document, sheet } = this.#workspace;
      document.setSource(withMelody(document.source, shown.notes, sheet.form));
      flushDraft();
      keepDraft(document.id, null);
      this.#workspace.say('Melody kept in the chart');
      return;
    }
    const { document } = this.#workspace;
    const chart = document.id;
    const data: LineData = { notes: ordered(shown.notes), over: this.#over() };
    try {
      // The line belongs to the chart as it stands here, which is saved first.
      await document.flush();
      const chartVersion = document.autosave.version;
      if (stored) {
        const edit = { name: shown.name, chartVersion, data };
        const { version } = await client.changeLine(chart, stored.id, { base: stored.version, ...edit });
        this.#keptAs({ id: stored.id, version, ...edit });
      } else {
        const name = this.#freeName(shown.name);
        const line = await client.keepLine(chart, crypto.randomUUID(), { name, chartVersion, data });
        this.#keptAs({ ...line, name, data });
      }
      this.#workspace.say('Line kept with the chart');
    } catch (error) {
      this.problem = sentence(error);
    }
  }

  #keptAs(line: StoredLine): void {
    flushDraft();
    keepDraft(this.#workspace.document.id, null);
    const isThere = this.kept.some(({ id }) => id === line.id);
    this.kept = isThere ? this.kept.map((one) => (one.id === line.id ? line : one)) : [...this.kept, line];
    if (this.shown) this.shown = { ...this.shown, id: line.id, name: line.name, notes: line.data!.notes };
    this.problem = '';
  }

  /** A name that no other kept line has. */
  #freeName(name: string): string {
    for (let n = 1; ; n++) {
      const free = n === 1 ? name : `${name} ${n}`;
      if (!this.kept.some((line) => line.name === free)) return free;
    }
  }

  async rename(name: string): Promise<void> {
    const { shown, stored } = this;
    const wanted = name.trim().slice(0, 120);
    if (!shown || !wanted || wanted === shown.name) return;
    if (!stored) {
      this.shown = { ...shown, name: wanted };
      return;
    }
    try {
      const { version } = await client.changeLine(this.#workspace.document.id, stored.id, {
        base: stored.version,
        name: wanted
      });
      this.kept = this.kept.map((one) => (one.id === stored.id ? { ...one, name: wanted, version } : one));
      this.shown = { ...shown, name: wanted };
    } catch (error) {
      this.problem = sentence(error);
    }
  }

  /** Lines from a file, kept with the chart; the last of them is shown. Gives what was not taken. */
  async bring(file: File): Promise<void> {
    try {
      const { pieceIn } = await import('./bring');
      const { lines, melody, left } = await pieceIn(file);
      const all = [...lines, ...(melody ? [{ name: 'melody', notes: melody }] : [])];
      let outside = 0;
      for (const { name, notes } of all) {
        const placed = this.#placedAnew(notes);
        outside += placed.filter(({ place }) => !place).length;
        this.#show({ notes: placed, name: name.slice(0, 120), id: null, finding: null });
        await this.keep();
      }
      const told = [
        ...left.slice(0, 3).map(({ text, why }) => `${text ? `“${text}” ` : ''}${why}.`),
        ...(outside
          ? [`${counted(outside, 'note')} cannot be played on this neck; they stand on the staff alone.`]
          : [])
      ];
      if (all.length === 0) this.problem = told.join(' ') || 'There is no line in this file.';
      else if (told.length) this.problem = told.join(' ');
    } catch (error) {
      this.problem = sentence(error);
    }
  }

  /** Deletes the kept line that is shown; gives what brings it back, null where that failed. */
  async remove(): Promise<(() => Promise<void>) | null> {
    const { stored } = this;
    if (!stored) return null;
    const chart = this.#workspace.document.id;
    try {
      await client.deleteLine(chart, stored.id);
    } catch (error) {
      this.problem = sentence(error);
      return null;
    }
    const before = this.kept;
    this.kept = before.filter(({ id }) => id !== stored.id);
    this.shown = this.shown && { ...this.shown, id: null };
    return async () => {
      try {
        await client.bringBackLine(chart, stored.id);
        this.kept = [...this.kept, stored];
        this.open(stored.id);
      } catch (error) {
        this.problem = sentence(error);
      }
    };
  }

  #letGo(): void {
    this.#worker?.terminate();
    this.#worker = null;
    this.#remote = null;
  }

  close(): void {
    flushDraft();
    this.#letGo();
  }
}

/** True where some string has the pitch. */
const isOnNeck = (neck: Instrument, midi: number) =>
  neck.strings.some((open) => midi - open >= lowestFret(neck) && midi - open <= neck.frets);

type Span = Pick<AnalysedChange, 'symbol' | 'start' | 'beats'>;
const isSameSpan = (a: Span, b: Span) => a.symbol === b.symbol && a.start === b.start && a.beats === b.beats;

const sentence = (error: unknown) => (error instanceof Error ? error.message : 'That did not work.');

/** How many notes of a line are others than before; null where there was none, or it is another rhythm. */
function differing(before: readonly LineNote[] | undefined, now: readonly LineNote[]): number | null {
  if (before?.length !== now.length) return null;
  if (now.some(({ start }, i) => start !== before[i]!.start)) return null;
  return now.filter(({ midi }, i) => midi !== before[i]!.midi).length;
}

function said(name: string, rank: number, differs: number | null): string {
  const which = rank === 0 ? name : `${name}, number ${rank + 1} of the best`;
  return differs === null || differs === 0 ? which : `${which}: ${counted(differs, 'note')} differ`;
}

/** The notes of a line that begin over a change, by their places in it. */
export function notesOver(
  notes: readonly LineNote[],
  { start, beats }: Pick<AnalysedChange, 'start' | 'beats'>
): { readonly index: number; readonly note: LineNote }[] {
  const [from, to] = [ticksOf(start), ticksOf(start + beats)];
  return notes.flatMap((note, index) =>
    (note.start >= from && note.start < to) || (note.start < from && endOf(note) > from)
      ? [{ index, note }]
      : []
  );
}

/** The beat of a change on which a note begins, from 1; at least 1 for what is held into it. */
export const beatIn = (note: LineNote, { start }: Pick<AnalysedChange, 'start'>) =>
  Math.max(1, Number((beatsOf(note.start) - start + 1).toFixed(2)));
