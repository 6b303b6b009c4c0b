import { expect, test } from '@jest/globals';
import { ALIGNED_VALUES } from './alignedSpectra';
import { FITTED } from './classifierWeights';
import { CONTEXT_VALUES, LookAround, WORTH_A_LOOK, type LookedAtMoment } from './lookAround';
import { SECOND_FITTED } from './secondLookWeights';

const FIRST = FITTED[0]!.sizes[0]!;
const moment = (frame: number, ...pitches: [midi: number, leaning: number][]): LookedAtMoment => ({
  onsetCandidate: { frame, kind: 'attack', strength: 1, clear: true },
  candidates: pitches.map(([midi, leaning]) => ({
    midi,
    leaning,
    features: new Float64Array(FIRST).fill(midi),
  })),
});
const around = (moments: readonly LookedAtMoment[], index: number) =>
  [...new LookAround(moments).contextsAt(index)].map(({ candidate, context }) => ({
    midi: candidate.midi,
    context,
  }));
/** Where the context holds the surest at an interval: after four values of the moment. */
const INTERVALS = [-28, -24, -19, -12, -9, -8, -7, -5, -4, -3, 3, 4, 5, 7, 8, 9, 12, 19, 24, 28];
const at = (interval: number) => 4 + INTERVALS.indexOf(interval);
const MIXTURES = 4 + INTERVALS.length;
const AROUND = MIXTURES + 3;

test('as many features as the second networks take', () => {
  const [found] = around([moment(10, [60, 3])], 0);
  expect(found!.context).toHaveLength(CONTEXT_VALUES);
  expect(FIRST + CONTEXT_VALUES + ALIGNED_VALUES).toBe(SECOND_FITTED[0]!.sizes[0]);
});

test('what the first look all but rules out is not asked again', () => {
  expect(around([moment(10, [60, 3], [72, WORTH_A_LOOK - 0.1])], 0).map(({ midi }) => midi)).toEqual([60]);
  expect(around([moment(10, [60, WORTH_A_LOOK - 1])], 0)).toEqual([]);
});

test('the strings of one stroke, found a few frames apart, see each other by their interval', () => {
  const [low, high] = [
    around([moment(10, [45, 4]), moment(13, [52, -2])], 0),
    around([moment(10, [45, 4]), moment(13, [52, -2])], 1),
  ];
  expect(low[0]!.context[at(7)]).toBeCloseTo(-0.5, 10);
  expect(high[0]!.context[at(-7)]).toBeCloseTo(1, 10);
  // nothing an octave off: as if it had been ruled out
  expect(low[0]!.context[at(12)]).toBe(-2);
});

test('a pitch at the difference of two surer ones is told that they would explain it', () => {
  // A2 at 110 Hz and E3 at 164.8: their difference is 54.8 Hz, A1; 2 · 110 − 164.8 = 55.2 is A1 too
  const [difference] = around([moment(10, [33, 0.5], [45, 4], [52, 2])], 0);
  expect(difference!.context.slice(MIXTURES, MIXTURES + 3)).toEqual([0.5, -2, 0.5]);
  const [other] = around([moment(10, [35, 0.5], [45, 4], [52, 2])], 0);
  expect(other!.context.slice(MIXTURES, MIXTURES + 3)).toEqual([-2, -2, -2]);
});

test('the same pitch and any pitch shortly before and after, by how far off they are', () => {
  // frames of 5.8 ms: 8 frames are 46 ms, in the second range; 30 are 174, in the fourth
  const [found] = around(
    [moment(70, [60, 6]), moment(92, [64, 1]), moment(100, [60, 0]), moment(130, [60, 2])],
    2,
  );
  const pairs = found!.context.slice(AROUND, AROUND + 16);
  expect(pairs.slice(0, 8)).toEqual([-2, -2, -2, 0.25, -2, -2, 1.5, 1.5]);
  expect(pairs.slice(8)).toEqual([-2, -2, -2, -2, -2, -2, 0.5, 0.5]);
});

test('how many strings the strokes around sound together, on average, less one', () => {
  const chords = [
    moment(0, [45, 2], [52, 2]),
    moment(60, [47, 2], [54, 2]),
    moment(120, [45, 2]),
    moment(180, [45, 2], [52, 2]),
  ];
  expect(around(chords, 2)[0]!.context.at(-1)).toBe(1);
  expect(around([moment(0, [45, 2]), moment(60, [47, 2])], 0)[0]!.context.at(-1)).toBe(0);
});
