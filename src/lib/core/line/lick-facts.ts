/** What a lick is by itself: its chords as a small chart, their motion, what it resolves to, where it lies, how clearly it tells its chords. */
import { lastOf, nth, sure } from '../base/list';
import type { Beats } from '../base/units';
import { writeDirective } from '../chart/directives';
import type { Meter } from '../chart/model';
import { readKey, type Key } from '../harmony/key';
import { romanText } from '../harmony/numeral';
import { readSheet, type Sheet } from '../harmony/sheet';
import type { Instrument } from '../neck/tuning';
import type { Degree } from '../theory/degree';
import { beatsOf, endOf, ticksOf, type LineNote } from './model';
import { askedOf, outlineLine } from './outline';
import { placeNotes } from './place';
import { readLine, restIn } from './read';

/** A lick as it is kept: chords one after another, notes timed from the first. */
export interface KeptLick {
  readonly meter: Meter;
  /** The key it was played in, "Bb" or "D dorian"; without one it is found from its chords. */
  readonly key?: string | undefined;
  /** Offered wherever its chords stand, which is so where nothing is said, or unmoved over all of its key. */
  readonly by?: 'key' | 'chord' | undefined;
  readonly over: readonly { readonly symbol: string; readonly beats: Beats }[];
  readonly notes: readonly LineNote[];
}

export interface LickFacts {
  /** "ii–V–I", in its key. */
  readonly motion: string;
  /** The note that the last new chord is landed on. */
  readonly resolves: { readonly symbol: string; readonly degree: Degree } | null;
  readonly position: number | null;
  /** Share of its chords that the notes alone tell. */
  readonly told: number;
  readonly beats: Beats;
}

/** Cells of a beat. */
const FINEST = 2;

/** The chords of a lick as a chart text. */
export function lickChart(
  { meter, key, over }: Pick<KeptLick, 'meter' | 'key' | 'over'>,
  title = ''
): string {
  const cells: string[] = [];
  for (const { symbol, beats } of over) {
    const steps = Math.max(1, Math.round(beats * FINEST));
    cells.push(symbol, ...Array.from({ length: steps - 1 }, () => '.'));
  }
  const size = meter.beats * FINEST;
  const last = lastOf(over).symbol;
  while (cells.length % size) cells.push(cells.length % size === 0 ? last : '.');
  const bars = Array.from({ length: cells.length / size }, (_, bar) => {
    const own = cells.slice(bar * size, (bar + 1) * size);
    // A bar begins with a chord: the one that goes on.
    if (own[0] === '.')
      own[0] = sure(
        cells.slice(0, bar * size).findLast((cell) => cell !== '.'),
        'the stroke that is held'
      );
    const halves = own.every((cell, i) => i % FINEST === 0 || cell === '.');
    const shown = halves ? own.filter((_cell, i) => i % FINEST === 0) : own;
    return shown.slice(1).every((cell) => cell === '.') ? shown[0] : shown.join(' ');
  });
  const head = [
    ...(title ? [writeDirective({ name: 'title', value: title.replaceAll(/[{}\r\n]/g, ' ') })] : []),
    ...(key ? [writeDirective({ name: 'key', value: key })] : []),
    writeDirective({ name: 'time', value: `${meter.beats}/${meter.unit}` })
  ];
  return `${head.join('\n')}\n{start_of_grid}\n| ${bars.join(' | ')} |\n{end_of_grid}\n`;
}

/** The key a lick stands in: the one it was kept with, else the one its chords have. */
export function homeOfLick(lick: Pick<KeptLick, 'meter' | 'key' | 'over'>): Key {
  const { tonic, mode } = (lick.key && readKey(lick.key)) || readSheet(lickChart(lick)).analysis.key;
  return { tonic, mode };
}

/** The key that a lick is kept by; null where it is kept by its chords. */
export const keyOfLick = (lick: Pick<KeptLick, 'meter' | 'key' | 'over' | 'by'>): Key | null =>
  lick.by === 'key' ? homeOfLick(lick) : null;

/** What a lick is found by: chords, function, landing, position, length, techniques. */
export function lickFacts(lick: KeptLick, neck: Instrument): LickFacts {
  const sheet = readSheet(lickChart(lick));
  const { analysis } = sheet;
  const numerals = analysis.changes
    .map(({ numeral, symbol }) => (numeral ? romanText(numeral) : symbol))
    .filter((roman, i, all) => roman !== all[i - 1]);
  const placed = placeNotes(lick.notes, { neck, keepsPlaces: true, alternatives: 1 }).places[0]?.notes ?? [];
  return {
    motion: numerals.join('–'),
    resolves: resolutionOf(lick, sheet),
    position: mostCommon(placed.map(({ position }) => position)),
    told: outlineLine(lick.notes, askedOf(analysis.changes)).share ?? 0,
    beats: lick.over.reduce((sum, { beats }) => sum + beats, 0)
  };
}

function resolutionOf({ meter, notes }: KeptLick, { form, analysis }: Sheet): LickFacts['resolves'] {
  const reading = readLine({ meter, notes }, { form, analysis, chosen: [] });
  const { changes } = analysis;
  const isNew = (at: number) => at > 0 && nth(changes, at).symbol !== nth(changes, at - 1).symbol;
  const own = reading.landings.findLast(
    ({ note, degree, change }) => note !== undefined && degree !== undefined && isNew(change)
  );
  if (own?.degree) return { symbol: nth(changes, own.change).symbol, degree: own.degree };
  // Over one chord it comes to rest on its last note, not on its first.
  const last = restIn(reading, notes);
  return last?.degree ? { symbol: nth(changes, last.change).symbol, degree: last.degree } : null;
}

function mostCommon(values: readonly number[]): number | null {
  const counts = new Map<number, number>();
  for (const value of values) counts.set(value, (counts.get(value) ?? 0) + 1);
  return [...counts].sort(([a, m], [b, n]) => n - m || a - b)[0]?.[0] ?? null;
}

/** A passage of a line with the chords under it, as a lick; null where no chord or no note is in it. */
export function lickFrom(
  notes: readonly LineNote[],
  changes: readonly {
    readonly symbol: string;
    readonly start: number;
    readonly beats: Beats;
    readonly chord: unknown;
  }[],
  meter: Meter,
  { from, to }: { readonly from: number; readonly to: number }
): KeptLick | null {
  const over = changes.flatMap(({ symbol, start, beats, chord }) => {
    const [begin, end] = [Math.max(from, ticksOf(start)), Math.min(to, ticksOf(start + beats))];
    return chord && end > begin ? [{ symbol, beats: beatsOf(end - begin) }] : [];
  });
  const joined = over.reduce<KeptLick['over'][number][]>((all, one) => {
    const last = all.at(-1);
    return last?.symbol === one.symbol
      ? [...all.slice(0, -1), { ...last, beats: last.beats + one.beats }]
      : [...all, one];
  }, []);
  const own = notes
    .filter(({ start }) => start >= from && start < to)
    .map((note) => ({ ...note, start: note.start - from, length: Math.min(note.length, to - note.start) }));
  return joined.length && own.length && own.every((note) => endOf(note) > note.start)
    ? { meter, over: joined, notes: own }
    : null;
}
