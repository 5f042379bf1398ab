/**
 * MusicXML read: chords, meters and marks as a chart, each part as a line. Written here it comes back as it was; from elsewhere what is
 * one voice of pitched notes is taken, and the rest is told. Source: docs/music-rules.md, Files.
 */
import { XMLParser, XMLValidator } from 'fast-xml-parser';
import { keyOf } from '../../harmony/key-signature';
import { chartHead, readChart } from '../../chart/read';
import { DEFAULT_METER, type Meter } from '../../chart/model';
import { endOf, noteOf, TICKS, type LineNote } from '../../line/model';
import { quarterOf } from '../../line/notation';
import { MODES, type Mode } from '../../theory/mode';
import { midiOf, plainName, spell, type NoteName } from '../../theory/note';
import { counted } from '../../theory/words';
import { chartOf, type FoundBar, type FoundChord } from '../chart-of';
import { harmonyHeard, toldOf } from '../heard/harmony';
import { NotReadable } from '../not-readable';
import { oneVoice } from '../one-voice';
import { sorted, type ReadPiece, type Voice } from '../piece';
import type { LeftOut } from '../text/import';
import type { WrittenKey } from '../written-keys';
import { playOrder, type BarMarks } from './form';
import { symbolOf } from './kinds';
import { CHART_FIELD } from './write';

/** An element as the parser gives it: its name with its children, and its attributes. */
type Node = Readonly<Record<string, unknown>>;

const MOST_BARS = 4000;
/** How loud notes are that are only written. */
const WRITTEN_LEVEL = 0.8;
const ATTRIBUTES = ':@';
const TEXT = '#text';

const parser = new XMLParser({
  preserveOrder: true,
  ignoreAttributes: false,
  attributeNamePrefix: '',
  parseTagValue: false,
  parseAttributeValue: false,
  trimValues: false,
  processEntities: true,
  htmlEntities: false,
  maxNestedTags: 60
});

const nameOf = (node: Node): string => Object.keys(node).find((key) => key !== ATTRIBUTES) ?? '';
const childrenOf = (node: Node): readonly Node[] => {
  const inside = node[nameOf(node)];
  return Array.isArray(inside) ? (inside as Node[]) : [];
};
const all = (node: Node, name: string): readonly Node[] =>
  childrenOf(node).filter((child) => nameOf(child) === name);
const one = (node: Node | undefined, ...path: readonly string[]): Node | undefined =>
  path.reduce<Node | undefined>((at, name) => (at ? all(at, name)[0] : undefined), node);
const attribute = (node: Node, name: string): string => {
  const attributes = node[ATTRIBUTES] as Readonly<Record<string, unknown>> | undefined;
  const value = attributes?.[name];
  return typeof value === 'string' ? value : '';
};
const textOf = (node: Node | undefined): string =>
  node
    ? childrenOf(node)
        .map((child) => (TEXT in child ? String(child[TEXT]) : ''))
        .join('')
    : '';
const said = (node: Node | undefined, ...path: readonly string[]): string =>
  textOf(one(node, ...path)).trim();
const numberAt = (node: Node | undefined, ...path: readonly string[]): number | null => {
  const text = said(node, ...path);
  const value = text === '' ? NaN : Number(text);
  return Number.isFinite(value) ? value : null;
};

