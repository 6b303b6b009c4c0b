import { expect, test } from '@jest/globals';
import { harmonyOf, readChart, timelineOf } from '@/core/chart';
import { planOf } from '@/core/plan';
import { unwrap } from '@/core/shared';
import { nowPlaying } from './nowPlaying';

const chart = unwrap(readChart('key: Bb\n| Cm7 | F7 | Bb7 G7 | Bb7 |'));
const timeline = timelineOf(chart, 120);
const at = (beat: number) =>
  nowPlaying(timeline, planOf({ id: 'scale-per-chord' }, harmonyOf(chart, timeline)), beat);

test('the chord now, the beats until the next, and the note to land on', () => {
  expect(at(2)).toMatchObject({
    now: { symbol: 'Cm7' },
    next: { symbol: 'F7' },
    beatsUntil: 2,
    chorus: 0,
    bar: 0,
    beat: 2,
    beats: 4,
    countIn: null,
    landOn: { name: 'A', from: { name: 'Bb', semitones: -1 } },
  });
  expect(at(3.9)).toMatchObject({ beatsUntil: 1, beat: 3 });
  expect(at(9)).toMatchObject({ now: { symbol: 'Bb7' }, next: { symbol: 'G7' }, beatsUntil: 1, bar: 2 });
});

test('the count-in counts down to the first chord', () => {
  expect(at(-3.5)).toMatchObject({ countIn: 4, next: { symbol: 'Cm7' } });
  expect(at(-0.2)).toMatchObject({ countIn: 1 });
});

test('after the last chord comes the first, a chorus on', () => {
  expect(at(14)).toMatchObject({ now: { symbol: 'Bb7' }, next: { symbol: 'Cm7' }, beatsUntil: 2, bar: 3 });
  expect(at(17)).toMatchObject({ chorus: 1, bar: 0, beat: 1 });
});

test('one chord throughout: itself is next', () => {
  const vamp = unwrap(readChart('| E7 | % |'));
  const line = timelineOf(vamp, 120);
  expect(nowPlaying(line, planOf({ id: 'outline' }, harmonyOf(vamp, line)), 1)).toMatchObject({
    now: { symbol: 'E7' },
    next: { symbol: 'E7' },
  });
});
