import path from 'node:path';
import { DeadlineThread } from '../threads/deadlineThread';
import type { JudgingRequest } from './judgeRequest';
import { failed, type JudgingAnswer } from './judgingAnswer';

/**
 * A take of 10 × 32 bars is judged in a tenth of a second; one that takes this long would stop everything
 * else.
 */
const DEADLINE_MS = 15_000;
const MEMORY_MB = 1_024;

/** Judges takes one after another in a thread of their own. */
class JudgingThread {
  private readonly thread = new DeadlineThread<JudgingRequest, JudgingAnswer>(
    path.resolve('dist', 'server', 'judging.worker.mjs'),
    MEMORY_MB,
  );

  /** @returns the judgement, or why there is none: the rules fail on this take, or the deadline passes */
  async judge(request: JudgingRequest, deadlineMs = DEADLINE_MS): Promise<JudgingAnswer> {
    const answer = await this.thread.ask(request, { deadlineMs });
    if (!('why' in answer)) return answer;
    return { error: answer.lost === 'late' ? 'It takes too long to judge.' : failed(answer.why), lost: true };
  }

  /** Starts the thread, so that the first take does not wait for it. */
  warm(): void {
    this.thread.warm();
  }
}

// development reloads modules, and the framework bundles some twice; the thread stays. Only plain data may
// come out of it.
const held = globalThis as { idleWanderJudging?: JudgingThread };
export const judgingThread = (): JudgingThread => (held.idleWanderJudging ??= new JudgingThread());
