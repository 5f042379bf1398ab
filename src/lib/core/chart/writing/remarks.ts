/** Remarks of a chart as the form plays it: which stand over which change. */
import type { Chart } from '../model';
import type { Form } from '../unroll';
import { writtenBars, type WrittenBar } from './bars';

export interface PlayedRemark {
  /** Bar of the unrolled form, counted from 1. */
  readonly bar: number;
  /** The change that sounds where the bar begins. */
  readonly change: number;
  readonly text: string;
}

/** The written bar of each one that `PlayedBar.written` counts: `%%` counts twice, the empty bar behind it not at all. */
function countedBars(bars: readonly WrittenBar[]): WrittenBar[] {
  const counted: WrittenBar[] = [];
  let skipsEmpty = false;
  for (const bar of bars) {
    if (skipsEmpty && bar.cells.length === 0) {
      skipsEmpty = false;
      continue;
    }
    skipsEmpty = bar.repeats === 2;
    counted.push(bar);
    if (bar.repeats === 2) counted.push({ ...bar, notes: [] });
  }
  return counted;
}

/** All remarks to bars, each as often as its bar is played. */
export function remarksOf(chart: Chart, { bars, changes }: Pick<Form, 'bars' | 'changes'>): PlayedRemark[] {
  const written = countedBars(writtenBars(chart));
  return bars.flatMap((bar) =>
    (written[bar.written]?.notes ?? []).map((text) => ({
      bar: bar.number,
      change: Math.max(
        0,
        changes.findLastIndex(({ start }) => start <= bar.start + 1e-6)
      ),
      text
    }))
  );
}
