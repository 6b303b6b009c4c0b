import { median, type BeatsPerMinute, type Hz, type Seconds } from '../shared';
import { resample, SpectralFlux } from '../sound';

/** A steady pulse found in a recording, or tapped. */
export type Pulse = {
  readonly tempo: BeatsPerMinute;
  /** Where bar 1 begins. */ readonly firstSec: Seconds;
  /** 0 to 1: how much of the onset strength lies on the pulse. */ readonly certainty: number;
};

const RATE: Hz = 11_025;
const SIZE = 512;
const HOP = 110;
const STEP: Seconds = HOP / RATE;
/**
 * People tap near this tempo; others are believed less the further off they lie, in octaves (Ellis, JNMR
 * 2007).
 */
const USUAL: BeatsPerMinute = 112;
const WIDTH = 0.9;
const LOWEST: BeatsPerMinute = 40;
const HIGHEST: BeatsPerMinute = 320;

/**
 * The tempo of a backing track and where its bar 1 begins: autocorrelation of onset strength under a
 * preference for usual tempi, then the steady
 * pulse that gathers most strength (after Ellis, "Beat tracking by dynamic programming", JNMR 2007; a
 * backing track keeps one tempo, so
 * that a grid serves). A proposal: the player confirms or taps.
 */
export function pulseOf(samples: Float32Array, rate: Hz): Pulse | null {
  const strength = onsetStrength(resample(samples, rate, RATE));
  if (strength.length < 4 / STEP) return null;
  const coarse = likelyPeriod(strength);
  if (coarse === null) return null;
  const { period, phase, share } = bestGrid(strength, coarse);
  // music begins with the first strong onset; bar 1 is the pulse nearest to it
  const strong = 0.3 * Math.max(...strength.subarray(0, Math.min(strength.length, Math.round(20 / STEP))));
  const begins = strength.findIndex((value) => value > strong);
  const first = phase + Math.max(0, Math.round((begins - phase) / period)) * period;
  return { tempo: 60 / (period * STEP), firstSec: first * STEP, certainty: share };
}

/** Flux over each half second's mean: what stands out locally. */
function onsetStrength(samples: Float32Array): Float32Array {
  const flux = new SpectralFlux(SIZE, 2);
  const padded = new Float32Array(samples.length + SIZE);
  padded.set(samples, SIZE / 2);
  const raw = Float32Array.from({ length: Math.floor(samples.length / HOP) }, (_, frame) =>
    flux.next(padded, frame * HOP),
  );
  const half = Math.round(0.5 / STEP);
  return raw.map((value, frame) => {
    let [sum, count] = [0, 0];
    for (let n = Math.max(0, frame - half); n < Math.min(raw.length, frame + half); n += 4, count++)
      sum += raw[n]!;
    return Math.max(0, value - sum / Math.max(1, count));
  });
}

function likelyPeriod(strength: Float32Array): number | null {
  const span = Math.min(strength.length, Math.round(60 / STEP));
  let [best, period] = [0, 0];
  for (let lag = Math.round(60 / HIGHEST / STEP); lag <= Math.round(60 / LOWEST / STEP); lag++) {
    let sum = 0;
    for (let n = 0; n + 2 * lag < span; n++)
      sum += strength[n]! * (strength[n + lag]! + 0.5 * strength[n + 2 * lag]!);
    const octaves = Math.log2(60 / (lag * STEP) / USUAL);
    const weighted = (sum / Math.max(1, span - 2 * lag)) * Math.exp(-0.5 * (octaves / WIDTH) ** 2);
    if (weighted > best) [best, period] = [weighted, lag];
  }
  return best > 0 ? period : null;
}

/** Period and phase, in frames and fractions, whose grid gathers most strength over the whole recording. */
function bestGrid(strength: Float32Array, coarse: number): { period: number; phase: number; share: number } {
  const beats = strength.length / coarse;
  let found = { period: coarse, phase: 0, share: 0, sum: -1 };
  // the grid must not slip by more than a frame over the whole: so fine are the steps
  const step = 0.5 / beats;
  for (let period = coarse * 0.97; period <= coarse * 1.03; period += step * 2) {
    const better = bestPhase(strength, period);
    if (better.sum > found.sum) found = { period, ...better };
  }
  return found;
}

function bestPhase(strength: Float32Array, period: number): { phase: number; share: number; sum: number } {
  const folded = new Float64Array(Math.ceil(period));
  let total = 0;
  for (let n = 0; n < strength.length; n++) {
    const place = n - Math.floor(n / period) * period;
    folded[Math.min(folded.length - 1, Math.floor(place))]! += strength[n]!;
    total += strength[n]!;
  }
  const around = (at: number) =>
    folded[(at - 1 + folded.length) % folded.length]! + folded[at]! + folded[(at + 1) % folded.length]!;
  let best = 0;
  for (let at = 1; at < folded.length; at++) if (around(at) > around(best)) best = at;
  return { phase: best + 0.5, share: total > 0 ? around(best) / total : 0, sum: around(best) };
}

/**
 * Tempo and bar 1 from taps: the first tap is bar 1. A line through them by the median of their gaps, then
 * least squares.
 * @param taps when the player tapped, in seconds of the recording, one a beat
 * @returns null for fewer than four taps
 */
export function tappedPulse(taps: readonly Seconds[]): Pulse | null {
  if (taps.length < 4) return null;
  const gap = median(taps.slice(1).map((tap, index) => tap - taps[index]!))!;
  if (!(gap > 60 / HIGHEST / 1.5 && gap < (60 / LOWEST) * 1.5)) return null;
  const beats = taps.map((tap) => Math.round((tap - taps[0]!) / gap));
  const mean = (values: readonly number[]) => values.reduce((sum, value) => sum + value, 0) / values.length;
  const [middleBeat, middleTap] = [mean(beats), mean(taps)];
  const spread = beats.reduce((sum, beat) => sum + (beat - middleBeat) ** 2, 0);
  const period =
    beats.reduce((sum, beat, index) => sum + (beat - middleBeat) * (taps[index]! - middleTap), 0) / spread;
  const firstSec = middleTap - middleBeat * period;
  const off = median(beats.map((beat, index) => Math.abs(taps[index]! - firstSec - beat * period)))!;
  return { tempo: 60 / period, firstSec, certainty: Math.max(0, 1 - off / (0.25 * period)) };
}
