import type { Hz } from '../shared';

/**
 * Second-order Butterworth high-pass, streaming (Bristow-Johnson, "Audio EQ Cookbook"): takes rumble and
 * direct current away.
 */
export class HighPass {
  private readonly b: readonly [number, number, number];
  private readonly a: readonly [number, number];
  private x1 = 0;
  private x2 = 0;
  private y1 = 0;
  private y2 = 0;

  constructor(cutoff: Hz, rate: Hz) {
    const w = (2 * Math.PI * cutoff) / rate;
    const alpha = Math.sin(w) / Math.SQRT2;
    const a0 = 1 + alpha;
    this.b = [(1 + Math.cos(w)) / 2 / a0, -(1 + Math.cos(w)) / a0, (1 + Math.cos(w)) / 2 / a0];
    this.a = [(-2 * Math.cos(w)) / a0, (1 - alpha) / a0];
  }

  process(block: Float32Array): Float32Array {
    const out = new Float32Array(block.length);
    for (let n = 0; n < block.length; n++) {
      const x = block[n]!;
      const y =
        this.b[0] * x + this.b[1] * this.x1 + this.b[2] * this.x2 - this.a[0] * this.y1 - this.a[1] * this.y2;
      this.x2 = this.x1;
      this.x1 = x;
      this.y2 = this.y1;
      this.y1 = y;
      out[n] = y;
    }
    return out;
  }
}
