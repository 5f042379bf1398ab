/** The rows of the speed table. Nothing here fails by time: the machine may be shared. */
import { systemOf } from '../../src/lib/core/neck/systems/registry';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { performance } from 'node:perf_hooks';
import { afterAll, expect, it } from 'vitest';
import { DEFAULT_PLAN } from '../../src/lib/core/plan/model';
import { listCharts } from '../../src/lib/api/songbook';
import { scaleChoices } from '../../src/lib/core/approaches/registry';
import { readChart } from '../../src/lib/core/chart/read';
import { unroll } from '../../src/lib/core/chart/unroll';
import { excerptOf } from '../../src/lib/core/harmony/excerpt';
import { readSheet } from '../../src/lib/core/harmony/sheet';
import { bandEvents } from '../../src/lib/core/practice/band';
import { FEELS } from '../../src/lib/core/practice/feel';
import { swingAt } from '../../src/lib/core/practice/pulse';
import { gripStages } from '../../src/lib/core/moment/grips';
import { momentsOf, subjectsOf, tonesOfAll } from '../../src/lib/core/moment/moment';
import { gripPath } from '../../src/lib/core/neck/grip-path';
import { areasAt, positionMap } from '../../src/lib/core/neck/position-map';
import { stringSets } from '../../src/lib/core/neck/voicing';
import { STANDARD } from '../../src/lib/core/neck/tuning';
import type { Candidate } from '../../src/lib/core/targets/candidates';
import { FREE_PATH, type DegreeWish } from '../../src/lib/core/targets/options';
import { findTargets } from '../../src/lib/core/targets/path';
import { expressiveFigures, listeningFigures, liveListeningFigures } from './listening/figures';
import { fittedWeights } from './listening/fit';
import { CYCLE, chart } from './charts';
import { bookTimes, firstLoad, highlightLag, pageCosts } from './page';
import { mixedRows, mutantRows, turnRows, waitingRows } from './server';
import { soundFigures } from './sound';
import { noteOf } from '../../src/lib/core/line/model';
import { askedOf, mendOf, outlineLine } from '../../src/lib/core/line/outline';
import { placeNotes } from '../../src/lib/core/line/place';
import { readLine } from '../../src/lib/core/line/read';
import { arrange } from '../../src/lib/core/plan/arrange';
import { walkFigures, WALKED_TUNES, type WalkedTune } from '../../src/lib/core/practice/walk-testing';
import { exerciseFigures } from './exercises';
import { renderedFigures } from './rendered';
import { meanFigures, OTHER_CHARTS, outsideOf, STYLE_CHARTS } from '../../src/lib/core/plan/phrase-testing';
import { linesOf, linesOver } from '../../src/lib/core/plan/lines';
import { openDatabase } from '../../src/lib/server/store/database';
import { listSongbook } from '../../src/lib/server/store/songbook';
import { logRow } from '../../src/lib/api/practice';
import { dayAfter } from '../../src/lib/core/practice/log/day';
import { planSession } from '../../src/lib/core/practice/session/session';
import { record } from '../../src/lib/server/practice/log';
import { picturesOf } from '../../src/lib/server/practice/pictures';

/** Median milliseconds of a number of runs, each told its number so that nothing can be remembered. */
function median(runs: number, work: (run: number) => unknown): number {
  for (let i = 0; i < 12; i++) work(-1 - i);
  const times = Array.from({ length: runs }, (_, run) => {
    const start = performance.now();
    work(run);
    return performance.now() - start;
  });
  return times.sort((a, b) => a - b)[Math.floor(runs / 2)]!;
}

/** Milliseconds of one run after one for warming up; for work that takes its time. */
function once(work: () => unknown): number {
  work();
  const start = performance.now();
  work();
  return performance.now() - start;
}

