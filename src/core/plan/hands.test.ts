import { describe, expect, test } from '@jest/globals';
import { readChart, timelineOf } from '../chart';
import { readScale } from '../music';
import { scaleShapes } from '../neck';
import { unwrap } from '../shared';
import { handsOf, planFromWords, planOn, readHand, readPlan, readPlanPart, type PlanWords } from '.';

const chart = unwrap(readChart('key: A\n| A7 | D7 | A7 | E7 |'));
const timeline = timelineOf(chart, 100);
const handsBy = (words: PlanWords, chorus = 0) =>
  handsOf(planOn(chart, timeline, unwrap(planFromWords(words))).plan, timeline, chorus);

describe('the hand as it is written', () => {
  test.each([
    ['5', { kind: 'fret', fret: 5 }],
    ['Shape 2', { kind: 'shape', number: 2 }],
    ['nearest', { kind: 'nearest' }],
  ])('%s', (text, hand) => {
    expect(unwrap(readHand(text))).toEqual(hand);
  });

  test.each(['0', '18', 'shape 8', 'shape', 'the fifth', ''])('%s is no place', (text) => {
    const read = readHand(text);
    expect([read.ok, read.ok || read.problems[0].code]).toEqual([false, 'plan.hand']);
    expect(planFromWords({ id: 'outline', hand: text }).ok).toBe(false);
  });
});

describe('where the hand is over each chord', () => {
  test('nowhere in particular where the plan says nothing', () => {
    expect(handsBy({ id: 'outline' })).toEqual([null, null, null, null]);
  });

  test('at one fret throughout, at another on one degree, in one chorus', () => {
    const words: PlanWords = {
      id: 'outline',
      hand: '5',
      parts: [
        { where: { degree: 'IV' }, plan: { id: 'outline', hand: '3' } },
        { where: { chorus: 2 }, plan: { id: 'outline', hand: '9' } },
      ],
    };
    expect(handsBy(words)).toEqual([5, 3, 5, 5]);
    expect(handsBy(words, 1)).toEqual([9, 9, 9, 9]);
  });

  test('shape 1 of the chord’s own scale: A at the fifth fret, D at the tenth (common practice, no source)', () => {
    const hands = handsBy({ id: 'by-degrees', degrees: '1 b3 4 5 b7', hand: 'shape 1' });
    expect(hands).toEqual([5, 10, 5, 12]);
    // the same fret as the shape itself
    const [shape] = scaleShapes(unwrap(readScale('A minor pentatonic')).pcs);
    expect(shape!.run.touches[0]!.fret).toBe(5);
  });

  test('the nearest shape moves the hand less than one shape does', () => {
    const moved = (hands: readonly (number | null)[]) =>
      hands.slice(1).reduce<number>((sum, hand, index) => sum + Math.abs(hand! - hands[index]!), 0);
    const plan = { id: 'by-degrees', degrees: '1 b3 4 5 b7' } as const;
    expect(moved(handsBy({ ...plan, hand: 'nearest' }))).toBeLessThan(
      moved(handsBy({ ...plan, hand: 'shape 1' })),
    );
  });
});

test('a part of a plan names it, and a plan that is read says it of each chord', () => {
  expect(unwrap(readPlanPart('every IV: outline; hand=shape 4')).plan.hand).toBe('shape 4');
  expect(readPlanPart('every IV: outline; hand=nowhere').ok).toBe(false);
  const read = readPlan(chart, timeline, unwrap(planFromWords({ id: 'outline', hand: '7' })));
  expect(read.map(({ hand }) => hand)).toEqual([7, 7, 7, 7]);
});
