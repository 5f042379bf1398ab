/** Figures of the server: who waits for whom, what its own thread does in one turn, what five minutes of work leave behind. */
import { randomUUID } from 'node:crypto';
import { existsSync, mkdtempSync, readdirSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { performance } from 'node:perf_hooks';
import { mutant, samples, seeded } from '../../tests/mutate';
import { AT_FIVE } from '../../tests/plan';
import { Server } from '../../tests/server';
import { chart } from './charts';

const place = () => join(mkdtempSync(join(tmpdir(), 'corvel-bench-')), 'songbook.db');
export type Row = readonly [what: string, value: string, bound: string];

async function withServer<T>(work: (server: Server) => Promise<T>, isDemo = false): Promise<T> {
  const server = new Server(place(), isDemo, { NODE_OPTIONS: '--import ./scripts/bench/turns.mjs' });
  await server.start();
  try {
    return await work(server);
  } finally {
    await server.stop();
  }
}

const chartFileOf = (takes: number) => ({
  id: randomUUID(),
  file: {
    corvel: 'chart',
    version: 1,
    chart: chart(32),
    plan: AT_FIVE,
    takes: Array.from({ length: takes }, (_, i) => ({
      name: `Take ${i}`,
      playedAt: i,
      day: '2026-05-04',
      seconds: 60,
      data: {
        way: 'midi',
        source: chart(32),
        tempo: 120,
        start: 0,
        notes: Array.from({ length: 120 }, (_, n) => ({
          at: n / 2,
          seconds: 0.4,
          midi: 55 + ((n * 7 + i) % 20)
        })),
        troubles: [],
        targets: []
      }
    }))
  }
});

/** The slowest of light requests, in milliseconds, while `others` go on. */
async function slowest(server: Server, others: readonly Promise<unknown>[]): Promise<number> {
  let isDone = false;
  const all = Promise.allSettled(others).then(() => (isDone = true));
  const times: number[] = [];
  const light: readonly (() => Promise<unknown>)[] = [
    () => server.call('POST', 'analysis', { chart: '| Dm7 | G7 | Cmaj7 |' }),
    () => server.call('GET', 'songbook?limit=1'),
    () => server.call('PUT', 'settings', { theme: 'day' })
  ];
  for (let i = 0; !isDone && i < 90; i++) {
    const start = performance.now();
    await light[i % light.length]!();
    times.push(performance.now() - start);
  }
  await all;
  return Math.max(...times);
}

/** A light request beside eight heavy ones, and beside an import of 500 takes. */
export const waitingRows = (): Promise<Row[]> =>
  withServer(async (server) => {
    for (let i = 0; i < 20; i++) await server.call('POST', 'analysis', { chart: '| Dm7 | G7 |' });
    const heaviest = () =>
      server.call('POST', 'targets', { chart: chart(2000), loop: true, alternatives: 20 });
    const besideOne = await slowest(server, [heaviest()]);
    const beside = await slowest(server, Array.from({ length: 8 }, heaviest));
    const file = chartFileOf(500);
    const importing = server.call('POST', 'songbook/file', file);
    const besideImport = await slowest(server, [importing]);
    const { status } = await importing;
    return [
      ['slowest light request beside the heaviest one', `${besideOne.toFixed(0)} ms`, '100 ms'],
      ['slowest light request beside eight heavy ones', `${beside.toFixed(0)} ms`, '300 ms'],
      [
        `the same beside an import of 500 takes (answered ${status})`,
        `${besideImport.toFixed(0)} ms`,
        '300 ms'
      ]
    ];
  });

/** The longest turn of the server's own thread while everything is asked of it, in processor time. */
export const turnRows = (): Promise<Row[]> =>
  withServer(async (server) => {
    const { body } = await server.call<{ charts: { id: string }[] }>('GET', 'songbook');
    const ids = body.charts.map(({ id }) => id);
    const longest = async () => Number(await (await fetch(`${server.url}/turns`)).text());
    const of = async (work: () => Promise<unknown>) => {
      await work();
      await longest();
      await work();
      return longest();
    };
    const get = async (path: string) => (await fetch(server.url + path)).arrayBuffer();
    const parts: readonly (readonly [string, () => Promise<unknown>])[] = [
      [
        'pages',
        () => Promise.all(['/', '/today', '/licks', '/trainer', ...ids.map((id) => `/charts/${id}`)].map(get))
      ],
      ['an archive', () => get('/api/v1/archive')],
      ['a chart file of 50 takes', () => server.call('POST', 'songbook/file', chartFileOf(50))],
      [
        'a log of 5,000 rows',
        () =>
          server.call('POST', 'practice/file', {
            text: `day,title,what,minutes\n${Array.from({ length: 5000 }, (_, i) => `2026-01-${String((i % 28) + 1).padStart(2, '0')},Tune,Up,3`).join('\n')}`
          })
      ],
      [
        'pictures and plan',
        () =>
          Promise.all(
            ['/api/v1/practice/pictures?day=2026-03-01', '/api/v1/practice/today?day=2026-03-01'].map(get)
          )
      ],
      [
        'the heaviest computation',
        () => server.call('POST', 'targets', { chart: chart(2000), loop: true, alternatives: 5 })
      ]
    ];
    const rows: Row[] = [];
    for (const [what, work] of parts)
      rows.push([
        `longest turn of the server's own thread: ${what}`,
        `${(await of(work)).toFixed(1)} ms`,
        '20 ms'
      ]);
    return rows;
  }, true);

/** Requests that are nearly right, over every route. */
export const mutantRows = (count = 100_000): Promise<Row[]> =>
  withServer(async (server) => {
    const [all, random] = [samples(), seeded(7)];
    let failed = 0;
    const ask = async () => {
      const { method, path, headers, body } = mutant(all, random);
      const answer = await fetch(`${server.url}/api/v1/${path}`, {
        method,
        headers,
        ...(body === undefined ? {} : { body })
      });
      if (answer.status >= 500) {
        failed += 1;
        console.error(answer.status, method, path, body?.slice(0, 300), (await answer.text()).slice(0, 200));
      } else await answer.arrayBuffer();
    };
    const asked = async (many: number) => {
      for (let done = 0; done < many; done += 16) await Promise.all(Array.from({ length: 16 }, ask));
    };
    // Threads, caches and files are there once all of it has been asked for.
    await asked(count / 5);
    const before = stateOf(server.pid);
    await asked(count - count / 5);
    const after = stateOf(server.pid);
    return [
      [`answers of 5xx to ${count.toLocaleString('en')} mutated requests`, String(failed), '0'],
      [
        'memory after them, of that after the first fifth',
        `${(after.memory / before.memory).toFixed(2)} ×`,
        'level'
      ],
      ['handles then and at the end', `${before.handles}, ${after.handles}`, 'level']
    ];
  });

/** Memory in bytes and open handles of a program. */
function stateOf(pid: number): { memory: number; handles: number } {
  if (!existsSync(`/proc/${pid}/status`)) return { memory: NaN, handles: NaN };
  const status = readFileSync(`/proc/${pid}/status`, 'utf8');
  return {
    memory: 1024 * Number(/VmRSS:\s+(\d+)/.exec(status)?.[1]),
    handles: readdirSync(`/proc/${pid}/fd`).length
  };
}

/** Five minutes of eight clients, each with a mixture of its own: computing, saving, pages, takes, archives. */
export const mixedRows = (minutes = 5): Promise<Row[]> =>
  withServer(async (server) => {
    const until = performance.now() + minutes * 60_000;
    let [answers, failed] = [0, 0];
    const count = (status: number) => {
      answers += 1;
      if (status >= 400) failed += 1;
    };
    const client = async (seed: number) => {
      const random = seeded(seed);
      const { body } = await server.call<{ id: string }>('POST', 'songbook', {
        source: chart(16),
        plan: AT_FIVE
      });
      let version = 1;
      const things: readonly (() => Promise<number>)[] = [
        async () => (await server.call('POST', 'analysis', { chart: chart(32) })).status,
        async () => (await server.call('POST', 'targets', { chart: chart(64), loop: true })).status,
        async () => {
          const saved = await server.call<{ version: number }>('PUT', `songbook/${body.id}`, {
            base: version,
            source: `${chart(16)}\n# ${version}`,
            plan: AT_FIVE
          });
          version = saved.body.version;
          return saved.status;
        },
        async () => {
          const page = await fetch(`${server.url}/charts/${body.id}`);
          await page.arrayBuffer();
          return page.status;
        },
        async () => (await server.call('GET', 'songbook?sort=title')).status,
        async () => (await server.call('GET', 'practice/today?day=2026-03-01')).status,
        async () =>
          (await server.call('POST', 'lines', { chart: chart(16), level: 'without a stop' })).status,
        async () => {
          const file = await fetch(`${server.url}/api/v1/archive?sounds=no`);
          await file.arrayBuffer();
          return file.status;
        }
      ];
      while (performance.now() < until) count(await things[Math.floor(random() ** 1.5 * things.length)]!());
    };
    const all = Promise.all(Array.from({ length: 8 }, (_, i) => client(i + 1)));
    // Threads, caches and files are there once all of it has been asked for.
    await new Promise((warm) => setTimeout(warm, minutes * 20_000));
    const before = stateOf(server.pid);
    await all;
    const after = stateOf(server.pid);
    return [
      [
        `failed of ${answers.toLocaleString('en')} answers to eight clients in ${minutes} minutes`,
        String(failed),
        '0'
      ],
      ['memory after them, of that after a third', `${(after.memory / before.memory).toFixed(2)} ×`, 'level'],
      ['handles then and at the end', `${before.handles}, ${after.handles}`, 'level']
    ];
  });
