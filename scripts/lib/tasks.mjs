// Tasks beside one another: as many at a time as there are processors, each after those that it needs.
import { spawn } from 'node:child_process';
import { availableParallelism } from 'node:os';
import { ROOT } from './setup.mjs';

/**
 * Runs tasks, `{ name, program, args, env?, after?: [name], weight? }`, in the order given where they may; `weight` counts the processors that one
 * keeps busy. A task after one that failed is not begun. Each is told to `done` when it has ended: `{ name, code, seconds, output }`; code
 * is null where it was not begun.
 */
export function runTasks(tasks, done, { slots = Math.max(2, availableParallelism()) } = {}) {
  const codes = new Map();
  const waiting = [...tasks];
  let free = slots;
  return new Promise((finished) => {
    const settle = (task, result) => {
      codes.set(task.name, result.code);
      done({ name: task.name, ...result });
      next();
    };
    const next = () => {
      for (const task of [...waiting]) {
        const needs = task.after ?? [];
        const isLost = needs.some((name) => codes.has(name) && codes.get(name) !== 0);
        if (isLost) {
          waiting.splice(waiting.indexOf(task), 1);
          return settle(task, { code: null, seconds: 0, output: '' });
        }
        const weight = Math.min(task.weight ?? 1, slots);
        if (weight > free || !needs.every((name) => codes.get(name) === 0)) continue;
        waiting.splice(waiting.indexOf(task), 1);
        free -= weight;
        begin(task, (result) => {
          free += weight;
          settle(task, result);
        });
      }
      if (codes.size === tasks.length) finished();
    };
    next();
  });
}

function begin({ program, args, env }, ended) {
  const start = Date.now();
  let output = '';
  const child = spawn(program, args, {
    cwd: ROOT,
    stdio: ['ignore', 'pipe', 'pipe'],
    env: { ...process.env, ...env }
  });
  for (const stream of [child.stdout, child.stderr]) stream.on('data', (piece) => (output += piece));
  let isOver = false;
  const end = (code) => {
    // A program that cannot be started tells of an error and of its end.
    if (isOver) return;
    isOver = true;
    ended({ code, seconds: (Date.now() - start) / 1000, output });
  };
  child.once('error', (error) => {
    output += String(error);
    end(127);
  });
  child.once('close', (code) => end(code ?? 1));
}
