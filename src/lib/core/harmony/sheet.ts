/** A chart text read all the way: model, form, analysis and everything that is wrong with it. */
import { chartHead, readChart, type ChartReading } from '../chart/read';
import type { ChartHead, ChartProblem } from '../chart/model';
import { MAX_CHANGES, unroll, type Form } from '../chart/unroll';
import { analyse, type Analysis } from './analysis';
import { inKey, readKey } from './key';
import type { Style } from './style';

export interface Sheet {
  readonly reading: ChartReading;
  readonly head: ChartHead;
  readonly form: Form;
  readonly analysis: Analysis;
  /** In the order of the text; problems of chord symbols among them. */
  readonly problems: readonly ChartProblem[];
}

/** Reads and analyses a chart text. `key` and `style` overrule the declared ones. Never throws. */
export function readSheet(text: string, key?: string, style?: Style): Sheet {
  const reading = readChart(text);
  const head = chartHead(reading.chart);
  const form = unroll(reading.chart, reading.places);
  const declared = key ?? head.key;
  const home = declared === null ? null : readKey(declared);
  const problems = [...reading.problems, ...form.problems, ...chordProblems(form)];
  if (declared !== null && !home) {
    problems.push({
      code: 'bad-key',
      message: `“${declared}” is not a key Corvel knows; write it like Eb, F#m or F dorian. The key is found from the chords meanwhile.`
    });
  }
  const chords = form.changes.flatMap(({ chord }) => (chord ? [chord] : []));
  if (home && chords.length > 0 && !chords.some((chord) => inKey(chord, home))) {
    problems.push({
      code: 'key-fits-nothing',
      message: `No chord of this chart belongs to ${home.tonic} ${home.mode}. The key is used as you wrote it; take the line out to have it found.`
    });
  }
  if (form.changes.length === 0) {
    problems.push({
      code: 'empty-chart',
      message: 'There are no chords yet. Write bars like | Dm7 | G7 | Cmaj7 |.'
    });
  }
  if (form.tooLong) {
    problems.push({
      code: 'too-many-changes',
      message: `This chart has more than ${MAX_CHANGES} changes; only the first ${MAX_CHANGES} could be used. Split it into two charts.`
    });
  }
  const line = (problem: ChartProblem) => problem.place?.line ?? 0;
  return {
    reading,
    head,
    form,
    analysis: analyse(form, home, { head: style ? { ...head, style } : head }),
    problems: problems.sort((a, b) => line(a) - line(b) || (a.place?.column ?? 0) - (b.place?.column ?? 0))
  };
}

/** One problem for each symbol in the text, however often the form plays it. */
function chordProblems(form: Form): ChartProblem[] {
  const told = new Set<string>();
  return form.changes.flatMap(({ problem, place }) => {
    if (!problem || !place) return [];
    const at = `${place.line}:${place.column}`;
    if (told.has(at)) return [];
    told.add(at);
    const { message, suggestion } = problem;
    return [{ code: 'bad-chord', message, place, ...(suggestion ? { suggestion } : {}) }];
  });
}
