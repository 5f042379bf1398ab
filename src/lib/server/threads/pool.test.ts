import { afterEach, describe, expect, it } from 'vitest';
import source from './work.ts?thread';
import { BOUNDS, Pool, type LaneName, type PoolBounds } from './pool';

/** A thread that does what its message says: answer, refuse, fail, die, be busy for ever, sleep. */
const OBEDIENT = `
  const { parentPort } = require('node:worker_threads');
  const thread = Number(require('node:fs').readlinkSync('/proc/thread-self').split('/').at(-1));
  parentPort.postMessage({ kind: 'hello', thread });
  const answer = (text) => parentPort.postMessage({ kind: 'done', bytes: new TextEncoder().encode(text), type: 'text/plain' });
  parentPort.on('message', (message) => {
    if (message === 'close') process.exit(0);
    const job = JSON.parse(message.text);
    if (job.busy) for (;;);
    if (job.works) for (const end = Date.now() + job.works; Date.now() < end; );
    if (job.dies) process.exit(3);
    if (job.throws) throw new Error('broken');
    if (job.sleeps) return setTimeout(() => answer('slept'), job.sleeps);
    if (job.answer) return parentPort.postMessage(job.answer);
    answer(job.says ?? '');
  });`;

let pool: Pool;
const open = (bounds: Partial<PoolBounds> = {}, code = OBEDIENT) =>
  (pool = new Pool(code, { ...BOUNDS, ...bounds }));
afterEach(() => pool.close());

interface Options {
  readonly lane?: LaneName;
  readonly tooLong?: string;
  readonly signal?: AbortSignal;
}
const run = async (job: object, { lane = 'light', tooLong = 'Ask for less.', signal }: Options = {}) => {
  const { bytes } = await pool.run({ lane, job, tooLong, signal });
  return new TextDecoder().decode(bytes);
};
const most = (count: number) => ({ light: count, write: count, bulk: count, heavy: count });

describe('the pool of threads', () => {
  it('gives back what a thread answers, however many ask', async () => {
    open();
    const asked = Array.from({ length: 20 }, (_, i) => run({ says: String(i) }));
    expect(await Promise.all(asked)).toEqual(asked.map((_, i) => String(i)));
  });

  it('tells a refusal as a refusal, with all that belongs to it', async () => {
    open();
    const error = { code: 'stale', message: 'No.' };
    const job = run({ answer: { kind: 'refused', status: 409, error, extra: { stored: 3 } } });
    await expect(job).rejects.toMatchObject({ status: 409, error, extra: { stored: 3 } });
  });

  it('ends a job at its budget with the sentence that helps, and goes on', async () => {
    open({ budget: 300, most: most(1), guests: 0 });
    const long = run({ busy: true });
    const next = run({ says: 'next' });
    await expect(long).rejects.toMatchObject({ status: 413, error: { message: 'Ask for less.' } });
    expect(await next).toBe('next');
  });

  it('counts the time of the processor, not of the clock', async () => {
    open({ budget: 200 });
    // It waits for three times its budget, and is not blamed for it.
    expect(await run({ sleeps: 600 })).toBe('slept');
    await expect(run({ busy: true })).rejects.toMatchObject({ status: 413 });
  });

  it('gives up a job that was starved as being busy itself, without blaming who asked', async () => {
    open({ budget: 200, patience: 400 });
    await expect(run({ sleeps: 60_000 })).rejects.toMatchObject({ status: 503, error: { code: 'busy' } });
  });

  it('does not let a long job keep others waiting', async () => {
    open({ budget: 60_000, long: 30 });
    const gone = new AbortController();
    const busy = [1, 2, 3].map(() => run({ busy: true }, { signal: gone.signal }).catch(() => 'left'));
    expect(await run({ says: 'quick' })).toBe('quick');
    gone.abort();
    expect(await Promise.all(busy)).toEqual(['left', 'left', 'left']);
  });

  it('has a lane for light work beside any number of heavy jobs', async () => {
    open({ budget: 60_000 });
    const gone = new AbortController();
    const heavy = Array.from({ length: 8 }, () =>
      run({ busy: true }, { lane: 'heavy', signal: gone.signal }).catch(() => 'left')
    );
    expect(await run({ says: 'light' })).toBe('light');
    expect(await run({ says: 'written' }, { lane: 'write' })).toBe('written');
    gone.abort();
    expect(new Set(await Promise.all(heavy))).toEqual(new Set(['left']));
  });

  it('drops the work of a client that has left', async () => {
    open({ budget: 60_000, most: most(1), guests: 0 });
    const gone = new AbortController();
    const job = run({ busy: true }, { signal: gone.signal });
    const waiting = run({ says: 'mine' });
    gone.abort();
    await expect(job).rejects.toMatchObject({ error: { code: 'gone' } });
    expect(await waiting).toBe('mine');
  });

  it('does not begin with the work of a client that had left before', async () => {
    open({ most: most(1) });
    await expect(run({ busy: true }, { signal: AbortSignal.abort() })).rejects.toMatchObject({
      error: { code: 'gone' }
    });
    expect(await run({ says: 'after' })).toBe('after');
  });

  it.each([{ dies: true }, { throws: true }])('survives a thread that ends: %j', async (job) => {
    open({ most: most(1) });
    await expect(run(job)).rejects.toThrow();
    expect(await run({ says: 'after' })).toBe('after');
  });

  it('says that it is busy rather than to let everything wait', async () => {
    open({ most: most(1), guests: 0, queue: 2, budget: 300 });
    const jobs = [1, 2, 3, 4, 5].map(() => run({ busy: true }).catch((error: unknown) => error));
    const refused = (await Promise.all(jobs)) as { status: number }[];
    expect(refused.map(({ status }) => status).filter((status) => status === 503)).toHaveLength(2);
  });

  it('never cuts short a job that writes', async () => {
    open({ budget: 50, patience: 60 });
    const { bytes } = await pool.run({ lane: 'write', job: { works: 400, says: 'written' } });
    expect(new TextDecoder().decode(bytes)).toBe('written');
  });

  it('lets its threads close what they hold, and takes nothing more', async () => {
    open();
    await run({ says: 'x' });
    const closed = pool.close();
    await expect(run({ says: 'late' })).rejects.toMatchObject({ status: 503 });
    await closed;
  });

  it('answers the routes', async () => {
    open({}, source);
    const call = (name: string, input: object) =>
      pool.run({
        lane: 'light',
        job: { name, writes: false, params: {}, query: {} },
        bytes: new TextEncoder().encode(JSON.stringify(input)),
        tooLong: ''
      });
    const { bytes } = await call('analysis', { chart: '{key: Gb}\n| Abm7 | Db7 | Gbmaj7 |' });
    const { changes } = JSON.parse(new TextDecoder().decode(bytes)) as { changes: { roman: string }[] };
    expect(changes.map(({ roman }) => roman)).toEqual(['ii7', 'V7', 'Imaj7']);
    await expect(call('voicings', { chord: 'H7', type: 'closed', strings: [3, 2, 1] })).rejects.toMatchObject(
      { status: 400, error: { code: 'bad-chord' } }
    );
  });
});
