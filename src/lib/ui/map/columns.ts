/** How a chart is cut up for the position map: parts that fit side by side, each column one change or several alike. */
import { entryOf, firstOf, nth } from '$lib/core/base/list';
import type { AnalysedChange } from '$lib/core/harmony/analysis';

/** Changes that look alike on the map, one after another or in a repeated section; the first speaks for them. */
export interface MapColumn {
  readonly changes: readonly AnalysedChange[];
}

export interface MapPart {
  /** "A", "A, bars 1–8", "bars 9–12". */
  readonly title: string;
  readonly columns: readonly MapColumn[];
}

/** Columns that can be read side by side. */
const COLUMNS_A_PART = 8;

/**
 * Cuts changes into parts by section, then by number of columns. Folded, neighbours with the same key share a column,
 * and a section that says the same as an earlier one is joined to it.
 */
export function mapParts(
  changes: readonly AnalysedChange[],
  keyOf: (change: AnalysedChange) => string,
  isFolded: boolean,
  columnsAPart = COLUMNS_A_PART
): MapPart[] {
  // Asked for once: there may be thousands.
  const keys = new Map(changes.map((change) => [change, keyOf(change)]));
  const own = (change: AnalysedChange) => entryOf(keys, change);
  const sections = bySection(changes).map((section) => ({
    name: firstOf(section).section,
    columns: isFolded ? folded(section, own) : section.map((change) => ({ changes: [change] }))
  }));
  const said = new Map<string, { name: string; columns: MapColumn[] }>();
  for (const [i, { name, columns }] of sections.entries()) {
    const words = columns.map(({ changes }) => `${own(firstOf(changes))} ${changes.length - 1}`).join('|');
    const key = isFolded ? `${name} ${words}` : String(i);
    const same = said.get(key);
    if (!same) said.set(key, { name, columns });
    else {
      same.columns = same.columns.map((column, c) => ({
        changes: [...column.changes, ...nth(columns, c).changes]
      }));
    }
  }
  const names = [...said.values()].map(({ name }) => name);
  return [...said.values()].flatMap(({ name, columns }) => {
    const pieces = Math.ceil(columns.length / columnsAPart);
    // Nine columns are better read as five and four than as eight and one.
    const size = Math.ceil(columns.length / pieces);
    return Array.from({ length: pieces }, (_, i) => {
      const piece = columns.slice(i * size, (i + 1) * size);
      const isOneOfSeveral = pieces > 1 || names.indexOf(name) !== names.lastIndexOf(name);
      return { title: titleOf(name, piece, isOneOfSeveral), columns: piece };
    });
  });
}

function bySection(changes: readonly AnalysedChange[]): AnalysedChange[][] {
  const sections: AnalysedChange[][] = [];
  for (const change of changes) {
    const last = sections.at(-1);
    // A section played twice in a row starts again where its bars do.
    if (last && firstOf(last).section === change.section && !startsAgain(last, change)) last.push(change);
    else sections.push([change]);
  }
  return sections;
}

/** The same place in the text as the section's first change: it is played once more. */
function startsAgain([first]: readonly AnalysedChange[], change: AnalysedChange): boolean {
  return (
    first?.place !== undefined &&
    first.section !== '' &&
    first.place.line === change.place?.line &&
    first.place.column === change.place.column
  );
}

function folded(changes: readonly AnalysedChange[], keyOf: (change: AnalysedChange) => string): MapColumn[] {
  const columns: { changes: AnalysedChange[] }[] = [];
  for (const change of changes) {
    const last = columns.at(-1);
    if (last && keyOf(firstOf(last.changes)) === keyOf(change)) last.changes.push(change);
    else columns.push({ changes: [change] });
  }
  return columns;
}

function titleOf(section: string, columns: readonly MapColumn[], isOneOfSeveral: boolean): string {
  const first = firstOf(firstOf(columns).changes).bar;
  const last = Math.max(...columns.map(({ changes }) => firstOf(changes).bar));
  const bars = first === last ? `bar ${first}` : `bars ${first}–${last}`;
  if (!section) return bars;
  return isOneOfSeveral ? `${section}, ${bars}` : section;
}