export function readMusicXml(text: string): ReadPiece {
  const score = parsed(text);
  const fields = all(one(score, 'identification', 'miscellaneous') ?? {}, 'miscellaneous-field');
  const field = fields.find((node) => attribute(node, 'name') === CHART_FIELD);
  const kept = field ? textOf(field) : null;
  const names = new Map(
    all(one(score, 'part-list') ?? {}, 'score-part').map((part) => [
      attribute(part, 'id'),
      said(part, 'part-name')
    ])
  );
  const parts = all(score, 'part');
  if (parts.length === 0) throw new NotReadable('There is no part in this MusicXML file.');
  const meter = kept === null ? firstMeter(parts[0]!) : chartHead(readChart(kept).chart).meter;
  const written = withoutTabs(
    parts.map((part, i) => readPart(part, names.get(attribute(part, 'id')) ?? `part ${i + 1}`, meter))
  );
  // The way through the form is written in one part and holds for all.
  const marks = written.find((part) => part.marks.some((mark) => Object.keys(mark).length > 0))?.marks ?? [];
  const order = playOrder(marks);
  const isPlain = order.length === marks.length && order.every((bar, i) => bar === i);
  const read = isPlain ? written : written.map((part) => playedOut(part, order));
  const left: LeftOut[] = written.flatMap((part) => part.left);
  if (!isPlain && kept === null) {
    left.push({
      text: '',
      why: `Repeats, endings and jumps are written out: ${counted(marks.length, 'bar')} on the page are ${order.length} as they are played`
    });
  }
  const voices: Voice[] = [];
  for (const part of read) {
    const whole = oneVoice(part.name, part.notes);
    const upper = whole.notes === null ? oneVoice(part.name, part.upper) : null;
    if (upper?.notes) {
      const others = part.notes.length - part.upper.length;
      left.push({
        text: part.name,
        why: `its highest voice was taken as a line; ${counted(others, 'note')} of other voices left out`
      });
      left.push(...upper.left);
      voices.push({ name: part.name, notes: upper.notes });
      continue;
    }
    left.push(...whole.left);
    if (whole.notes) voices.push({ name: part.name, notes: whole.notes });
  }
  if (kept !== null) return { chart: kept, ...sorted(voices), left };
  const withChords = read.find(({ chords }) => chords.length > 0) ?? read[0]!;
  // A score without a chord symbol is heard: its chords are what its parts play together.
  const heard =
    withChords.chords.length > 0
      ? null
      : harmonyHeard(
          withChords.bars,
          read.map(({ notes }) => notes.map((note) => ({ ...note, level: WRITTEN_LEVEL }))),
          withChords.key
        );
  const told = toldOf(heard);
  left.push(...told.left);
  const title = said(score, 'work', 'work-title') || said(score, 'movement-title');
  const found = chartOf(
    {
      title,
      key: heard?.key ?? read[0]!.key,
      tempo: read.find((part) => part.tempo !== undefined)?.tempo,
      bars: withChords.bars,
      chords: heard?.chords ?? withChords.chords,
      ...told.said
    },
    TICKS
  );
  const none = found.chart === null ? [{ text: title, why: 'There is no chord symbol in it.' }] : [];
  const { keys } = read[0]!;
  return {
    chart: found.chart,
    ...sorted(voices),
    ...(keys.length ? { keys } : {}),
    ...(heard ? { sure: heard.sure } : {}),
    left: [...left, ...found.left, ...none]
  };
}

function parsed(text: string): Node {
  // Entities of one's own can be made to grow without end; no score needs them.
  if (/<!ENTITY/i.test(text)) {
    throw new NotReadable('This XML file defines entities of its own, which are not read for safety.');
  }
  let nodes: readonly Node[];
  try {
    if (XMLValidator.validate(text) !== true) throw new NotReadable();
    nodes = parser.parse(text) as Node[];
  } catch {
    throw new NotReadable('This is no XML that can be read; the file may be cut off.');
  }
  const score = nodes.find((node) => nameOf(node) === 'score-partwise');
  if (score) return score;
  const timewise = nodes.find((node) => nameOf(node) === 'score-timewise');
  if (timewise) return sortedByParts(timewise);
  throw new NotReadable('This XML file is no MusicXML score.');
}

/** A score that is sorted by time, its bars gathered part by part. */
function sortedByParts(score: Node): Node {
  const parts = new Map<string, Node[]>();
  for (const measure of all(score, 'measure')) {
    for (const part of all(measure, 'part')) {
      const id = attribute(part, 'id');
      const bar: Node = { measure: childrenOf(part), [ATTRIBUTES]: measure[ATTRIBUTES] };
      parts.set(id, [...(parts.get(id) ?? []), bar]);
    }
  }
  const others = childrenOf(score).filter((child) => nameOf(child) !== 'measure');
  const gathered = [...parts].map(([id, bars]): Node => ({ part: bars, [ATTRIBUTES]: { id } }));
  return { 'score-partwise': [...others, ...gathered] };
}

