/** One system of staff and tab, engraved. The only place that knows the notation package; it arrives when a score is shown. */
import { lastOf, nth, sure } from '$lib/core/base/list';
import {
  Accidental,
  Beam,
  Bend,
  Curve,
  Dot,
  Font,
  Formatter,
  GhostNote,
  MetricsDefaults,
  Parenthesis,
  Renderer,
  Stave,
  StaveConnector,
  StaveNote,
  StaveTie,
  TabNote,
  TabSlide,
  TabStave,
  TabTie,
  Tuplet,
  VexFlow,
  Vibrato,
  Voice,
  type Note,
  type Tickable
} from 'vexflow/core';
import bravura from '@vexflow-fonts/bravura/bravura.woff2?url';
import type { LineNote } from '$lib/core/line/model';
import type { Piece, WrittenBar } from '$lib/core/line/notation';
import { accidentalsOf, staffPitch } from '$lib/core/line/staff';
import { STAFF_GAP, TAB_GAP, type System } from './layout';

export interface Anchor {
  /** Ticks from the start of the form. */
  readonly start: number;
  readonly x: number;
  /** The note begins here, rather than being held over. */
  readonly isFirst: boolean;
  /** Its notes as they were drawn, and their places in the line. */
  readonly notes: readonly LineNote[];
  readonly indexes: readonly number[];
}

/** Where things came to stand in a system, in pixels. */
export interface Engraved {
  readonly anchors: readonly Anchor[];
  readonly bars: readonly {
    readonly start: number;
    readonly end: number;
    readonly from: number;
    readonly to: number;
  }[];
}

export interface Engraving {
  readonly notes: readonly LineNote[];
  readonly fifths: number;
  readonly strings: number;
  readonly isTarget: (note: LineNote) => boolean;
}

const MUSIC = 'Bravura';
const TEXT = 'Atkinson Hyperlegible';

/** Fetches the music font; text is measured, so its font has to be there too. */
export function ready(): Promise<void> {
  fetched ??= fetchFonts().catch((error: unknown) => {
    fetched = undefined;
    throw error;
  });
  return fetched;
}

let fetched: Promise<void> | undefined;
let hasFonts = false;

/** Everything is there, and a score can be drawn at once. */
export const isReady = (): boolean => hasFonts;

async function fetchFonts(): Promise<void> {
  await Promise.all([
    Font.load(MUSIC, bravura, { display: 'block' }),
    document.fonts.load(`14px "${TEXT}"`),
    document.fonts.load(`bold 14px "${TEXT}"`)
  ]);
  VexFlow.setFonts(MUSIC, TEXT);
  // Frets are read from a stand.
  hasFonts = true;
  MetricsDefaults.TabNote.text = { fontSize: 10.5, fontWeight: 'bold' };
}

const KEYS = ['Cb', 'Gb', 'Db', 'Ab', 'Eb', 'Bb', 'F', 'C', 'G', 'D', 'A', 'E', 'B', 'F#', 'C#'];
const SIGNS: Readonly<Record<number, string>> = { [-2]: 'bb', [-1]: 'b', 0: 'n', 1: '#', 2: '##' };
/** A bend by less than a semitone. */
const CURL = '¼';
const BENT: Readonly<Record<number, string>> = { 1: '½', 2: 'full', 3: '1½', 4: '2' };
/** Between the last note and the line of the bar. */
const BAR_END = 12;
const INK = { fillStyle: 'var(--ink)', strokeStyle: 'var(--ink)' };
const LINES = { fillStyle: 'var(--edge)', strokeStyle: 'var(--edge)' };
const TARGET = { fillStyle: 'var(--target)', strokeStyle: 'var(--target)' };

/** A piece as it was drawn. */
interface Drawn {
  readonly piece: Piece;
  readonly onStaff: StaveNote;
  readonly onTab: Note;
  /** Its notes, from the lowest. */
  readonly order: readonly number[];
}

