import { expect, test } from '@jest/globals';
import { gaussian, midiToHz, seededRandom } from '../shared';
import { pluckString } from '../band';
import { steadyPitch } from './index';

const cents = (found: number | undefined, hz: number) =>
  found === undefined ? 999 : 1200 * Math.log2(found / hz);

/** A string held: harmonics that fade at their own pace, with hiss, hum and a little of a neighbour's ring. */
function tone(hz: number, rate: number, seed: number, seconds = 0.2): Float32Array {
  const random = seededRandom(seed);
  const phases = Array.from({ length: 10 }, () => random() * 2 * Math.PI);
  return Float32Array.from({ length: Math.round(seconds * rate) }, (_, n) => {
    const time = n / rate;
    let sum = gaussian(random) * 0.0008 + 0.0008 * Math.sin(2 * Math.PI * 50 * time);
    for (let k = 1; k <= 10; k++)
      if (k * hz < rate / 2)
        sum += (0.2 / k) * Math.exp(-time * k * 0.6) * Math.sin(2 * Math.PI * k * hz * time + phases[k - 1]!);
    return sum;
  });
}

test.each([44_100, 48_000, 192_000])(
  'at %i samples a second every steady note from F♯1 to E6 is told within 1 cent, wherever between the frets',
  (rate) => {
    for (let midi = 30, seed = 1; midi <= 88; midi += rate > 50_000 ? 29 : 8, seed++)
      for (const off of [-43, 0.6, 21]) {
        const hz = midiToHz(midi + off / 100);
        const found = steadyPitch(tone(hz, rate, seed), rate);
        expect([midi, off, Math.abs(cents(found?.hz, hz)) < 1]).toEqual([midi, off, true]);
      }
  },
);

test('a weak fundamental and a strong one are the same note', () => {
  const rate = 48_000;
  for (const weights of [
    [0.02, 0.3, 0.2, 0.1],
    [0.3, 0.01, 0.01, 0],
    [0.1, 0.3, 0, 0.2],
  ]) {
    const samples = Float32Array.from({ length: 9_600 }, (_, n) =>
      weights.reduce(
        (sum, weight, k) => sum + weight * Math.sin((2 * Math.PI * 110.3 * (k + 1) * n) / rate + k),
        0,
      ),
    );
    expect(Math.abs(cents(steadyPitch(samples, rate)?.hz, 110.3))).toBeLessThan(1);
  }
});

test('a plucked string while it rings: within 2 cents of its pitch', () => {
  for (const midi of [40, 45, 50, 55, 59, 64, 76]) {
    const samples = pluckString(
      { midi, rate: 44_100, held: 1, release: 0.1, force: 0.6, at: 0.15, decay: 4 },
      seededRandom(midi),
    );
    expect([
      midi,
      Math.abs(cents(steadyPitch(samples.subarray(13_000, 22_000), 44_100)?.hz, midiToHz(midi))) < 2,
    ]).toEqual([midi, true]);
  }
});

test('silence, noise and a stretch too short have no pitch', () => {
  const random = seededRandom(1);
  expect(
    [
      new Float32Array(9000),
      Float32Array.from({ length: 9000 }, () => gaussian(random) * 0.1),
      tone(110, 44_100, 1, 0.01),
    ].map((samples) => steadyPitch(samples, 44_100)),
  ).toEqual([null, null, null]);
});
