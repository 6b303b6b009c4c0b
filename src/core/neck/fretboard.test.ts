import { expect, test } from '@jest/globals';
import { fretDistance, placesOf, STANDARD_TUNING } from './index';

// Common practice, no source: standard tuning, and fret n leaves 2^(−n/12) of the string.
test('the twelfth fret halves the string, the nineteenth leaves a third', () => {
  expect(fretDistance(0)).toBe(0);
  expect(fretDistance(12)).toBeCloseTo(0.5, 10);
  expect(1 - fretDistance(19)).toBeCloseTo(1 / 3, 2);
});

test('places of a pitch class: C over the first five frets', () => {
  expect(placesOf([0], 0, 5).map(({ string, fret }) => `${string}:${fret}`)).toEqual(['2:1', '3:5', '5:3']);
});

test('every place sounds what it says, in any tuning', () => {
  const dropped = [...STANDARD_TUNING.slice(0, 5), 38];
  const places = placesOf([2, 9], 0, 12, dropped);
  for (const { string, fret, midi } of places) expect(dropped[string - 1]! + fret).toBe(midi);
  expect(places.filter(({ string, fret }) => string === 6 && fret === 0)).toHaveLength(1);
  expect(placesOf([], 0, 12)).toEqual([]);
});
