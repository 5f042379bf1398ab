/** The route that reads other formats: a look at what would be taken; nothing is stored. Contract: docs/api.md. */
import type { z } from 'zod';
import { fail } from '../../api/errors';
import { byteLength, MAX_CHART_BYTES, tooLargeMessage } from '../../api/limits';
import type { importRequest } from '../../api/requests';
import { declared, directivesIn, withDeclaration } from '../../core/chart/directives';
import { importText } from '../../core/formats/text/import';

/** POST /api/v1/import */
export function answerImport({ name, text }: z.infer<typeof importRequest>) {
  if (byteLength(text) > MAX_CHART_BYTES) {
    fail(413, { code: 'chart-too-large', message: tooLargeMessage(text), path: 'text' });
  }
  const { chart, left } = importText(text);
  if (chart === null) return { left };
  const title = name?.replace(/\.\w{1,8}$/, '').trim();
  const needsTitle = title && declared(directivesIn(chart), 'title') === null;
  return { chart: needsTitle ? withDeclaration(chart, 'title', title) : chart, left };
}
