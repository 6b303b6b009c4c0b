import type { Score } from '@/workers/bandProtocol';
import { BandWorker } from './band/source';
import { IndexedTakeStore, type TakeStore } from './persistence/localTakes';
import type { AudioInput } from './input/audioInput';

const WARMED_SECONDS = 8;
/** No count-in waits longer for a browser's storage: the take is recorded without it. */
const STORAGE_PATIENCE_MS = 2_000;

/** The rate that an audio context has on this computer. */
async function usualRate(): Promise<number> {
  const context = new AudioContext();
  const { sampleRate } = context;
  await context.close();
  return sampleRate;
}

/** What outlives a take, so that the next one starts at once: the band's worker and the browser's storage. */
export class RecordingResources {
  private worker: BandWorker | null = null;
  private store: Promise<TakeStore | null> | null = null;
  constructor(readonly input: AudioInput) {}

  band(rate: number): BandWorker {
    if (this.worker?.rate !== rate) {
      this.worker?.close();
      this.worker = new BandWorker(rate);
    }
    return this.worker;
  }
  /**
   * Has the band ready before it is asked for: its instruments loaded, and the sounds of a score's first
   * bars made. A take that begins meanwhile is
   * not kept waiting by more than one window.
   */
  async warm(score: Score): Promise<void> {
    this.rate ??= await usualRate();
    const band = this.band(this.input.context?.sampleRate ?? this.rate);
    const source = await band.source(score);
    await source.window(0, Math.min(source.length, WARMED_SECONDS * band.rate));
  }
  private rate: number | null = null;

  /** Null where this browser keeps nothing for pages, or does not answer; once it does, the next take has it. */
  storage(): Promise<TakeStore | null> {
    return (this.store ??= this.openStore());
  }
  private async openStore(): Promise<TakeStore | null> {
    const opening = IndexedTakeStore.open().catch(() => null);
    const tooLate = new Promise<'late'>((done) => setTimeout(() => done('late'), STORAGE_PATIENCE_MS));
    const opened = await Promise.race([opening, tooLate]);
    if (opened !== 'late') return opened;
    void opening.then(() => (this.store = opening));
    return null;
  }
  close(): void {
    this.worker?.close();
    this.worker = null;
    void this.input.close();
  }
}
