import { concat } from '@/core/sound';
import { fromPcm24, sha256, toPcm24 } from '../pcm';
import type { Ending, LocalChunk, LocalTake, TakeStore } from './localTakes';
import { Refused, type TakeServer } from './serverTakes';

/**
 * Seconds of sound in a chunk: what can be lost when everything stops at once is one of these, and one block
 * of the worklet.
 */
export const CHUNK_SECONDS = 0.5;
const FIRST_WAIT_MS = 250;
const LONGEST_WAIT_MS = 4_000;
/** A take that is thrown away is sent for so long; the rest goes with the next visit. */
const DISCARD_PATIENCE_MS = 2_000;

/** A write that is not done by then is not waited for: the sound goes to the server from memory. */
const STORE_PATIENCE_MS = 3_000;

/** The browser's storage is full, or keeps nothing for this page: it was refused, or does not answer. */
export type StorageTrouble = 'full' | 'closed';

/** How safe a running take is: seconds that only this computer has, and what is wrong with its storage. */
export type Safety = {
  readonly waitingSeconds: number;
  readonly serverAnswers: boolean;
  readonly storageTrouble: StorageTrouble | null;
  /** Why the server will have no more of it; null where it will. */ readonly refused: string | null;
};

/**
 * Keeps a take while it is recorded: chunk by chunk in the browser's storage, then on the server, each
 * acknowledged. Where one of the two
 * fails the other goes on; where both fail the chunks wait in memory.
 */
export class TakeKeeper {
  frames = 0;
  private pending: Float32Array[] = [];
  private pendingFrames = 0;
  private readonly chunkFrames: number;
  /** Chunks the browser's storage would not take; sent from here. */
  private readonly inMemory = new Map<number, LocalChunk>();
  private cut = 0;
  private sent = 0;
  private storing: Promise<unknown>;
  private sending: Promise<void> | null = null;
  private stopped = false;
  private begun = false;
  private refusal: Refused | null = null;
  private answers = true;
  private storageTrouble: StorageTrouble | null;
  private wake: (() => void) | null = null;

  constructor(
    private readonly local: LocalTake,
    private readonly store: TakeStore | null,
    private readonly server: TakeServer,
    private readonly wait: (ms: number) => Promise<void> = (ms) =>
      new Promise((done) => setTimeout(done, ms)),
    private readonly storePatienceMs = STORE_PATIENCE_MS,
  ) {
    this.chunkFrames = Math.round(local.take.rate * CHUNK_SECONDS);
    this.storageTrouble = store === null ? 'closed' : null;
    this.storing = this.inStore((own) => own.begin(local));
    this.send();
  }

  get safety(): Safety {
    return {
      waitingSeconds: Math.max(0, this.cut - this.sent) * CHUNK_SECONDS,
      serverAnswers: this.answers,
      storageTrouble: this.storageTrouble,
      refused: this.refusal?.message ?? null,
    };
  }

  /** Where beat 0 lies is known from the first block on. */
  amend(offsetSec: number): void {
    this.storing = this.storing.then(() => this.inStore((own) => own.amend(this.local.id, { offsetSec })));
    this.offsetSec = offsetSec;
    this.send();
  }
  private offsetSec: number | null = null;

  add(samples: Float32Array): void {
    this.pending.push(samples);
    this.pendingFrames += samples.length;
    this.frames += samples.length;
    if (this.pendingFrames >= this.chunkFrames) this.cutChunk();
  }

  private cutChunk(): void {
    const joined = concat(this.pending);
    this.pending = [];
    this.pendingFrames = 0;
    const sequence = this.cut++;
    const pcm = toPcm24(joined);
    this.storing = this.storing.then(async () => {
      const chunk = { pcm, checksum: await sha256(pcm) };
      const kept = await this.inStore((own) => own.put(this.local.id, sequence, chunk));
      if (!kept) this.inMemory.set(sequence, chunk);
      this.send();
    });
  }

  /**
   * Does something with the browser's storage; where that fails once (full, forbidden, without an answer) it is
   * not asked again in this take.
   */
  private async inStore(work: (store: TakeStore) => Promise<void>): Promise<boolean> {
    if (this.store === null || this.storageTrouble) return false;
    try {
      await answered(work(this.store), this.storePatienceMs);
      return true;
    } catch (error) {
      this.storageTrouble = (error as Error | null)?.name === 'QuotaExceededError' ? 'full' : 'closed';
      return false;
    }
  }

  private send(): void {
    if (this.stopped || this.refusal) return;
    this.sending ??= this.run().then(() => void (this.sending = null));
  }

  private async run(): Promise<void> {
    let wait = FIRST_WAIT_MS;
    while (!this.stopped && !this.refusal) {
      try {
        if (!(await this.step())) return;
        this.answers = true;
        wait = FIRST_WAIT_MS;
      } catch (error) {
        if (error instanceof Refused) {
          this.refusal = error;
          return;
        }
        this.answers = false;
        await Promise.race([this.wait(wait), new Promise<void>((done) => (this.wake = done))]);
        wait = Math.min(LONGEST_WAIT_MS, wait * 2);
      }
    }
  }

