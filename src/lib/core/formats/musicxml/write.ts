/**
 * A chart and its lines as MusicXML: the form written out, a staff and a tab for each line, chord symbols, techniques. The chart's text
 * goes along word for word. Source: docs/music-rules.md, Files.
 */
import { entryOf, nth, sure } from '../../base/list';
import { accidentalsOf as fifthsOf } from '../../harmony/key-signature';
import { DEFAULT_TEMPO } from '../../practice/ladder';
import { endOf, noteOf, ticksOf, type LineNote } from '../../line/model';
import {
  quarterOf,
  writtenBars,
  type NoteValue,
  type Piece as WrittenPiece,
  type WrittenBar
} from '../../line/notation';
import { accidentalsOf, staffPitch } from '../../line/staff';
import { plainName } from '../../theory/note';
import type { AnalysedChange } from '../../harmony/analysis';
import type { Piece, Voice } from '../piece';
import { linksOf, type Link } from '../../line/links';
import type { MarginWord } from '../../chart/margin';
import { readChart } from '../../chart/read';
import { formMarks, type FormMarks, type PlayedBar } from '../../chart/unroll';
import { kindOf } from './kinds';
import { element, tagged } from './xml';

/** How the part is called that is the tab of the one before. */
const TAB_PART = '(tab)';
/** The field that keeps the chart's text. */
export const CHART_FIELD = 'corvel:chart';
/** A note that is struck, or tied on purpose, has a name; what only goes on over a beat or a bar has none. */
export const NOTE_ID = 'n';

const TYPES: Readonly<Record<NoteValue, string>> = {
  1: 'whole',
  2: 'half',
  4: 'quarter',
  8: 'eighth',
  16: '16th',
  32: '32nd',
  64: '64th'
};
const ACCIDENTALS: Readonly<Record<number, string>> = {
  [-2]: 'flat-flat',
  [-1]: 'flat',
  0: 'natural',
  1: 'sharp',
  2: 'double-sharp'
};
/** A part of chords alone has rests, one under each chord. A tab is a part of its own beside the one with the staff: engravers draw a tab where a part has no other clef. */
type Kind = 'staff' | 'tab' | 'chords';

/** A piece as MusicXML: its form written out, chords, staff and tab for each voice. */
export function writeMusicXml(piece: Piece): string {
  const { sheet, title, chart } = piece;
  // Notes are written out as they are played; chords alone as they stand in the chart, with its repeats.
  const asWritten = piece.voices.length ? null : writtenForm(piece);
  const voices: readonly Voice[] = piece.voices.length
    ? piece.voices
    : [chordsAlone(piece, asWritten?.bars ?? sheet.form.bars)];
  const longest = Math.max(0, ...voices.flatMap(({ notes }) => notes.map(endOf)));
  const earliest = Math.min(0, ...voices.flatMap(({ notes }) => notes.map(({ start }) => start)));
  const parts = voices.flatMap(({ name, notes }, i) => {
    // Every part is as long as the longest.
    const played = asWritten?.bars ?? sheet.form.bars;
    const bars = writtenBars(notes, played, sheet.head.meter, longest, earliest);
    const links = linksOf(notes);
    const part = (kind: Kind): Part => ({ kind, id: `p${i + 1}`, notes, links });
    const staff = { id: `P${i + 1}`, name, bars, part: part(piece.voices.length ? 'staff' : 'chords') };
    const hasPlaces = notes.some(({ place }) => place);
    return hasPlaces
      ? [staff, { ...staff, id: `P${i + 1}T`, name: `${name} ${TAB_PART}`, part: part('tab') }]
      : [staff];
  });
  const grouped = element(
    'part-group',
    { type: 'start', number: 1 },
    tagged('group-symbol', 'bracket'),
    tagged('group-barline', 'yes')
  );
  const score = element(
    'score-partwise',
    { version: '4.0' },
    element('work', {}, tagged('work-title', title)),
    element(
      'identification',
      {},
      element('encoding', {}, tagged('software', 'Corvel')),
      element('miscellaneous', {}, tagged('miscellaneous-field', chart, { name: CHART_FIELD }))
    ),
    element(
      'part-list',
      {},
      ...parts.flatMap(({ id, name, part: { kind } }, i) => {
        const own = element('score-part', { id }, tagged('part-name', name));
        if (kind === 'tab') return [own, element('part-group', { type: 'stop', number: 1 })];
        return parts[i + 1]?.part.kind === 'tab' ? [grouped, own] : [own];
      })
    ),
    ...parts.map(({ id, bars, part }, p) =>
      element(
        'part',
        { id },
        ...bars.map((bar, i) => measure(bar, bars[i - 1], part, piece, p === 0, asWritten?.marks[i]))
      )
    )
  );
  return `<?xml version="1.0" encoding="UTF-8"?>\n${score}\n`;
}

