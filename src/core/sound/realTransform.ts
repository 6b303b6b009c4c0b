import type { Samples } from '../shared';
import { MODULE, NAMES } from './pffft';

type Address = number;
/** What this room uses of the module; addresses are bytes into its memory. */
type Native = {
  readonly memory: { readonly buffer: ArrayBuffer };
  allocate(bytes: number): Address;
  prepare(size: Samples, kind: number): Address;
  transform(plan: Address, from: Address, to: Address, work: Address, direction: number): void;
  transformOrdered(plan: Address, from: Address, to: Address, work: Address, direction: number): void;
  multiply(plan: Address, a: Address, b: Address, sum: Address, scale: number): void;
};
type Exports = Record<string, (...values: number[]) => number>;
type Memory = { readonly buffer: ArrayBuffer; grow(pages: number): number };
type Engine = {
  readonly Module: new (bytes: Uint8Array) => object;
  readonly Instance: new (
    module: object,
    imports: Record<string, Record<string, (...values: number[]) => unknown>>,
  ) => { readonly exports: Record<string, unknown> };
};

const REAL = 0;
const [FORWARD, BACKWARD] = [0, 1];
const PAGE = 65_536;
const SMALLEST: Samples = 32;

let loaded: Native | null = null;
/** One for each thread, made when it is first needed. */
function native(): Native {
  return (loaded ??= load());
}

function load(): Native {
  const { WebAssembly: engine, atob } = globalThis as unknown as {
    WebAssembly: Engine;
    atob: (text: string) => string;
  };
  const bytes = Uint8Array.from(atob(MODULE), (letter) => letter.charCodeAt(0));
  const fail = () => {
    throw new Error('The Fourier transform cannot work on this length.');
  };
  const instance = new engine.Instance(new engine.Module(bytes), {
    a: {
      [NAMES.fail]: fail,
      [NAMES.copy]: (to = 0, from = 0, count = 0) =>
        new Uint8Array(memory.buffer).copyWithin(to, from, from + count),
      [NAMES.grow]: (bytesWanted = 0) => {
        memory.grow(Math.ceil(((bytesWanted >>> 0) - memory.buffer.byteLength) / PAGE));
        return 1;
      },
    },
  });
  const memory = instance.exports[NAMES.memory] as Memory;
  const own = (name: string) => (instance.exports as Exports)[name] ?? fail;
  own(NAMES.start)();
  return {
    memory,
    allocate: own(NAMES.allocate),
    prepare: own(NAMES.prepare),
    transform: own(NAMES.transform),
    transformOrdered: own(NAMES.transformOrdered),
    multiply: own(NAMES.multiply),
  };
}

/**
 * The discrete Fourier transform of real signals of one length, in single precision (PFFFT, by Julien Pommier
 * after FFTPACK by Paul Swarztrauber). `real` and `bins` lie in the transform's own memory and all who ask for the
 * same length share them: fill one, transform, read the other before anything else is transformed.
 */
export class RealTransform {
  private readonly native = native();
  private readonly plan: Address;
  private readonly at: { real: Address; bins: Address; work: Address };
  /** Room for two spectra more, which only a correlation needs. */
  private also: { a: Address; b: Address } | null = null;
  private seen: ArrayBuffer | null = null;
  private realView = new Float32Array(0);
  private binsView = new Float32Array(0);

  private constructor(readonly size: Samples) {
    this.plan = this.native.prepare(size, REAL);
    if (this.plan === 0) throw new RangeError(`No Fourier transform of ${size} samples.`);
    this.at = { real: this.room(size), bins: this.room(size + 2), work: this.room(size) };
  }

  private static readonly made = new Map<Samples, RealTransform>();
  /** @param size a power of two, at least 32 */
  static of(size: Samples): RealTransform {
    if (size < SMALLEST || !Number.isInteger(Math.log2(size)))
      throw new RangeError(`A Fourier transform takes a power of two of at least 32 samples, not ${size}.`);
    const known = RealTransform.made.get(size);
    if (known) return known;
    const fresh = new RealTransform(size);
    RealTransform.made.set(size, fresh);
    return fresh;
  }

