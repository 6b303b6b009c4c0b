import { expect, test } from '@jest/globals';
import { seededRandom } from '../vocabulary';
import { concat, HighPass, levelOf, NormalisedDifference, peakOf, resample, Resampler, SpectralFlux, SILENCE } from './index';

const sine = (hz: number, rate: number, seconds: number): Float32Array => Float32Array.from({ length: Math.round(rate * seconds) }, (_, n) => Math.sin((2 * Math.PI * hz * n) / rate));

/** YIN's equations 1, 6 and 8 word for word: the slow oracle of the routine by FFT. */
function plainDifference(samples: Float32Array, from: number, window: number, maxLag: number): number[] {
  const raw = Array.from({ length: maxLag + 1 }, (_, lag) => {
    let sum = 0;
    for (let j = 0; j < window; j++) sum += (samples[from + j]! - samples[from + j + lag]!) ** 2;
    return sum;
  });
  let running = 0;
  return raw.map((value, lag) => (lag === 0 ? 1 : ((running += value), running > 1e-12 ? (value * lag) / running : 1)));
}

test('the normalised difference by FFT equals the plain one', () => {
  const random = seededRandom(3);
  const samples = Float32Array.from({ length: 1200 }, (_, n) => Math.sin(n / 9) + 0.3 * (random() - 0.5));
  for (const [window, maxLag] of [[620, 362], [305, 202], [64, 31]] as const) {
    const difference = new NormalisedDifference(window, maxLag);
    for (const from of [0, 57]) {
      const fast = Array.from(difference.compute(samples, from));
      plainDifference(samples, from, window, maxLag).forEach((value, lag) => expect(fast[lag]).toBeCloseTo(value, 6));
    }
  }
});

test('resampling keeps a tone’s pitch, level and place, and lets nothing fold back', () => {
  for (const [from, to] of [[44_100, 22_050], [48_000, 22_050], [22_050, 44_100], [44_100, 48_000], [8_000, 22_050]] as const) {
    const out = resample(sine(440, from, 0.5), from, to);
    expect(out.length).toBe(Math.round(0.5 * to));
    const expected = sine(440, to, 0.5);
    let worst = 0;
    for (let n = 400; n < out.length - 400; n++) worst = Math.max(worst, Math.abs(out[n]! - expected[n]!));
    expect(worst).toBeLessThan(0.01);
  }
  expect(levelOf(resample(sine(15_000, 44_100, 0.5), 44_100, 22_050), 1000, 8000)).toBeLessThan(-60);
});

test('a resampler fed in pieces gives the same samples', () => {
  const input = sine(523, 44_100, 0.3);
  const whole = resample(input, 44_100, 22_050);
  for (const size of [1, 100, 4096]) {
    const resampler = new Resampler(44_100, 22_050);
    const pieces: Float32Array[] = [];
    for (let at = 0; at < input.length; at += size) pieces.push(resampler.push(input.subarray(at, at + size)));
    expect(concat([...pieces, resampler.finish()])).toEqual(whole);
  }
});

test('levels in dBFS: a full-scale sine is −3 dB, silence has a floor', () => {
  expect(levelOf(sine(1000, 44_100, 1))).toBeCloseTo(-3.01, 1);
  expect(peakOf(sine(1000, 44_100, 1))).toBeCloseTo(0, 1);
  expect([levelOf(new Float32Array(10)), levelOf(new Float32Array(0)), peakOf(new Float32Array(3))]).toEqual([SILENCE, SILENCE, SILENCE]);
});

test('the high-pass takes direct current away and leaves the low E', () => {
  const constant = new HighPass(45, 22_050).process(new Float32Array(22_050).fill(0.5));
  expect(Math.abs(constant[20_000]!)).toBeLessThan(1e-3);
  const low = new HighPass(45, 22_050).process(sine(82.4, 22_050, 1));
  expect(levelOf(low, 11_000, 11_000)).toBeGreaterThan(-3.6);
});

test('flux peaks where a tone begins and not while it swells in vibrato', () => {
  const rate = 22_050;
  const samples = Float32Array.from({ length: rate }, (_, n) => (n < rate / 2 ? 0 : Math.sin((2 * Math.PI * 330 * n) / rate + 1.5 * Math.sin((2 * Math.PI * 5.5 * n) / rate)) * 0.5));
  const flux = new SpectralFlux(512, 2);
  const values = Array.from({ length: 160 }, (_, frame) => flux.next(samples, frame * 128));
  const peak = values.indexOf(Math.max(...values));
  expect(Math.abs(peak * 128 + 256 - rate / 2)).toBeLessThan(400);
  expect(Math.max(...values.slice(peak + 10))).toBeLessThan(values[peak]! * 0.05);
});
