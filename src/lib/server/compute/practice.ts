/** The route of the plan for a day: request in, core asked, answer out. Contract: docs/api.md. */
import type { z } from 'zod';
import { fail } from '../../api/errors';
import type { practiceRequest } from '../../api/requests';
import { planSession } from '../../core/practice/session/session';

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
  return planSession({ ...input, cards: input.cards ?? [], stumbled: input.stumbled ?? [] });
}
