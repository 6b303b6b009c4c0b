import { expect, test } from '@jest/globals';
import { readTuning, STANDARD_TUNING } from '@/core/neck';
import { unwrap } from '@/core/shared';
import { nearestString } from './Tuner';

test.each([
  ['the open D, 7 cents flat', 146.2, 'standard', 440, 4, 50, -7.4],
  ['the low E, sharp', 83, 'standard', 440, 6, 40, 12.4],
  ['the high E at A = 442', 331.11, 'standard', 442, 1, 64, 0],
  ['a low string let down to D', 73.42, 'D2 A2 D3 G3 B3 E4', 440, 6, 38, 0],
  ['an eighth string', 46.25, 'F#1 B1 E2 A2 D3 G3 B3 E4', 440, 8, 30, 0],
] as const)('%s', (_, hz, tuning, a4, string, midi, cents) => {
  const found = nearestString(hz, tuning === 'standard' ? STANDARD_TUNING : unwrap(readTuning(tuning)), a4);
  expect([found.string, found.midi]).toEqual([string, midi]);
  expect(Math.abs(found.cents - cents)).toBeLessThan(0.5);
});
