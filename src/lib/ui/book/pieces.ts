/** What the pages of a book are made of: each piece says how high it is, so that pages are broken before anything is drawn. */
import { lastOf } from '$lib/core/base/list';
import { openingsOf, pagesOf, type Block } from '$lib/core/formats/book/pages';
import { roomOn, type Paper } from '$lib/core/formats/book/paper';
import type { AnalysedChange } from '$lib/core/harmony/analysis';
import { accidentalsOf } from '$lib/core/harmony/key-signature';
import { ticksOf, type LineNote } from '$lib/core/line/model';
import { writtenBars } from '$lib/core/line/notation';
import type { BookKey, BookLine } from '$lib/state/book/book.svelte';
import type { LinesIn } from '$lib/state/book/book-wish';
import type { Workspace } from '$lib/state/chart/workspace.svelte';
import { systemsOf, type System } from '../score/layout';
import { distinctMoments, type DistinctMoment } from '../sheet/distinct';

/** A bar of the form with the changes that begin in it. */
export interface PrintedBar {
  readonly number: number;
  readonly section: string;
  readonly beats: number;
  readonly changes: readonly AnalysedChange[];
}

interface Kinds {
  /** The key and where the hand is; beside it the days it was played on are noted by hand, or whose sheet it is. */
  readonly head: { readonly title: string; readonly beside: 'played' | 'name' | null };
  readonly title: { readonly text: string; readonly says: string };
  readonly bars: { readonly bars: readonly PrintedBar[]; readonly hasTargets: boolean };
  readonly moments: {
    readonly moments: readonly DistinctMoment[];
    readonly columns: number;
    readonly isBlank: boolean;
  };
  readonly tableHead: object;
  readonly table: { readonly moment: DistinctMoment; readonly isBlank: boolean };
  readonly system: { readonly line: BookLine; readonly system: System; readonly fifths: number };
}
type Kind = keyof Kinds;
export type PieceOf<One extends Kind> = Block & { readonly kind: One } & Kinds[One];
export type Piece = { [One in Kind]: PieceOf<One> }[Kind];

/** Heights in millimetres, kept by what draws them. */
const HEAD = 25;
const TITLE = 9;
const BARS = 13;
const TABLE_HEAD = 8;
const TABLE_ROW = 9;
/** A row of moments: with the words beside the neck, and with the words above it. */
const BESIDE = 35;
const ABOVE = 41;
const BARS_A_ROW = 4;
const MOMENTS_A_ROW = [2, 3] as const;
/** Millimetres of a CSS pixel. */
export const PIXEL = 25.4 / 96;

const chunks = <One>(list: readonly One[], size: number): One[][] =>
  Array.from({ length: Math.ceil(list.length / size) }, (_, i) => list.slice(i * size, (i + 1) * size));

export function printedBars({ sheet, changes }: Workspace): PrintedBar[] {
  const byBar = new Map<number, AnalysedChange[]>();
  for (const change of changes) byBar.set(change.bar, [...(byBar.get(change.bar) ?? []), change]);
  const { bars } = sheet.form;
  return bars.map(({ number, section, beats }, i) => ({
    number,
    section: section === bars[i - 1]?.section ? '' : section,
    beats,
    changes: byBar.get(number) ?? []
  }));
}

const head = (title: string, beside: Kinds['head']['beside']): Piece => ({
  kind: 'head',
  height: HEAD,
  title,
  beside
});
const title = (text: string, says = ''): Piece => ({
  kind: 'title',
  height: TITLE,
  keepsNext: true,
  text,
  says
});

const formOf = (workspace: Workspace, hasTargets: boolean): Piece[] =>
  chunks(printedBars(workspace), BARS_A_ROW).map((bars) => ({
    kind: 'bars',
    height: BARS,
    rows: 'bars',
    bars,
    hasTargets
  }));

const momentsOf = (moments: readonly DistinctMoment[], columns: number, isBlank: boolean): Piece[] =>
  chunks(moments, columns).map((row) => ({
    kind: 'moments',
    height: columns === MOMENTS_A_ROW[0] ? BESIDE : ABOVE,
    rows: 'moments',
    moments: row,
    columns,
    isBlank
  }));