/** The sum of the solver's costs on small looped charts against the cheapest of all ways tried one by one. */
function againstBruteForce(): number {
  let [solved, tried] = [0, 0];
  for (let variant = 0; variant < 12; variant++) {
    const { analysis } = readSheet(chart(4, variant));
    const options = {
      ...WHOLE_NECK,
      window: { from: variant, to: variant + 4 },
      degrees: ['3', '7'] as DegreeWish[],
      // The sum below knows steps and degrees only; the unit tests try all that is charged.
      weights: { ...WHOLE_NECK.weights, held: 0 }
    };
    const { paths, stages } = findTargets(analysis, { ...options, standIn: true });
    const { degree, pitch, hand, string } = options.weights;
    let best = Infinity;
    const walk = (path: Candidate[], cost: number): void => {
      const stage = stages[path.length];
      const step = (a: Candidate, b: Candidate) =>
        pitch * Math.abs(b.midi - a.midi) +
        hand * Math.max(0, Math.abs(b.fret - a.fret) - 3) +
        string * Math.abs(b.string - a.string);
      if (!stage) {
        best = Math.min(best, cost + step(path.at(-1)!, path[0]!));
        return;
      }
      for (const next of stage.candidates) {
        const from = path.at(-1);
        walk([...path, next], cost + degree[next.slot] + (from ? step(from, next) : 0));
      }
    };
    walk([], 0);
    solved += paths[0]!.cost;
    tried += best;
  }
  return solved / tried;
}

const WHOLE_NECK = { ...FREE_PATH, loop: true };

/** Texts whose reading takes longest. */
const WORST: readonly ((length: number) => string)[] = [
  (n) => `{a${' '.repeat(n)}x`,
  (n) => `|${'C '.repeat(n / 6)}${'|%'.repeat(n / 3)}|`,
  (n) => `| C | D ${'|%%'.repeat(n / 3)}|`,
  (n) => '|1,2,3,4,5,6,7,8,9 C :'.repeat(n / 22),
  (n) => `|${'C(a '.repeat(n / 4)}|`,
  (n) => 'C|\n'.repeat(n / 3)
];
const readFormOf = (text: string) => {
  const { chart: model, places } = readChart(text);
  return unroll(model, places);
};

/** Milliseconds of processor time that one thing done may cost a page of so many changes. */
const ACTION_BOUNDS = new Map([
  [64, 16],
  [512, 30],
  [2000, 50]
]);

const rows: string[] = [];
const row = (what: string, value: string, bound: string) =>
  rows.push(`${what.padEnd(66)} ${value.padStart(12)}   ${bound}`);
const ms = (value: number) => `${value.toFixed(1)} ms`;

