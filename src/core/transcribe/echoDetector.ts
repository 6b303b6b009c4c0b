import { median, type Hz, type Samples, type Seconds } from '../shared';
import { RealTransform, type SignalStore } from '../sound';
import { RATE } from './frames';

/** What stands for a delay effect: a copy of the sound `lag` later, `gain` times as large. */
export type EchoTap = { readonly lag: Samples; readonly gain: number };

export const WINDOW: Samples = 65_536;
const EVERY: Samples = 16_384;
type Band = { readonly from: Hz; readonly to: Hz };
/** Where a guitar's sound lies, and the copy of a delay that dulls it. */
const BAND: Band = { from: 30, to: 6_000 };
/** Where the copy of a delay that dulls nothing lies: the noise of each pick. */
const WIDE: Band = { from: 30, to: 10_000 };
/** So much of a ripple is to be found over the wide band too before a copy counts as one that is not dulled. */
const UNDULLED = 0.8;
const binOf = (hz: Hz): number => Math.round((hz / RATE) * WINDOW);
/** The upper edge of a band fades over this share of it. */
const EDGE = 0.1;
/** What one tap of a filter that acts in a band alone is of the ripple it makes there. */
const shareOf = ({ from, to }: Band): number => ((to - from) * (1 - EDGE / 2) * 2) / RATE;
const SHORTEST: Seconds = 0.055;
const LONGEST: Seconds = 1;
/** Repeats of repeats are followed this far. */
export const FURTHEST: Samples = Math.round(2.2 * RATE);
/** Far quieter than this under the loudest bin there is only noise, which is no copy of anything. */
const FLOOR = 1e-8;
/** The product of so many of them is still a number. */
const MOST_FACTORS = 32;
/** How many times its surroundings a peak of the cepstrum must be, and how large, before it is a delay. */
const STANDS_OUT = 10;
const LEAST_GAIN = 0.045;
/** A copy that has lost its treble is smeared: so far around its peak belongs to it, if it stands out at all. */
const [SMEAR_BEFORE, SMEAR_AFTER] = [9, 30];
const SMEAR_STANDS_OUT = 3.5;
const AROUND = 600;
/** What the edges of the windows take from a ripple, measured on delays of 0.25 to 0.5 s. */
const LOST = 1.03;
/** A window quieter than this share of the loudest is a pause. */
const PAUSE = 1e-4;
/** Few windows may agree by chance, where a line repeats itself: the fewer, the larger a delay must stand out. */
const LEAST_WINDOWS = 2;
const FEW_WINDOWS = 6;
const LEAST_TAP = 0.003;
const LEVELLED_OVER = 300;

let taper: Float64Array | null = null;

/**
 * Finds delay effects by the power cepstrum (Bogert, Healy and Tukey, 1963): a copy of the sound puts a ripple on
 * the logarithm of its spectrum, the same in every window, while the notes change from window to window. Windows
 * are added up as the take goes on.
 */
export class EchoDetector {
  private readonly fourier = RealTransform.of(WINDOW);
  private readonly samples = new Float64Array(WINDOW);
  private readonly taper = (taper ??= Float64Array.from(
    { length: WINDOW },
    (_, n) => 0.5 - 0.5 * Math.cos((2 * Math.PI * n) / WINDOW),
  ));
  private readonly power = new Float64Array(WINDOW / 2);
  /** Σ log of the windows before, and the product of those since, whose logarithm is not taken yet. */
  private readonly sum = new Float64Array(WINDOW / 2);
  private readonly product = new Float64Array(WINDOW / 2).fill(1);
  private multiplied = 0;
  private windows = 0;
  private loudest = 0;
  private next: Samples = 0;
  private found: readonly EchoTap[] = [];

  constructor(private readonly signal: SignalStore) {}

  /**
   * Reads what has come since.
   * @param until what comes after this is not asked, however much is there
   * @returns the cepstrum where it stands out of its surroundings: empty where nothing is delayed
   */
  read(until: Samples): readonly EchoTap[] {
    const before = this.windows;
    for (; this.next + WINDOW <= until; this.next += EVERY) this.add(this.next);
    if (this.windows !== before) this.found = this.windows < LEAST_WINDOWS ? [] : this.ripples();
    return this.found;
  }

  private add(from: Samples): void {
    const { samples, power, taper } = this;
    const { real } = this.fourier;
    this.signal.read(from, samples);
    for (let n = 0; n < WINDOW; n++) real[n] = samples[n]! * taper[n]!;
    const spectrum = this.fourier.forward();
    let most = 0;
    let energy = 0;
    for (let k = 0; k < power.length; k++) {
      power[k] = spectrum[2 * k]! ** 2 + spectrum[2 * k + 1]! ** 2;
      most = Math.max(most, power[k]!);
      energy += power[k]!;
    }
    this.loudest = Math.max(this.loudest, energy);
    if (energy < PAUSE * this.loudest || most === 0) return;
    const [first, last] = [binOf(WIDE.from), binOf(WIDE.to)];
    for (let k = first; k < last; k++) this.product[k]! *= power[k]! / most + FLOOR;
    this.windows++;
    if (++this.multiplied === MOST_FACTORS) this.addLogarithms();
  }

