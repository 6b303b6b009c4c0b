import type { Decibels, Samples } from '../shared';

/** Quietest level that is told apart from silence. */
export const SILENCE: Decibels = -120;

/** Root-mean-square level of a stretch of samples in dBFS (0 dB = a full-scale constant). */
export function levelOf(samples: Float32Array, from: Samples = 0, count: Samples = samples.length): Decibels {
  const until = Math.min(samples.length, from + count);
  let sum = 0;
  for (let n = Math.max(0, from); n < until; n++) sum += samples[n]! ** 2;
  return count > 0 && sum > 0 ? Math.max(SILENCE, 10 * Math.log10(sum / count)) : SILENCE;
}

/** Greatest absolute sample in dBFS. */
export function peakOf(samples: Float32Array): Decibels {
  let peak = 0;
  for (const value of samples) peak = Math.max(peak, Math.abs(value));
  return peak > 0 ? Math.max(SILENCE, 20 * Math.log10(peak)) : SILENCE;
}
