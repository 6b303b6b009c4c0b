import { parentPort, type TransferListItem } from 'node:worker_threads';
import type { ThreadShare } from '../threads/deadlineThread';
import { fileWork, type FileAnswer, type FileRequest } from './fileWork';

/** Sound is handed over, not copied: of half an hour it is three hundred megabytes. */
function handedOver(answer: FileAnswer): TransferListItem[] {
  if (!('done' in answer) || typeof answer.done !== 'object' || !('sound' in answer.done)) return [];
  return answer.done.sound ? [answer.done.sound.samples.buffer as ArrayBuffer] : [];
}

parentPort?.on('message', (request: FileRequest) => {
  const onShare = (share: number) => parentPort?.postMessage({ share } satisfies ThreadShare);
  void fileWork(request, onShare).then((answer) => parentPort?.postMessage(answer, handedOver(answer)));
});
