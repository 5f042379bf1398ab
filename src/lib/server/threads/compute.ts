/** A thread that answers the routes: a job's name and input in, JSON text out. What is a sound comes beside it as bytes. */
import { parentPort } from 'node:worker_threads';
import { PlayerError } from '../../api/errors';
import { answers, type ComputeJob } from '../compute/answers';
import type { ThreadAnswer, ThreadJob } from './pool';

function answerTo({ text, bytes }: ThreadJob): ThreadAnswer {
  try {
    const { name, input } = JSON.parse(text) as ComputeJob;
    return { kind: 'done', text: JSON.stringify(answers[name]((bytes ? { wav: bytes } : input) as never)) };
  } catch (thrown) {
    if (thrown instanceof PlayerError) return { kind: 'refused', status: thrown.status, error: thrown.error };
    return {
      kind: 'failed',
      message: thrown instanceof Error ? (thrown.stack ?? thrown.message) : String(thrown)
    };
  }
}

parentPort!.on('message', (job: ThreadJob) => parentPort!.postMessage(answerTo(job)));
