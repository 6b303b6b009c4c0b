import { expect, test } from '@jest/globals';
import { peakOf } from './level';
import { kWeighting, levelled, loudnessOf, TARGET_LOUDNESS } from './loudness';

const RATE = 48_000;

/** ITU-R BS.1770-4, annex 1, tables 1 and 2: the coefficients at 48 kHz. */
test('the weighting at 48 kHz has the published coefficients', () => {
  const [shelf, highPass] = kWeighting(RATE);
  const near = (own: readonly number[], published: readonly number[]) =>
    own.forEach((value, index) => expect(value).toBeCloseTo(published[index]!, 8));
  near(shelf.b, [1.53512485958697, -2.69169618940638, 1.19839281085285]);
  near(shelf.a, [-1.69065929318241, 0.73248077421585]);
  near(highPass.b, [1, -2, 1]);
  near(highPass.a, [-1.99004745483398, 0.99007225036621]);
});

/** Parts of a tone of 1 kHz, each so many seconds at so many dBFS of its peak. */
function tone(rate: number, ...parts: (readonly [seconds: number, decibels: number])[]): Float32Array {
  const out = new Float32Array(parts.reduce((sum, [seconds]) => sum + Math.round(seconds * rate), 0));
  let at = 0;
  for (const [seconds, decibels] of parts)
    for (const end = at + Math.round(seconds * rate); at < end; at++)
      out[at] = 10 ** (decibels / 20) * Math.sin((2 * Math.PI * 1000 * at) / rate);
  return out;
}

/** EBU Tech 3341, table 1, test signals 1 to 4: the same tone left and right, within 0.1 LU. */
test.each([
  ['1: −23 dBFS', [[20, -23]], -23],
  ['2: −33 dBFS', [[20, -33]], -33],
  [
    '3: soft, loud, soft',
    [
      [10, -36],
      [60, -23],
      [10, -36],
    ],
    -23,
  ],
  [
    '4: silent, soft, loud, soft, silent',
    [
      [10, -72],
      [10, -36],
      [60, -23],
      [10, -36],
      [10, -72],
    ],
    -23,
  ],
] as const)('EBU test signal %s', (_name, parts, loudness) => {
  for (const rate of [44_100, RATE]) {
    const one = tone(rate, ...parts);
    expect(Math.abs(loudnessOf([one, one], rate) - loudness)).toBeLessThan(0.1);
  }
});

test('silence, and what is shorter than a block, has no loudness and is left as it is', () => {
  const silence = new Float32Array(RATE);
  expect(loudnessOf([silence], RATE)).toBe(-Infinity);
  expect(levelled(silence, RATE)).toBe(silence);
  expect(loudnessOf([tone(RATE, [0.3, -20])], RATE)).toBe(-Infinity);
});

test('what is levelled is at the target as far as its peaks allow, a long one too', () => {
  const at = (samples: Float32Array) => loudnessOf([levelled(samples, RATE)], RATE);
  for (const decibels of [-40, -26, -6])
    expect(at(tone(RATE, [5, decibels]))).toBeCloseTo(TARGET_LOUDNESS, 0);
  // loud and soft by turns for a minute and a half: more than is measured
  const long = tone(RATE, ...Array.from({ length: 15 }, (_, n) => [6, n % 2 ? -17 : -23] as const));
  expect(Math.abs(at(long) - TARGET_LOUDNESS)).toBeLessThan(1);
  // one knock that nothing can follow
  const knock = tone(RATE, [5, -40]);
  knock[RATE] = 0.95;
  expect(peakOf(levelled(knock, RATE))).toBeCloseTo(-1, 2);
});
