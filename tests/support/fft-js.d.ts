declare module 'fft.js' {
  /** Radix-4 FFT; complex arrays interleave real and imaginary parts. */
  export default class FFT {
    constructor(size: number);
    createComplexArray(): Float64Array;
    transform(out: Float64Array, input: Float64Array): void;
    inverseTransform(out: Float64Array, input: Float64Array): void;
    /** Fills the mirrored half that `realTransform` leaves out. */
    completeSpectrum(spectrum: Float64Array): void;
    realTransform(out: Float64Array, input: Float64Array): void;
  }
}
