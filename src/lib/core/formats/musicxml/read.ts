/**
 * MusicXML read: chords, meters and marks as a chart, each part as a line. Written here it comes back as it was; from elsewhere what is
 * one voice of pitched notes is taken, and the rest is told. Source: docs/music-rules.md, Files.
 */
import { firstOf, nth } from '../../base/list';
import { chartHead, readChart } from '../../chart/read';
import { DEFAULT_METER, type Meter } from '../../chart/model';
import { TICKS, type LineNote } from '../../line/model';
import { quarterOf } from '../../line/notation';
import { counted } from '../../theory/words';
import { chartOf, type FoundBar, type FoundChord } from '../chart-of';
import { harmonyHeard, isTooLong, toldOf, TOO_LONG } from '../heard/harmony';
import { NotReadable } from '../not-readable';
import { oneVoice } from '../one-voice';
import { sorted, type ReadPiece, type Voice } from '../piece';
import type { LeftOut } from '../text/import';
import type { WrittenKey } from '../written-keys';
import { playOrder, type BarMarks } from './form';
import { keyNamed, readHarmony, writtenSymbol } from './read-chords';
import { marksOf, notKept, notKeptOf, PLURALS } from './read-marks';
import { joined, readNote, upperOf, type Heard } from './read-notes';
import { all, attribute, childrenOf, nameOf, numberAt, one, said, scoreIn, textOf, type Node } from './score';
import { CHART_FIELD } from './write';

const MOST_BARS = 4000;
/** How loud notes are that are only written. */
const WRITTEN_LEVEL = 0.8;

/** The chords and voices of a score. Throws `NotReadable` where it is damaged or none. */
export function readMusicXml(text: string): ReadPiece {
  const score = scoreIn(text);
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
  const meter = kept === null ? firstMeter(firstOf(parts)) : chartHead(readChart(kept).chart).meter;
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
  const withChords = read.find(({ chords }) => chords.length > 0) ?? firstOf(read);
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
      key: heard?.key ?? firstOf(read).key,
      tempo: read.find((part) => part.tempo !== undefined)?.tempo,
      bars: withChords.bars,
      chords: heard?.chords ?? withChords.chords,
      ...told.said
    },
    TICKS
  );
  const none =
    found.chart === null
      ? [
          {
            text: title,
            why: isTooLong(withChords.bars)
              ? TOO_LONG
              : 'There is no chord symbol in it, and no chord in what the parts play together.'
          }
        ]
      : [];
  const { keys } = firstOf(read);
  return {
    chart: found.chart,
    ...sorted(voices),
    ...(keys.length ? { keys } : {}),
    ...(heard ? { sure: heard.sure } : {}),
    left: [...left, ...found.left, ...none]
  };
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
  return merged.filter((_, i) => !used.has(nth(parts, i)));
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
          for (const what of notKeptOf(item)) skip(what);
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
  const end = last ? last.start + last.length : Infinity;
  const behind = part.chords.filter(({ start }) => start >= end);
  chords.push(...behind.map((chord) => ({ ...chord, start: chord.start - end + at })));
  return { ...part, bars, chords, notes, upper, keys };
}
