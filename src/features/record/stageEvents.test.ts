import { expect, test } from '@jest/globals';
import { ServerClock } from './stageEvents';

test('the clocks of two devices are compared by the news that travelled fastest', () => {
  const clock = new ServerClock();
  // this device is 700 ms ahead; the news took 40, then 5, then 90 ms
  expect(clock.heard(10_000, 10_740)(10_000)).toBe(10_740);
  expect(clock.heard(11_000, 11_705)(10_000)).toBe(10_705);
  expect(clock.heard(12_000, 12_790)(10_000)).toBe(10_705);
});