/** Draws a system into an element and says where its notes stand. */
export function engrave(element: HTMLElement, system: System, engraving: Engraving): Engraved {
  element.replaceChildren();
  const { bars, widths, staffAt, tabAt, height } = system;
  const renderer = new Renderer(element as HTMLDivElement, Renderer.Backends.SVG);
  renderer.resize(widths.reduce((a, b) => a + b, 0) + 1, height);
  const context = renderer.getContext();
  context.setFillStyle(INK.fillStyle).setStrokeStyle(INK.strokeStyle);
  context.setBackgroundFillStyle('var(--surface)');
  const drawn: Drawn[] = [];
  const places: { start: number; end: number; from: number; to: number }[] = [];
  let left = 0;
  bars.forEach((bar, i) => {
    const staff = new Stave(left, staffAt, nth(widths, i), {
      spaceAboveStaffLn: 0,
      spacingBetweenLinesPx: STAFF_GAP
    });
    const tab = new TabStave(left, tabAt, nth(widths, i), {
      spaceAboveStaffLn: 0,
      spacingBetweenLinesPx: TAB_GAP,
      numLines: engraving.strings
    });
    const before = bars[i - 1];
    if (i === 0) {
      staff.addClef('treble', 'default', '8vb').addKeySignature(nth(KEYS, engraving.fifths + 7));
      tab.addClef('tab');
    }
    const hasMeter =
      (i === 0 && system.isFirst) ||
      (before && (before.meter.beats !== bar.meter.beats || before.meter.unit !== bar.meter.unit));
    if (hasMeter) staff.addTimeSignature(`${bar.meter.beats}/${bar.meter.unit}`);
    Stave.formatBegModifiers([staff, tab]);
    const begin = Math.max(staff.getNoteStartX(), tab.getNoteStartX());
    staff.setNoteStartX(begin);
    tab.setNoteStartX(begin);
    for (const stave of [staff, tab]) stave.setStyle(LINES).setContext(context).draw();
    if (i === 0) {
      new StaveConnector(staff, tab).setType('singleLeft').setContext(context).draw();
    }
    drawn.push(...engraveBar(bar, staff, tab, begin, left + nth(widths, i) - BAR_END, engraving));
    places.push({ start: bar.start, end: bar.start + bar.length, from: begin, to: left + nth(widths, i) });
    left += nth(widths, i);
  });
  joinNotes(drawn, system.goesOn, engraving, (tie) => tie.setContext(context).draw());
  const svg = element.querySelector('svg');
  svg?.setAttribute('aria-hidden', 'true');
  return {
    anchors: drawn.map(({ piece, onStaff }) => ({
      start: piece.start,
      x: onStaff.getAbsoluteX() + (piece.notes.length ? onStaff.getGlyphWidth() / 2 : 0),
      isFirst: piece.notes.length > 0 && !piece.isTied,
      notes: piece.notes.map((index) => nth(engraving.notes, index)),
      indexes: piece.notes
    })),
    bars: places
  };
}

function engraveBar(
  bar: WrittenBar,
  staff: Stave,
  tab: TabStave,
  from: number,
  to: number,
  engraving: Engraving
): Drawn[] {
  const { notes, fifths } = engraving;
  const context = staff.checkContext();
  const accidentals = accidentalsOf(bar, notes, fifths);
  const drawn = bar.pieces.map((piece, p): Drawn => {
    const order = [...piece.notes].sort((a, b) => nth(notes, a).midi - nth(notes, b).midi);
    const onStaff = staffNote(piece, order, engraving, bar.pieces.length === 1);
    order.forEach((index, i) => {
      const accidental = nth(accidentals, p)[piece.notes.indexOf(index)];
      if (accidental !== null && accidental !== undefined)
        onStaff.addModifier(new Accidental(sure(SIGNS[accidental], 'SIGNS')), i);
    });
    return { piece, onStaff, onTab: tabNote(piece, order, engraving), order };
  });
  const tuplets = bar.tuplets.map(({ notes: many, inTimeOf }, t) => {
    const own = drawn.filter(({ piece }) => piece.tuplet === t);
    const options = { numNotes: many, notesOccupied: inTimeOf };
    // The tab keeps the same time; the number stands over the staff alone.
    new Tuplet(
      own.map(({ onTab }) => onTab),
      options
    );
    const isBeamed = own.every(({ piece }) => piece.value >= 8 && piece.notes.length > 0);
    return new Tuplet(
      own.map(({ onStaff }) => onStaff),
      { ...options, bracketed: !isBeamed, ratioed: false }
    );
  });
  const beams = beamed(drawn).map((group) => new Beam(group, true));
  const time = { numBeats: bar.meter.beats, beatValue: bar.meter.unit };
  const voiceOf = (row: Tickable[]) => new Voice(time).setMode(Voice.Mode.SOFT).addTickables(row);
  const above = voiceOf(drawn.map(({ onStaff }) => onStaff));
  const below = voiceOf(drawn.map(({ onTab }) => onTab));
  new Formatter()
    .joinVoices([above])
    .joinVoices([below])
    .format([above, below], Math.max(20, to - from));
  above.draw(context, staff);
  below.draw(context, tab);
  for (const mark of [...beams, ...tuplets]) mark.setContext(context).draw();
  return drawn;
}