  /**
   * One thing the server does not have yet: the take itself, its offset, or its next chunk. False where it has
   * everything.
   */
  private async step(): Promise<boolean> {
    const { id, take } = this.local;
    if (!this.begun) {
      await this.server.begin({ ...take, id });
      this.begun = true;
      return true;
    }
    if (this.offsetSec !== null) {
      const offsetSec = this.offsetSec;
      await this.server.amend(id, { offsetSec });
      if (this.offsetSec === offsetSec) this.offsetSec = null;
      return true;
    }
    const chunk =
      this.inMemory.get(this.sent) ??
      (this.store &&
        (await answered(this.store.chunk(id, this.sent), this.storePatienceMs).catch(() => undefined)));
    if (!chunk) return false;
    await this.server.put(id, this.sent, chunk);
    this.inMemory.delete(this.sent);
    this.sent++;
    return true;
  }

  /** All samples so far as this computer has them: for hearing a take again where the server is away. */
  async samples(): Promise<Float32Array[]> {
    const all: Float32Array[] = [];
    for (let sequence = 0; sequence < this.cut; sequence++) {
      const chunk = this.inMemory.get(sequence) ?? (await this.store?.chunk(this.local.id, sequence));
      if (chunk) all.push(fromPcm24(chunk.pcm));
    }
    return all;
  }

  /**
   * Ends the take: the end is written down here first, then told the server.
   * @param patienceMs how long the server is waited for
   * @returns whether the server has all of it; if not, the next start sends the rest
   */
  async finish(ending: Omit<Ending, 'frames'>, patienceMs: number): Promise<boolean> {
    if (this.pendingFrames > 0) this.cutChunk();
    await this.storing;
    const whole: Ending = { ...ending, frames: this.frames };
    await this.inStore((own) => own.amend(this.local.id, { ending: whole, offsetSec: whole.offsetSec }));
    const told = (async () => {
      this.offsetSec = null;
      for (let wait = FIRST_WAIT_MS; !this.stopped; wait = Math.min(LONGEST_WAIT_MS, wait * 2)) {
        this.wake?.();
        this.send();
        await this.sending;
        if (this.refusal) throw this.refusal;
        try {
          await this.server.finish(this.local.id, whole);
          await this.inStore((own) => own.remove(this.local.id));
          return true;
        } catch (error) {
          if (error instanceof Refused) throw error;
          this.answers = false;
          await this.wait(wait);
        }
      }
      return false;
    })();
    return Promise.race([told, this.wait(patienceMs).then(() => false)]).finally(
      () => void told.catch(() => undefined),
    );
  }

  /**
   * Puts the take in the server's trash, with all of it that there is. Where the server is away, the next
   * visit does it.
   * @returns whether it can be brought back
   */
  async discard(): Promise<boolean> {
    const { id } = this.local;
    // it is in the trash at once, whatever becomes of this page; its end follows
    const atOnce = this.begun ? this.trash(true) : null;
    if (this.pendingFrames > 0) this.cutChunk();
    await this.storing;
    await this.inStore((own) => own.amend(id, { discarded: true }));
    await atOnce;
    await this.sendAll(DISCARD_PATIENCE_MS);
    this.stopped = true;
    this.wake?.();
    const hasMore = this.sent < this.cut && !this.refusal && !this.storageTrouble;
    const recoverable = this.begun ? await this.trash(hasMore) : null;
    if (hasMore && recoverable !== null) await this.inStore((own) => own.amend(id, { inTrash: true }));
    else if (recoverable !== null || this.cut === 0) await this.inStore((own) => own.remove(id));
    return recoverable === true;
  }

  /** @returns whether the take can be brought back; null where the server does not answer in time */
  private trash(hasMore: boolean): Promise<boolean | null> {
    const asked = this.server
      .discard(this.local.id, hasMore)
      .catch((error: unknown) => (error instanceof Refused ? false : null));
    return Promise.race([asked, this.wait(DISCARD_PATIENCE_MS).then(() => null)]);
  }

  /** Sends what the server does not have yet, for at most `patienceMs`. */
  private async sendAll(patienceMs: number): Promise<void> {
    let isOver = false;
    const over = this.wait(patienceMs).then(() => void (isOver = true));
    // a run that is just ending may have looked for a chunk before it was cut: one without progress is not the last
    for (let idle = 0; !isOver && !this.refusal && idle < 2;) {
      const before = this.sent;
      this.wake?.();
      this.send();
      await Promise.race([this.sending, over]);
      if (this.sent === this.cut) break;
      idle = this.sent === before ? idle + 1 : 0;
    }
  }

  /** Lets go without an end: what was kept is offered again. */
  abandon(): void {
    this.stopped = true;
    this.wake?.();
  }
}

/** The promise, or a failure where it takes longer. */
async function answered<T>(promise: Promise<T>, patienceMs: number): Promise<T> {
  let timer: ReturnType<typeof setTimeout> | undefined;
  const late = new Promise<never>((_, fail) => {
    timer = setTimeout(() => fail(new Error('The storage does not answer.')), patienceMs);
  });
  return Promise.race([promise, late]).finally(() => clearTimeout(timer));
}
