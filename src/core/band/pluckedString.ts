import { midiToHz, type Hz, type Midi, type Random, type Seconds, elementAt } from '../shared';

/** How a string is plucked and what it is strung on. */
export type Pluck = {
  readonly midi: Midi;
  readonly rate: Hz;
  /** How long the finger stays, then how long the note takes to be damped. */
  readonly held: Seconds;
  readonly release: Seconds;
  /** 0 to 1: louder is also brighter. */
  readonly force: number;
  /** Where along the string it is plucked, as a share of its length. */
  readonly at: number;
  /** Seconds for the fundamental to fall by 60 dB. */
  readonly decay: Seconds;
};

/**
 * One plucked note: the extended Karplus–Strong algorithm (Jaffe and Smith, Computer Music Journal 1983)
 * with a pick-position comb, a
 * loudness-dependent low-pass on the pick, and an allpass for the fraction of a sample that keeps the
 * string in tune.
 */
export function pluckString(pluck: Pluck, random: Random): Float32Array {
  const { rate, held, release } = pluck;
  const frequency = midiToHz(pluck.midi);
  const length = Math.ceil((held + release) * rate);
  const out = new Float32Array(length);
  const excitation = pickNoise(pluck, frequency, random);
  // the two-point average delays by half a sample, the allpass by its fraction
  const loop = rate / frequency - 0.5;
  const whole = Math.max(2, Math.floor(loop - 0.1));
  const fraction = loop - whole;
  const allpass = (1 - fraction) / (1 + fraction);
  const loss = 10 ** (-3 / (frequency * Math.max(0.15, pluck.decay)));
  const line = new Float32Array(whole + 1);
  let [position, before, passIn, passOut] = [0, 0, 0, 0];
  for (let n = 0; n < length; n++) {
    const delayed = elementAt(line, position);
    const averaged = loss * (0.5 * delayed + 0.5 * before);
    before = delayed;
    const tuned = allpass * (averaged - passOut) + passIn;
    passIn = averaged;
    passOut = tuned;
    const value = tuned + (excitation[n] ?? 0);
    line[position] = value;
    position = position + 1 >= whole ? 0 : position + 1;
    out[n] = value * damping(n / rate, held, release);
  }
  return out;
}

/**
 * A burst one period long, darker when soft, combed by the place it is plucked at; a little scrape comes
 * before it.
 */
function pickNoise({ rate, force, at }: Pluck, frequency: Hz, random: Random): Float32Array {
  const period = Math.round(rate / frequency);
  const raw = Float32Array.from({ length: period }, () => random() * 2 - 1);
  const mean = raw.reduce((sum, value) => sum + value, 0) / period;
  const smooth = Math.exp((-2 * Math.PI * (900 + 5200 * force)) / rate);
  let state = 0;
  const shaped = raw.map((value) => (state = (1 - smooth) * (value - mean) + smooth * state));
  const comb = Math.max(1, Math.round(period * at));
  const plucked = shaped.map((value, n) => value - (shaped[n - comb] ?? 0));
  const energy = Math.sqrt(plucked.reduce((sum, value) => sum + value * value, 0) / period) || 1;
  return plucked.map((value) => (value / energy) * 0.16 * (0.35 + 0.65 * force));
}

function damping(time: Seconds, held: Seconds, release: Seconds): number {
  if (time <= held) return 1;
  return Math.max(0, 1 - (time - held) / release) ** 2;
}
