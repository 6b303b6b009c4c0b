import type { Hz } from '../shared';
import { Biquad } from './biquad';

/**
 * Second-order Butterworth high-pass, streaming (Bristow-Johnson, "Audio EQ Cookbook"): takes rumble and
 * direct current away.
 */
export class HighPass extends Biquad {
  constructor(cutoff: Hz, rate: Hz) {
    const w = (2 * Math.PI * cutoff) / rate;
    const alpha = Math.sin(w) / Math.SQRT2;
    const a0 = 1 + alpha;
    super({
      b: [(1 + Math.cos(w)) / 2 / a0, -(1 + Math.cos(w)) / a0, (1 + Math.cos(w)) / 2 / a0],
      a: [(-2 * Math.cos(w)) / a0, (1 - alpha) / a0],
    });
  }
}