function meterOf(time: Node | undefined): Meter | null {
  const beats = said(time, 'beats')
    .split('+')
    .reduce((sum, part) => sum + Number(part), 0);
  const unit = numberAt(time, 'beat-type');
  return beats > 0 && unit !== null && [1, 2, 4, 8, 16, 32].includes(unit) ? { beats, unit } : null;
}

function firstMeter(part: Node): Meter {
  for (const measure of all(part, 'measure')) {
    const meter = meterOf(one(measure, 'attributes', 'time'));
    if (meter) return meter;
  }
  return DEFAULT_METER;
}

/** A part that is the tab of another one only says where the notes of that one lie. */
function withoutTabs(parts: readonly ReadPart[]): ReadPart[] {
  const keyOf = ({ note, written }: Heard) => `${note.start}:${written}`;
  const used = new Set<ReadPart>();
  const merged = parts.map((part) => {
    if (part.isTab) return part;
    const own = new Set(part.heard.map(keyOf));
    const tab = parts.find(
      (one) =>
        one.isTab && !used.has(one) && one.heard.length > 0 && one.heard.every((note) => own.has(keyOf(note)))
    );
    if (!tab) return part;
    used.add(tab);
    return { ...part, notes: joined([...part.heard, ...tab.heard]) };
  });
  return merged.filter((_, i) => !used.has(parts[i]!));
}

interface ReadPart {
  readonly name: string;
  /** Its clef is that of a tab. */
  readonly isTab: boolean;
  /** Its notes before ties are joined. */
  readonly heard: readonly Heard[];
  readonly notes: readonly LineNote[];
  /** The notes of its highest voice, where it has several. */
  readonly upper: readonly LineNote[];
  readonly chords: readonly FoundChord[];
  readonly bars: readonly FoundBar[];
  /** What stands at each bar of the way through the form. */
  readonly marks: readonly BarMarks[];
  readonly key: string | undefined;
  readonly tempo: number | undefined;
  /** Where its signature changes. */
  readonly keys: readonly WrittenKey[];
  readonly left: readonly LeftOut[];
}

/** A note of a part before its ties are joined. */
interface Heard {
  readonly note: LineNote;
  /** The pitch on the staff: of a bend the one that is fretted, which its held pieces have too. */
  readonly written: number;
  readonly isTied: boolean;
  /** It has a name: struck, or tied on purpose. */
  readonly isNamed: boolean;
  /** Its staff and voice. */
  readonly voice: string;
}

