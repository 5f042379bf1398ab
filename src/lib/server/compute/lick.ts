/** The route that says where a lick fits: request in, core asked, answer out. Contract: docs/api.md. */
import type { z } from 'zod';
import type { lickFitRequest } from '../../api/requests';
import { lickFits } from '../../core/line/lick';
import { keyOfLick } from '../../core/line/lick-facts';
import type { LineNote } from '../../core/line/model';
import { laidOut } from '../../core/line/move';
import { systemOf } from '../../core/neck/systems/registry';
import { arrange } from '../../core/plan/arrange';
import { DEFAULT_PLAN } from '../../core/plan/model';
import { findTargets } from '../../core/targets/path';
import { fail } from '../../api/errors';
import { readChord } from '../../core/theory/chord-reader';
import { instrumentFrom, sheetFrom } from './inputs';
import { lineFrom, lineOut } from './line';

/** Places that one answer tells of. */
const MOST_FITS = 200;

/** POST /api/v1/lick-fit */
export function answerLickFit(input: z.infer<typeof lickFitRequest>) {
  const sheet = sheetFrom(input.chart, input.key);
  const neck = instrumentFrom(input);
  const { meter } = sheet.head;
  const arranged = arrange({ sheet, plan: DEFAULT_PLAN }, neck, systemOf('positions'));
  const { analysis, chosen } = arranged;
  const over = input.lick.over.map(({ symbol, beats }, i) => {
    const reading = readChord(symbol);
    if (reading.kind === 'chord') return { chord: reading.chord, beats };
    const message =
      reading.kind === 'problem' ? reading.problem.message : 'A lick stands over chords; N.C. is none.';
    return fail(400, { code: 'bad-chord', message, path: `lick.over.${i}.symbol` });
  });
  const { notes } = lineFrom(input.lick.notes, meter, neck);
  const line = input.line ? lineFrom(input.line.notes, meter, neck).notes : [];
  const ground = { form: sheet.form, analysis, chosen };
  const targets =
    findTargets(analysis, { ...arranged.targetOptions('free'), alternatives: 1 }).paths[0]?.targets ?? [];
  const where = notes.some(({ place }) => place) ? 'along' : 'in place';
  const lay = (moved: readonly LineNote[]) => {
    const laid = laidOut(notes, moved, { neck, where, anyOctave: true });
    return laid.notes ? laid : { notes: moved, octave: 0 };
  };
  const inKey = keyOfLick({ ...input.lick, meter });
  const fits = lickFits({ over, notes, inKey }, ground, targets, line, lay).slice(0, MOST_FITS);
  return {
    fits: fits.map(({ last: _, notes: own, ...fit }) => ({
      ...fit,
      notes: lineOut({ meter, notes: own }, ground)
    }))
  };
}
