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
  /** Half the size of the transform; what follows works at that size. */
  private readonly half: Samples;
  private readonly halfFft: FFT;
  private readonly halfPacked: Float64Array;
  private readonly twiddle: Float64Array;
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
    this.half = size / 2;
    this.halfFft = new FFT(this.half);
    this.halfPacked = this.packed.subarray(0, size);
    this.cross = new Float64Array(size + 2);
    this.correlation = new Float64Array(size);
    this.twiddle = new Float64Array(size);
    for (let k = 0; k < this.half; k++) {
      this.twiddle[2 * k] = Math.cos((2 * Math.PI * k) / size);
      this.twiddle[2 * k + 1] = Math.sin((2 * Math.PI * k) / size);
    }
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
      const difference = Math.max(0, own + energy - 2 * this.correlation[lag]!);
      running += difference;
      this.values[lag] = running > 1e-12 ? (difference * lag) / running : 1;
    }
    return this.values;
  }

  /**
   * r(τ) = Σ x[j]·x[j+τ] over the window. One complex FFT carries window and span. What comes back is real, so
   * that an inverse of half the size is enough: even lags as its real parts, odd ones as its imaginary parts
   * (Press et al., Numerical Recipes, 12.3), which is how they lie in `correlation`.
   */
  private correlate(samples: Float32Array, from: Samples): void {
    const { packed, spectrum, cross, half, twiddle } = this;
    packed.fill(0);
    for (let j = 0; j < this.window; j++) packed[2 * j] = samples[from + j]!;
    for (let j = 0; j < this.span; j++) packed[2 * j + 1] = samples[from + j]!;
    this.fft.transform(spectrum, packed);
    for (let k = 0; k <= half; k++) this.crossAt(k);
    for (let k = 0; k < half; k++) {
      // the spectrum of a real signal: its upper half is the lower one's conjugate, read backwards
      const opposite = 2 * (half - k);
      const differenceR = cross[2 * k]! - cross[opposite]!;
      const differenceI = cross[2 * k + 1]! + cross[opposite + 1]!;
      const cos = twiddle[2 * k]!;
      const sin = twiddle[2 * k + 1]!;
      packed[2 * k] = (cross[2 * k]! + cross[opposite]! - differenceR * sin - differenceI * cos) / 2;
      packed[2 * k + 1] =
        (cross[2 * k + 1]! - cross[opposite + 1]! + differenceR * cos - differenceI * sin) / 2;
    }
    this.halfFft.inverseTransform(this.correlation, this.halfPacked);
  }

  /** The window's spectrum, conjugated, times the span's, both out of the one transform. */
  private crossAt(k: number): void {
    const { spectrum, cross, half } = this;
    const mirror = (2 * half - k) & (2 * half - 1);
    const zr = spectrum[2 * k]!;
    const zi = spectrum[2 * k + 1]!;
    const mr = spectrum[2 * mirror]!;
    const mi = spectrum[2 * mirror + 1]!;
    const ar = (zr + mr) / 2;
    const ai = (zi - mi) / 2;
    const br = (zi + mi) / 2;
    const bi = (mr - zr) / 2;
    cross[2 * k] = ar * br + ai * bi;
    cross[2 * k + 1] = ar * bi - ai * br;
  }
}