function staffNote(
  { value, dots, notes: own, isFirst }: Piece,
  order: readonly number[],
  { notes, isTarget }: Engraving,
  isAlone: boolean
): StaveNote {
  if (own.length === 0) {
    const rest = new StaveNote({ keys: ['b/4'], duration: `${value}r`, dots, alignCenter: isAlone });
    if (dots) Dot.buildAndAttach([rest], { all: true });
    return rest;
  }
  const keys = order.map((index) => {
    const { letter, octave } = staffPitch(nth(notes, index));
    // A guitar is written an octave above where it sounds; the accidental is added where it has to be seen.
    return `${letter.toLowerCase()}/${octave + 1}`;
  });
  const note = new StaveNote({ keys, duration: String(value), dots, autoStem: true });
  if (dots) Dot.buildAndAttach([note], { all: true });
  order.forEach((index, i) => {
    if (isTarget(nth(notes, index))) note.setKeyStyle(i, TARGET);
    if (nth(notes, index).ghost && isFirst) {
      note.addModifier(new Parenthesis(1), i).addModifier(new Parenthesis(2), i);
    }
  });
  return note;
}

function tabNote(
  { value, dots, notes: own, isTied }: Piece,
  order: readonly number[],
  { notes, isTarget }: Engraving
): Note {
  const placed = order.flatMap((index) => nth(notes, index).place ?? []);
  if (own.length === 0 || isTied || placed.length < own.length) {
    return new GhostNote({ duration: `${value}${own.length ? '' : 'r'}`, dots });
  }
  const positions = placed.map(({ string, fret }) => ({ str: string, fret: String(fret) }));
  const note = new TabNote({ positions, duration: String(value), dots });
  if (order.some((index) => nth(notes, index).ghost)) note.setGhost(true);
  order.forEach((index, i) => {
    const { midi, bend, release, vibrato } = nth(notes, index);
    if (bend) {
      const up = {
        type: Bend.UP,
        text: bend.cents === undefined ? (BENT[midi - bend.from] ?? String((midi - bend.from) / 2)) : CURL
      };
      note.addModifier(new Bend(release ? [up, { type: Bend.DOWN, text: '' }] : [up]), i);
    }
    if (vibrato) note.addModifier(new Vibrato(), i);
  });
  if (order.some((index) => isTarget(nth(notes, index)))) note.setStyle(TARGET);
  return note;
}

/** Notes that hang on one beam, silence between. */
function beamed(drawn: readonly Drawn[]): StaveNote[][] {
  const groups: StaveNote[][] = [];
  let last: number | null = null;
  for (const { piece, onStaff } of drawn) {
    const hangs = piece.value >= 8 && piece.notes.length > 0;
    if (hangs && piece.group === last) lastOf(groups).push(onStaff);
    else if (hangs) groups.push([onStaff]);
    last = hangs ? piece.group : null;
  }
  return groups.filter(({ length }) => length > 1);
}

type Mark = StaveTie | Curve;

/** Ties, slurs, slides: what joins a note to the one before it, drawn from the edge where that stands on another system. */
function joinNotes(
  drawn: readonly Drawn[],
  goesOn: boolean,
  { notes }: Engraving,
  draw: (mark: Mark) => void
): void {
  drawn.forEach((now, i) => {
    const { piece, order } = now;
    const before = drawn.slice(0, i).findLast((one) => one.piece.notes.length > 0);
    if (piece.isTied) {
      const indexes = order.map((_, n) => n);
      draw(
        new StaveTie({
          ...(before ? { firstNote: before.onStaff } : {}),
          lastNote: now.onStaff,
          firstIndexes: indexes,
          lastIndexes: indexes
        })
      );
      return;
    }
    order.forEach((index, n) => {
      const { slide, slur, place, midi } = nth(notes, index);
      if ((!slide && !slur) || !place) return;
      const from = before?.order.findLast((one) => nth(notes, one).place?.string === place.string);
      const isUp = from === undefined || nth(notes, from).midi <= midi;
      const struck = before?.piece.isTied ? drawn.slice(0, i).findLast((one) => one.piece.isFirst) : before;
      const joined = {
        ...(struck && from !== undefined ? { firstNote: struck.onTab } : {}),
        lastNote: now.onTab,
        firstIndexes: [from === undefined ? n : Math.max(0, struck?.order.indexOf(from) ?? 0)],
        lastIndexes: [n]
      };
      draw(
        slide
          ? isUp
            ? TabSlide.createSlideUp(joined)
            : TabSlide.createSlideDown(joined)
          : new TabTie(joined, isUp ? 'H' : 'P')
      );
      if (before) draw(new Curve(before.onStaff, now.onStaff, {}));
    });
  });
  const last = drawn.at(-1);
  if (goesOn && last?.piece.notes.length) {
    const indexes = last.order.map((_, n) => n);
    draw(new StaveTie({ firstNote: last.onStaff, firstIndexes: indexes, lastIndexes: indexes }));
  }
}
