/** What the ladder has to know of a chart: its bars, sections and beats, and in which bar each of its changes stands. */
import type { StoredItem } from '../../api/practice';
import { sectionsOf } from '../../core/chart/sections';
import { excerptOf, type LoopWish } from '../../core/harmony/excerpt';
import { readSheet, type Sheet } from '../../core/harmony/sheet';
import type { Bars, PracticeItem } from '../../core/practice/log/model';
import type { Database } from '../store/database';

export interface ChartFacts {
  readonly sheet: Sheet;
  readonly sections: readonly Bars[];
  /** Beats of its usual bar. */
  readonly beats: number;
}

/** Charts are read once for as long as their text is the same. */
const READ = new Map<string, { readonly source: string; readonly facts: ChartFacts }>();
const MOST_READ = 200;

function factsOf(id: string, source: string): ChartFacts {
  const known = READ.get(id);
  if (known?.source === source) return known.facts;
  const sheet = readSheet(source);
  const facts = { sheet, sections: sectionsOf(sheet.form), beats: sheet.head.meter.beats };
  if (READ.size >= MOST_READ) READ.clear();
  READ.set(id, { source, facts });
  return facts;
}

/** The facts of the charts that items are of, by chart. */
export async function chartFacts(
  db: Database,
  charts: readonly string[]
): Promise<ReadonlyMap<string, ChartFacts>> {
  if (charts.length === 0) return new Map();
  const rows = await db
    .selectFrom('chart')
    .select(['id', 'source'])
    .where('id', 'in', charts)
    .where('deleted_at', 'is', null)
    .execute();
  return new Map(rows.map(({ id, source }) => [id, factsOf(id, source)]));
}

export const chartsOf = (items: readonly StoredItem[]): readonly string[] => [
  ...new Set(items.flatMap(({ chart }) => chart ?? []))
];

/** The bars that an item loops: the whole form with its sections, or a stretch of it without. */
export function lengthsOf(
  { sheet, sections, beats }: ChartFacts,
  over: LoopWish
): Pick<PracticeItem, 'bars' | 'sections' | 'beats'> {
  if (over.kind === 'form') return { bars: Math.max(1, sheet.form.bars.length), sections, beats };
  const bars = excerptOf(sheet.form, sheet.analysis, over)?.bars.length;
  return bars ? { bars, beats } : { beats };
}