/** A voice that is silent under each chord of some bars, so that every chord has a rest of its own. */
function chordsAlone({ sheet }: Piece, bars: readonly PlayedBar[]): Voice {
  const notes = bars.flatMap(({ start, beats }) => {
    const own = sheet.analysis.changes.filter(
      (one) => one.start < start + beats && one.start + one.beats > start
    );
    return own.map((change) => {
      const from = Math.max(start, change.start);
      const to = Math.min(start + beats, change.start + change.beats);
      return noteOf(ticksOf(from), ticksOf(to - from), 60);
    });
  });
  return { name: 'chords', notes };
}

/** The notes of a part and what joins them. */
interface Part {
  readonly kind: Kind;
  /** Before the names of its notes: no two in a score may be alike. */
  readonly id: string;
  readonly notes: readonly LineNote[];
  readonly links: readonly Link[];
}

function measure(
  bar: WrittenBar,
  before: WrittenBar | undefined,
  part: Part,
  piece: Piece,
  hasChords: boolean,
  marks: ScoreMarks | undefined
): string {
  const { analysis } = piece.sheet;
  const end = bar.start + bar.length;
  const chords = hasChords
    ? analysis.changes.filter(({ start }) => ticksOf(start) >= bar.start && ticksOf(start) < end)
    : [];
  const shown = accidentalsOf(bar, part.notes, fifthsOf(analysis.key));
  let chord = 0;
  const notes = bar.pieces.flatMap((one, i) => {
    const symbols: string[] = [];
    while (chord < chords.length && ticksOf(nth(chords, chord).start) < one.start + one.length) {
      const change = nth(chords, chord++);
      symbols.push(harmony(change, ticksOf(change.start) - one.start));
    }
    return [...symbols, ...written(one, part.kind === 'staff' ? nth(shown, i) : [], bar, part)];
  });
  return element(
    'measure',
    bar.number < 1 ? { number: bar.number, implicit: 'yes' } : { number: bar.number },
    marks ? opening(marks) : null,
    attributes(bar, before, piece, part.kind),
    before || !hasChords ? null : tempo(piece),
    bar.section && bar.section !== before?.section
      ? element(
          'direction',
          { placement: 'above' },
          element('direction-type', {}, tagged('rehearsal', bar.section))
        )
      : null,
    ...(marks ? signs(marks, ['sign', 'coda']) : []),
    ...notes,
    ...(marks ? signs(marks, ['to coda', 'fine', 'jump']) : []),
    marks ? closing(marks) : null
  );
}

/**
 * The bars as they stand in the chart, each as it is first played, with the marks that lead through them. Null where some bar is
 * never played, as behind a *fine*: then the form is written out.
 */
function writtenForm({
  chart,
  sheet
}: Piece): { bars: readonly PlayedBar[]; marks: readonly ScoreMarks[] } | null {
  const marks = formMarks(readChart(chart).chart);
  const first = new Map<number, PlayedBar>();
  for (const bar of sheet.form.bars) if (!first.has(bar.written)) first.set(bar.written, bar);
  if (first.size !== marks.length) return null;
  const bars = marks.map((_, i) => ({ ...entryOf(first, i), number: i + 1 }));
  return { bars, marks: marks.map((own, i) => ({ ...own, ends: endingAt(marks, i) })) };
}

