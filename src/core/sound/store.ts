import type { Samples } from '../shared';

const CHUNK = 8192;
const FULL = 32767;
/**
 * Chunks kept as numbers while they are read: readers go through a take in order, over and over the same
 * stretch.
 */
const OPENED = 24;

/**
 * A long signal kept in 16 bits: each chunk of 8192 samples has its own scale, so that a quiet take loses
 * nothing to a loud one.
 * Grows by chunks and never copies what it holds: a minute at 22 050 Hz takes 2.6 MB. What is no longer
 * asked for can be forgotten.
 */
export class SignalStore {
  private readonly chunks = new Map<number, { readonly values: Int16Array; readonly step: number }>();
  private count = 0;
  private open = new Float32Array(CHUNK);
  private filled = 0;

  get length(): Samples {
    return this.count * CHUNK + this.filled;
  }

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
    this.chunks.set(this.count++, { values, step });
    this.filled = 0;
  }

  /** Drops what lies before a sample, in whole chunks; it reads as zeros from then on. */
  forget(before: Samples): void {
    for (const index of this.chunks.keys()) {
      if ((index + 1) * CHUNK > before) break;
      this.chunks.delete(index);
      this.opened.delete(index);
    }
  }

  /**
   * Copies `into.length` samples from `from` on; zeros before the beginning, past the end and where it was
   * forgotten.
   */
  read(from: Samples, into: Float32Array | Float64Array): void {
    for (let at = 0; at < into.length;) {
      const place = from + at;
      const index = Math.floor(place / CHUNK);
      const within = place - index * CHUNK;
      const count = Math.min(into.length - at, CHUNK - within);
      const part = this.numbers(index);
      if (part) into.set(part.subarray(within, within + count), at);
      else into.fill(0, at, at + count);
      at += count;
    }
  }

  private readonly opened = new Map<number, Float32Array>();

  /** A chunk as numbers; null where there is none. */
  private numbers(index: number): Float32Array | null {
    if (index === this.count) {
      this.open.fill(0, this.filled);
      return this.open;
    }
    const chunk = this.chunks.get(index);
    if (!chunk) return null;
    const before = this.opened.get(index);
    if (before) return before;
    const made = new Float32Array(CHUNK);
    for (let n = 0; n < CHUNK; n++) made[n] = chunk.values[n]! * chunk.step;
    if (this.opened.size >= OPENED) this.opened.delete(this.opened.keys().next().value!);
    this.opened.set(index, made);
    return made;
  }
}
