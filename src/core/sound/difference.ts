import type { Samples } from '../shared';
import { RealTransform } from './realTransform';

/**
 * The cumulative-mean-normalised difference function of YIN (de Cheveigné and Kawahara, JASA 2002, eq. 6
 * and 8), by FFT.
 * Buffers are made once; `compute` writes its own and leaves the input alone.
 */
export class NormalisedDifference {
  /** d'(τ) for τ = 0 … maxLag; valid until the next call. */
  readonly values: Float64Array;
  private readonly transform: RealTransform;
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
    this.transform = RealTransform.of(2 ** Math.ceil(Math.log2(this.span)));
    this.values = new Float64Array(maxLag + 1);
  }

  /** @param from first sample of the span in `samples` */
  compute(samples: Float32Array, from: Samples): Float64Array {
    const { window, maxLag, values } = this;
    const correlation = this.transform.correlation(samples, from, window, maxLag);
    let energy = 0;
    for (let j = 0; j < window; j++) energy += samples[from + j]! ** 2;
    const own = energy;
    let running = 0;
    values[0] = 1;
    for (let lag = 1; lag <= maxLag; lag++) {
      energy += samples[from + lag + window - 1]! ** 2 - samples[from + lag - 1]! ** 2;
      const difference = Math.max(0, own + energy - 2 * correlation[lag]!);
      running += difference;
      values[lag] = running > 1e-12 ? (difference * lag) / running : 1;
    }
    return values;
  }
}
