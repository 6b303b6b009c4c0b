import { expect, test } from '@jest/globals';
import { concat, SignalStore } from '../sound';
import { gaussian, seededRandom } from '../shared';
import { EchoDetector, inverseOf } from './echoDetector';
import { EchoRemoval } from './echoes';
import { RATE } from './frames';

/** Decaying bursts of harmonics with human timing: near enough to a line for its spectrum to change all the time. */
function line(seconds: number, seed: number): Float32Array {
  const random = seededRandom(seed);
  const out = new Float32Array(seconds * RATE);
  for (let at = 0.2; at < seconds - 1; at += 0.2 + 0.3 * random()) {
    const hz = 110 * 2 ** (2.5 * random());
    for (let n = 0; n < 0.6 * RATE; n++) {
      const time = n / RATE;
      let value = 0;
      for (let k = 1; k <= 8; k++) value += Math.sin(2 * Math.PI * hz * k * time + k) / k;
      out[Math.round(at * RATE) + n]! += 0.2 * value * Math.exp(-5 * time);
    }
  }
  return out.map((value) => value + 1e-4 * gaussian(random));
}

/** A delay unit: copies every `lag` samples, each `feedback` of the one before. */
function delayed(samples: Float32Array, lag: number, gain: number, feedback = 0): Float32Array {
  const copies = new Float32Array(samples.length);
  for (let n = lag; n < samples.length; n++)
    copies[n] = gain * samples[n - lag]! + feedback * copies[n - lag]!;
  return samples.map((value, n) => value + copies[n]!);
}

const LAG = Math.round(0.35 * RATE);
const DRY = line(20, 1);
const energy = (samples: Float32Array): number => samples.reduce((sum, value) => sum + value ** 2, 0);
const apart = (a: Float32Array, b: Float32Array): number =>
  10 * Math.log10(energy(a.map((value, n) => value - b[n]!)) / energy(b));

function strongest(samples: Float32Array) {
  const signal = new SignalStore();
  signal.push(samples);
  return new EchoDetector(signal)
    .read(samples.length)
    .reduce<{ lag: number; gain: number } | null>(
      (most, tap) => (most && most.gain >= tap.gain ? most : tap),
      null,
    );
}

test.each([
  [0.08, 0.3],
  [0.35, 0.25],
  [0.62, 0.4],
])('a delay of %s s is found to the sample', (seconds, gain) => {
  const lag = Math.round(seconds * RATE);
  expect(strongest(delayed(DRY, lag, gain))?.lag).toBe(lag);
});

test('a line without a delay has none, nor has silence, nor a take too short to tell', () => {
  expect(strongest(DRY)).toBeNull();
  expect(strongest(line(20, 2))).toBeNull();
  expect(strongest(new Float32Array(10 * RATE))).toBeNull();
  expect(strongest(delayed(DRY, LAG, 0.5).subarray(0, 3 * RATE))).toBeNull();
});

test('the inverse of one copy is the series of its powers, with the sign going round', () => {
  // ln(1 + g z^-d) = g z^-d - g²/2 z^-2d + …
  const ripples = Array.from({ length: 4 }, (_, n) => ({
    lag: 9000 * (n + 1),
    gain: ((-1) ** n * 0.5 ** (n + 1)) / (n + 1),
  }));
  const taps = inverseOf(ripples);
  expect(taps.map(({ lag }) => lag)).toEqual([9000, 18000, 27000, 36000, 45000]);
  expect(taps.slice(0, 4).map(({ gain }) => Math.round(gain * 1e4) / 1e4)).toEqual([
    -0.5, 0.25, -0.125, 0.0625,
  ]);
  expect(inverseOf([])).toEqual([]);
});

const removed = (samples: Float32Array, block: number): Float32Array => {
  const removal = new EchoRemoval();
  const out: Float32Array[] = [];
  for (let at = 0; at < samples.length; at += block) out.push(removal.push(samples.subarray(at, at + block)));
  return concat([...out, removal.finish()]);
};

test('repeats are taken out: at least 12 dB of them, with and without feedback', () => {
  for (const feedback of [0, 0.4]) {
    const wet = delayed(DRY, LAG, 0.3, feedback);
    expect(apart(removed(wet, 4096), DRY)).toBeLessThan(apart(wet, DRY) - 12);
  }
});

test('a take without a delay comes out sample for sample, and as long', () => {
  expect(removed(DRY, 1000)).toEqual(DRY);
  const short = line(3, 3);
  expect(removed(short, 512)).toEqual(short);
});

test('blocks of any size give the same samples', () => {
  const wet = delayed(DRY, LAG, 0.3);
  const whole = removed(wet, wet.length);
  expect(removed(wet, 777)).toEqual(whole);
});