function readPart(part: Node, name: string, first: Meter): ReadPart {
  const quarter = quarterOf(first);
  const heard: Heard[] = [];
  const chords: FoundChord[] = [];
  const bars: FoundBar[] = [];
  const marks: BarMarks[] = [];
  const left: LeftOut[] = [];
  const skipped = new Map<string, number>();
  const skip = (what: string) => skipped.set(what, (skipped.get(what) ?? 0) + 1);
  let [divisions, meter, transposed] = [1, first, 0];
  let key: string | undefined;
  let tempo: number | undefined;
  /** The key that is written last, and the bars from which another one is. */
  let signature: string | undefined;
  const turns = new Map<number, string>();
  let barStart = 0;
  const measures = all(part, 'measure');
  /** A bar that is not counted, and a first one that is too short, are a pickup. */
  const isPickup = (measure: Node, length: number) =>
    (attribute(measure, 'implicit') === 'yes' && Number(attribute(measure, 'number')) < 1) ||
    (measure === measures[0] && measures.length > 1 && length < (meter.beats * quarter * 4) / meter.unit - 1);
  let lead = 0;
  for (const measure of measures.slice(0, MOST_BARS)) {
    let [at, last, furthest] = [barStart, barStart, barStart];
    let section: string | undefined;
    const ticks = (duration: number) => Math.round((duration / divisions) * quarter);
    for (const item of childrenOf(measure)) {
      switch (nameOf(item)) {
        case 'attributes': {
          divisions = Math.max(1e-6, numberAt(item, 'divisions') ?? divisions);
          meter = meterOf(one(item, 'time')) ?? meter;
          const fifths = numberAt(item, 'key', 'fifths');
          if (fifths !== null) {
            const here = keyNamed(Math.round(fifths), said(item, 'key', 'mode')) ?? undefined;
            if (key !== undefined && here !== undefined && here !== signature)
              turns.set(bars.length + 1, here);
            key ??= here;
            signature = here;
          }
          const transpose = one(item, 'transpose');
          if (transpose) {
            transposed =
              (numberAt(transpose, 'chromatic') ?? 0) + 12 * (numberAt(transpose, 'octave-change') ?? 0);
          }
          break;
        }
        case 'direction': {
          const rehearsal = all(item, 'direction-type')
            .map((type) => said(type, 'rehearsal'))
            .find(Boolean);
          section ??= rehearsal;
          for (const what of notKept(all(item, 'direction-type').flatMap(childrenOf))) skip(what);
          const sound = one(item, 'sound');
          tempo ??=
            sound && attribute(sound, 'tempo') ? Number(attribute(sound, 'tempo')) || undefined : undefined;
          break;
        }
        case 'sound':
          tempo ??= Number(attribute(item, 'tempo')) || undefined;
          break;
        case 'backup':
          at = Math.max(barStart, at - ticks(numberAt(item, 'duration') ?? 0));
          break;
        case 'forward':
          at += ticks(numberAt(item, 'duration') ?? 0);
          furthest = Math.max(furthest, at);
          break;
        case 'harmony': {
          const symbol = readHarmony(item, signature);
          const start = at + ticks(numberAt(item, 'offset') ?? 0);
          if (symbol) chords.push({ start, symbol });
          else {
            // Its bar keeps what stood there, marked as a chord that is not known.
            const stood = writtenSymbol(item);
            if (stood) chords.push({ start, symbol: stood });
            const bar = `in bar ${bars.length + 1}`;
            left.push({ text: stood ?? said(item, 'kind'), why: `a chord that is not known here, ${bar}` });
          }
          break;
        }
        case 'figured-bass':
          skip('figure of a bass');
          break;
        case 'note': {
          for (const what of notKept([
            ...all(item, 'lyric'),
            ...all(item, 'notations').flatMap((own) =>
              childrenOf(own).flatMap((child) => (isGroup(child) ? childrenOf(child) : [child]))
            )
          ]))
            skip(what);
          if (one(item, 'grace')) {
            skip('grace note');
            break;
          }
          const length = ticks(numberAt(item, 'duration') ?? 0);
          const start = one(item, 'chord') ? last : at;
          if (!one(item, 'chord')) {
            last = at;
            at += length;
            furthest = Math.max(furthest, at);
          }
          if (one(item, 'rest') || length <= 0) break;
          if (one(item, 'unpitched')) {
            skip('drum note');
            break;
          }
          const read = readNote(item, start, length, transposed);
          if (read) heard.push(read);
          else skip('unreadable note');
          break;
        }
        default:
      }
    }
    const length =
      furthest > barStart ? furthest - barStart : Math.round((meter.beats * quarter * 4) / meter.unit);
    if (isPickup(measure, length) && bars.length === 0) lead += length;
    else {
      bars.push({ start: barStart, length, meter, ...(section ? { section } : {}) });
      marks.push(marksOf(measure));
    }
    barStart += length;
  }
  if (measures.length > MOST_BARS) {
    left.push({ text: name, why: `has more than ${MOST_BARS} bars; what comes after was left out` });
  }
  for (const [what, count] of skipped) {
    // "direction “softly”" has its own words; it is counted only where it comes again.
    const said = what.startsWith('direction')
      ? `${what}${count > 1 ? `, ${count} times` : ''}`
      : counted(count, what, PLURALS[what]);
    left.push({ text: name, why: `${said} left out` });
  }
  const beats = tempo === undefined ? undefined : (tempo * first.unit) / 4;
  const keys = [...turns].map(([bar, to]): WrittenKey => ({ bar, key: to }));
  const inTime = heard.map((one) => ({ ...one, note: { ...one.note, start: one.note.start - lead } }));
  return {
    name,
    isTab: measures.some((measure) =>
      all(measure, 'attributes').some(
        (own) =>
          all(own, 'clef').every((clef) => said(clef, 'sign') === 'TAB') && one(own, 'clef') !== undefined
      )
    ),
    heard: inTime,
    notes: joined(inTime),
    upper: joined(upperOf(inTime)),
    chords: chords
      .map((chord) => ({ ...chord, start: Math.max(0, chord.start - lead) }))
      .sort((a, b) => a.start - b.start),
    bars: bars.map((bar) => ({ ...bar, start: bar.start - lead })),
    marks,
    key,
    tempo: beats,
    keys,
    left
  };
}