/** What stands at a bar, and the ending that is over with it. */
interface ScoreMarks extends FormMarks {
  readonly ends: readonly number[];
}

/** The passes of the ending that is over with a bar: at its repeat, or where another ending or repeat follows. */
function endingAt(marks: readonly FormMarks[], at: number): readonly number[] {
  const from = marks.findLastIndex(({ ending }, i) => i <= at && ending.length > 0);
  if (from < 0) return [];
  const isOver = (i: number) =>
    nth(marks, i).repeatEnd ||
    marks[i + 1] === undefined ||
    nth(marks, i + 1).repeatStart ||
    nth(marks, i + 1).ending.length > 0;
  for (let i = from; i < at; i++) if (isOver(i)) return [];
  return isOver(at) ? nth(marks, from).ending : [];
}

function opening({ repeatStart, ending }: FormMarks): string | null {
  if (!repeatStart && ending.length === 0) return null;
  return element(
    'barline',
    { location: 'left' },
    repeatStart ? tagged('bar-style', 'heavy-light') : null,
    ending.length
      ? tagged('ending', `${ending.join(', ')}.`, { number: ending.join(', '), type: 'start' })
      : null,
    repeatStart ? element('repeat', { direction: 'forward' }) : null
  );
}

function closing({ repeatEnd, ends }: ScoreMarks): string | null {
  if (!repeatEnd && ends.length === 0) return null;
  return element(
    'barline',
    { location: 'right' },
    repeatEnd ? tagged('bar-style', 'light-heavy') : null,
    ends.length
      ? element('ending', { number: ends.join(', '), type: repeatEnd ? 'stop' : 'discontinue' })
      : null,
    repeatEnd ? element('repeat', { direction: 'backward' }) : null
  );
}

/** A word or sign over the staff, with what a program that plays is to do. */
const sign = (shown: string, sound: Readonly<Record<string, string>>) =>
  element('direction', { placement: 'above' }, element('direction-type', {}, shown), element('sound', sound));

function signs({ margin }: FormMarks, kinds: readonly MarginWord['kind'][]): string[] {
  return margin.filter(({ kind }) => kinds.includes(kind)).map(signOf);
}

function signOf(word: MarginWord): string {
  switch (word.kind) {
    case 'sign':
      return sign(element('segno', {}), { segno: 'sign' });
    case 'coda':
      return sign(element('coda', {}), { coda: 'coda' });
    case 'to coda':
      return sign(tagged('words', 'To Coda'), { tocoda: 'coda' });
    case 'fine':
      return sign(tagged('words', 'Fine'), { fine: 'yes' });
    case 'jump': {
      const from = word.to === 'head' ? 'D.C.' : 'D.S.';
      const until = { fine: ' al Fine', coda: ' al Coda', end: '' }[word.until];
      return sign(
        tagged('words', `${from}${until}`),
        word.to === 'head' ? { dacapo: 'yes' } : { dalsegno: 'sign' }
      );
    }
  }
}

function attributes(
  bar: WrittenBar,
  before: WrittenBar | undefined,
  { sheet, neck }: Piece,
  kind: Kind
): string | null {
  const { meter } = bar;
  const time = element('time', {}, tagged('beats', meter.beats), tagged('beat-type', meter.unit));
  if (before) {
    const isSame = before.meter.beats === meter.beats && before.meter.unit === meter.unit;
    return isSame ? null : element('attributes', {}, time);
  }
  const { key } = sheet.analysis;
  const strings = neck.strings.length;
  // A guitar sounds an octave below where it is written.
  const treble = element(
    'clef',
    {},
    tagged('sign', 'G'),
    tagged('line', 2),
    tagged('clef-octave-change', -1)
  );
  const tab = element('clef', {}, tagged('sign', 'TAB'), tagged('line', Math.max(1, strings - 1)));
  return element(
    'attributes',
    {},
    tagged('divisions', quarterOf(sheet.head.meter)),
    element('key', {}, tagged('fifths', fifthsOf(key)), tagged('mode', key.mode)),
    time,
    kind === 'tab' ? tab : treble,
    kind === 'tab' ? stringsOf(neck) : null
  );
}