it('measures the core', async () => {
  const analysed = (changes: number) =>
    median(15, (run) => scaleChoices(readSheet(chart(changes, run + 5)).analysis));
  const [small, large] = [analysed(64), analysed(512)];
  row('reading, analysis and all scale choices, 64 changes', ms(small), '30 ms');
  row('the same for 512 changes, ratio', `${(large / small).toFixed(1)} ×`, 'at most 10 ×');

  const { analysis } = readSheet(chart(64));
  for (const alternatives of [1, 10]) {
    const time = median(9, () => findTargets(analysis, { ...WHOLE_NECK, alternatives }));
    row(
      `exact target path, whole neck, 64 changes, loop, k = ${alternatives}`,
      ms(time),
      alternatives === 1 ? '20 ms' : ''
    );
  }
  for (const approach of ['chord-pentatonic', 'modes']) {
    const chosen = scaleChoices(analysis, { approaches: [approach] }).map((choices) => choices[0] ?? null);
    const subjects = subjectsOf(analysis, chosen);
    const time = median(9, () => positionMap(STANDARD, systemOf('minor-boxes'), analysis.key, subjects));
    row(`position map with all shapes, 64 changes, ${approach}`, ms(time), '50 ms');
  }
  const many = Array.from({ length: 4 }, () => stringSets(STANDARD, 'closed')).flat();
  const grips = median(9, () =>
    many.map((strings) => gripPath(gripStages(analysis, STANDARD, 'closed', strings), 'nearest'))
  );
  row('path of nearest triads, 64 changes, one string set', ms(grips / many.length), '');

  for (const count of [256, 1024]) {
    const long = readSheet(chart(count)).analysis;
    const time = once(() => findTargets(long, { ...WHOLE_NECK, alternatives: 10 }));
    row(`the same, ${count} changes, k = 10`, ms(time), '');
  }
  row('its cost against brute force on small charts, ratio', againstBruteForce().toFixed(3), '1.000');

  const keystroke = median(15, (run) => {
    const sheet = readSheet(chart(64, run + 40));
    findTargets(sheet.analysis, { ...WHOLE_NECK, position: 5, degrees: ['3', '7'] as DegreeWish[] });
    const positions = sheet.analysis.changes.map(() => 5);
    tonesOfAll(sheet.analysis, STANDARD, positions);
    const chosen = scaleChoices(sheet.analysis, { approaches: ['modes'] }).map(
      (choices) => choices[0] ?? null
    );
    const areas = areasAt(STANDARD, systemOf('positions'), subjectsOf(sheet.analysis, chosen), positions);
    momentsOf(sheet.analysis, STANDARD, chosen, areas);
  });
  row('keystroke: text to threads, neck and hands, computing, 64 changes', ms(keystroke), '16 ms');

  const [half, whole] = [32_000, 64_000].map((length) =>
    Math.max(...WORST.map((text) => median(3, () => readFormOf(text(length)))))
  );
  row('reading the worst text of 64 kB, model and form', ms(whole!), '100 ms');
  row('the same against 32 kB, ratio', `${(whole! / half!).toFixed(1)} ×`, 'about 2 ×');

  row(
    'first load of a workspace, compressed script',
    `${((await firstLoad()) / 1000).toFixed(0)} kB`,
    '200 kB'
  );

  const wandering = Array.from({ length: 256 }, (_, i) => noteOf(i * 480, 480, 52 + ((i * 7) % 29)));
  row(
    'placing 256 notes anywhere on the neck',
    ms(median(7, () => placeNotes(wandering, { neck: STANDARD, alternatives: 1 }))),
    '30 ms'
  );
  const ground = (() => {
    const sheet = readSheet(chart(64));
    const { analysis: read, chosen } = arrange(
      { sheet, plan: DEFAULT_PLAN },
      STANDARD,
      systemOf('positions')
    );
    return { form: sheet.form, analysis: read, chosen };
  })();
  row(
    'reading 256 notes against 64 changes',
    ms(median(7, () => readLine({ meter: { beats: 4, unit: 4 }, notes: wandering }, ground))),
    ''
  );

  const lined = (() => {
    const sheet = readSheet(chart(32));
    const arranged = arrange({ sheet, plan: DEFAULT_PLAN }, STANDARD, systemOf('positions'));
    return { arranged, paths: findTargets(arranged.analysis, arranged.targetOptions('free')).paths };
  })();
  const NO_NOTES = () => new Map<number, never>();
  const withoutStop = () =>
    linesOver(
      lined.arranged,
      () => ({ position: 5 }),
      { paths: lined.paths, asked: NO_NOTES, fitting: NO_NOTES },
      { level: 'without a stop', subdivision: 2, seed: 0, alternatives: 1 },
      { choiceAt: () => null, pins: [] }
    );
  row('best line without a stop, 32 bars of eighths', ms(median(7, withoutStop)), '100 ms');
  const asked = askedOf(ground.form.changes);
  row('outline test, 64 changes', ms(median(9, () => outlineLine(wandering, asked))), '10 ms');
  row(
    'the same with a mend for every change that is not clear',
    ms(
      median(5, () => {
        const { windows, listening } = outlineLine(wandering, asked);
        windows.forEach(({ verdict }, at) => verdict !== 'clear' && mendOf(wandering, asked, at, listening));
      })
    ),
    ''
  );
});

it('measures phrases', () => {
  // The first solo pays for compiling what finds them.
  meanFigures(STYLE_CHARTS[0]!, [99]);
  const all = STYLE_CHARTS.flatMap(({ row: kind, text }) => {
    const whole = readSheet(text);
    const bar = whole.form.changes.findLast(({ bar: number }) => number <= 32)!;
    const arranged = arrange({ sheet: whole, plan: DEFAULT_PLAN }, STANDARD, systemOf('positions'));
    const taken = [1, 2, 3, 4, 5].map((seed) => {
      const before = process.cpuUsage();
      linesOf(arranged, { level: 'phrases', subdivision: 2, seed, alternatives: 1, from: 0, to: bar.index });
      const { user, system } = process.cpuUsage(before);
      return (user + system) / 1000;
    });
    return taken.map((cost) => ({ kind, cost }));
  }).sort((a, b) => a.cost - b.cost);
  const dearest = all.at(-1)!;
  row(
    'phrases over 32 bars, 13 kinds of music, 5 seeds: processor time',
    ms(all[all.length >> 1]!.cost),
    '150 ms'
  );
  row(`  the dearest, ${dearest.kind}`, ms(dearest.cost), '900 ms');
});

