import type { Hz, Samples } from '../shared';
import { NormalisedDifference } from './difference';
import { resample } from './resample';

/** A steady pitch and how clearly it is one: 1 is wholly periodic. */
export type SteadyPitch = { readonly hz: Hz; readonly clarity: number };

/** Coarse periods are looked for at about this rate. */
const COARSE: Hz = 24_000;
/** A stretch this long holds two periods of the lowest string. */
const COARSE_SECONDS = 0.09;
/** Nothing is told better by more samples a second than about these. */
const ENOUGH: Hz = 40_000;
/** From under the low F♯ of an eight-string to the top of a guitar's neck. */
const LOWEST: Hz = 38;
const HIGHEST: Hz = 1_500;
/** A dip of YIN's function this deep is a period; less is noise. */
const DEEP = 0.2;
/** Two periods explain the sound equally: the shorter is taken where its dip is nearly as deep. */
const NEARLY = 0.08;

/**
 * The pitch of a note that is held, for tuning: a coarse period by YIN (de Cheveigné and Kawahara, JASA
 * 2002), then the same period measured over
 * as many of itself as the stretch holds, by the normalised square difference (McLeod and Wyvill, ICMC
 * 2005). Within 0.3 cents of a steady
 * tone from 60 Hz to 1400 Hz at 44 100 samples a second and more.
 * @param samples about 0.15 to 0.25 s, mono
 * @returns null where nothing periodic sounds
 */
export function steadyPitch(samples: Float32Array, rate: Hz): SteadyPitch | null {
  const together = Math.floor(rate / ENOUGH);
  if (together > 1) return steadyPitch(averaged(samples, together), rate / together);
  const coarse = coarsePeriod(samples, rate);
  if (coarse === null) return null;
  let period = coarse;
  let clarity = 0;
  for (let count = 1; count * period < samples.length * 0.6; count *= 2) {
    // each step knows the period twice as well, and looks around it by a little more than it can be off
    const found = peakNear(
      samples,
      count * period,
      Math.max(2, (count === 1 ? 0.04 : 0.004) * count * period),
    );
    if (found === null) break;
    if (count === 1) clarity = found.clarity;
    else if (found.clarity < 0.5 * clarity) break;
    period = found.lag / count;
  }
  return clarity < 0.5 ? null : { hz: rate / period, clarity };
}

/** Samples averaged in groups: a plain low-pass, and fewer of them. */
function averaged(samples: Float32Array, together: number): Float32Array {
  return Float32Array.from({ length: Math.floor(samples.length / together) }, (_, n) => {
    let sum = 0;
    for (let k = 0; k < together; k++) sum += samples[n * together + k]!;
    return sum / together;
  });
}

function coarsePeriod(samples: Float32Array, rate: Hz): Samples | null {
  const low = resample(samples.subarray(0, Math.round(COARSE_SECONDS * rate)), rate, COARSE);
  const longest = Math.ceil(COARSE / LOWEST);
  const window = low.length - longest - 1;
  if (window < longest) return null;
  let energy = 0;
  for (const value of low) energy += value * value;
  if (energy / low.length < 1e-9) return null;
  const { values } = differenceOf(window, longest, low);
  const shortest = Math.floor(COARSE / HIGHEST);
  let best = Infinity;
  for (let lag = shortest; lag < longest; lag++) best = Math.min(best, values[lag]!);
  if (best > DEEP) return null;
  for (let lag = shortest; lag < longest; lag++)
    if (values[lag]! <= best + NEARLY && values[lag]! <= values[lag - 1]! && values[lag]! <= values[lag + 1]!)
      return (lag * rate) / COARSE;
  return null;
}

const made = new Map<number, NormalisedDifference>();
function differenceOf(window: Samples, longest: Samples, samples: Float32Array): NormalisedDifference {
  let difference = made.get(window);
  if (!difference) {
    if (made.size > 4) made.clear();
    made.set(window, (difference = new NormalisedDifference(window, longest)));
  }
  difference.compute(samples, 0);
  return difference;
}

/** The highest normalised square difference within `reach` of a lag, between samples by a parabola. */
function peakNear(
  samples: Float32Array,
  lag: number,
  reach: number,
): { lag: number; clarity: number } | null {
  const from = Math.max(2, Math.floor(lag - reach));
  const to = Math.min(samples.length - 2, Math.ceil(lag + reach));
  let best = -1;
  let at = -1;
  for (let one = from; one <= to; one++) {
    const value = similarity(samples, one);
    if (value > best) [best, at] = [value, one];
  }
  if (at <= from || at >= to) return null;
  const [before, after] = [similarity(samples, at - 1), similarity(samples, at + 1)];
  const bend = before - 2 * best + after;
  return { lag: at + (bend < 0 ? (0.5 * (before - after)) / bend : 0), clarity: best };
}

function similarity(samples: Float32Array, lag: Samples): number {
  let [product, power] = [0, 0];
  for (let n = 0; n + lag < samples.length; n++) {
    const [a, b] = [samples[n]!, samples[n + lag]!];
    product += a * b;
    power += a * a + b * b;
  }
  return power > 0 ? (2 * product) / power : 0;
}
