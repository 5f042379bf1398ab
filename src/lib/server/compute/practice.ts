/** The route of the plan for a day: request in, core asked, answer out. Contract: docs/api.md. */
import type { z } from 'zod';
import { fail } from '../../api/errors';
import type { practiceRequest } from '../../api/requests';
import type { LogRow } from '../../core/practice/log/model';
import { aheadOf } from '../../core/practice/session/ahead';
import { planSession } from '../../core/practice/session/session';

/** Items and rows up to which four weeks are looked ahead without being asked for. */
const QUICK = { items: 200, rows: 2000 };

/** POST /api/v1/practice */
export function answerPractice(input: z.infer<typeof practiceRequest>) {
  const ids = new Set<string>();
  for (const [at, { id }] of input.items.entries()) {
    if (ids.has(id)) {
      fail(400, {
        code: 'twice',
        message: `“${id}” is the id of two items; each needs its own.`,
        path: `items.${at}.id`
      });
    }
    ids.add(id);
  }
  const { ahead, log, ...rest } = input;
  const wish = { ...rest, log: log.map(plainRow) };
  const isAhead = ahead ?? (input.items.length <= QUICK.items && log.length <= QUICK.rows);
  return { ...planSession(wish), ...(isAhead ? { ahead: aheadOf(wish) } : {}) };
}

/** A row as an object of the plain kind: what comes out of the schemas is slow to read, and the plan reads it many times. */
function plainRow({
  item,
  day,
  tempo,
  clean,
  rounds,
  seconds,
  bars,
  loops,
  stumbles
}: z.infer<typeof practiceRequest>['log'][number]): LogRow {
  return { item, day, tempo, clean, rounds, seconds, bars, loops, missed: stumbles };
}
