/** Fills an empty songbook with the demo charts. */
import { DEFAULT_PLAN } from '../core/plan/model';
import type { Database } from './database';
import { DEMO_CHARTS } from './demo-charts';
import { createChart } from './songbook';

const DAY = 24 * 60 * 60 * 1000;

/** Seeds the demo charts where the songbook has none at all, deleted ones included. */
export async function seedDemo(db: Database): Promise<void> {
  const { n } = await db
    .selectFrom('chart')
    .select((eb) => eb.fn.countAll<number>().as('n'))
    .executeTakeFirstOrThrow();
  if (n > 0) return;
  for (const { text, plan, practisedDaysAgo } of DEMO_CHARTS) {
    await createChart(db, {
      source: text,
      plan: { ...DEFAULT_PLAN, ...plan },
      practisedAt: Date.now() - practisedDaysAgo * DAY
    });
  }
}
