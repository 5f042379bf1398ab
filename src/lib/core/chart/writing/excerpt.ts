/** Some bars as a chart of their own. Source: docs/music-rules.md, Writing on bars. */
import { nth } from '../../base/list';
import { declarationOf, writeDirective } from '../directives';
import { readChart } from '../read';
import { writeChart } from '../write';
import { isSameMeter, remarkIn } from './bars';
import { barsOf, copyBars, insertAfter, type Stretch } from './edits';
import { setMeter } from './sections';

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
    const own = nth(bars, stretch.from + i);
    let source = own;
    // A repeat may repeat a repeat.
    while (i < own.repeats && source.repeats > 0 && bars[source.index - source.repeats])
      source = nth(bars, source.index - source.repeats);
    return { ...unit, cells: source.cells };
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
  // Meters that change inside come along; from behind, so that each finds its bars.
  const inside = bars.slice(stretch.from, stretch.to + 1);
  const own = inside.reduceRight(
    (written, { meter }, i) => (isSameMeter(meter, first.meter) ? written : setMeter(written, i, meter)),
    labelled
  );
  return writeChart(readChart(own).chart);
}
