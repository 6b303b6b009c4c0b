import FFT from 'fft.js';
import type { Samples } from '../shared';

/**
 * The cumulative-mean-normalised difference function of YIN (de Cheveigné and Kawahara, JASA 2002, eq. 6
 * and 8), by FFT.
 * Buffers are made once; `compute` writes its own and leaves the input alone.
 */
export class NormalisedDifference {
  /** d'(τ) for τ = 0 … maxLag; valid until the next call. */
  readonly values: Float64Array;
  private readonly fft: FFT;
  private readonly packed: Float64Array;
  private readonly spectrum: Float64Array;
  private readonly cross: Float64Array;
  private readonly correlation: Float64Array;
  readonly span: Samples;

  /**
   * @param window integration window in samples
   * @param maxLag longest period in samples; window + maxLag samples are read
   */
  constructor(
    readonly window: Samples,
    readonly maxLag: Samples,
  ) {
    this.span = window + maxLag;
    const size = 2 ** Math.ceil(Math.log2(this.span));
    this.fft = new FFT(size);
    this.packed = new Float64Array(2 * size);
    this.spectrum = new Float64Array(2 * size);
    this.cross = new Float64Array(2 * size);
    this.correlation = new Float64Array(2 * size);
    this.values = new Float64Array(maxLag + 1);
  }

  /** @param from first sample of the span in `samples` */
  compute(samples: Float32Array, from: Samples): Float64Array {
    this.correlate(samples, from);
    let energy = 0;
    for (let j = 0; j < this.window; j++) energy += samples[from + j]! ** 2;
    const own = energy;
    let running = 0;
    this.values[0] = 1;
    for (let lag = 1; lag <= this.maxLag; lag++) {
      energy += samples[from + lag + this.window - 1]! ** 2 - samples[from + lag - 1]! ** 2;
      const difference = Math.max(0, own + energy - 2 * this.correlation[2 * lag]!);
      running += difference;
      this.values[lag] = running > 1e-12 ? (difference * lag) / running : 1;
    }
    return this.values;
  }

  /**
   * r(τ) = Σ x[j]·x[j+τ] over the window: one complex FFT carries window and span, one inverse brings r back.
   */
  private correlate(samples: Float32Array, from: Samples): void {
    const size = this.packed.length / 2;
    this.packed.fill(0);
    for (let j = 0; j < this.span; j++) {
      if (j < this.window) this.packed[2 * j] = samples[from + j]!;
      this.packed[2 * j + 1] = samples[from + j]!;
    }
    this.fft.transform(this.spectrum, this.packed);
    for (let k = 0; k < size; k++) {
      const mirror = (size - k) % size;
      const zr = this.spectrum[2 * k]!;
      const zi = this.spectrum[2 * k + 1]!;
      const mr = this.spectrum[2 * mirror]!;
      const mi = this.spectrum[2 * mirror + 1]!;
      const ar = (zr + mr) / 2;
      const ai = (zi - mi) / 2;
      const br = (zi + mi) / 2;
      const bi = (mr - zr) / 2;
      this.cross[2 * k] = ar * br + ai * bi;
      this.cross[2 * k + 1] = ar * bi - ai * br;
    }
    this.fft.inverseTransform(this.correlation, this.cross);
  }
}
