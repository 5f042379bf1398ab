/** A thread that answers the routes: a job's name and input in, JSON text out. */
import { parentPort } from 'node:worker_threads';
import { PlayerError } from '../../api/errors';
import { answers, type ComputeJob } from '../compute/answers';
import type { ThreadAnswer } from './pool';

function answerTo(text: string): ThreadAnswer {
  try {
    const { name, input } = JSON.parse(text) as ComputeJob;
    return { kind: 'done', text: JSON.stringify(answers[name](input as never)) };
  } catch (thrown) {
    if (thrown instanceof PlayerError) return { kind: 'refused', status: thrown.status, error: thrown.error };
    return {
      kind: 'failed',
      message: thrown instanceof Error ? (thrown.stack ?? thrown.message) : String(thrown)
    };
  }
}

parentPort!.on('message', (text: string) => parentPort!.postMessage(answerTo(text)));
