import { expect, test } from '@jest/globals';
import { STANDARD_GUITAR } from '@/ui/instrument';
import { guitarCheck, hearingCheck, inputCheck, latencyCheck, tuningCheck } from './setUpChecks';

test.each([
  ['closed', -120, 0, false, 'Listen to the input'],
  ['open', -90, 0, false, 'Nothing is heard yet'],
  ['open', -48, 0, false, 'Very quiet, at most −48 dBFS'],
  ['open', -12, 0, true, 'your loudest was −12 dBFS'],
  ['open', -1, 0, false, 'Too loud'],
  ['open', -12, 3, false, 'Too loud'],
] as const)('what comes in: %s at %s dBFS, clipped %s times', (phase, highest, clipped, isDone, words) => {
  const check = inputCheck(phase, highest, clipped);
  expect(check.isDone).toBe(isDone);
  expect(check.words).toContain(words);
});

test('delay, hearing, tuning and guitar say whether they are done, and what it means', () => {
  expect(latencyCheck(null).isDone).toBe(false);
  expect(latencyCheck({ seconds: 0.02, measured: false }).isDone).toBe(false);
  expect(latencyCheck({ seconds: 0.0284, measured: true })).toEqual({
    isDone: true,
    words: '28 ms on the way in and out, taken off every note of this device.',
  });
  expect([null, 'headphones', 'loudspeaker'].map((one) => hearingCheck(one as never).isDone)).toEqual([
    false,
    true,
    true,
  ]);
  expect(tuningCheck(new Set([1, 6]), 6).words).toBe('In tune: 2 of 6. Still to hear: 2, 3, 4, 5.');
  expect(tuningCheck(new Set([1, 2, 3, 4, 5, 6]), 6).isDone).toBe(true);
  expect(guitarCheck({ ...STANDARD_GUITAR, capo: 2, leftHanded: true }).words).toContain(
    'capo at 2, left-handed, a usual hand',
  );
});
