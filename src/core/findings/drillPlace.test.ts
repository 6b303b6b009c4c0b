import { expect, test } from '@jest/globals';
import { unwrap } from '../shared';
import { readChart, timelineOf } from '../chart';
import { analyse, type PlayedNote } from '../analyse';
import { onTheNeck } from './index';
import { spanOf } from './span';

const chart = unwrap(readChart('key: C\n| Cmaj7 | A7 | Dm7 | G7 |\n| Cmaj7 | A7 | Dm7 G7 | Cmaj7 |'));
const timeline = timelineOf(chart, 120);
const span = (where: { change?: string; chord?: string; bars?: number[] }) =>
  spanOf(chart, timeline, { bars: [], ...where });

test('a drill loops the bars of its change, its chord, or the place where it happened most', () => {
  expect(span({ change: 'A7→Dm7' })).toEqual([2, 3]);
  expect(span({ change: 'Dm7→G7' })).toEqual([3, 4]);
  expect(span({ chord: 'G7' })).toEqual([3, 5]);
  expect(span({ bars: [6, 14, 3] })).toEqual([5, 6]);
  expect(span({ bars: [1, 9] })).toEqual([1, 2]);
  // the form is a loop: the change into its first bar
  expect(span({ change: 'G7→Cmaj7' })).toEqual([4, 5]);
  expect(span({})).toEqual([1, 8]);
});

const notes = (...midis: number[]): PlayedNote[] =>
  midis.map((midi, index) => ({ onsetBeat: index / 2, durationBeats: 0.5, midi }));
const judge = (played: PlayedNote[], id: 'outline' | 'scale-per-chord' = 'outline') =>
  analyse({ chart, tempo: 120, notes: played, plan: { id } });

test('strings and positions of a take by the likeliest fingering; what no string reaches is counted apart', () => {
  // the lowest octave from the open low string up, then a note under it
  const low = onTheNeck(judge(notes(40, 43, 45, 47, 50, 52, 30)));
  expect([
    low.strings.reduce((sum, count) => sum + count, 0),
    low.strings.slice(0, 3),
    low.outOfReach,
  ]).toEqual([6, [0, 0, 0], 1]);
  expect(Object.keys(low.positions).every((position) => Number(position) <= 3)).toBe(true);
  const high = onTheNeck(judge(notes(76, 79, 81, 84, 81, 79)));
  expect(high.strings.reduce((sum, count) => sum + count, 0)).toBe(6);
  for (const position of Object.keys(high.positions)) expect(Number(position)).toBeGreaterThanOrEqual(7);
  expect(onTheNeck(judge([]))).toMatchObject({ positions: {}, shifts: 0 });
});

test('plan fit: the plan’s material and members of figures that resolved', () => {
  // over Cmaj7: C, a half step below E that resolves, E, then a half step that does not
  const { summary } = judge(notes(60, 63, 64, 66, 72));
  expect([summary.notesInPlan, summary.notesJudged]).toEqual([4, 5]);
  // over the scale D fits too, by the outline it does not
  expect(
    ['outline', 'scale-per-chord'].map((id) => judge(notes(60, 62, 67), id as 'outline').summary.notesInPlan),
  ).toEqual([2, 3]);
});
