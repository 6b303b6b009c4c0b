import { expect, test } from '@jest/globals';
import { limited } from './limiter';

test('soft samples pass as they are; louder ones are bent, in their order, and none reaches full scale', () => {
  for (const sample of [0, 0.1, -0.5, 0.8, -0.8]) expect(limited(sample)).toBe(sample);
  const louder = Array.from({ length: 12 }, (_, step) => limited(0.8 + step / 10));
  expect(louder).toEqual([...louder].sort((a, b) => a - b));
  expect(Math.max(...louder)).toBeLessThan(1);
  expect(limited(-1.5)).toBe(-limited(1.5));
});
