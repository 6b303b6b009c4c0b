import { gaussian, seededRandom } from '@/core/shared';
import { convolve, rms, roomTaps, type Effect } from './effects';

// What stands between a guitar and a file in a bedroom: pedals, an amplifier, a telephone, people. Each keeps length
// and rate, and is seeded.

/** Copies after `seconds`, each `feedback` of the one before, the first at `decibels` under what was played. */
export function delay(seconds: number, decibels: number, feedback = 0.35, damped = 4_000): Effect {
  return (samples, rate) => {
    const [lag, first] = [Math.round(seconds * rate), 10 ** (decibels / 20)];
    const line = new Float32Array(samples.length);
    const share = 1 - Math.exp((-2 * Math.PI * damped) / rate);
    let low = 0;
    for (let n = lag; n < samples.length; n++) {
      low += share * (samples[n - lag]! * first + line[n - lag]! * feedback - low);
      line[n] = low;
    }
    return samples.map((value, n) => value + line[n]!);
  };
}

/** A delayed copy whose delay swings, as a chorus mixes in. */
export const chorus: Effect = (samples, rate, seed) => {
  const random = seededRandom(seed + 301);
  const [base, depth, hz, mix] = [
    0.008 + 0.014 * random(),
    0.001 + 0.003 * random(),
    0.3 + 1.7 * random(),
    0.4 + 0.4 * random(),
  ];
  return samples.map((value, n) => {
    const back = n - (base + depth * Math.sin((2 * Math.PI * hz * n) / rate)) * rate;
    const at = Math.floor(back);
    const copy = at < 0 ? 0 : samples[at]! + ((samples[at + 1] ?? 0) - samples[at]!) * (back - at);
    return 0.7 * (value + mix * copy);
  });
};

export const tremolo: Effect = (samples, rate, seed) => {
  const random = seededRandom(seed + 302);
  const [hz, depth] = [3 + 5 * random(), 0.3 + 0.5 * random()];
  return samples.map(
    (value, n) => value * (1 - depth * (0.5 - 0.5 * Math.cos((2 * Math.PI * hz * n) / rate))),
  );
};

/** Evens out loud and soft: fast to hold down, slow to let go, made up afterwards. */
export const compressor: Effect = (samples, rate, seed) => {
  const random = seededRandom(seed + 303);
  const [ratio, threshold] = [3 + 5 * random(), rms(samples) * (0.3 + 0.5 * random())];
  const [rise, fall] = [
    1 - Math.exp(-1 / (0.004 * rate)),
    1 - Math.exp(-1 / ((0.08 + 0.2 * random()) * rate)),
  ];
  let envelope = 0;
  const out = samples.map((value) => {
    const level = Math.abs(value);
    envelope += (level - envelope) * (level > envelope ? rise : fall);
    return envelope > threshold ? value * (threshold / envelope) ** (1 - 1 / ratio) : value;
  });
  const scale = rms(samples) / (rms(out) || 1);
  return out.map((value) => value * scale);
};

/** A resonance that swings up and down the spectrum: a wah, or one stage of a phaser. */
export const sweep: Effect = (samples, rate, seed) => {
  const random = seededRandom(seed + 304);
  const [hz, mix, q] = [0.4 + 1.5 * random(), 0.3 + 0.5 * random(), 1.5 + 3 * random()];
  let [low, band] = [0, 0];
  const out = samples.map((value, n) => {
    const centre = 450 * 4 ** (0.5 + 0.5 * Math.sin((2 * Math.PI * hz * n) / rate));
    const f = 2 * Math.sin((Math.PI * centre) / rate);
    low += f * band;
    band += f * (value - low - band / q);
    return (1 - mix) * value + mix * band * 1.5;
  });
  const scale = rms(samples) / (rms(out) || 1);
  return out.map((value) => value * scale);
};

/** Drive, a delay and a room, as for a lead. */
export const lead: Effect = (samples, rate, seed) => {
  const random = seededRandom(seed + 305);
  const gain = (10 + 25 * random()) / (rms(samples) * 6 || 1);
  const driven = samples.map((value) => 0.2 * Math.tanh(value * gain));
  const cut = highPass(lowPass(driven, 4_500, rate), 90, rate);
  const echoed = delay(0.25 + 0.25 * random(), -9 - 6 * random(), 0.3)(cut, rate, seed);
  return random() < 0.6
    ? convolve(
        echoed,
        roomTaps(rate, seed, 0.3).map(([at, tap]) => [at, at ? tap * 0.5 : tap]),
      )
    : echoed;
};

function lowPass(samples: Float32Array, hz: number, rate: number): Float32Array {
  const share = 1 - Math.exp((-2 * Math.PI * hz) / rate);
  let [one, two] = [0, 0];
  return samples.map((value) => {
    one += share * (value - one);
    return (two += share * (one - two));
  });
}