it('counts phrases', () => {
  const charts = [...STYLE_CHARTS, ...OTHER_CHARTS].filter(
    ({ row: kind }) => kind !== 'modal' && kind !== 'pop or folk'
  );
  const outside = charts.flatMap((chart) =>
    [1, 6, 11, 21].flatMap((first) => {
      const seeds = [0, 1, 2, 3, 4].map((i) => first + i);
      return outsideOf(meanFigures(chart, seeds), chart).map(
        (words) => `${chart.row}, seeds from ${first}: ${words}`
      );
    })
  );
  row('phrases of 22 charts, 4 × 5 seeds: figures outside their bounds', `${outside.length} of 2,464`, '');
  for (const words of outside) row(`  ${words}`, '', '');
});

it('counts exercises', () => {
  for (const { level, notes, jumps, octaves, lowestString } of exerciseFigures())
    row(
      `exercises over ten tunes, ${level}: ${notes} notes; jumps over five frets; leaps of an octave and more; lowest string`,
      `${jumps}; ${octaves}; ${lowestString}`,
      level === 'double stops' ? '0; 0; 4' : '0'
    );
});

it('listens to rendered phrases', async () => {
  for (const kind of ['slow 12/8 blues', 'rock', 'ballad']) {
    const chart = STYLE_CHARTS.find((one) => one.row === kind)!;
    const { bends, bendCount, shaken, still } = await renderedFigures(chart, 2);
    const cents = (value: number) => (Number.isNaN(value) ? 'none' : `${value.toFixed(0)} cents`);
    row(`a file of phrases, ${kind}: ${bendCount} bends arrive within`, cents(bends), '');
    row('  held notes move by, with vibrato; without', `${cents(shaken)}; ${cents(still)}`, '');
  }
});

it('counts walking basses', () => {
  const percent = (share: number) => `${Math.round(100 * share)} %`;
  for (const tune of Object.keys(WALKED_TUNES) as WalkedTune[]) {
    const { seventhFirst, rootAgain, steps, led, offBeats, equal } = walkFigures(tune);
    row(
      `walking over 200 bars, ${tune}: begins 1–♭7; root again on 3`,
      `${percent(seventhFirst)}; ${percent(rootAgain)}`,
      '10; 15 at most'
    );
    row('  four steps running; led in', `${percent(steps)}; ${percent(led)}`, '25; 90 at least');
    row(
      '  off-beats; the bar before once more',
      `${percent(offBeats)}; ${percent(equal)}`,
      '15–35; 3 at most'
    );
  }
});

it('measures pages', async () => {
  for (const { changes, sent, views, watching, actions } of await pageCosts()) {
    row(`page of ${changes} changes, compressed`, `${(sent / 1000).toFixed(0)} kB`, '300 kB');
    for (const { view, nodes, opened } of views) {
      row(`  ${view}: nodes; opened, to the first picture`, `${nodes} ${ms(opened)}`, 'under 8,000; 150 ms');
    }
    row('  processor time on the page, looking on: taken off below', ms(watching), '');
    for (const { action, cost } of actions) {
      row(`  processor time on the page, ${action}`, ms(cost), ms(ACTION_BOUNDS.get(changes)!));
    }
  }
});

it('measures the band, sounds and the stand', async () => {
  const sixteen = readSheet(chart(16));
  const round = excerptOf(sixteen.form, sixteen.analysis, { kind: 'form' })!;
  const slowest = Math.max(
    ...FEELS.map((feel) =>
      median(15, (run) =>
        bandEvents({
          excerpt: round,
          feel,
          ratio: swingAt(feel.swing, 120),
          seed: 1,
          round: run + 20,
          isLast: false
        })
      )
    )
  );
  row('one round of the band, 16 changes, its slowest feel', ms(slowest), '5 ms');

  const { feels, files, late } = await soundFigures();
  for (const { feel, parts, peak } of feels) {
    const levels = Object.entries(parts).map(([part, level]) => `${part.toLowerCase()} ${level.toFixed(1)}`);
    const spread = Math.max(...Object.values(parts)) - Math.min(...Object.values(parts));
    row(
      `loudness of the parts, ${feel} (LUFS: ${levels.join(', ')})`,
      `${spread.toFixed(1)} dB`,
      '6 dB apart'
    );
    row('its peak, all parts together', peak.toFixed(2), 'under 1');
  }
  for (const { bars, made, seconds } of files) {
    row(`WAV of ${bars} bars, against playing it`, `${((1000 * seconds) / made).toFixed(1)} ×`, '10 ×');
  }
  const [short, , long] = files;
  row('WAV of 64 bars against 8', `${(long!.made / short!.made).toFixed(1)} ×`, 'linear: 8 ×');
  row(`events late over ${late.beats} beats, processor slowed fourfold`, String(late.events), '0');

  const { count, median: lag } = await highlightLag();
  row(`highlight beside the sounding beat, median of ${count} changes`, ms(1000 * lag), 'one frame');
});

