/** The route that judges a take: request in, core asked, answer out. Contract: docs/api.md. */
import { nth } from '../../core/base/list';
import type { z } from 'zod';
import { fail } from '../../api/errors';
import type { takeRequest } from '../../api/requests';
import { systemOf } from '../../core/neck/systems/registry';
import { arrange } from '../../core/plan/arrange';
import { DEFAULT_PLAN } from '../../core/plan/model';
import type { Form } from '../../core/chart/unroll';
import { noteOf, ticksOf } from '../../core/line/model';
import { beatOf, inBeats, roundsOf, type TakeClock } from '../../core/takes/align';
import type { PlayedNote } from '../../core/takes/model';
import { exchangesOf, ownNotes, sayExchange, turnsIn } from '../../core/takes/trade';
import { judgeTake, type JudgedChange, type Judgement } from '../../core/takes/judge/judge';
import { chartSwing } from '../../core/practice/chart-swing';
import type { PlayersTime } from '../../core/takes/clock';
import { habitsOf, remarksOn } from '../../core/takes/judge/remarks';
import { instrumentFrom, sheetFrom } from './inputs';

/** POST /api/v1/take */
export function answerTake(input: z.infer<typeof takeRequest>) {
  const sheet = sheetFrom(input.chart, input.key);
  const neck = instrumentFrom(input);
  const { analysis, chosen } = arrange({ sheet, plan: DEFAULT_PLAN }, neck, systemOf('positions'));
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
  const clock = { tempo: input.tempo, start: input.start };
  const traded = input.trade && tradeOf(input.trade, input.notes, clock, form);
  const notes = traded?.own ?? input.notes;
  const judgement = judgeTake(
    {
      notes,
      clock,
      targets: input.targets ?? [],
      trade: input.trade?.bars,
      swing: chartSwing(sheet, input.tempo)
    },
    ground
  );
  return {
    ...(traded ? { exchanges: traded.exchanges(judgement) } : {}),
    changes: judgement.changes.map(changeOut),
    figures: judgement.figures,
    seams: judgement.seams,
    clock: clockOut(judgement.time),
    remarks: remarksOn(judgement, ground).map(({ bar, text, drill, kind, change, move }) => ({
      bar,
      text,
      ...(drill ? { drill } : {}),
      ...(move === undefined ? {} : { move }),
      kind,
      change
    })),
    habits: judgement.figures.fits ? habitsOf(judgement, ground) : []
  };
}

/** Whose notes are whose in a trade, and how each answer stands to its call. */
function tradeOf(
  { bars, call }: NonNullable<z.infer<typeof takeRequest>['trade']>,
  notes: readonly PlayedNote[],
  clock: TakeClock,
  form: Form
) {
  const called = inBeats(call, clock).map(({ at, beats, midi }) =>
    noteOf(Math.max(0, ticksOf(at)), ticksOf(beats), midi)
  );
  const beat = ({ at }: PlayedNote) => beatOf(clock, at);
  const rounds = roundsOf(inBeats([...notes, ...call], clock), form.beats);
  const turns = turnsIn(form, bars, rounds);
  const own = ownNotes(notes, beat, turns, called);
  return {
    own,
    exchanges: ({ changes }: Judgement) =>
      exchangesOf(
        turns,
        inBeats(own, clock),
        called,
        changes.map(({ change, round, verdict }) => ({
          start: nth(form.changes, change).start + round * form.beats,
          verdict
        }))
      ).map((exchange) => ({
        from: exchange.answer.bars.from,
        to: exchange.answer.bars.to,
        round: exchange.answer.round,
        kind: exchange.kind,
        called: exchange.called,
        answered: exchange.answered,
        rhythm: exchange.rhythm,
        shape: exchange.shape,
        begins: exchange.begins,
        waits: exchange.waits,
        heard: exchange.heard,
        text: sayExchange(exchange)
      }))
  };
}

/** How the player lies in time: seconds and shares, the swing as long to short, 1 for straight. */
function clockOut({ offset, drift, swing, mean, spread }: PlayersTime) {
  const milli = (value: number) => Math.round(value * 1000) / 1000;
  return {
    offset: milli(offset),
    drift: Math.round(drift * DIGITS) / DIGITS,
    swing: swing === null ? null : Math.round((100 * swing) / (1 - swing)) / 100,
    mean: milli(mean),
    spread: milli(spread)
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