function lineOf(line: BookLine, workspace: Workspace, room: number): Piece[] {
  const { sheet, neck, changes, analysis } = workspace;
  const fifths = accidentalsOf(analysis.key);
  const starts = changes.map(({ symbol, start }) => ({ symbol, start: ticksOf(start) }));
  const systems = systemsOf(
    writtenBars(line.notes, sheet.form.bars, sheet.head.meter),
    line.notes as LineNote[],
    {
      width: room / PIXEL,
      fifths,
      strings: neck.strings.length,
      hasDegrees: false,
      chordsIn: ({ start, length }) =>
        starts.filter((one) => one.start >= start && one.start < start + length).map(({ symbol }) => symbol)
    }
  );
  return [
    title(line.name),
    ...systems.map((system): Piece => ({
      kind: 'system',
      height: system.height * PIXEL,
      rows: `line ${line.id}`,
      line,
      system,
      fifths
    }))
  ];
}

/**
 * The opening of one key: the form, every moment of it, kept lines. As many moments side by side as keep it to two pages; a form
 * that needs more has as many openings.
 */
function openingMade(key: BookKey, paper: Paper, which: LinesIn): Piece[][] {
  const { workspace, lines } = key;
  const room = roomOn(paper);
  const moments = distinctMoments(workspace);
  const blocksWith = (columns: number, shown: readonly BookLine[]): Piece[] => [
    head(workspace.document.title, 'played'),
    ...formOf(workspace, true),
    title(
      'What to play, and where',
      'filled: chord tones · ringed: land here · outlined: colours · dots: the rest'
    ),
    ...momentsOf(moments, columns, false),
    ...shown.flatMap((line) => lineOf(line, workspace, room.width))
  ];
  const pagesWith = (columns: number, shown: readonly BookLine[]) =>
    openingsOf(blocksWith(columns, shown), room.height);
  const bare = MOMENTS_A_ROW.map((columns) => ({ columns, pages: pagesWith(columns, []) }));
  const best = bare.find(({ pages }) => pages.length === 2) ?? lastOf(bare);
  if (which === 'none') return best.pages;
  if (which === 'all') return pagesWith(best.columns, lines);
  const shown = lines.reduce<readonly BookLine[]>((taken, line) => {
    const more = [...taken, line];
    return pagesWith(best.columns, more).length > best.pages.length ? taken : more;
  }, []);
  return pagesWith(best.columns, shown);
}

const openings = new WeakMap<BookKey, Map<string, Piece[][]>>();
/** The same, made once for each key, paper and wish: the book grows key by key. */
export function openingOf(key: BookKey, paper: Paper, which: LinesIn): Piece[][] {
  const known = openings.get(key) ?? new Map<string, Piece[][]>();
  openings.set(key, known);
  const id = `${paper.id} ${which}`;
  const pages = known.get(id) ?? openingMade(key, paper, which);
  known.set(id, pages);
  return pages;
}

/** A worksheet of one key: what is asked, or the same with its answers. */
export function worksheetOf({ workspace }: BookKey, paper: Paper, isBlank: boolean): Piece[][] {
  const room = roomOn(paper);
  const moments = distinctMoments(workspace);
  const asks = isBlank
    ? 'write numeral, tones, scale and the note you land on'
    : 'numeral, tones, scale and the note to land on';
  const draws = isBlank
    ? 'draw the chord tones filled, the colours outlined; ring the note you land on'
    : 'filled: chord tones · ringed: land here · outlined: colours · dots: the rest';
  return pagesOf<Piece>(
    [
      head(isBlank ? 'Worksheet' : 'Key of answers', isBlank ? 'name' : null),
      ...formOf(workspace, !isBlank),
      title('The chords', asks),
      { kind: 'tableHead', height: TABLE_HEAD, keepsNext: true },
      ...moments.map((moment): Piece => ({
        kind: 'table',
        height: TABLE_ROW,
        rows: 'table',
        moment,
        isBlank
      })),
      title('On the neck', draws),
      ...momentsOf(moments, MOMENTS_A_ROW[1], isBlank)
    ],
    room.height
  );
}