it('measures books', async () => {
  const book = await bookTimes();
  row(
    `practice book of a 32-bar chart in twelve keys, ${book.pages} pages: made, then all of it drawn`,
    `${ms(book.made)}, ${ms(book.drawn)}`,
    '5 s'
  );
});

it('measures the plan of a day', () => {
  for (const minutes of [25, 240]) {
    const wish = practiceWish(minutes);
    const plan = median(7, () => planSession(wish));
    row(`practice plan of ${minutes} minutes, 2,000 items, 20,000 rows of the log`, ms(plan), '50 ms');
  }
});

it('measures the songbook and practice', async () => {
  const db = await openDatabase(join(mkdtempSync(join(tmpdir(), 'corvel-bench-')), 'songbook.db'));
  await fill(db, 5000);
  const list = async (query: object) => {
    const times: number[] = [];
    for (let i = 0; i < 9; i++) {
      const start = performance.now();
      await listSongbook(db, listCharts.parse(query));
      times.push(performance.now() - start);
    }
    return times.sort((a, b) => a - b)[4]!;
  };
  row('songbook of 5,000 charts: first page from the database', ms(await list({})), 'part of 100 ms');
  const today: number[] = [];
  for (let i = 0; i < 5; i++) {
    const start = performance.now();
    await picturesOf(db, dayAfter('2026-01-01', 200));
    today.push(performance.now() - start);
  }
  row('pictures of practice over 20,000 rows', ms(today.sort((a, b) => a - b)[2]!), 'told');
  row('songbook of 5,000 charts: search', ms(await list({ search: 'tune 49' })), '100 ms');
  row('songbook of 5,000 charts: one key', ms(await list({ key: 'Eb' })), '100 ms');
});

it('measures listening', () => {
  const listened = listeningFigures(join(tmpdir(), 'corvel-listening'));
  for (const { kind, f, worst, shift, cost, tracker } of listened) {
    const ratio = tracker === undefined ? '' : `, ${(f / tracker).toFixed(2)} × a general tracker`;
    row(
      `notes heard, ${kind}: F, worst file ${worst.toFixed(2)}${ratio}`,
      f.toFixed(3),
      kind === 'ringing' ? '0.85' : '0.93'
    );
    row(
      `  its times, and a minute of sound in processor time`,
      `${(1000 * shift).toFixed(0)} ms ${cost.toFixed(1)} s`,
      '20 ms, 3 s'
    );
  }
  row(
    'notes heard, mean of all kinds: F',
    (listened.reduce((sum, { f }) => sum + f, 0) / listened.length).toFixed(3),
    '0.97'
  );

  for (const { kind, f, middle, most, cost } of liveListeningFigures(join(tmpdir(), 'corvel-listening'))) {
    row(
      `live note, ${kind}: F ${f.toFixed(2)}; from stroke to told, nine tenths within ${(1000 * most).toFixed(0)} ms; a block ${cost.toFixed(1)} ms of processor time`,
      `${(1000 * middle).toFixed(0)} ms`,
      '80 ms'
    );
  }

  expect(listened.length).toBeGreaterThan(0);
});

