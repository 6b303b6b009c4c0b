import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { standApart } from './apart';

test('what has room stays; what is too near moves to the right, and back from the end', () => {
  const of = (...xs: number[]) => xs.map((x) => ({ x, width: 20 }));
  expect(standApart(of(0, 50, 90), 2, 200)).toEqual([0, 50, 90]);
  expect(standApart(of(0, 10, 90), 2, 200)).toEqual([0, 22, 90]);
  expect(standApart(of(150, 170, 180), 2, 200)).toEqual([136, 158, 180]);
  expect(standApart([], 2, 200)).toEqual([]);
});

test('whatever is put on a line with room for it lies apart and inside', () => {
  const places = fc.array(
    fc.record({ x: fc.integer({ min: 0, max: 500 }), width: fc.integer({ min: 5, max: 30 }) }),
    {
      maxLength: 14,
    },
  );
  fc.assert(
    fc.property(places, (unsorted) => {
      const sorted = [...unsorted].sort((a, b) => a.x - b.x);
      const edges = standApart(sorted, 1, 520);
      edges.forEach((edge, index) => {
        const right = edge + sorted[index]!.width;
        expect(right).toBeLessThanOrEqual(edges[index + 1] !== undefined ? edges[index + 1]! - 1 : 520);
      });
    }),
  );
});