/** Marks that a line or chart has no room for, as they are called when they are told. */
const NOT_KEPT: Readonly<Record<string, string>> = {
  lyric: 'syllable of the lyrics',
  dynamics: 'dynamic mark',
  wedge: 'hairpin',
  pedal: 'pedal mark',
  'octave-shift': 'octave line',
  'harp-pedals': 'pedal mark',
  fermata: 'fermata',
  arpeggiate: 'rolled chord',
  tremolo: 'tremolo',
  'trill-mark': 'trill',
  turn: 'turn',
  'inverted-turn': 'turn',
  mordent: 'mordent',
  'inverted-mordent': 'mordent',
  accent: 'accent',
  'strong-accent': 'accent',
  staccato: 'staccato dot',
  staccatissimo: 'staccato dot',
  tenuto: 'tenuto mark'
};
/** Words that say where the form goes on are read; others are told. */
const FORM_WORDS = /^(?:to coda|d\.? ?[cs]\.?|da capo|dal segno|fine|coda|segno)\b/i;

const PLURALS: Readonly<Record<string, string>> = {
  'syllable of the lyrics': 'syllables of the lyrics',
  'figure of a bass': 'figures of a bass'
};

const isGroup = (node: Node) => ['articulations', 'ornaments'].includes(nameOf(node));

function notKept(marks: readonly Node[]): string[] {
  return marks.flatMap((mark) => {
    const name = nameOf(mark);
    if (name === 'words') {
      const words = textOf(mark).trim();
      return words && !FORM_WORDS.test(words) ? [`direction “${words.slice(0, 40)}”`] : [];
    }
    const called = Object.hasOwn(NOT_KEPT, name) ? NOT_KEPT[name] : undefined;
    return called ? [called] : [];
  });
}

/** The voice that lies highest, of those that have a fair share of the notes; nothing where there is but one. */
function upperOf(heard: readonly Heard[]): readonly Heard[] {
  const voices = new Map<string, Heard[]>();
  for (const one of heard) voices.set(one.voice, [...(voices.get(one.voice) ?? []), one]);
  if (voices.size < 2) return [];
  const height = (notes: readonly Heard[]) =>
    notes.reduce((sum, { written }) => sum + written, 0) / notes.length;
  const large = [...voices.values()].filter(({ length }) => length >= FAIR_SHARE * heard.length);
  return large.sort((a, b) => height(b) - height(a))[0] ?? [];
}
const FAIR_SHARE = 0.15;

/** The key of a signature in a mode as it is named; major where nothing is said, null where there is none of that name. */
function keyNamed(fifths: number, mode: string): string | null {
  if (mode === 'minor' || mode === 'aeolian') return keyOf(fifths, true);
  if (mode in MODES && mode !== 'major') {
    const own = mode as Mode;
    // The tonic lies as many fifths from that of the major key as its mode has fewer sharps.
    const tonic = keyOf(fifths - MODES[own].sharps, false);
    return tonic === null ? null : `${tonic} ${own}`;
  }
  return keyOf(fifths, false);
}

/** "1", "1, 2", "1-3": the passes that an ending is for. */
function passesOf(text: string): number[] {
  return text.split(/[,.\s]+/).flatMap((part) => {
    const [from, to = from] = part.split('-').map(Number);
    if (!from || !to || to < from || to > 64) return [];
    return Array.from({ length: to - from + 1 }, (_, i) => from + i);
  });
}

/** Passes of a repeat at most. */
const MOST_TIMES = 16;

