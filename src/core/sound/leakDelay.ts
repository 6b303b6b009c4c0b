import type { Hz, Samples, Seconds } from '../shared';
import { RealTransform } from './realTransform';

/**
 * Where a signal lies in a recording: how many samples later it arrives, and how far that answer stands out of
 * all others.
 */
export type LeakDelay = { readonly delay: Samples; readonly prominence: number };

/**
 * How many samples later a signal arrives in a recording, by generalised cross-correlation with phase
 * transform (Knapp and Carter,
 * IEEE TASSP 1976), over what is given of both. Prominence is the peak over the root mean square of the
 * correlation.
 */
export function alignmentOf(
  recording: Float32Array,
  signal: Float32Array,
  rate: Hz,
  [earliest, latest]: readonly [Seconds, Seconds] = [-4, 8],
): LeakDelay {
  const length = Math.max(recording.length, signal.length);
  const size = 2 ** Math.ceil(Math.log2(length + Math.max(-earliest, latest) * rate));
  const fourier = RealTransform.of(size);
  const spectrumOf = (samples: Float32Array) => {
    const { real } = fourier;
    real.fill(0);
    real.set(samples);
    return fourier.forward().slice();
  };
  const a = spectrumOf(recording);
  const b = spectrumOf(signal);
  const { bins } = fourier;
  // the upper half of the spectrum mirrors the lower one
  let total = 0;
  for (let k = 0; k <= size / 2; k++) total += (k === 0 || k === size / 2 ? 1 : 2) * magnitudeAt(b, k);
  const floor = (total / size) * 0.3 + 1e-12;
  for (let k = 0; k <= size / 2; k++) {
    const hz = (k * rate) / size;
    const weight = hz > 80 && hz < 6000 ? 1 / (magnitudeAt(a, k) * (magnitudeAt(b, k) + floor) + 1e-12) : 0;
    bins[2 * k] = (a[2 * k]! * b[2 * k]! + a[2 * k + 1]! * b[2 * k + 1]!) * weight;
    bins[2 * k + 1] = (a[2 * k + 1]! * b[2 * k]! - a[2 * k]! * b[2 * k + 1]!) * weight;
  }
  const correlation = fourier.inverse();
  let [delay, most, power] = [0, -Infinity, 0];
  for (let lag = Math.round(earliest * rate); lag <= Math.round(latest * rate); lag++) {
    const value = correlation[(lag + size) % size]!;
    power += value * value;
    if (value > most) [delay, most] = [lag, value];
  }
  return { delay, prominence: power > 0 ? most / Math.sqrt(power / ((latest - earliest) * rate)) : 0 };
}

// Math.hypot takes several times as long, for numbers much larger than these
const magnitudeAt = (spectrum: Float32Array, k: number): number =>
  Math.sqrt(spectrum[2 * k]! ** 2 + spectrum[2 * k + 1]! ** 2);
