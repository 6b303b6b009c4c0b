import path from 'node:path';
import { Worker } from 'node:worker_threads';
import type { JudgingRequest } from './judgeRequest';
import { failed, type JudgingAnswer } from './judgingAnswer';

/**
 * A take of 10 × 32 bars is judged in a tenth of a second; one that takes this long would stop everything
 * else.
 */
const DEADLINE_MS = 15_000;
const MEMORY_MB = 1_024;

/**
 * Judges takes one after another in a thread of its own: a take that takes too long, or that breaks the
 * rules' code, is given up and the
 * server goes on answering.
 */
class JudgingThread {
  private worker: Worker | null = null;
  private queue: Promise<unknown> = Promise.resolve();

  /** @returns the judgement, or why there is none: the rules fail on this take, or the deadline passes */
  judge(request: JudgingRequest, deadlineMs = DEADLINE_MS): Promise<JudgingAnswer> {
    const next = this.queue.then(() => this.ask(request, deadlineMs));
    this.queue = next.catch(() => undefined);
    return next;
  }

  /** Starts the thread, so that the first take does not wait for it. */
  warm(): Worker {
    if (this.worker) return this.worker;
    const file = path.resolve('dist', 'server', 'judging.worker.mjs');
    this.worker = new Worker(file, { resourceLimits: { maxOldGenerationSizeMb: MEMORY_MB } });
    this.worker.unref();
    return this.worker;
  }

  private async ask(request: JudgingRequest, deadlineMs: number): Promise<JudgingAnswer> {
    const worker = this.warm();
    const answer = await answerOf(worker, request, deadlineMs);
    // whatever it is busy with ends with the thread; the next take gets another
    if ('lost' in answer) {
      this.worker = null;
      void worker.terminate();
    }
    return answer;
  }
}

/** Waits for one answer, the end of the thread or the deadline, whichever is first. */
function answerOf(worker: Worker, request: JudgingRequest, deadlineMs: number): Promise<JudgingAnswer> {
  return new Promise((resolve) => {
    const settle = (answer: JudgingAnswer) => {
      clearTimeout(timer);
      worker.off('message', settle).off('error', onError).off('exit', onExit);
      resolve(answer);
    };
    const lost = (error: string) => settle({ error, lost: true });
    const onError = (error: Error) => lost(failed(error));
    const onExit = () => lost('Judging it was cut off.');
    const timer = setTimeout(() => lost('It takes too long to judge.'), deadlineMs);
    worker.on('message', settle).on('error', onError).on('exit', onExit);
    worker.postMessage(request);
  });
}

// development reloads modules, and the framework bundles some twice; the thread stays. Only plain data may
// come out of it.
const held = globalThis as { idleWanderJudging?: JudgingThread };
export const judgingThread = (): JudgingThread => (held.idleWanderJudging ??= new JudgingThread());
