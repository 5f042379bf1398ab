/** The route that judges a take: request in, core asked, answer out. Contract: docs/api.md. */
import type { z } from 'zod';
import { fail } from '../../api/errors';
import type { takeRequest } from '../../api/requests';
import { systemOf } from '../../core/neck/systems/registry';
import { arrange } from '../../core/plan/arrange';
import { DEFAULT_PLAN } from '../../core/plan/model';
import { judgeTake, type JudgedChange } from '../../core/takes/judge/judge';
import { remarksOn } from '../../core/takes/judge/remarks';
import { instrumentFrom, sheetFrom } from './inputs';

/** POST /api/v1/take */
export function answerTake(input: z.infer<typeof takeRequest>) {
  const sheet = sheetFrom(input.chart, input.key);
  const neck = instrumentFrom(input);
  const { analysis, chosen } = arrange(sheet, DEFAULT_PLAN, neck, systemOf('positions'));
  const { form, head } = sheet;
  const last = analysis.changes.length - 1;
  input.targets?.forEach(({ change }, i) => {
    if (change <= last) return;
    fail(400, {
      code: 'no-such-change',
      message: `There is no change ${change}; this chart has changes 0 to ${last}.`,
      path: `targets.${i}.change`
    });
  });
  const ground = { form, analysis, chosen, meter: head.meter, neck };
  const judgement = judgeTake(
    {
      notes: input.notes,
      clock: { tempo: input.tempo, start: input.start },
      targets: input.targets ?? []
    },
    ground
  );
  return {
    changes: judgement.changes.map(changeOut),
    figures: judgement.figures,
    seams: judgement.seams,
    remarks: remarksOn(judgement, ground).map(({ bar, text, drill, kind, change }) => ({
      bar,
      text,
      ...(drill ? { drill } : {}),
      kind,
      change
    }))
  };
}

/** Shares with so many digits. */
const DIGITS = 1e4;

function changeOut({ heard, ...judged }: JudgedChange) {
  return {
    ...judged,
    heard: heard.map(({ symbol, share }) => ({ symbol, share: Math.round(share * DIGITS) / DIGITS }))
  };
}