/** How many strings a tab has, and what they sound. */
function stringsOf({ strings, capo }: Piece['neck']): string {
  return element(
    'staff-details',
    {},
    tagged('staff-lines', strings.length),
    // Lines are counted from the lowest string, which is the last one here.
    ...[...strings].reverse().map((midi, i) => {
      const { letter, alter, octave } = staffPitch({ midi, note: plainName(midi % 12) });
      return element(
        'staff-tuning',
        { line: i + 1 },
        tagged('tuning-step', letter),
        alter ? tagged('tuning-alter', alter) : null,
        tagged('tuning-octave', octave)
      );
    }),
    capo ? tagged('capo', capo) : null
  );
}

function tempo({ sheet: { head } }: Piece): string {
  const beat = head.tempo ?? DEFAULT_TEMPO;
  const unit = TYPES[head.meter.unit as NoteValue] ?? 'quarter';
  return element(
    'direction',
    { placement: 'above' },
    element(
      'direction-type',
      {},
      element('metronome', {}, tagged('beat-unit', unit), tagged('per-minute', beat))
    ),
    // A sound's tempo counts quarters.
    element('sound', { tempo: (beat * 4) / head.meter.unit })
  );
}

function harmony({ symbol, chord }: AnalysedChange, offset: number): string {
  const shift = offset > 0 ? tagged('offset', offset) : null;
  if (!chord) {
    // There has to be a root even where nothing sounds; it is not shown.
    const nothing = element('root', {}, tagged('root-step', 'C', { text: '' }));
    return element('harmony', {}, nothing, tagged('kind', 'none', { text: symbol }), shift);
  }
  const note = (name: string, kind: string) => {
    const alter = [...name.slice(1)].reduce((sum, sign) => sum + (sign === '#' ? 1 : -1), 0);
    return element(
      kind,
      {},
      tagged(`${kind}-step`, name.charAt(0)),
      alter ? tagged(`${kind}-alter`, alter) : null
    );
  };
  const { kind, degrees } = kindOf(chord);
  return element(
    'harmony',
    {},
    note(chord.root, 'root'),
    tagged('kind', kind, { text: chord.suffix }),
    chord.bass ? note(chord.bass, 'bass') : null,
    ...degrees.map(({ value, alter, type }) =>
      element(
        'degree',
        { 'print-object': 'no' },
        tagged('degree-value', value),
        tagged('degree-alter', alter),
        tagged('degree-type', type)
      )
    ),
    shift
  );
}

