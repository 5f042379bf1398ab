import { test } from 'vitest';
import { readChart, chartHead } from './chart/read';
import { writeChart } from './chart/write';
import { unroll } from './chart/unroll';
import { analyse } from './harmony/analysis';
import { readKey } from './harmony/key';
import { DEMO_CHARTS } from '../server/demo-charts';
const show = (text: string, useKey = true) => {
  const r = readChart(text);
  const f = unroll(r.chart, r.places);
  const head = chartHead(r.chart);
  const a = analyse(f, useKey && head.key ? readKey(head.key) : null);
  console.log(
    head.title,
    a.key.tonic,
    a.key.mode,
    'runner',
    a.key.runnerUp?.tonic,
    a.key.runnerUp?.mode,
    JSON.stringify([...r.problems, ...f.problems]),
    f.bars.length,
    'bars',
    'roundtrip',
    JSON.stringify(readChart(writeChart(r.chart)).chart) === JSON.stringify(r.chart)
  );
  console.log(
    a.changes
      .map(
        (c) =>
          `${c.bar}.${c.beat}(${c.beats}) ${c.symbol} ${c.roman} [${c.function}${c.inKey ? '' : ' OUT'}]${c.key.tonic === a.key.tonic ? '' : ' in ' + c.key.tonic + c.key.mode}`
      )
      .join('\n')
  );
  console.log(a.cadences.map((c) => `${c.type} ${c.from}-${c.to} ${c.key.tonic}${c.key.mode}`).join('; '));
};
test('x', () => {
  for (const d of DEMO_CHARTS) show(d.text, false);
  for (const t of [
    '{key: Gm}\n{start_of_grid}\n| Am7b5 | D7b9 | Gm6 | % |\n{end_of_grid}',
    '| Fm7 | Bb7 | Ebmaj7 | C7b9 |',
    'Dm7 . G7 . | Cmaj7',
    '| C | . . G7(b9, #11) . | %% | |',
    '|: C | F |',
    '| % |',
    '|: A :| B :|',
    '| A |1 B :|2 C | D |',
    '| Dm7 / / / / |',
    '| C | E7 | Am | F Fm | C |',
    '| Cmaj7 | Fm7 | Bb7 | Cmaj7 |',
    '| Am | G | F | E7 |',
    '| D | A | Bm | G |'
  ])
    show(t);
});
