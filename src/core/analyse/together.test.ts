import { expect, test } from '@jest/globals';
import { readChart } from '../chart';
import { unwrap } from '../shared';
import { analyse, togetherOf } from './index';

const eventsOver = (chart: string, ...groups: readonly (readonly number[])[]) => {
  const report = analyse({
    chart: unwrap(readChart(chart)),
    tempo: 100,
    plan: { id: 'outline' },
    leanMs: 0,
    notes: groups.flatMap((pitches, beat) =>
      pitches.map((midi) => ({ onsetBeat: beat, durationBeats: 0.9, midi })),
    ),
  });
  return report.events.map((_, at) => togetherOf(report, at));
};

// Intervals and inversions as any harmony handbook names them; worked by hand.
test('two notes together are told by their interval and what each is of the chord (T4.6)', () => {
  const events = eventsOver('key: C\n| C7 | F7 |', [64, 72], [58, 67], [60, 76], [60]);
  expect(events.map(({ dyad }) => dyad && [dyad.semitones, ...dyad.degrees])).toEqual([
    [8, '3', '1'],
    [9, 'b7', '5'],
    [16, '1', '3'],
    undefined,
  ]);
});

test('a triad is told by its lowest tone; what is no triad has no inversion (T4.6)', () => {
  const events = eventsOver('key: C\n| C | Am |', [60, 64, 67], [64, 67, 72], [67, 72, 76], [60, 64, 67, 71]);
  expect(events.map(({ inversion }) => inversion)).toEqual([0, 1, 2, undefined]);
});
