import FourierTransform from 'fft.js';
import { gaussian, seededRandom } from '@/core/shared';

/** What a take goes through between the string and the file. Each keeps length and rate, and is seeded. */
export type Effect = (samples: Float32Array, rate: number, seed: number) => Float32Array;

export const rms = (samples: Float32Array): number =>
  Math.sqrt(samples.reduce((sum, value) => sum + value * value, 0) / Math.max(1, samples.length));

const scaleTo = (samples: Float32Array, level: number): Float32Array => {
  const now = rms(samples) || 1;
  return samples.map((value) => (value * level) / now);
};

/** A valve-like curve: even and odd harmonics, compression. */
export const drive: Effect = (samples) =>
  scaleTo(
    samples.map((value) => Math.tanh(value * 9 + 0.25) - Math.tanh(0.25)),
    0.12,
  );

/** Hard clipping after a low-cut, then a cabinet's low-pass. */
export const distortion: Effect = (samples, rate) => {
  const cut = onePole(samples, 150, rate, true);
  return scaleTo(
    onePole(
      cut.map((value) => Math.max(-1, Math.min(1, value * 60))),
      3500,
      rate,
      false,
    ),
    0.12,
  );
};

function onePole(samples: Float32Array, cutoff: number, rate: number, high: boolean): Float32Array {
  const share = 1 - Math.exp((-2 * Math.PI * cutoff) / rate);
  let low = 0;
  return samples.map((value) => {
    low += share * (value - low);
    return high ? value - low : low;
  });
}

/** A room of about half a second: early reflections and a decaying tail, by direct convolution with sparse taps. */
export const room: Effect = (samples, rate, seed) => convolve(samples, roomTaps(rate, seed, 0.45));

export function roomTaps(rate: number, seed: number, seconds: number): (readonly [number, number])[] {
  const random = seededRandom(seed + 77);
  const taps: [number, number][] = [[0, 1]];
  for (let count = 0; count < 260; count++) {
    const at = 0.006 + seconds * random() ** 1.4;
    taps.push([
      Math.round(at * rate),
      (random() < 0.5 ? -1 : 1) * 0.22 * Math.exp((-6.9 * at) / seconds) * (0.4 + random()),
    ]);
  }
  return taps;
}

/** By Fourier transforms, overlapping and adding: taps by the hundred take seconds otherwise. */
export function convolve(samples: Float32Array, taps: readonly (readonly [number, number])[]): Float32Array {
  const longest = taps.reduce((most, [delay]) => Math.max(most, delay), 0);
  const size = 2 ** Math.ceil(Math.log2(4 * (longest + 1)));
  const fourier = new FourierTransform(size);
  const room = fourier.createComplexArray();
  for (const [delay, gain] of taps) room[2 * delay]! += gain;
  const response = fourier.createComplexArray();
  fourier.transform(response, room);
  const out = new Float32Array(samples.length);
  const step = size - longest;
  for (let from = 0; from < samples.length; from += step) {
    const part = fourier.createComplexArray();
    for (let n = 0; n < step && from + n < samples.length; n++) part[2 * n] = samples[from + n]!;
    const spectrum = fourier.createComplexArray();
    fourier.transform(spectrum, part);
    for (let k = 0; k < 2 * size; k += 2) {
      const [re, im] = [spectrum[k]!, spectrum[k + 1]!];
      spectrum[k] = re * response[k]! - im * response[k + 1]!;
      spectrum[k + 1] = re * response[k + 1]! + im * response[k]!;
    }
    fourier.inverseTransform(part, spectrum);
    for (let n = 0; n < size && from + n < out.length; n++) out[from + n]! += part[2 * n]!;
  }
  return out;
}

/** Mains at 50 Hz with its odd and even harmonics, 34 dB under the playing. */
export const hum: Effect = (samples, rate) => {
  const level = rms(samples) * 10 ** (-34 / 20) * Math.SQRT2;
  return samples.map(
    (value, n) =>
      value +
      [1, 0.5, 0.7, 0.25, 0.4, 0.2].reduce(
        (sum, part, index) => sum + part * Math.sin((2 * Math.PI * 50 * (index + 1) * n) / rate + index),
        0,
      ) *
        level,
  );
};

/** White noise 36 dB under the playing. */
export const hiss: Effect = (samples, _rate, seed) => {
  const random = seededRandom(seed + 5);
  const level = rms(samples) * 10 ** (-36 / 20);
  return samples.map((value) => value + gaussian(random) * level);
};

/** A telephone's microphone: 250–3600 Hz, gain control with a fast attack and a slow release, eight-bit companding. */
export const phone: Effect = (samples, rate) => {
  const band = onePole(
    onePole(onePole(onePole(samples, 250, rate, true), 250, rate, true), 3600, rate, false),
    3600,
    rate,
    false,
  );
  let envelope = 0.01;
  const controlled = band.map((value) => {
    const level = Math.abs(value);
    envelope += (level - envelope) * (level > envelope ? 0.003 : 0.00005);
    return (value * 0.15) / Math.max(0.01, envelope);
  });
  return controlled.map((value) => {
    const limited = Math.max(-1, Math.min(1, value));
    const companded = (Math.sign(limited) * Math.log1p(255 * Math.abs(limited))) / Math.log(256);
    const step = Math.round(companded * 127) / 127;
    return (Math.sign(step) * (256 ** Math.abs(step) - 1)) / 255;
  });
};

/** Far from the microphone: 40 dB down with a little noise of the input. */
export const quiet: Effect = (samples, _rate, seed) => {
  const random = seededRandom(seed + 9);
  return samples.map((value) => value * 0.01 + gaussian(random) * 3e-5);
};

/** Adds another signal at a level against the playing, in decibels, as a loudspeaker in a room would bring it. */
export function leak(
  samples: Float32Array,
  band: Float32Array,
  rate: number,
  seed: number,
  decibels: number,
  delaySeconds = 0.035,
): Float32Array {
  const speaker = onePole(onePole(band, 90, rate, true), 6000, rate, false);
  const heard = convolve(speaker, roomTaps(rate, seed, 0.25));
  const level = (rms(samples) * 10 ** (decibels / 20)) / (rms(heard) || 1);
  const delay = Math.round(delaySeconds * rate);
  return samples.map((value, n) => value + (n >= delay ? (heard[n - delay] ?? 0) * level : 0));
}

/** Another guitar's voice: a seeded shelf that lifts or lowers what lies above a corner by up to 12 dB, and a broad resonance. */
export const voice: Effect = (samples, rate, seed) => {
  const random = seededRandom(seed + 31);
  const corner = 300 * 2 ** (3 * random());
  const gain = 10 ** ((random() * 20 - 10) / 20);
  const low = onePole(samples, corner, rate, false);
  const shelved = samples.map((value, n) => low[n]! + (value - low[n]!) * gain);
  const [centre, q, lift] = [
    150 * 2 ** (4 * random()),
    0.7 + 1.5 * random(),
    10 ** ((random() * 18 - 9) / 20) - 1,
  ];
  const [w, alpha] = [(2 * Math.PI * centre) / rate, Math.sin((2 * Math.PI * centre) / rate) / (2 * q)];
  let [x1, x2, y1, y2] = [0, 0, 0, 0];
  return shelved.map((x) => {
    const band = (alpha * (x - x2) + 2 * Math.cos(w) * y1 - (1 - alpha) * y2) / (1 + alpha);
    [x2, x1, y2, y1] = [x1, x, y1, band];
    return x + lift * band;
  });
};
