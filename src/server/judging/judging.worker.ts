import { parentPort } from 'node:worker_threads';
import { judgeRequest, type JudgedTake, type JudgingRequest } from './judgeRequest';

/** What a judging thread answers, one request at a time; `lost` where the thread itself did not come to an end. */
export type JudgingAnswer =
  { readonly judged: JudgedTake } | { readonly error: string; readonly lost?: true };

parentPort?.on('message', (request: JudgingRequest) => parentPort?.postMessage(answerTo(request)));

function answerTo(request: JudgingRequest): JudgingAnswer {
  try {
    return { judged: judgeRequest(request) };
  } catch (error) {
    return { error: `Judging it failed: ${error instanceof Error ? error.message : String(error)}.` };
  }
}
