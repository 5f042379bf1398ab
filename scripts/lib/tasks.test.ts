import { describe, expect, it } from 'vitest';
import { runTasks, type Ended, type Task } from './tasks.mjs';

const node = (name: string, code: string, more: Partial<Task> = {}): Task => ({
  name,
  program: process.execPath,
  args: ['-e', code],
  ...more
});
async function run(tasks: Task[], slots = 2): Promise<Ended[]> {
  const ended: Ended[] = [];
  await runTasks(tasks, (one) => ended.push(one), { slots });
  return ended;
}

describe('tasks beside one another', () => {
  it('are told with their code and output, each after those that it needs', async () => {
    const ended = await run([
      node('second', 'console.log("two")', { after: ['first'] }),
      node('first', 'console.error("one")')
    ]);
    expect(ended.map(({ name, code, output }) => [name, code, output.trim()])).toEqual([
      ['first', 0, 'one'],
      ['second', 0, 'two']
    ]);
  });

  it('are not begun after one that failed; others go on', async () => {
    const ended = await run([
      node('build', 'process.exit(3)'),
      node('browser', 'console.log("x")', { after: ['build'] }),
      node('other', '')
    ]);
    expect(Object.fromEntries(ended.map(({ name, code }) => [name, code]))).toEqual({
      build: 3,
      browser: null,
      other: 0
    });
  });

  it('that cannot be started are told as failed, and heavy ones wait for room', async () => {
    const ended = await run(
      [{ name: 'none', program: 'no-such-program', args: [] }, node('heavy', '', { weight: 9 })],
      2
    );
    expect(ended.map(({ name, code }) => [name, code])).toEqual([
      ['none', 127],
      ['heavy', 0]
    ]);
  });
});