const highPass = (samples: Float32Array, hz: number, rate: number): Float32Array => {
  const low = lowPass(samples, hz, rate);
  return samples.map((value, n) => value - low[n]!);
};

/** No fundamentals: a narrow band, four stages steep, and a coarse quantiser whose noise follows the level. */
export const narrowPhone: Effect = (samples, rate, seed) => {
  const random = seededRandom(seed + 306);
  const [low, high] = [280 + 150 * random(), 2_800 + 900 * random()];
  let out = samples;
  for (let stage = 0; stage < 2; stage++) out = lowPass(highPass(out, low, rate), high, rate);
  let envelope = 1e-4;
  const coarse = 0.02 + 0.05 * random();
  return out.map((value) => {
    envelope = Math.max(Math.abs(value), envelope * (1 - 8 / rate), 1e-4);
    return value + gaussian(random) * envelope * coarse;
  });
};

/** Someone who talks beside: a pulse train through two moving resonances, syllables and pauses, hisses between. */
export function talk(seconds: number, rate: number, seed: number): Float32Array {
  const random = seededRandom(seed + 307);
  const out = new Float32Array(Math.ceil(seconds * rate));
  const voice = 95 * 2 ** (1.2 * random());
  let at = 0.2 * random();
  while (at < seconds - 0.3) {
    const [length, f1, f2] = [0.09 + 0.16 * random(), 300 + 500 * random(), 900 + 1_400 * random()];
    const [from, to] = [voice * (0.85 + 0.4 * random()), voice * (0.8 + 0.35 * random())];
    syllable(out, rate, at, length, { from, to, f1, f2 });
    at += length;
    if (random() < 0.4) {
      const hiss = 0.04 + 0.07 * random();
      for (let n = 0; n < hiss * rate; n++)
        out[Math.round(at * rate) + n]! += gaussian(random) * 0.12 * Math.sin((Math.PI * n) / (hiss * rate));
      at += hiss;
    }
    at += random() < 0.15 ? 0.2 + 0.5 * random() : 0.02 + 0.05 * random();
  }
  return out;
}

type Sung = { readonly from: number; readonly to: number; readonly f1: number; readonly f2: number };

function syllable(
  out: Float32Array,
  rate: number,
  at: number,
  seconds: number,
  { from, to, f1, f2 }: Sung,
): void {
  const poles = [f1, f2].map((hz) => {
    const radius = Math.exp((-Math.PI * 90) / rate);
    return { a: 2 * radius * Math.cos((2 * Math.PI * hz) / rate), b: -(radius ** 2), y1: 0, y2: 0 };
  });
  const count = Math.round(seconds * rate);
  let phase = 0;
  for (let n = 0; n < count; n++) {
    phase += (from + ((to - from) * n) / count) / rate;
    let value = 0;
    if (phase >= 1) {
      phase -= 1;
      value = 1;
    }
    let sum = 0;
    for (const pole of poles) {
      const y = value + pole.a * pole.y1 + pole.b * pole.y2;
      pole.y2 = pole.y1;
      pole.y1 = y;
      sum += y;
    }
    const place = Math.round(at * rate) + n;
    if (place < out.length) out[place]! += 0.1 * sum * Math.sin((Math.PI * n) / count);
  }
}

/** A foot on the floor: a thud with a click, about twice a second. */
export function taps(seconds: number, rate: number, seed: number): Float32Array {
  const random = seededRandom(seed + 308);
  const out = new Float32Array(Math.ceil(seconds * rate));
  const [gap, hz, dies] = [0.4 + 0.3 * random(), 55 + 70 * random(), 25 + 25 * random()];
  for (let at = 0.2; at < seconds - 0.3; at += gap * (1 + 0.03 * gaussian(random)))
    for (let n = 0; n < 0.2 * rate; n++) {
      const time = n / rate;
      out[Math.round(at * rate) + n]! +=
        Math.sin(2 * Math.PI * hz * time) * Math.exp(-dies * time) +
        gaussian(random) * 0.3 * Math.exp(-300 * time);
    }
  return out;
}

/** Noise between white and brown. */
export function noise(seconds: number, rate: number, seed: number): Float32Array {
  const random = seededRandom(seed + 309);
  const white = Float32Array.from({ length: Math.ceil(seconds * rate) }, () => gaussian(random));
  return random() < 0.5 ? white : lowPass(white, 300 + 2_000 * random(), rate);
}

/** Adds another sound at a level against the playing, in decibels. */
export function beside(samples: Float32Array, other: Float32Array, decibels: number): Float32Array {
  const level = (rms(samples) * 10 ** (decibels / 20)) / (rms(other) || 1);
  return samples.map((value, n) => value + (other[n] ?? 0) * level);
}
