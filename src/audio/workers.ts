import type { ListenReply, ListenRequest } from '@/workers/listenProtocol';
import type { Pulse } from '@/core/align';
import type { PulseRequest, RenderReply, OfflineRequest } from '@/workers/offlineRendererProtocol';
import type { ProvisionalNote, Transcription } from '@/core/transcribe';
import { ServerRefusal } from './persistence/serverTakes';

/** The band or a solo as samples, made off the main thread; aborting ends the work at once. */
export async function renderOffline(request: OfflineRequest, signal?: AbortSignal): Promise<Float32Array> {
  const reply = await studioReply(request, signal);
  if ('samples' in reply) return reply.samples;
  throw new Error('the studio answered something else');
}

/** Tempo and bar 1 of a recording, as the machine hears them; null where nothing pulses. */
export async function pulseIn(
  samples: Float32Array,
  rate: number,
  signal?: AbortSignal,
): Promise<Pulse | null> {
  const reply = await studioReply({ type: 'pulse', samples, rate }, signal);
  return 'pulse' in reply ? reply.pulse : null;
}

function studioReply(request: OfflineRequest | PulseRequest, signal?: AbortSignal): Promise<RenderReply> {
  const worker = new Worker(new URL('../workers/offlineRenderer.worker.ts', import.meta.url), {
    type: 'module',
  });
  return new Promise<RenderReply>((resolve, reject) => {
    worker.onmessage = ({ data }: MessageEvent<RenderReply>) =>
      'refused' in data ? reject(new Error(data.refused)) : resolve(data);
    worker.onerror = (event) => reject(new Error(event.message || 'This could not be played.'));
    signal?.addEventListener('abort', () => reject(new DOMException('cancelled', 'AbortError')));
    worker.postMessage(request);
  }).finally(() => worker.terminate());
}

const listenWorker = () =>
  new Worker(new URL('../workers/listen.worker.ts', import.meta.url), { type: 'module' });
const tell = (worker: Worker, request: ListenRequest, transfer: Transferable[] = []) =>
  worker.postMessage(request, transfer);

/** Listens to a take while it is recorded. */
export class LiveListener {
  private readonly worker = listenWorker();
  /** @param onLive hears of notes while they sound */
  constructor(
    rate: number,
    private readonly onLive: (notes: readonly ProvisionalNote[]) => void,
  ) {
    this.worker.onmessage = ({ data }: MessageEvent<ListenReply>) =>
      data.type === 'live' && this.onLive(data.notes);
    tell(this.worker, { type: 'begin', rate, backing: { rate } });
  }
  /** The band's next stretch, mono: it must keep ahead of what is recorded. */
  backing(samples: Float32Array): void {
    tell(this.worker, { type: 'backing', samples }, [samples.buffer]);
  }
  block(samples: Float32Array): void {
    tell(this.worker, { type: 'block', samples });
  }
  finish(): Promise<Transcription> {
    return new Promise<Transcription>((resolve, reject) => {
      this.worker.onmessage = ({ data }: MessageEvent<ListenReply>) =>
        data.type === 'notes' && resolve(data.transcription);
      this.worker.onerror = (event) => reject(new Error(event.message || 'The take could not be heard.'));
      tell(this.worker, { type: 'finish' });
    }).finally(() => this.close());
  }
  close(): void {
    this.worker.terminate();
  }
}

export type HeardFile = {
  readonly transcription: Transcription;
  readonly rate: number;
  readonly samples: Float32Array;
};

/** Reads and hears a WAV file; `progress` runs from 0 to 1; aborting ends the work at once. */
export function hearFile(
  bytes: ArrayBuffer,
  progress: (share: number) => void,
  signal: AbortSignal,
): Promise<HeardFile> {
  const worker = listenWorker();
  return new Promise<HeardFile>((resolve, reject) => {
    worker.onmessage = ({ data }: MessageEvent<ListenReply>) => {
      if (data.type === 'progress') progress(data.share);
      if (data.type === 'file-notes') resolve(data);
      if (data.type === 'refused') reject(new ServerRefusal(data.problem));
    };
    worker.onerror = (event) => reject(new Error(event.message || 'The recording could not be heard.'));
    signal.addEventListener('abort', () => reject(new DOMException('cancelled', 'AbortError')));
    tell(worker, { type: 'file', bytes }, [bytes]);
  }).finally(() => worker.terminate());
}
