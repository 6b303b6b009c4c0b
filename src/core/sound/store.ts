import type { Samples } from '../vocabulary';

const CHUNK = 8192;
const FULL = 32767;

/**
 * A long signal kept in 16 bits: each chunk of 8192 samples has its own scale, so that a quiet take loses nothing to a loud one.
 * Grows by chunks and never copies what it holds: 30 minutes at 22 050 Hz take 79 MB.
 */
export class SignalStore {
  private readonly chunks: { readonly values: Int16Array; readonly step: number }[] = [];
  private open = new Float32Array(CHUNK);
  private filled = 0;

  get length(): Samples { return this.chunks.length * CHUNK + this.filled; }

  push(block: Float32Array): void {
    for (let at = 0; at < block.length;) {
      const count = Math.min(block.length - at, CHUNK - this.filled);
      this.open.set(block.subarray(at, at + count), this.filled);
      this.filled += count;
      at += count;
      if (this.filled === CHUNK) this.close();
    }
  }

  private close(): void {
    let peak = 0;
    for (let n = 0; n < CHUNK; n++) peak = Math.max(peak, Math.abs(this.open[n]!));
    const step = peak / FULL || 1;
    const values = new Int16Array(CHUNK);
    for (let n = 0; n < CHUNK; n++) values[n] = Math.round(this.open[n]! / step);
    this.chunks.push({ values, step });
    this.filled = 0;
  }

  /** Copies `into.length` samples from `from` on; zeros before the beginning and past the end. */
  read(from: Samples, into: Float32Array | Float64Array): void {
    for (let at = 0; at < into.length;) {
      const place = from + at;
      const index = Math.floor(place / CHUNK);
      const within = place - index * CHUNK;
      const count = Math.min(into.length - at, CHUNK - within);
      const chunk = this.chunks[index];
      for (let n = 0; n < count; n++)
        into[at + n] = chunk ? chunk.values[within + n]! * chunk.step : index === this.chunks.length && within + n < this.filled ? this.open[within + n]! : 0;
      at += count;
    }
  }
}
