/** The route of the outline test: request in, core asked, answer out. Contract: docs/api.md. */
import { nth } from '../../core/base/list';
import type { z } from 'zod';
import { fail } from '../../api/errors';
import type { outlineRequest } from '../../api/requests';
import type { Meter } from '../../core/chart/model';
import type { Change } from '../../core/chart/unroll';
import type { HeardChord } from '../../core/line/listener';
import { beatsOf, ticksOf, type LineNote } from '../../core/line/model';
import { askedOf, mendOf, outlineLine, plainWindows, type Asked, type Mend } from '../../core/line/outline';
import { sheetFrom } from './inputs';
import { lineFrom } from './line';

const NO_METER: Meter = { beats: 4, unit: 4 };

/** POST /api/v1/outline */
export function answerOutline(input: z.infer<typeof outlineRequest>) {
  const sheet = input.chart === undefined ? null : sheetFrom(input.chart, input.key);
  const { notes } = lineFrom(input.line.notes, sheet?.head.meter ?? NO_METER);
  const asked = windowsAsked(input, sheet?.form.changes ?? null, notes);
  const { windows, share, listening } = outlineLine(notes, asked);
  return {
    windows: windows.map(({ from, to, change, heard, verdict }, i) => {
      const own = nth(asked, i).change;
      const symbol = own && sheet?.form.changes[own.index]?.symbol;
      const mend = verdict === 'partly' || verdict === 'not' ? mendOf(notes, asked, i, listening) : null;
      return {
        from: beatsOf(from),
        to: beatsOf(to),
        ...(change === undefined ? {} : { change }),
        heard: heard.map(heardOut),
        ...(symbol ? { says: symbol } : {}),
        ...(verdict ? { verdict } : {}),
        ...(mend ? { mend: mendOut(mend) } : {})
      };
    }),
    ...(share === null ? {} : { share })
  };
}

/** The windows that are given, else the changes of the chart, else four beats each. */
function windowsAsked(
  { windows }: z.infer<typeof outlineRequest>,
  changes: readonly Change[] | null,
  notes: readonly LineNote[]
): Asked[] {
  if (!windows) return changes ? askedOf(changes) : plainWindows(notes);
  const asked = windows.map(({ from, to }) => ({ from: ticksOf(from), to: ticksOf(to) }));
  asked.forEach(({ from, to }, i) => {
    if (to > from && from >= (asked[i - 1]?.to ?? 0)) return;
    fail(400, {
      code: 'bad-windows',
      message: `Window ${i + 1} ends before it starts, or starts before the one before it ends.`,
      path: `windows.${i}`
    });
  });
  return asked.map((window) => {
    const change = changes?.findLast(({ start }) => ticksOf(start) <= window.from);
    return { ...window, ...(change ? { change } : {}) };
  });
}

/** Shares with so many digits. */
const DIGITS = 1e4;

function heardOut({ symbol, share, same }: HeardChord) {
  return { symbol, share: Math.round(share * DIGITS) / DIGITS, ...(same.length ? { same } : {}) };
}

function mendOut({ changes, reaches, why }: Mend) {
  return {
    changes: changes.map(({ start, from, to }) => ({ at: beatsOf(start), from, to })),
    reaches,
    why
  };
}
