import { afterEach, describe, expect, it } from 'vitest';
import source from './compute.ts?thread';
import { BOUNDS, Pool, type PoolBounds } from './pool';

/** A thread that does what its message says: answer, refuse, fail, die, or be busy for ever. */
const OBEDIENT = `
  const { parentPort } = require('node:worker_threads');
  parentPort.on('message', ({ text }) => {
    const job = JSON.parse(text);
    if (job.busy) for (;;);
    if (job.dies) process.exit(3);
    if (job.throws) throw new Error('broken');
    parentPort.postMessage(job.answer);
  });`;
const done = (text: string) => ({ answer: { kind: 'done', text } });

let pool: Pool;
const open = (bounds: Partial<PoolBounds> = {}, code = OBEDIENT) =>
  (pool = new Pool(code, { ...BOUNDS, ...bounds }));
afterEach(() => pool.close());

describe('the pool of threads', () => {
  it('gives back what a thread answers, however many ask', async () => {
    open();
    const asked = Array.from({ length: 20 }, (_, i) => pool.run(done(String(i)), ''));
    expect(await Promise.all(asked)).toEqual(asked.map((_, i) => String(i)));
  });

  it('tells a refusal as a refusal', async () => {
    open();
    const error = { code: 'bad-chord', message: 'No.' };
    const job = pool.run({ answer: { kind: 'refused', status: 400, error } }, '');
    await expect(job).rejects.toMatchObject({ status: 400, error });
  });

  it('ends a job at its budget with the sentence that helps, and goes on', async () => {
    // Also the job behind it has to end within the budget, its thread opened first, on a machine that is busy.
    open({ budget: 2_000, most: 1 });
    const long = pool.run({ busy: true }, 'Ask for less.');
    const next = pool.run(done('next'), '');
    await expect(long).rejects.toMatchObject({ status: 413, error: { message: 'Ask for less.' } });
    expect(await next).toBe('next');
  });

  it('does not let a long job keep others waiting', async () => {
    open({ budget: 60_000, long: 30 });
    const gone = new AbortController();
    const busy = [1, 2, 3].map(() => pool.run({ busy: true }, '', gone.signal).catch(() => 'left'));
    expect(await pool.run(done('quick'), '')).toBe('quick');
    gone.abort();
    expect(await Promise.all(busy)).toEqual(['left', 'left', 'left']);
  });

  it('drops the work of a client that has left', async () => {
    open({ budget: 60_000, most: 1 });
    const gone = new AbortController();
    const job = pool.run({ busy: true }, '', gone.signal);
    const waiting = pool.run(done('mine'), '');
    gone.abort();
    await expect(job).rejects.toMatchObject({ error: { code: 'gone' } });
    expect(await waiting).toBe('mine');
  });

  it.each([{ dies: true }, { throws: true }])('survives a thread that ends: %j', async (job) => {
    open({ most: 1 });
    await expect(pool.run(job, '')).rejects.toThrow();
    expect(await pool.run(done('after'), '')).toBe('after');
  });

  it('says that it is busy rather than to let everything wait', async () => {
    open({ most: 1, queue: 2, budget: 300 });
    const jobs = [1, 2, 3, 4, 5].map(() => pool.run({ busy: true }, '').catch((error: unknown) => error));
    const refused = (await Promise.all(jobs)) as { status: number }[];
    expect(refused.map(({ status }) => status).filter((status) => status === 503)).toHaveLength(2);
  });

  it('answers the routes', async () => {
    open({}, source);
    const input = { chart: '{key: Gb}\n| Abm7 | Db7 | Gbmaj7 |' };
    const { changes } = JSON.parse(await pool.run({ name: 'analysis', input }, '')) as {
      changes: { roman: string }[];
    };
    expect(changes.map(({ roman }) => roman)).toEqual(['ii7', 'V7', 'Imaj7']);
    const bad = pool.run(
      { name: 'voicings', input: { chord: 'H7', type: 'closed', strings: [3, 2, 1] } },
      ''
    );
    await expect(bad).rejects.toMatchObject({ status: 400, error: { code: 'bad-chord' } });
  });
});
