import { expect, test } from '@jest/globals';
import { certain } from '../vocabulary';
import { readChord, readScale } from '../music';
import { harmonyOf, readChart, timelineOf } from '../chart';
import { landOn, planOf, PLAN_IDS, readPlanId, type PlanChoice } from './index';

const cells = (text: string, choice: PlanChoice) => {
  const chart = certain(readChart(text));
  return planOf(choice, harmonyOf(chart, timelineOf(chart, 120))).cells;
};
const pcs = (values: readonly number[]) => [...values].sort((a, b) => a - b);
const A_MINOR_PENTATONIC = certain(readScale('A minor pentatonic'));

// Check values of the theory page: against A minor pentatonic A7 lacks C♯, D7 F♯, E7 G♯ and B.
test('home scale and tell-tale tones: the chord tones the home scale lacks', () => {
  const plan = cells('key: A\n| A7 | D7 | E7 | Am7 |', { id: 'home-tell-tale', home: A_MINOR_PENTATONIC });
  expect(plan.map((cell) => pcs(cell.targets))).toEqual([[1], [6], [8, 11], [0, 7]]); // Am7 lacks nothing: its guide tones
  expect(pcs(plan[0]!.material)).toEqual([0, 1, 2, 4, 7, 9]);
});

test('outline, scale per chord, home scale and single target', () => {
  const text = 'key: C\n| Dm7 | G7 | C6 |';
  expect(cells(text, { id: 'outline' }).map((cell) => [pcs(cell.material), pcs(cell.targets)])).toEqual([[[0, 2, 5, 9], [0, 5]], [[2, 5, 7, 11], [5, 11]], [[0, 4, 7, 9], [4, 9]]]);
  expect(pcs(cells(text, { id: 'scale-per-chord' })[1]!.material)).toEqual([0, 2, 4, 5, 7, 9, 11]);
  expect(cells(text, { id: 'home-scale' }).map((cell) => pcs(cell.targets))).toEqual([[0, 4, 7], [0, 4, 7], [0, 4, 7]]);
  expect(cells('key: Am\n| Am |', { id: 'home-scale' })[0]!.targets).toEqual([9, 0, 4]);
  expect(cells(text, { id: 'single-target' }).map((cell) => cell.targets)).toEqual([[5], [11], [4]]);
  expect(cells('| C5 | Gsus4 |', { id: 'single-target' }).map((cell) => cell.targets)).toEqual([[0], [0]]);
});

test('over N.C. the home scale is the material and nothing is aimed at', () => {
  expect(cells('key: C\n| C | N.C. |', { id: 'outline' })[1]).toEqual({ material: [0, 2, 4, 5, 7, 9, 11], targets: [] });
});

test('a plan that is none is refused with the nearest', () => {
  const read = readPlanId('outlines');
  expect(read.ok ? '' : read.problems[0].suggestion).toBe('outline');
  expect(PLAN_IDS.every((id) => readPlanId(id).ok)).toBe(true);
});

test('land on: the half step before a common tone, with where it comes from', () => {
  const aim = (from: string, to: string, targets: number[]) => landOn(certain(readChord(from)), certain(readChord(to)), targets);
  expect(aim('Cm7', 'F7', [9, 3])).toEqual({ pc: 9, name: 'A', interval: '3', from: { name: 'Bb', semitones: -1 } });
  expect(aim('Bb7', 'Eb7', [7, 1])).toMatchObject({ name: 'G', from: { name: 'Ab', semitones: -1 } });
  expect(aim('C', 'F', [])).toBeNull();
});