/** The notes of a piece, or its rest, on the staff or on the tab. */
function written(
  piece: WrittenPiece,
  accidentals: readonly (number | null)[],
  bar: WrittenBar,
  part: Part
): string[] {
  const { notes, links, kind } = part;
  const tuplet = piece.tuplet === null ? null : nth(bar.tuplets, piece.tuplet);
  const inTuplet = tuplet ? bar.pieces.filter((one) => one.tuplet === piece.tuplet) : [];
  const time = [tagged('type', TYPES[piece.value]), ...(piece.dots ? [element('dot', {})] : [])];
  const modification = tuplet
    ? element(
        'time-modification',
        {},
        tagged('actual-notes', tuplet.notes),
        tagged('normal-notes', tuplet.inTimeOf)
      )
    : null;
  const brackets = [
    tuplet && inTuplet[0] === piece ? element('tuplet', { type: 'start', bracket: 'yes' }) : null,
    tuplet && inTuplet.at(-1) === piece ? element('tuplet', { type: 'stop' }) : null
  ];
  const ends = tagged('duration', piece.length);
  const voice = tagged('voice', 1);
  const own = piece.notes.filter((index) => kind === 'staff' || (kind === 'tab' && nth(notes, index).place));
  if (own.length === 0) {
    const isBar = bar.pieces.length === 1;
    return [
      element(
        'note',
        {},
        element('rest', isBar ? { measure: 'yes' } : {}),
        ends,
        voice,
        ...(isBar ? [] : time),
        modification,
        brackets.some(Boolean) ? element('notations', {}, ...brackets) : null
      )
    ];
  }
  return own.map((index, n) => {
    const note = nth(notes, index);
    const isFirst = piece.start === note.start;
    const stops = !isFirst || note.tie === true;
    const { end, isTiedOn } = nth(links, index);
    const isLast = piece.start + piece.length >= end;
    const starts = !isLast || isTiedOn;
    const sign = accidentals[piece.notes.indexOf(index)] ?? null;
    const notations = [
      stops ? element('tied', { type: 'stop' }) : null,
      starts ? element('tied', { type: 'start' }) : null,
      ...(n === 0 ? brackets : []),
      ...(isFirst ? played(note, kind) : []),
      ...joins(isFirst, isLast, index, part)
    ];
    return element(
      'note',
      isFirst && kind === 'staff' ? { id: `${part.id}${NOTE_ID}${index}` } : {},
      n > 0 ? element('chord', {}) : null,
      pitch(note),
      ends,
      stops ? element('tie', { type: 'stop' }) : null,
      starts ? element('tie', { type: 'start' }) : null,
      voice,
      ...time,
      sign === null ? null : tagged('accidental', sure(ACCIDENTALS[sign], 'ACCIDENTALS')),
      modification,
      note.ghost ? tagged('notehead', 'normal', { parentheses: 'yes' }) : null,
      notations.some(Boolean) ? element('notations', {}, ...notations) : null
    );
  });
}

function pitch(note: LineNote): string {
  // What is fretted is written; the bend says how far it is pushed.
  const { letter, alter, octave } = staffPitch(
    note.bend ? { midi: note.bend.from, note: plainName(note.bend.from % 12) } : note
  );
  return element(
    'pitch',
    {},
    tagged('step', letter),
    alter ? tagged('alter', alter) : null,
    tagged('octave', octave)
  );
}

/** How a note is played, where it is struck. */
function played({ place, bend, release, midi, vibrato }: LineNote, kind: Kind): (string | null)[] {
  const technical = [
    place?.finger === undefined ? null : tagged('fingering', place.finger),
    place && kind === 'tab' ? tagged('string', place.string) : null,
    place && kind === 'tab' ? tagged('fret', place.fret) : null,
    // A curl is a bend by a part of a semitone.
    bend
      ? element(
          'bend',
          {},
          tagged('bend-alter', bend.cents === undefined ? midi - bend.from : bend.cents / 100)
        )
      : null,
    bend && release
      ? element('bend', {}, tagged('bend-alter', release.to - midi), element('release', {}))
      : null
  ].filter(Boolean);
  return [
    technical.length ? element('technical', {}, ...technical) : null,
    vibrato
      ? element(
          'ornaments',
          {},
          element('wavy-line', { type: 'start' }),
          element('wavy-line', { type: 'stop' })
        )
      : null
  ];
}

/** Slides and slurs run from the note before, on its string where it has one, to the note that has them. */
function joins(isFirst: boolean, isLast: boolean, index: number, { notes, links }: Part): (string | null)[] {
  const note = nth(notes, index);
  const { from, to } = nth(links, index);
  const goal = isLast && to !== null ? to : null;
  const slide = (type: 'start' | 'stop') => element('slide', { type, 'line-type': 'solid' });
  return [
    isFirst && note.slide ? slide('stop') : null,
    isFirst && note.slur ? slurred(notes[from ?? -1], note, 'stop') : null,
    goal !== null && nth(notes, goal).slide ? slide('start') : null,
    goal !== null && nth(notes, goal).slur ? slurred(note, nth(notes, goal), 'start') : null
  ];
}

function slurred(from: LineNote | undefined, to: LineNote, type: 'start' | 'stop'): string {
  const isPull = from !== undefined && from.midi > to.midi;
  const letter = isPull ? 'P' : 'H';
  return element(
    'technical',
    {},
    tagged(isPull ? 'pull-off' : 'hammer-on', type === 'start' ? letter : '', { type })
  );
}
