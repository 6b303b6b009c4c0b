import type { Hz, Samples, Seconds } from '../shared';
import { RealTransform } from './realTransform';
import { concat } from './resample';

const SIZE = 2048;
const HOP = SIZE / 4;
/** Frames of the band that one frame of the recording is explained by: what the room holds for 140 ms. */
const TAPS = 6;
/** The recording is held back this long before the first answer: the room has to be learnt first. */
const WARM_UP: Seconds = 8;
const PASSES = 2;
/** Frames overlap by three quarters: every other one teaches nearly as much as all. */
const LEARN_EVERY = 2;
const SOLVE_EVERY = 44;
const MEMORY: Seconds = 25;
const FLOOR = 1e-3;
const LOADING = 1e-3;
/**
 * Chance alone lets the band explain this much of a bin's weighted power (learnt frames overlap by half): less
 * is left alone.
 */
const CHANCE = 3 * TAPS;

/**
 * Takes a known signal, as loudspeaker and room coloured it, out of a recording. In each bin of a
 * short-time spectrum the recording is
 * explained by the last frames of the known signal, by recursive least squares weighted with the power of
 * what is left over, so that
 * moments in which the player is silent teach most (Nakatani et al., "Speech dereverberation based on
 * variance-normalized delayed
 * linear prediction", IEEE TASLP 2010, with the band in the place of the past; filters across frames after
 * Talmon, Cohen and Gannot,
 * IEEE TASLP 2009). Both signals come at one rate and in step; `alignmentOf` finds the step.
 */
export class LeakRemover {
  private readonly fourier = RealTransform.of(SIZE);
  private readonly bins: number;
  private readonly taper = Float64Array.from({ length: SIZE }, (_, n) =>
    Math.sin((Math.PI * (n + 0.5)) / SIZE),
  );
  private readonly past: Float64Array[];
  private readonly filters: Float64Array;
  private readonly normal: Float64Array;
  private readonly cross: Float64Array;
  private readonly explained: Float64Array;
  private readonly averagePower: Float64Array;
  private recording: Float32Array = new Float32Array(SIZE);
  private band: Float32Array = new Float32Array(SIZE);
  private readonly tail = new Float64Array(SIZE);
  private held: { y: Float64Array; x: Float64Array[] }[] | null = [];
  private frames = 0;
  private readonly warmUp: number;
  private readonly fade: number;

  /** @param highest frequencies above this are left as they are */
  constructor(
    private readonly rate: Hz,
    highest: Hz = 7000,
  ) {
    this.bins = Math.min(SIZE / 2, Math.ceil((highest / rate) * SIZE));
    this.past = Array.from({ length: TAPS }, () => new Float64Array(2 * this.bins));
    this.filters = new Float64Array(2 * TAPS * this.bins);
    this.normal = new Float64Array(2 * TAPS * TAPS * this.bins);
    this.cross = new Float64Array(2 * TAPS * this.bins);
    this.explained = new Float64Array(2 * this.bins);
    this.averagePower = new Float64Array(this.bins).fill(1e-9);
    this.warmUp = Math.round((WARM_UP * rate) / HOP);
    this.fade = Math.exp((-HOP * LEARN_EVERY) / rate / MEMORY);
  }

  /**
   * @returns the recording without the band, `SIZE` samples late and as long as what was put in, but for the
   * warm-up
   */
  push(recording: Float32Array, band: Float32Array): Float32Array {
    this.recording = concat([this.recording, recording]);
    this.band = concat([this.band, band]);
    const out: Float32Array[] = [];
    let from = 0;
    for (; from + SIZE <= Math.min(this.recording.length, this.band.length); from += HOP)
      out.push(...this.frame(from));
    this.recording = this.recording.slice(from);
    this.band = this.band.slice(from);
    return concat(out);
  }

  /** What is left; together with what `push` gave: `SIZE` leading samples, then the recording. */
  finish(): Float32Array {
    const rest = this.push(new Float32Array(2 * SIZE), new Float32Array(2 * SIZE));
    return concat([rest, ...this.release()]);
  }

  private frame(from: Samples): Float32Array[] {
    const x = this.held ? new Float64Array(2 * this.bins) : this.past[TAPS - 1]!;
    x.set(this.transform(this.band, from).subarray(0, 2 * this.bins));
    this.past.pop();
    this.past.unshift(x);
    const y = this.transform(this.recording, from);
    this.frames++;
    if (this.held) {
      this.held.push({ y: y.slice(), x: [...this.past] });
      return this.held.length < this.warmUp ? [] : this.release();
    }
    if (this.frames % LEARN_EVERY === 0) this.learn(y, this.past);
    if (this.frames % SOLVE_EVERY === 0) this.solve();
    return [this.clean(y, this.past)];
  }

