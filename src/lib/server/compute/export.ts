/** The route that writes files: a chart and its lines in, a file out. Contract: docs/api.md. */
import { sure } from '../../core/base/list';
import type { z } from 'zod';
import type { exportRequest } from '../../api/requests';
import { formatOf } from '../../core/formats/registry';
import { LINE, MELODY, type Voice } from '../../core/formats/piece';
import { readLine } from '../../core/line/read';
import { spelledOver } from '../../core/line/spelling';
import { systemOf } from '../../core/neck/systems/registry';
import { arrange } from '../../core/plan/arrange';
import { DEFAULT_PLAN } from '../../core/plan/model';
import { readMelody } from '../../core/line/melody';
import { instrumentFrom, sheetFrom } from './inputs';
import { lineFrom } from './line';

/** POST /api/v1/export: the file. */
export function answerExport(input: z.infer<typeof exportRequest>) {
  const sheet = sheetFrom(input.chart, input.key);
  const neck = instrumentFrom(input);
  const { head, form } = sheet;
  const format = sure(formatOf(input.format), 'formatOf');
  const { analysis, chosen } = arrange({ sheet, plan: DEFAULT_PLAN }, neck, systemOf('positions'));
  const ground = { form, analysis, chosen };
  const notesOf = (given: NonNullable<typeof input.line>) => {
    const line = lineFrom(given.notes, head.meter, neck);
    return spelledOver(line.notes, readLine(line, ground).notes, ground);
  };
  const own = head.melody === null ? [] : readMelody(head.melody, form, head.meter).line.notes;
  const melody = input.melody ? notesOf(input.melody) : own;
  const voices: Voice[] = [
    ...(input.line ? [{ name: `${LINE}${input.line.name ?? ''}`.trim(), notes: notesOf(input.line) }] : []),
    ...(melody.length ? [{ name: MELODY, notes: melody }] : [])
  ];
  const title = head.title ?? '';
  const file = sure(
    format.write,
    'the writer of a format'
  )({ title, chart: input.chart, sheet, neck, voices });
  return {
    base64: Buffer.from(file).toString('base64'),
    type: format.type,
    name: `${title.replaceAll(/[/\\:*?"<>|]/g, ' ').trim() || 'chart'}.${format.endings[0]}`
  };
}