  private addLogarithms(): void {
    const { sum, product } = this;
    for (let k = binOf(WIDE.from); k < binOf(WIDE.to); k++) sum[k]! += Math.log(product[k]!);
    product.fill(1);
    this.multiplied = 0;
  }

  private ripples(): EchoTap[] {
    this.addLogarithms();
    const narrow = this.cepstrum(BAND);
    const lags = peaks(
      narrow,
      (lag) => noiseAround(narrow, lag),
      LEAST_GAIN * (1 + FEW_WINDOWS / this.windows),
    );
    if (lags.length === 0) return [];
    const wide = this.cepstrum(WIDE);
    const isDulled = lags.some((lag) => wide[lag]! < UNDULLED * narrow[lag]!);
    const [cepstrum, share] = isDulled ? [narrow, shareOf(BAND)] : [wide, shareOf(WIDE)];
    const taps = new Map<Samples, number>();
    const take = (around: Samples) => {
      const noise = noiseAround(cepstrum, around);
      for (let lag = around - SMEAR_BEFORE; lag <= around + SMEAR_AFTER; lag++)
        if (Math.abs(cepstrum[lag]!) > SMEAR_STANDS_OUT * noise) taps.set(lag, cepstrum[lag]! * share * LOST);
    };
    for (const lag of lags) for (let times = 1; times * lag < FURTHEST; times++) take(times * lag);
    return [...taps].map(([lag, gain]) => ({ lag, gain })).sort((a, b) => a.lag - b.lag);
  }

  /** Of the mean logarithmic spectrum within the band; at a delay it stands at the gain of its copy. */
  private cepstrum(band: Band): Float64Array {
    const [from, to] = [binOf(band.from), binOf(band.to)];
    const { real: even } = this.fourier;
    even.fill(0);
    const level = levelled(this.sum.subarray(from, to));
    for (let k = from; k < to; k++) {
      const inside = Math.min(1, (to - k) / (EDGE * (to - from)));
      const shape = 0.5 - 0.5 * Math.cos(Math.PI * inside);
      even[k] = even[WINDOW - k] = level[k - from]! * shape;
    }
    const out = this.fourier.forward();
    // a whole ripple of 2 · gain adds up to this
    const whole = 2 * (to - from) * (1 - EDGE / 2) * this.windows;
    const cepstrum = new Float64Array(WINDOW / 2);
    for (let lag = 0; lag < cepstrum.length; lag++) cepstrum[lag] = out[2 * lag]! / whole;
    return cepstrum;
  }
}

const noiseAround = (cepstrum: Float64Array, lag: Samples): number =>
  median([...cepstrum.subarray(Math.max(0, lag - AROUND), lag + AROUND)].map(Math.abs)) ?? 0;

/** Less its own slow course, so that the make of the guitar leaves no slope behind. */
function levelled(values: Float64Array): Float64Array {
  const sums = new Float64Array(values.length + 1);
  values.forEach((value, k) => (sums[k + 1] = sums[k]! + value));
  return values.map((value, k) => {
    const [low, high] = [Math.max(0, k - LEVELLED_OVER), Math.min(values.length, k + LEVELLED_OVER)];
    return value - (sums[high]! - sums[low]!) / (high - low);
  });
}

/** The largest peaks, at most three: more delays than that nobody sets at once. */
function peaks(cepstrum: Float64Array, noiseAt: (lag: Samples) => number, least: number): Samples[] {
  const found: Samples[] = [];
  const [from, to] = [Math.round(SHORTEST * RATE), Math.round(LONGEST * RATE)];
  for (let count = 0; count < 3; count++) {
    let [best, most] = [0, 0];
    for (let lag = from; lag <= to; lag++)
      if (cepstrum[lag]! > most && !found.some((other) => isMultiple(lag, other)))
        [best, most] = [lag, cepstrum[lag]!];
    if (most < least || most < STANDS_OUT * noiseAt(best)) break;
    found.push(best);
  }
  return found;
}

const isMultiple = (lag: Samples, other: Samples): boolean =>
  Math.abs(lag - other * Math.max(1, Math.round(lag / other))) <= SMEAR_AFTER;

/**
 * The filter that undoes the delays, as taps: a delay with feedback is of minimum phase, so its cepstrum is that
 * of its logarithm, and the inverse follows from it by recursion (Oppenheim and Schafer, Discrete-Time Signal
 * Processing, chapter on the cepstrum).
 */
export function inverseOf(ripples: readonly EchoTap[]): EchoTap[] {
  if (ripples.length === 0) return [];
  const response = new Float64Array(FURTHEST);
  response[0] = 1;
  for (let n = ripples[0]!.lag; n < FURTHEST; n++) {
    let sum = 0;
    for (const { lag, gain } of ripples) {
      if (lag > n) break;
      sum -= lag * gain * response[n - lag]!;
    }
    response[n] = sum / n;
  }
  const taps: EchoTap[] = [];
  response.forEach((gain, lag) => {
    if (lag > 0 && Math.abs(gain) > LEAST_TAP) taps.push({ lag, gain });
  });
  return taps;
}
