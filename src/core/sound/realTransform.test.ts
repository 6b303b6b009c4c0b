import { readFileSync } from 'node:fs';
import { expect, test } from '@jest/globals';
import FFT from 'fft.js';
import { seededRandom } from '../shared';
import { MODULE } from './pffft';
import { RealTransform } from './realTransform';

const noise = (length: number, seed: number) => {
  const random = seededRandom(seed);
  return Float32Array.from({ length }, () => random() - 0.5);
};

test('the module kept as text is the package’s own, byte for byte', () => {
  const packaged = readFileSync('node_modules/@echogarden/pffft-wasm/dist/simd/pffft.wasm');
  expect(packaged.equals(Buffer.from(MODULE, 'base64'))).toBe(true);
});

test.each([32, 64, 512, 1024, 4096, 65_536])(
  '%d samples: the spectrum is that of fft.js, and leads back',
  (size) => {
    const transform = RealTransform.of(size);
    const signal = noise(size, size);
    transform.real.set(signal);
    const bins = transform.forward();
    expect(bins).toHaveLength(size + 2);
    const expected = new Float64Array(2 * size);
    new FFT(size).realTransform(expected, Float64Array.from(signal));
    const scale = Math.sqrt(size);
    let worst = 0;
    for (let k = 0; k < size; k++) worst = Math.max(worst, Math.abs(bins[k]! - expected[k]!) / scale);
    expect(worst).toBeLessThan(1e-5);
    const back = transform.inverse();
    expect(Math.max(...back.map((value, n) => Math.abs(value - signal[n]!)))).toBeLessThan(1e-5);
  },
);

test('the bin at half the rate is real and stands last', () => {
  const transform = RealTransform.of(32);
  for (let n = 0; n < 32; n++) transform.real[n] = n % 2 === 0 ? 1 : -1;
  const bins = transform.forward();
  expect([bins[0], bins[1], bins[2], bins[32], bins[33]]).toEqual([0, 0, 0, 32, 0]);
});

test('a correlation is the plain sum of products, from any place, and past the end there is silence', () => {
  const transform = RealTransform.of(64);
  const signal = noise(200, 5);
  const plain = (pattern: ArrayLike<number>, from: number) =>
    Array.from(pattern).reduce((sum, value, t) => sum + value * (signal[from + t] ?? 0), 0);
  const own = transform.correlation(signal, 17, 40, 24).slice();
  for (let lag = 0; lag <= 24; lag++)
    expect(own[lag]).toBeCloseTo(plain(signal.subarray(17, 57), 17 + lag), 5);
  const pattern = Float64Array.from(noise(21, 6));
  const spectrum = transform.patternOf(pattern);
  transform.correlation(signal, 3, 10, 10); // whatever comes between
  for (const from of [0, 99, 170]) {
    const found = transform.correlateWith(spectrum, 21, signal, from).slice();
    for (let lag = 0; lag <= 64 - 21; lag++) expect(found[lag]).toBeCloseTo(plain(pattern, from + lag), 5);
  }
});

test('the memory grows under transforms that were made before', () => {
  const small = RealTransform.of(128);
  const signal = noise(128, 7);
  small.real.set(signal);
  const before = small.forward().slice();
  RealTransform.of(2 ** 21);
  small.real.set(signal);
  expect(small.forward()).toEqual(before);
});

test('a length no transform is made for is refused', () => {
  for (const size of [0, 16, 48, 1000, 64.5]) expect(() => RealTransform.of(size)).toThrow(RangeError);
});