function marksOf(measure: Node): BarMarks {
  const barlines = all(measure, 'barline');
  const repeats = barlines.flatMap((line) => all(line, 'repeat'));
  const endings = barlines.flatMap((line) => all(line, 'ending'));
  const sounds = [
    ...all(measure, 'sound'),
    ...all(measure, 'direction').flatMap((direction) => all(direction, 'sound'))
  ];
  const types = all(measure, 'direction').flatMap((direction) =>
    all(direction, 'direction-type').flatMap(childrenOf)
  );
  const words = types.filter((type) => nameOf(type) === 'words').map((type) => textOf(type).trim());
  const says = (pattern: RegExp) => words.some((word) => pattern.test(word));
  const has = (name: string) =>
    sounds.some((sound) => attribute(sound, name) !== '' && attribute(sound, name) !== 'no');
  const shows = (name: string) => types.some((type) => nameOf(type) === name);
  const toCoda = has('tocoda') || says(/^to coda/i);
  const back = repeats.find((repeat) => attribute(repeat, 'direction') === 'backward');
  const opening = endings.find((ending) => attribute(ending, 'type') === 'start');
  const passes = opening ? passesOf(attribute(opening, 'number')) : [];
  const jump =
    has('dacapo') || says(/^d\.? ?c\.?\b|^da capo/i)
      ? 'head'
      : has('dalsegno') || says(/^d\.? ?s\.?\b|^dal segno/i)
        ? 'sign'
        : null;
  return {
    ...(repeats.some((repeat) => attribute(repeat, 'direction') === 'forward')
      ? { opensRepeat: true as const }
      : {}),
    ...(back ? { times: Math.min(MOST_TIMES, Math.max(2, Number(attribute(back, 'times')) || 2)) } : {}),
    ...(passes.length > 0 ? { ending: passes } : {}),
    ...(endings.some((ending) => ['stop', 'discontinue'].includes(attribute(ending, 'type')))
      ? { endsEnding: true as const }
      : {}),
    ...(has('segno') || shows('segno') ? { segno: true as const } : {}),
    ...((has('coda') || shows('coda')) && !toCoda ? { coda: true as const } : {}),
    ...(toCoda ? { toCoda: true as const } : {}),
    ...(has('fine') || says(/^fine$/i) ? { fine: true as const } : {}),
    ...(jump ? { jump } : {})
  };
}

/** A part as it is played: its bars one after another, each with its chords and notes as often as it comes. */
function playedOut(part: ReadPart, order: readonly number[]): ReadPart {
  let at = 0;
  const bars: FoundBar[] = [];
  const chords: FoundChord[] = [];
  const first = part.bars[0]?.start ?? 0;
  const [notes, upper] = [part.notes, part.upper].map((own) => own.filter(({ start }) => start < first)) as [
    LineNote[],
    LineNote[]
  ];
  const keys: WrittenKey[] = [];
  const keyAt = (bar: number) => part.keys.findLast((turn) => turn.bar <= bar + 1)?.key ?? part.key;
  let key = part.key;
  /** The chord that sounds on from the bar before on the page is said where another bar comes before it. */
  let before = -1;
  for (const number of order) {
    const bar = part.bars[number];
    if (!bar) continue;
    const end = bar.start + bar.length;
    const moved = at - bar.start;
    const own = part.chords.filter(({ start }) => start >= bar.start && start < end);
    const sounding = part.chords.findLast(({ start }) => start <= bar.start);
    if (number !== before + 1 && sounding && own[0]?.start !== bar.start)
      chords.push({ start: at, symbol: sounding.symbol });
    chords.push(...own.map((chord) => ({ ...chord, start: chord.start + moved })));
    const moveTo = (out: LineNote[], all: readonly LineNote[]) => {
      for (const note of all)
        if (note.start >= bar.start && note.start < end) out.push({ ...note, start: note.start + moved });
    };
    moveTo(notes, part.notes);
    moveTo(upper, part.upper);
    const here = keyAt(number);
    if (here !== undefined && here !== key) keys.push({ bar: bars.length + 1, key: here });
    key = here;
    bars.push({ ...bar, start: at });
    at += bar.length;
    before = number;
  }
  // What stands behind the last bar on the page stands behind the last one that is played, and is told there.
  const last = part.bars.at(-1);
  const behind = last ? part.chords.filter(({ start }) => start >= last.start + last.length) : [];
  chords.push(...behind.map((chord) => ({ ...chord, start: chord.start - last!.start - last!.length + at })));
  return { ...part, bars, chords, notes, upper, keys };
}

