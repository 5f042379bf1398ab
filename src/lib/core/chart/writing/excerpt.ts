/** Some bars as a chart of their own. Source: docs/music-rules.md, Writing on bars. */
import { declarationOf, writeDirective } from '../directives';
import { readChart } from '../read';
import { writeChart } from '../write';
import { remarkIn } from './bars';
import { barsOf, copyBars, insertAfter, type Stretch } from './edits';

/** Of the head what says something of other bars. */
const LEFT_OUT = new Set(['title', 'time', 'melody', 'pickup', 'start_of_grid', 'end_of_grid']);

/**
 * The text of a chart that holds a stretch of bars alone: with the key, the tempo and all else that the head says, without the melody.
 * A bar that repeats one before the stretch stands written out.
 */
export function chartOfBars(text: string, stretch: Stretch, title: string): string {
  const { chart } = readChart(text);
  const bars = barsOf(text);
  const first = bars[stretch.from];
  if (!first) return text;
  const head = chart.lines.flatMap((line) => {
    if (line.kind !== 'directive' || remarkIn(line) !== null) return [];
    return LEFT_OUT.has(declarationOf(line).name) ? [] : [writeDirective(line)];
  });
  const clip = copyBars(text, stretch).map((unit, i) => {
    const own = bars[stretch.from + i]!;
    const source = own.repeats > 0 && i < own.repeats ? bars[own.index - own.repeats] : undefined;
    return source ? { ...unit, cells: source.cells } : unit;
  });
  const lines = [
    writeDirective({ name: 'title', value: title }),
    ...head,
    writeDirective({ name: 'time', value: `${first.meter.beats}/${first.meter.unit}` })
  ];
  const grid = insertAfter(`${lines.join('\n')}\n`, -1, clip);
  const labelled = first.section
    ? grid.replace('{start_of_grid}', `{start_of_grid label="${first.section.replaceAll('"', '')}"}`)
    : grid;
  return writeChart(readChart(labelled).chart);
}
