import type { Hz, Samples } from '../shared';
import { RealTransform } from './realTransform';

/**
 * A magnitude spectrum that is asked at any frequency: a full-scale sine reads 1 whatever the length of the
 * window.
 */
export type Magnitudes = { readonly values: Float64Array; readonly binHz: Hz };

const MOST_WINDOWS = 64;

/** Hann-windowed, zero-padded magnitude spectra. */
export class SpectrumReader {
  private readonly transform: RealTransform;

  /** @param size length of the transform, a power of two */
  constructor(
    readonly size: Samples,
    readonly rate: Hz,
  ) {
    this.transform = RealTransform.of(size);
  }

  /** @param samples at most `size` samples */
  read(samples: Float64Array): Magnitudes {
    const { length } = samples;
    const { real } = this.transform;
    const window = this.windowOf(length);
    for (let n = 0; n < length; n++) real[n] = samples[n]! * window[n]!;
    real.fill(0, length);
    const spectrum = this.transform.forward();
    const values = new Float64Array(this.size / 2);
    for (let k = 0; k < values.length; k++)
      values[k] = (4 / length) * Math.sqrt(spectrum[2 * k]! ** 2 + spectrum[2 * k + 1]! ** 2);
    return { values, binHz: this.rate / this.size };
  }

  private readonly windows = new Map<Samples, Float64Array>();
  private windowOf(length: Samples): Float64Array {
    let window = this.windows.get(length);
    if (!window) {
      if (this.windows.size >= MOST_WINDOWS) this.windows.clear();
      window = Float64Array.from(
        { length },
        (_, n) => 0.5 - 0.5 * Math.cos((2 * Math.PI * (n + 0.5)) / length),
      );
      this.windows.set(length, window);
    }
    return window;
  }
}

const NEAR = 2 ** (35 / 1200);

/** The greatest magnitude within 35 cents of a frequency; zero outside the spectrum. */
export function magnitudeNear({ values, binHz }: Magnitudes, hz: Hz): number {
  const [low, high] = [hz / NEAR / binHz, (hz * NEAR) / binHz];
  if (high >= values.length - 1) return 0;
  let most = Math.max(between(values, low), between(values, high), between(values, hz / binHz));
  for (let k = Math.ceil(low); k <= high; k++) if (values[k]! > most) most = values[k]!;
  return most;
}

const between = (values: Float64Array, at: number): number => {
  const k = Math.floor(at);
  return values[k]! + (values[k + 1]! - values[k]!) * (at - k);
};