  /** The signal, `size` samples. */
  get real(): Float32Array {
    this.look();
    return this.realView;
  }

  /** Bins 0 … size / 2, real and imaginary parts by turns: `size` + 2 numbers. */
  get bins(): Float32Array {
    this.look();
    return this.binsView;
  }

  /** `real` to `bins`, without a factor. */
  forward(): Float32Array {
    const { native: engine, plan, at, size } = this;
    engine.transformOrdered(plan, at.real, at.bins, at.work, FORWARD);
    // the two bins that are real come as one pair
    const { bins } = this;
    bins[size] = bins[1]!;
    bins[size + 1] = 0;
    bins[1] = 0;
    return bins;
  }

  /** `bins` to `real`, so that it undoes `forward`; what `bins` held is gone. */
  inverse(): Float32Array {
    const { native: engine, plan, at, size, bins } = this;
    bins[1] = bins[size]!;
    for (let n = 0; n < size; n++) bins[n]! /= size;
    engine.transformOrdered(plan, at.bins, at.real, at.work, BACKWARD);
    return this.real;
  }

  /**
   * How alike a window and what follows its start are: r(τ) = Σ x[j] · x[j + τ] over j < `window`, for τ ≤ `lags`.
   * A circular convolution with the window read backwards: what wraps around falls before the first of these as
   * long as window + lags ≤ size.
   */
  correlation(samples: Float32Array, from: Samples, window: Samples, lags: Samples): Float32Array {
    this.readPattern(samples.subarray(from, from + window));
    this.correlate(samples, from, window + lags);
    return this.realView.subarray(window - 1);
  }

  /** The spectrum of what `correlateWith` looks for, in the order of its own the transform works in. */
  patternOf(pattern: Float64Array): Float32Array {
    const { a } = this.readPattern(pattern);
    return new Float32Array(this.native.memory.buffer, a, this.size).slice();
  }

  /**
   * Σ pattern[t] · samples[from + τ + t] for τ = 0 … size − length.
   * @param spectrum of the pattern, by `patternOf`
   * @param length of the pattern
   */
  correlateWith(spectrum: Float32Array, length: Samples, samples: Float32Array, from: Samples): Float32Array {
    const { a } = this.rooms();
    new Float32Array(this.native.memory.buffer, a, this.size).set(spectrum);
    this.correlate(samples, from, this.size);
    return this.realView.subarray(length - 1);
  }

  private readPattern(pattern: Float32Array | Float64Array): { a: Address } {
    const { native: engine, plan, at } = this;
    const { length } = pattern;
    const also = this.rooms();
    const { real } = this;
    real.set(pattern);
    real.subarray(0, length).reverse();
    real.fill(0, length);
    engine.transform(plan, at.real, also.a, at.work, FORWARD);
    return also;
  }

  private correlate(samples: Float32Array, from: Samples, count: Samples): void {
    const { native: engine, plan, at, size } = this;
    const { a, b } = this.rooms();
    const { real } = this;
    real.set(samples.subarray(from, from + count));
    real.fill(0, Math.min(count, samples.length - from));
    engine.transform(plan, at.real, b, at.work, FORWARD);
    this.binsView.fill(0);
    engine.multiply(plan, a, b, at.bins, 1 / size);
    engine.transform(plan, at.bins, at.real, at.work, BACKWARD);
  }

  private rooms(): { a: Address; b: Address } {
    return (this.also ??= { a: this.room(this.size), b: this.room(this.size) });
  }

  private room(numbers: number): Address {
    return this.native.allocate(4 * numbers);
  }

  /** The memory moves when it grows. */
  private look(): void {
    const { buffer } = this.native.memory;
    if (buffer === this.seen) return;
    this.seen = buffer;
    this.realView = new Float32Array(buffer, this.at.real, this.size);
    this.binsView = new Float32Array(buffer, this.at.bins, this.size + 2);
  }
}
