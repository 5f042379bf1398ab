/** A chart as ChordPro with its chords in brackets, for programs that do not read grids: the form written out, sections as verses. */
import { nth } from '../../base/list';
import { writeDirective } from '../../chart/directives';
import type { Piece } from '../piece';

/** Bars in a line. */
const ROW = 4;

/** The form written out, its chords in brackets, for programs that read no grids. */
export function writeInline({ sheet, title }: Piece): string {
  const { head, form, analysis } = sheet;
  const facts = [
    ['title', title],
    ['key', head.key ?? ''],
    ['time', `${head.meter.beats}/${head.meter.unit}`],
    ['tempo', head.tempo === null ? '' : String(head.tempo)]
  ] as const;
  const lines = facts.flatMap(([name, value]) => (value ? [writeDirective({ name, value })] : []));
  /** What sounds in each bar, a chord that goes on said again. */
  const said = form.bars.map(({ start, beats }) => {
    const within = analysis.changes.filter(
      (change) => change.start < start + beats && change.start + change.beats > start
    );
    return within.map(({ symbol }) => `[${symbol}]`).join(' ');
  });
  for (let from = 0; from < form.bars.length;) {
    const { section } = nth(form.bars, from);
    let to = from;
    while (form.bars[to]?.section === section) to++;
    lines.push('', section ? `{start_of_verse: ${section}}` : '{start_of_verse}');
    for (let at = from; at < to; at += ROW)
      lines.push(`| ${said.slice(at, Math.min(to, at + ROW)).join(' | ')} |`);
    lines.push('{end_of_verse}');
    from = to;
  }
  return `${lines.join('\n')}\n`;
}
