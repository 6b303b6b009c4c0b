import { availableParallelism } from 'node:os';
import { parentPort, Worker } from 'node:worker_threads';
import type { PlayedNote } from '../../src/core/analyse';
import { perform } from '../../src/core/band';
import { Transcriber, type Transcription } from '../../src/core/transcribe';

const MOST_THREADS = 4;

export type Performance = {
  readonly notes: readonly PlayedNote[];
  readonly tempo: number;
  readonly rate: number;
  readonly seed: number;
  readonly leadSeconds: number;
};
/** The sound of a performance, and what the ears made of it. */
export type Heard = { readonly samples: Float32Array; readonly transcription: Transcription };

/** Plays notes and listens to them. */
export function hear(performance: Performance): Heard {
  const samples = perform(performance);
  const transcriber = new Transcriber(performance.rate);
  // a second at a time
  for (let at = 0; at < samples.length; at += performance.rate)
    transcriber.push(samples.subarray(at, at + performance.rate));
  return { samples, transcription: transcriber.finish() };
}

/** In a thread: hears what is posted, one performance after the other. */
export function hearInThread(): void {
  parentPort?.on('message', (performance: Performance) => {
    const heard = hear(performance);
    parentPort?.postMessage(heard, [heard.samples.buffer as ArrayBuffer]);
  });
}

type Waiting = {
  readonly performance: Performance;
  readonly done: (heard: Heard) => void;
  readonly failed: (error: Error) => void;
};

/** Threads that play and listen, as many as the machine has cores, up to four. */
export class Listeners {
  private readonly threads: Worker[];
  private readonly idle: Worker[];
  private readonly queue: Waiting[] = [];

  /** @param file a script that calls `hearInThread` where it is no main thread */
  constructor(file: URL) {
    this.threads = Array.from(
      { length: Math.min(MOST_THREADS, availableParallelism()) },
      () => new Worker(file),
    );
    this.idle = [...this.threads];
  }

  hear(performance: Performance): Promise<Heard> {
    return new Promise((done, failed) => {
      this.queue.push({ performance, done, failed });
      this.next();
    });
  }

  async close(): Promise<void> {
    await Promise.all(this.threads.map((thread) => thread.terminate()));
  }

  private next(): void {
    const thread = this.idle.pop();
    if (!thread) return;
    const waiting = this.queue.shift();
    if (!waiting) return void this.idle.push(thread);
    const heard = (made: Heard) => {
      thread.off('error', waiting.failed);
      waiting.done(made);
      this.idle.push(thread);
      this.next();
    };
    // a thread that fails ends, and the filling with it
    thread.once('message', heard).once('error', waiting.failed);
    thread.postMessage(waiting.performance);
  }
}
