import { parentPort } from 'node:worker_threads';
import { judgeRequest, type JudgingRequest } from './judgeRequest';
import { failed, type JudgingAnswer } from './judgingAnswer';

parentPort?.on('message', (request: JudgingRequest) => parentPort?.postMessage(answerTo(request)));

function answerTo(request: JudgingRequest): JudgingAnswer {
  try {
    return { judged: judgeRequest(request) };
  } catch (error) {
    return { error: failed(error) };
  }
}
