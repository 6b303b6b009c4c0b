import { sha256, toPcm16 } from './pcm';

/** Puts one chunk where it is safe; throws `retry: false` where trying again cannot help. */
export type PutChunk = (sequence: number, pcm: Uint8Array<ArrayBuffer>, checksum: string) => Promise<void>;
export class ChunkRefused extends Error {}

const FIRST_WAIT_MS = 250;
const LONGEST_WAIT_MS = 5_000;

/**
 * Cuts a recording into chunks of about a second and sends them one after another while it goes on. A chunk leaves the queue only when
 * it is acknowledged; where the server does not answer it is sent again, later and later.
 */
export class ChunkSender {
  private pending: Float32Array[] = [];
  private pendingFrames = 0;
  private readonly queue: Uint8Array<ArrayBuffer>[] = [];
  private sequence = 0;
  private running: Promise<void> | null = null;
  private stopped = false;
  private refused: Error | null = null;
  frames = 0;

  constructor(
    private readonly put: PutChunk,
    private readonly chunkFrames: number,
    private readonly wait: (ms: number) => Promise<void> = (ms) => new Promise((done) => setTimeout(done, ms)),
  ) {}

  /** Chunks that are not yet acknowledged. */
  get waiting(): number {
    return this.queue.length;
  }

  add(samples: Float32Array): void {
    this.pending.push(samples);
    this.pendingFrames += samples.length;
    this.frames += samples.length;
    if (this.pendingFrames >= this.chunkFrames) this.cut();
  }

  /** Sends what is left; done when every chunk is acknowledged. Throws where one was refused. */
  async flush(): Promise<void> {
    if (this.pendingFrames > 0) this.cut();
    await this.running;
    if (this.refused) throw this.refused;
  }

  /** Gives up: nothing more is sent. */
  stop(): void {
    this.stopped = true;
    this.queue.length = 0;
  }

  private cut(): void {
    const joined = new Float32Array(this.pendingFrames);
    let at = 0;
    for (const block of this.pending) {
      joined.set(block, at);
      at += block.length;
    }
    this.pending = [];
    this.pendingFrames = 0;
    this.queue.push(toPcm16(joined));
    if (this.refused) return;
    this.running ??= this.send()
      .catch((error: Error) => (this.refused = error))
      .then(() => void (this.running = null));
  }

  private async send(): Promise<void> {
    let wait = FIRST_WAIT_MS;
    while (this.queue.length > 0 && !this.stopped) {
      const pcm = this.queue[0]!;
      try {
        await this.put(this.sequence, pcm, await sha256(pcm));
        this.queue.shift();
        this.sequence++;
        wait = FIRST_WAIT_MS;
      } catch (error) {
        if (error instanceof ChunkRefused) throw error;
        await this.wait(wait);
        wait = Math.min(LONGEST_WAIT_MS, wait * 2);
      }
    }
  }
}