it('measures listening to expression', () => {
  const { kinds, octaves, notes, confidence, events } = expressiveFigures(join(tmpdir(), 'corvel-listening'));
  const all: number[] = [];
  for (const { kind, least, f, tracker, known } of kinds) {
    const values = Object.values(f);
    all.push(values.reduce((a, b) => a + b, 0) / values.length);
    const each = Object.entries(f).map(([source, value]) => `${source} ${value.toFixed(3)}`);
    const beside = tracker === undefined ? '' : `; a general tracker ${tracker.toFixed(3)}`;
    if (known !== undefined)
      row(`notes heard, ${kind}, where it is told what the band plays: F`, known.toFixed(3), String(least));
    row(`notes heard, ${kind}: F; ${each.join(', ')}${beside}`, all.at(-1)!.toFixed(3), String(least));
  }
  row(
    'notes heard, mean of the expressive kinds: F',
    (all.reduce((a, b) => a + b) / all.length).toFixed(3),
    '0.965'
  );
  row('octave errors', `${octaves} of ${notes}`, '1 in 500');
  row('a right note is told with more confidence than a wrong one', confidence.toFixed(2), 'told');
  row(
    `bends, releases, slides, vibratos heard; ${events.extra} that nobody played; cents off in the middle ${events.off.toFixed(0)}`,
    `${events.heard} of ${events.played}`,
    'told'
  );
  expect(kinds.length).toBeGreaterThan(0);
});

it('fits what tells a stroke', () => {
  row(
    'weights of what tells a stroke, fitted',
    fittedWeights(join(tmpdir(), 'corvel-listening')).join(', '),
    'told'
  );
});

it('measures the server', async () => {
  for (const part of [await waitingRows(), await turnRows()]) for (const own of part) row(...own);
});

it('measures the server under mutated requests', async () => {
  for (const own of await mutantRows(Number(process.env.CORVEL_COUNT ?? 100_000))) row(...own);
});

it('measures the server under five mixed minutes', async () => {
  for (const own of await mixedRows(Number(process.env.CORVEL_MINUTES ?? 5))) row(...own);
});

afterAll(() => console.log(`\n${rows.join('\n')}\n`));

async function fill(db: Awaited<ReturnType<typeof openDatabase>>, count: number): Promise<void> {
  const summary = JSON.stringify({
    key: 'Eb',
    meter: '4/4',
    tempo: 120,
    feel: null,
    bars: 12,
    opening: CYCLE.slice(0, 8)
  });
  await db.transaction().execute(async (trx) => {
    for (let i = 0; i < count; i++) {
      const id = `chart-${i}`;
      await trx
        .insertInto('chart')
        .values({
          id,
          source: '| C |',
          version: 1,
          title: `Tune ${i}`,
          summary,
          created_at: i,
          updated_at: i,
          deleted_at: null
        })
        .execute();
      await trx
        .insertInto('plan')
        .values({ chart_id: id, data: JSON.stringify(DEFAULT_PLAN) })
        .execute();
    }
  });
  // Twenty thousand rows of the log over them.
  for (let at = 0; at < 20_000; at += 200) {
    await record(db, { rows: Array.from({ length: 200 }, (_, i) => loggedRow(at + i, count)) });
  }
}

function loggedRow(i: number, charts: number) {
  const day = dayAfter('2026-01-01', Math.floor(i / 100));
  return {
    ...logRow.parse({
      id: `00000000-0000-4000-8000-${String(i).padStart(12, '0')}`,
      item: `item-${i % 2000}`,
      kind: 'rehearse',
      what: 'Ascending',
      startedAt: 1_767_000_000_000 + i * 60_000,
      day,
      seconds: 60,
      rounds: 2,
      tempo: 60 + (i % 5) * 8,
      clean: i % 4 > 0,
      key: 'Eb',
      area: 5
    }),
    chart: `chart-${(i * 7919) % charts}`,
    revision: 1
  };
}

/** Two thousand items of fifty charts, ten on top of each other, and the log of them. */
function practiceWish(minutes: number) {
  const items = Array.from({ length: 2000 }, (_, i) => ({
    id: `item-${i}`,
    what: 'up',
    chart: `chart-${i % 50}`,
    key: 'Eb',
    minutes: 3 + (i % 6),
    after: i % 10 ? [`item-${i - 1}`] : [],
    tempo: { start: 60, goal: 90 }
  }));
  // As the store and the route give them: plain objects.
  const log = Array.from({ length: 20_000 }, (_, i) => {
    const { item, day, tempo, clean, rounds, seconds } = loggedRow(i, 50);
    return { item, day, tempo, clean, rounds, seconds };
  });
  return { items, log, minutes, day: dayAfter('2026-01-01', 200) };
}
