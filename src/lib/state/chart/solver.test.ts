import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { SolverJob, SolverResult } from '../../workers/solve';

/** The worker without its thread: questions wait here until the test answers them. */
const asked: {
  name: string;
  tell: (done: number) => void;
  answer: (result: SolverResult) => void;
  fail: () => void;
}[] = [];
/** The readings that the worker was sent. */
const taken: string[] = [];
let ended = 0;
vi.mock('comlink', () => ({
  proxy: (work: unknown) => work,
  wrap: () => ({
    take: (analysis: string) => {
      taken.push(analysis);
      return Promise.resolve();
    },
    solve: ({ name }: { name: string }, tell: (done: number) => void) =>
      new Promise<SolverResult>((answer, fail) => {
        asked.push({ name, tell, answer, fail: () => fail(new Error('gone')) });
      })
  })
}));
class FakeWorker {
  terminate() {
    ended += 1;
  }
}
vi.stubGlobal('Worker', FakeWorker);
const { Solver } = await import('./solver.svelte');

/** Only the name of a question and of its reading matter here. */
const job = (name: string, analysis = 'reading') => ({ name, analysis }) as unknown as SolverJob;
const RESULT: SolverResult = { answer: { paths: [] }, others: [] };
const settled = () => vi.advanceTimersByTimeAsync(0);

beforeEach(() => {
  vi.useFakeTimers();
  asked.length = 0;
  taken.length = 0;
  ended = 0;
});
afterEach(() => vi.useRealTimers());

describe('the solver', () => {
  it('answers a question', async () => {
    const solver = new Solver();
    solver.ask(job('first'));
    asked[0]!.answer(RESULT);
    await settled();
    expect(solver.latest).toEqual({ job: job('first'), result: RESULT });
    expect(solver.progress).toBeNull();
  });

  it('asks only the newest of the questions that came meanwhile, and drops the answer to the old one', async () => {
    const solver = new Solver();
    for (const name of ['first', 'second', 'third']) solver.ask(job(name));
    asked[0]!.answer(RESULT);
    await settled();
    expect(solver.latest).toBeNull();
    expect(asked.map(({ name }) => name)).toEqual(['first', 'third']);
    asked[1]!.answer(RESULT);
    await settled();
    expect(solver.latest?.job).toMatchObject({ name: 'third' });
    expect(ended).toBe(0);
  });

  it('gives up long work for a newer question, whose answer alone counts', async () => {
    const solver = new Solver();
    solver.ask(job('long'));
    await vi.advanceTimersByTimeAsync(300);
    solver.ask(job('newer'));
    expect(ended).toBe(1);
    asked[0]!.answer(RESULT);
    await settled();
    expect(solver.latest).toBeNull();
    asked[1]!.answer(RESULT);
    await settled();
    expect(solver.latest?.job).toMatchObject({ name: 'newer' });
  });

  it('tells how far long work is, and ends it when told', async () => {
    const solver = new Solver();
    solver.ask(job('long'));
    asked[0]!.tell(0.1);
    expect(solver.progress).toBeNull();
    await vi.advanceTimersByTimeAsync(300);
    expect(solver.progress).toBe(0);
    asked[0]!.tell(0.6);
    expect(solver.progress).toBe(0.6);
    solver.stop();
    expect([solver.progress, solver.isStopped, ended]).toEqual([null, true, 1]);
    solver.ask(job('again'));
    expect(solver.isStopped).toBe(false);
  });

  it('stops, and can be asked again, where the worker fails', async () => {
    const solver = new Solver();
    solver.ask(job('first'));
    asked[0]!.fail();
    await settled();
    expect(solver.isStopped).toBe(true);
    solver.ask(job('second'));
    asked[1]!.answer(RESULT);
    await settled();
    expect(solver.latest?.job).toMatchObject({ name: 'second' });
  });

  it('sends a reading once, and again to a worker that is new', async () => {
    const solver = new Solver();
    solver.ask(job('first'));
    asked[0]!.answer(RESULT);
    await settled();
    solver.ask(job('second'));
    asked[1]!.answer(RESULT);
    await settled();
    solver.ask(job('third', 'edited'));
    expect(taken).toEqual(['reading', 'edited']);
    solver.stop();
    solver.ask(job('fourth', 'edited'));
    expect(taken).toEqual(['reading', 'edited', 'edited']);
  });

  it('forgets what it knew where another way of solving is in force', async () => {
    const solver = new Solver();
    solver.ask(job('first'));
    asked[0]!.answer(RESULT);
    await settled();
    solver.forget();
    expect(solver.latest).toBeNull();
    solver.ask(job('second'));
    solver.forget();
    expect(ended).toBe(1);
    asked[1]!.answer(RESULT);
    await settled();
    expect(solver.latest).toBeNull();
  });
});
