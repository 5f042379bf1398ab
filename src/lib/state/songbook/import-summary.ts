/** What is to be seen of a file before it is taken. */
import { byteLength, MAX_CHART_BYTES, tooLargeMessage } from '$lib/api/limits';
import { readSheet } from '$lib/core/harmony/sheet';
import { prettyNote } from '$lib/core/theory/typeset';
import { counted } from '$lib/core/theory/words';
import type { Imported } from './file-import';

export function lookAt({ chart, lines, left, holds }: Imported, file: string) {
  const named = file.replace(/\.\w{1,8}$/, '').trim() || file;
  if (chart === null)
    return { title: named, says: left[0]?.why ?? 'There is no chord in it.', canBeTaken: false };
  if (byteLength(chart) > MAX_CHART_BYTES)
    return { title: named, says: tooLargeMessage(chart), canBeTaken: false };
  const { head, form, analysis } = readSheet(chart);
  const { tonic, mode } = analysis.key;
  const parts = [
    form.changes.length
      ? `${counted(form.bars.length, 'bar')} in ${prettyNote(tonic)} ${mode}`
      : 'no chord yet',
    ...(lines.length ? [counted(lines.length, 'line')] : []),
    ...(holds?.lines ? [counted(holds.lines, 'line')] : []),
    ...(holds?.items ? [counted(holds.items, 'thing') + ' to practise'] : []),
    ...(holds?.takes ? [counted(holds.takes, 'take')] : []),
    ...(left.length ? [`${counted(left.length, 'thing')} left out`] : [])
  ];
  return { title: head.title ?? named, says: parts.join(' · '), canBeTaken: form.changes.length > 0 };
}