  /** Learns from the frames held back, several times over, then lets them go. */
  private release(): Float32Array[] {
    const held = this.held ?? [];
    this.held = null;
    for (let pass = 0; pass < PASSES && held.length > 0; pass++) {
      this.normal.fill(0);
      this.cross.fill(0);
      for (let one = 0; one < held.length; one++) this.learn(held[one]!.y, held[one]!.x);
      this.solve();
    }
    return held.map(({ y, x }) => this.clean(y, x));
  }

  private readonly transformed = new Float64Array(SIZE + 2);

  /** Valid until the next call. */
  private transform(samples: Float32Array, from: Samples): Float64Array {
    const { real } = this.fourier;
    for (let n = 0; n < SIZE; n++) real[n] = samples[from + n]! * this.taper[n]!;
    this.transformed.set(this.fourier.forward());
    return this.transformed;
  }

  /** What the filters make of the band's last frames. */
  private explain(x: readonly Float64Array[]): Float64Array {
    const { explained, filters } = this;
    explained.fill(0);
    for (let tap = 0; tap < TAPS; tap++) {
      const frame = x[tap]!;
      for (let k = 0; k < this.bins; k++) {
        const hr = filters[2 * (k * TAPS + tap)]!;
        const hi = filters[2 * (k * TAPS + tap) + 1]!;
        const xr = frame[2 * k]!;
        const xi = frame[2 * k + 1]!;
        explained[2 * k]! += hr * xr - hi * xi;
        explained[2 * k + 1]! += hr * xi + hi * xr;
      }
    }
    return explained;
  }

  private readonly re = new Float64Array(TAPS);
  private readonly im = new Float64Array(TAPS);
  private readonly leftOver = new Float64Array(SIZE / 2 + 2);

  private learn(y: Float64Array, x: readonly Float64Array[]): void {
    const explained = this.explain(x);
    const { leftOver, averagePower, normal, cross, fade, re, im } = this;
    for (let k = 0; k < this.bins; k++) {
      leftOver[k] = (y[2 * k]! - explained[2 * k]!) ** 2 + (y[2 * k + 1]! - explained[2 * k + 1]!) ** 2;
      averagePower[k]! += (y[2 * k]! ** 2 + y[2 * k + 1]! ** 2 - averagePower[k]!) * 0.01;
    }
    for (let k = 1; k < this.bins; k++) {
      const around =
        (leftOver[k - 1]! + 2 * leftOver[k]! + (k + 1 < this.bins ? leftOver[k + 1]! : leftOver[k]!)) / 4;
      const weight = 1 / (around + FLOOR * averagePower[k]! + 1e-12);
      const yr = y[2 * k]!;
      const yi = y[2 * k + 1]!;
      const base = 2 * k * TAPS;
      const square = 2 * k * TAPS * TAPS;
      for (let a = 0; a < TAPS; a++) {
        re[a] = x[a]![2 * k]!;
        im[a] = x[a]![2 * k + 1]!;
      }
      for (let a = 0; a < TAPS; a++) {
        const ar = re[a]! * weight;
        const ai = im[a]! * weight;
        // conj(a) · y and conj(a) · b: the upper half alone, the matrix is Hermitian
        cross[base + 2 * a] = cross[base + 2 * a]! * fade + ar * yr + ai * yi;
        cross[base + 2 * a + 1] = cross[base + 2 * a + 1]! * fade + ar * yi - ai * yr;
        for (let b = a; b < TAPS; b++) {
          const br = re[b]!;
          const bi = im[b]!;
          const at = square + 2 * (a * TAPS + b);
          normal[at] = normal[at]! * fade + ar * br + ai * bi;
          normal[at + 1] = normal[at + 1]! * fade + ar * bi - ai * br;
        }
      }
    }
  }

  /** Cholesky in every bin (Golub and Van Loan, Matrix Computations, 4.2). */
  private solve(): void {
    const lower = new Float64Array(2 * TAPS * TAPS);
    const z = new Float64Array(2 * TAPS);
    for (let k = 1; k < this.bins; k++) {
      const base = 2 * k * TAPS;
      if (!this.factorise(lower, 2 * k * TAPS * TAPS)) continue;
      this.substituteForward(lower, z, base);
      let explained = 0;
      for (let i = 0; i < TAPS; i++) explained += z[2 * i]! ** 2 + z[2 * i + 1]! ** 2;
      substituteBack(lower, z);
      for (let a = 0; a < 2 * TAPS; a++) this.filters[base + a] = explained > CHANCE ? z[a]! : 0;
    }
  }

