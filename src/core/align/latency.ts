import { median, type Hz, type Seconds, elementAt } from '../shared';
import { RealTransform } from '../sound';
import { clickSound, LONGEST_DELAY } from './click';

/** So many clicks in a row must agree… */
export const AGREEING = 8;
/** …within this. */
export const AGREE_WITHIN: Seconds = 0.002;
/** A click must stand out so far from everything else heard in its window. */
const PROMINENT = 7;
/** The first arrival counts, not the loudest echo. */
const FIRST_ARRIVAL = 0.6;

/**
 * When a click that was played is heard again: matched filter (Turin, IRE Transactions 1960) over the
 * longest delay, the first strong arrival,
 * between samples by a parabola.
 * @param heard the recording from the moment the click was played on; needs `LONGEST_DELAY` and a little more
 * @returns the delay in seconds; null where no click stands out
 */
export function delayOfClick(heard: Float32Array, rate: Hz): Seconds | null {
  const click = clickSound(rate);
  const count = Math.min(Math.floor(LONGEST_DELAY * rate), heard.length - click.length);
  if (count < 3) return null;
  const match = correlation(heard.subarray(0, count + click.length), click, count);
  let [best, power] = [0, 0];
  for (const value of match) {
    best = Math.max(best, value);
    power += value * value;
  }
  if (best === 0 || best < PROMINENT * Math.sqrt(power / count)) return null;
  // the first arrival as strong as that, at the top of its hill
  let at = match.findIndex((value) => value >= FIRST_ARRIVAL * best);
  const hill = Math.min(count - 1, at + Math.round(0.0004 * rate));
  for (let lag = at; lag <= hill; lag++) if (elementAt(match, lag) > elementAt(match, at)) at = lag;
  const [before, peak, after] = [match[at - 1] ?? 0, elementAt(match, at), match[at + 1] ?? 0];
  const bend = before - 2 * peak + after;
  const between = bend < 0 ? (0.5 * (before - after)) / bend : 0;
  return (at + Math.max(-0.5, Math.min(0.5, between))) / rate;
}

/** |Σ click[n] heard[lag + n]| for lag 0 … count − 1, by FFT. */
function correlation(heard: Float32Array, click: Float32Array, count: number): Float64Array {
  const size = 2 ** Math.ceil(Math.log2(heard.length + click.length));
  const fourier = RealTransform.of(size);
  const spectrumOf = (signal: Float32Array) => {
    const { real } = fourier;
    real.fill(0);
    real.set(signal);
    return fourier.forward().slice();
  };
  const [a, b] = [spectrumOf(heard), spectrumOf(click)];
  const { bins } = fourier;
  for (let k = 0; k < bins.length; k += 2) {
    bins[k] = elementAt(a, k) * elementAt(b, k) + elementAt(a, k + 1) * elementAt(b, k + 1);
    bins[k + 1] = elementAt(a, k + 1) * elementAt(b, k) - elementAt(a, k) * elementAt(b, k + 1);
  }
  return Float64Array.from(fourier.inverse().subarray(0, count), Math.abs);
}

export type Latency = {
  readonly seconds: Seconds;
  readonly withinSeconds: Seconds;
  readonly agreed: boolean;
  /** Clicks heard. */ readonly heard: number;
};

/**
 * What the delays of clicks say together: their median, and whether the last `AGREEING` agree with each other.
 * Repeated until it agrees with itself within 2 ms (docs/architecture.md, “Audio and time”).
 * @param delays one for each click, null where it was not heard
 */
export function latencyOf(delays: readonly (Seconds | null)[]): Latency | null {
  const found = delays.filter((delay): delay is Seconds => delay !== null);
  const last = found.slice(-AGREEING);
  const middle = median(last);
  if (middle === null) return null;
  const within = Math.max(...last) - Math.min(...last);
  return {
    seconds: middle,
    withinSeconds: within,
    agreed: last.length === AGREEING && within <= AGREE_WITHIN,
    heard: found.length,
  };
}