function spelled(
  node: Node | undefined,
  what: string
): { readonly name: string; readonly alter: number } | null {
  const step = said(node, `${what}-step`).toUpperCase();
  const alter = Math.round(numberAt(node, `${what}-alter`) ?? 0);
  if (!/^[A-G]$/.test(step) || Math.abs(alter) > 2) return null;
  return { name: step + (alter < 0 ? 'b' : '#').repeat(Math.abs(alter)), alter };
}

/** The root of a chord: named, or counted from the tonic of a key. */
function rootOf(harmony: Node, signature: string | undefined): NoteName | null {
  const named = spelled(one(harmony, 'root'), 'root');
  if (named) return named.name;
  const numeral = one(harmony, 'numeral');
  const step = numberAt(numeral, 'numeral-root');
  if (step === null || step < 1 || step > 7) return null;
  const key = one(numeral, 'numeral-key');
  const fifths = numberAt(key, 'numeral-fifths');
  const written =
    key && fifths !== null ? keyNamed(Math.round(fifths), said(key, 'numeral-mode')) : signature;
  const [, tonic, rest = ''] = /^([A-G][b#]?)(.*)$/.exec(written ?? '') ?? [];
  if (!tonic) return null;
  const mode = rest.trim() === 'm' ? 'minor' : ((rest.trim() || 'major') as Mode);
  const alter = Math.round(numberAt(numeral, 'numeral-alter') ?? 0);
  return stepOf(tonic, MODES[mode].steps[step - 1]! + alter, step);
}

/** The note so many semitones over a tonic, on the letter of a step of its scale. */
function stepOf(tonic: NoteName, semitones: number, step: number): NoteName | null {
  const natural = spell(tonic, (['1', '9', '3', '11', '5', '13', '7'] as const)[step - 1]!);
  const plain = [0, 2, 4, 5, 7, 9, 11][step - 1]!;
  const signs =
    [...natural.slice(1)].reduce((sum, sign) => sum + (sign === '#' ? 1 : -1), 0) + semitones - plain;
  return Math.abs(signs) > 2 ? null : natural[0]! + (signs < 0 ? 'b' : '#').repeat(Math.abs(signs));
}

function readHarmony(harmony: Node, signature: string | undefined): string | null {
  const root = rootOf(harmony, signature);
  const kind = one(harmony, 'kind');
  if (!root || !kind) return textOf(kind).trim() === 'none' ? 'N.C.' : null;
  const bass = spelled(one(harmony, 'bass'), 'bass');
  const degrees = all(harmony, 'degree').map((degree) => ({
    value: numberAt(degree, 'degree-value') ?? 0,
    alter: Math.round(numberAt(degree, 'degree-alter') ?? 0),
    type: said(degree, 'degree-type') as 'add' | 'alter' | 'subtract'
  }));
  return symbolOf(root, {
    kind: textOf(kind).trim(),
    text: one(harmony, 'root') ? attribute(kind, 'text') : '',
    degrees,
    bass: bass?.name ?? '',
    inversion: numberAt(harmony, 'inversion') ?? undefined
  });
}

/** What stands on the page of a chord that is not known, as one word; null where nothing does. */
function writtenSymbol(harmony: Node): string | null {
  const root = spelled(one(harmony, 'root'), 'root');
  const kind = one(harmony, 'kind');
  const written = `${root?.name ?? ''}${(kind && attribute(kind, 'text')) || `(${textOf(kind).trim()})`}`;
  const word = written.replaceAll(/[\s|{}%:[\]]+/g, '').slice(0, 24);
  return root && word ? word : null;
}

function readNote(item: Node, start: number, length: number, transposed: number): Heard | null {
  const node = one(item, 'pitch');
  const step = said(node, 'step').toUpperCase();
  const octave = numberAt(node, 'octave');
  const alter = Math.round(numberAt(node, 'alter') ?? 0);
  const natural = octave === null ? null : midiOf(`${step}${octave}`);
  if (natural === null || Math.abs(alter) > 2) return null;
  const written = natural + alter + transposed;
  const notations = all(item, 'notations');
  const technical = notations.flatMap((notation) => all(notation, 'technical').flatMap(childrenOf));
  const named = (name: string) => technical.filter((child) => nameOf(child) === name);
  const value = (name: string) => {
    const text = textOf(named(name)[0]).trim();
    return /^\d+$/.test(text) ? Number(text) : null;
  };
  const alters = named('bend').map((bend) => numberAt(bend, 'bend-alter') ?? 0);
  const curl = alters.find((by) => by > 0 && by <= 0.5);
  const bends = alters.map((by) => (Math.abs(by) <= 0.5 ? 0 : Math.round(by)));
  const up = bends.find((by) => by > 0);
  const down = bends.find((by) => by < 0);
  const midi = written + (up ?? 0);
  if (midi < 0 || midi > 127) return null;
  const [string, fret, finger] = [value('string'), value('fret'), value('fingering')];
  const stops = (name: string) => (child: Node) =>
    nameOf(child) === name && attribute(child, 'type') === 'stop';
  const inNotations = notations.flatMap(childrenOf);
  const ornaments = notations.flatMap((notation) => all(notation, 'ornaments').flatMap(childrenOf));
  const name = step + (alter < 0 ? 'b' : '#').repeat(Math.abs(alter));
  const note: LineNote = {
    ...noteOf(start, length, midi),
    note: transposed === 0 && up === undefined ? name : plainName(midi % 12),
    ...(string !== null && fret !== null
      ? { place: { string, fret, ...(finger !== null && finger <= 4 ? { finger } : {}) } }
      : {}),
    ...(up === undefined ? {} : { bend: { from: written } }),
    ...(up === undefined && curl !== undefined
      ? { bend: { from: written, cents: Math.round(100 * curl) } }
      : {}),
    ...(up !== undefined && down !== undefined ? { release: { to: midi + down } } : {}),
    ...(inNotations.some(stops('slide')) || inNotations.some(stops('glissando'))
      ? { slide: true as const }
      : {}),
    ...(technical.some(stops('hammer-on')) || technical.some(stops('pull-off'))
      ? { slur: true as const }
      : {}),
    ...(ornaments.some((child) => nameOf(child) === 'wavy-line') ? { vibrato: true as const } : {}),
    ...(attribute(one(item, 'notehead') ?? {}, 'parentheses') === 'yes' ? { ghost: true as const } : {})
  };
  const isTied = all(item, 'tie').some((tie) => attribute(tie, 'type') === 'stop');
  const voice = `${said(item, 'staff')}/${said(item, 'voice')}`;
  return { note, written, isTied, isNamed: attribute(item, 'id') !== '', voice };
}

/** One note for what staff and tab both say, and one for what ties hold together. */
function joined(heard: readonly Heard[]): LineNote[] {
  const merged = new Map<string, Heard>();
  for (const one of heard) {
    const key = `${one.note.start}:${one.written}`;
    const other = merged.get(key);
    merged.set(
      key,
      other
        ? {
            // The staff says how it is spelled, the tab where it lies.
            note: {
              ...one.note,
              ...other.note,
              ...(other.note.place ? {} : one.note.place ? { place: one.note.place } : {})
            },
            written: one.written,
            isTied: other.isTied || one.isTied,
            isNamed: other.isNamed || one.isNamed,
            voice: other.voice
          }
        : one
    );
  }
  const inOrder = [...merged.values()].sort(
    (a, b) => a.note.start - b.note.start || a.note.midi - b.note.midi
  );
  const notes: LineNote[] = [];
  /** The last note of each pitch, as it is written and as it sounds. */
  const lastOf = new Map<number, number>();
  for (const { note, written, isTied, isNamed } of inOrder) {
    const before = [written, note.midi]
      .map((pitch) => lastOf.get(pitch))
      .find((index) => index !== undefined && endOf(notes[index]!) === note.start);
    const goesOn = isTied && before !== undefined;
    if (goesOn && !isNamed) {
      notes[before] = { ...notes[before]!, length: notes[before]!.length + note.length };
      continue;
    }
    lastOf.set(written, notes.length).set(note.midi, notes.length);
    notes.push(goesOn ? { ...note, tie: true } : note);
  }
  return notes;
}
