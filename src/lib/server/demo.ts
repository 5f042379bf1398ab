/** Fills an empty songbook with the demo charts. */
import { randomUUID } from 'node:crypto';
import { keepLine } from '../api/line';
import { readSheet } from '../core/harmony/sheet';
import { systemOf } from '../core/neck/systems/registry';
import { STANDARD } from '../core/neck/tuning';
import { arrange } from '../core/plan/arrange';
import { linesOf } from '../core/plan/lines';
import { DEFAULT_PLAN, type Plan } from '../core/plan/model';
import type { Database } from './database';
import { DEMO_CHARTS, type DemoLine } from './demo-charts';
import { keepNewLine } from './lines';
import { createChart } from './songbook';

const DAY = 24 * 60 * 60 * 1000;

/** Seeds the demo charts where the songbook has none at all, deleted ones included. */
export async function seedDemo(db: Database): Promise<void> {
  const { n } = await db
    .selectFrom('chart')
    .select((eb) => eb.fn.countAll<number>().as('n'))
    .executeTakeFirstOrThrow();
  if (n > 0) return;
  for (const { text, plan: own, practisedDaysAgo, lines = [] } of DEMO_CHARTS) {
    const plan = { ...DEFAULT_PLAN, ...own };
    const { id } = await createChart(db, {
      source: text,
      plan,
      practisedAt: Date.now() - practisedDaysAgo * DAY
    });
    for (const line of lines) await keepFound(db, id, text, plan, line);
  }
}

/** Keeps a line with a chart, as it is found there. */
async function keepFound(db: Database, chart: string, text: string, plan: Plan, { name, ...wish }: DemoLine) {
  const arranged = arrange(readSheet(text), plan, STANDARD, systemOf('positions'));
  const [line] = linesOf(arranged, { ...wish, alternatives: 1 }).lines;
  if (!line) return;
  const over = arranged.analysis.changes.map(({ symbol, start, beats }) => ({ symbol, start, beats }));
  // Without the hand, which is found anew wherever the line is shown.
  const notes = line.notes.map(({ position: _, ...note }) => note);
  await keepNewLine(db, chart, keepLine.parse({ id: randomUUID(), name, data: { notes, over } }));
}