  /**
   * Cholesky factor of the loaded normal matrix of one bin, complex pairs row by row, into `lower`.
   * @returns false where the matrix is not positive definite
   */
  private factorise(lower: Float64Array, square: number): boolean {
    let trace = 0;
    for (let a = 0; a < TAPS; a++) trace += this.normal[square + 2 * (a * TAPS + a)]!;
    const load = (LOADING * trace) / TAPS + 1e-9;
    for (let i = 0; i < TAPS; i++)
      for (let j = 0; j <= i; j++) {
        // element (i, j) of the matrix is the conjugate of the stored (j, i)
        let re = this.normal[square + 2 * (j * TAPS + i)]! + (i === j ? load : 0);
        let im = -this.normal[square + 2 * (j * TAPS + i) + 1]!;
        for (let m = 0; m < j; m++) {
          const ar = lower[2 * (i * TAPS + m)]!;
          const ai = lower[2 * (i * TAPS + m) + 1]!;
          const br = lower[2 * (j * TAPS + m)]!;
          const bi = lower[2 * (j * TAPS + m) + 1]!;
          re -= ar * br + ai * bi;
          im -= ai * br - ar * bi;
        }
        if (i === j) {
          if (re <= 0) return false;
          lower[2 * (i * TAPS + i)] = Math.sqrt(Math.max(re, 1e-30));
          lower[2 * (i * TAPS + i) + 1] = 0;
        } else {
          const pivot = lower[2 * (j * TAPS + j)]!;
          lower[2 * (i * TAPS + j)] = re / pivot;
          lower[2 * (i * TAPS + j) + 1] = im / pivot;
        }
      }
    return true;
  }

  /** Solves the lower triangle for the cross spectrum of one bin, into `z`. */
  private substituteForward(lower: Float64Array, z: Float64Array, base: number): void {
    for (let i = 0; i < TAPS; i++) {
      let re = this.cross[base + 2 * i]!;
      let im = this.cross[base + 2 * i + 1]!;
      for (let m = 0; m < i; m++) {
        const ar = lower[2 * (i * TAPS + m)]!;
        const ai = lower[2 * (i * TAPS + m) + 1]!;
        re -= ar * z[2 * m]! - ai * z[2 * m + 1]!;
        im -= ar * z[2 * m + 1]! + ai * z[2 * m]!;
      }
      const pivot = lower[2 * (i * TAPS + i)]!;
      z[2 * i] = re / pivot;
      z[2 * i + 1] = im / pivot;
    }
  }

  /** The next HOP samples of the recording less what the filters explain, by weighted overlap and add. */
  private clean(y: Float64Array, x: readonly Float64Array[]): Float32Array {
    const explained = this.explain(x);
    const spectrum = this.fourier.bins;
    spectrum.set(y);
    for (let n = 0; n < 2 * this.bins; n++) spectrum[n] = y[n]! - explained[n]!;
    const wave = this.fourier.inverse();
    for (let n = 0; n < SIZE; n++) this.tail[n]! += (wave[n]! * this.taper[n]!) / 2;
    const out = Float32Array.from(this.tail.subarray(0, HOP));
    this.tail.copyWithin(0, HOP);
    this.tail.fill(0, SIZE - HOP);
    return out;
  }

  /** Samples by which the output lags the input. */
  static readonly lag: Samples = SIZE;
}

/** Solves the conjugate transpose of the lower triangle for `z`, in place. */
function substituteBack(lower: Float64Array, z: Float64Array): void {
  for (let i = TAPS - 1; i >= 0; i--) {
    let re = z[2 * i]!;
    let im = z[2 * i + 1]!;
    for (let m = i + 1; m < TAPS; m++) {
      const ar = lower[2 * (m * TAPS + i)]!;
      const ai = -lower[2 * (m * TAPS + i) + 1]!;
      re -= ar * z[2 * m]! - ai * z[2 * m + 1]!;
      im -= ar * z[2 * m + 1]! + ai * z[2 * m]!;
    }
    const pivot = lower[2 * (i * TAPS + i)]!;
    z[2 * i] = re / pivot;
    z[2 * i + 1] = im / pivot;
  }
}
