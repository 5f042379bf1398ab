/** Fills an empty songbook with the demo charts. */
import { randomUUID } from 'node:crypto';
import { keepLick, type LickData } from '../../api/lick';
import { keepLine } from '../../api/line';
import { readSheet } from '../../core/harmony/sheet';
import { lickFacts } from '../../core/line/lick-facts';
import { laidUnder } from '../../core/line/phrase/hand';
import { systemOf } from '../../core/neck/systems/registry';
import { STANDARD } from '../../core/neck/tuning';
import { arrange } from '../../core/plan/arrange';
import { linesOf } from '../../core/plan/lines';
import { DEFAULT_PLAN, type Plan } from '../../core/plan/model';
import type { Database } from '../store/database';
import { DEMO_CHARTS, type DemoLine } from '../../scenario/charts';
import { readLickText } from './lick-text';
import { DEMO_LICKS, NOT_TOLD, type DemoLick } from './licks';
import { seedPractice } from './practice';
import { seedTakes } from './takes';
import { keepNewLick } from '../store/licks';
import { keepNewLine } from '../store/lines';
import { createChart } from '../store/songbook';

/** Seeds the demo charts where the songbook has none at all, deleted ones included. */
export async function seedDemo(db: Database): Promise<void> {
  const { n } = await db
    .selectFrom('chart')
    .select((eb) => eb.fn.countAll<number>().as('n'))
    .executeTakeFirstOrThrow();
  if (n > 0) return;
  for (const { text, plan: own, lines = [] } of DEMO_CHARTS) {
    const plan = { ...DEFAULT_PLAN, ...own };
    const { id } = await createChart(db, { source: text, plan });
    for (const line of lines) await keepFound(db, id, text, plan, line);
  }
  for (const lick of [...DEMO_LICKS].reverse()) {
    await keepNewLick(db, keepLick.parse({ id: randomUUID(), name: lick.name, data: demoLick(lick) }));
  }
  await seedPractice(db, Date.now());
  await seedTakes(db, Date.now());
}

/** A lick that tells so much of its chords tells them alone. */
const TOLD = 0.75;

/** A demo lick as it is kept. */
export function demoLick({ over, key, by, meter = '4/4', notes: text, position, tags }: DemoLick): LickData {
  const [beats = 4, unit = 4] = meter.split('/').map(Number);
  const chords = over.split(' ').map((word) => {
    const [symbol = '', length] = word.split(':');
    return { symbol, beats: Number(length) };
  });
  const lick = { meter: { beats, unit }, ...(key ? { key } : {}), ...(by ? { by } : {}), over: chords };
  const notes = readLickText(text, lick.meter);
  const placed = laidUnder(notes, position, STANDARD);
  if (!placed) throw new Error(`“${text}” does not lie in position ${position}`);
  const { told } = lickFacts({ ...lick, notes: placed }, STANDARD);
  return {
    ...lick,
    notes: placed,
    tags: told < TOLD ? [...tags, NOT_TOLD] : tags,
    source: 'The Saltmarsh Four',
    rating: 0,
    played: 0
  };
}

/** Keeps a line with a chart, as it is found there. */
async function keepFound(db: Database, chart: string, text: string, plan: Plan, { name, ...wish }: DemoLine) {
  const arranged = arrange({ sheet: readSheet(text), plan }, STANDARD, systemOf('positions'));
  const [line] = linesOf(arranged, { ...wish, alternatives: 1 }).lines;
  if (!line) return;
  const over = arranged.analysis.changes.map(({ symbol, start, beats }) => ({ symbol, start, beats }));
  // Without the hand, which is found anew wherever the line is shown.
  const notes = line.notes.map(({ position: _, ...note }) => note);
  await keepNewLine(db, chart, keepLine.parse({ id: randomUUID(), name, data: { notes, over } }));
}
