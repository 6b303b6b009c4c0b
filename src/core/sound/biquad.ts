/** The coefficients of a second-order filter; the first of the way back is 1. */
export type BiquadCoefficients = {
  readonly b: readonly [number, number, number];
  readonly a: readonly [number, number];
};

/** A second-order filter, streaming: what it remembers goes from block to block. */
export class Biquad {
  private readonly b: BiquadCoefficients['b'];
  private readonly a: BiquadCoefficients['a'];
  private x1 = 0;
  private x2 = 0;
  private y1 = 0;
  private y2 = 0;

  constructor({ b, a }: BiquadCoefficients) {
    this.b = b;
    this.a = a;
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
