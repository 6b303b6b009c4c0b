import { Worker, type TransferListItem } from 'node:worker_threads';

/** Why there is no answer: the thread ended, it took too long, or nobody waits for it any more. */
export type LostAnswer = { readonly lost: 'ended' | 'late' | 'given-up'; readonly why: string };

export type ThreadOptions = {
  readonly deadlineMs: number;
  /** Gives the work up where it is aborted. */
  readonly signal?: AbortSignal | undefined;
  /** Handed over rather than copied. */
  readonly transfer?: readonly TransferListItem[];
  /** How much of the work is done, 0 to 1, where the thread says so. */
  readonly onShare?: ((share: number) => void) | undefined;
};

/** What a thread says before its answer. */
export type ThreadShare = { readonly share: number };

/**
 * Does one thing after another in a thread of its own: what takes too long, or breaks its code, is given up, and the
 * server goes on answering.
 */
export class DeadlineThread<Request, Answer extends object> {
  private worker: Worker | null = null;
  private queue: Promise<unknown> = Promise.resolve();

  /** @param file with its path: a name that is put together here the framework's bundler would look for */
  constructor(
    private readonly file: string,
    private readonly memoryMb: number,
  ) {}

  /** Starts the thread, so that the first request does not wait for it. */
  warm(): Worker {
    if (this.worker) return this.worker;
    this.worker = new Worker(this.file, { resourceLimits: { maxOldGenerationSizeMb: this.memoryMb } });
    this.worker.unref();
    return this.worker;
  }

  ask(request: Request, options: ThreadOptions): Promise<Answer | LostAnswer> {
    const next = this.queue.then(() => this.answer(request, options));
    this.queue = next.catch(() => undefined);
    return next;
  }

  private async answer(request: Request, options: ThreadOptions): Promise<Answer | LostAnswer> {
    if (options.signal?.aborted) return givenUp;
    const worker = this.warm();
    const answer = await answerOf<Answer>(worker, request, options);
    // whatever it is busy with ends with the thread; the next request gets another
    if ('lost' in answer) {
      this.worker = null;
      void worker.terminate();
    }
    return answer;
  }
}

const givenUp: LostAnswer = { lost: 'given-up', why: 'Nobody waits for it any more.' };

/** Waits for one answer, the end of the thread, the deadline or being given up, whichever is first. */
function answerOf<Answer extends object>(
  worker: Worker,
  request: unknown,
  { deadlineMs, signal, transfer = [], onShare }: ThreadOptions,
): Promise<Answer | LostAnswer> {
  return new Promise((resolve) => {
    const onMessage = (message: Answer | ThreadShare) => {
      if ('share' in message) onShare?.(message.share);
      else settle(message);
    };
    const settle = (answer: Answer | LostAnswer) => {
      clearTimeout(timer);
      signal?.removeEventListener('abort', onAbort);
      worker.off('message', onMessage).off('error', onError).off('exit', onExit);
      resolve(answer);
    };
    const onAbort = () => settle(givenUp);
    const onError = (error: Error) => settle({ lost: 'ended', why: error.message });
    const onExit = () => settle({ lost: 'ended', why: 'It was cut off.' });
    const timer = setTimeout(() => settle({ lost: 'late', why: 'It takes too long.' }), deadlineMs);
    signal?.addEventListener('abort', onAbort);
    worker.on('message', onMessage).on('error', onError).on('exit', onExit);
    worker.postMessage(request, transfer);
  });
}
