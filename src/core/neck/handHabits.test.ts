import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { unwrap } from '../shared';
import { pathOf, STANDARD_INSTRUMENT, USUAL_HABITS, withCapo, type HandHabits, type Touch } from './index';

const line = (...midi: number[]) =>
  midi.map((one, index) => ({ onsetBeat: index / 2, durationBeats: 0.5, midi: one }));
function laid(midi: readonly number[], change: Partial<HandHabits>) {
  const instrument = { ...STANDARD_INSTRUMENT, habits: { ...USUAL_HABITS, ...change } };
  return unwrap(pathOf(line(...midi), { instrument }));
}
const meanFret = (path: readonly Touch[]) => path.reduce((sum, { fret }) => sum + fret, 0) / path.length;
const open = (path: readonly Touch[]) => path.filter(({ fret }) => fret === 0).length;
const C_MAJOR = [55, 57, 59, 60, 62, 64, 65, 67];

describe('what the hand likes', () => {
  test('the usual hand is the hand where nothing is said', () => {
    expect(laid(C_MAJOR, {})).toEqual(unwrap(pathOf(line(...C_MAJOR))));
  });

  test('a line lies where the hand plays mostly, in as few shifts', () => {
    const areas = (['low', 'middle', 'high'] as const).map((area) => laid(C_MAJOR, { area }));
    const [low, middle, high] = areas.map(({ path }) => meanFret(path));
    expect(low!).toBeLessThan(middle!);
    expect(middle!).toBeLessThan(high!);
    expect(areas.map(({ shifts }) => shifts)).toEqual([0, 0, 0]);
  });

  test('open strings are liked or avoided', () => {
    const low = [52, 55, 57, 59, 62, 64];
    expect(open(laid(low, { open: 'avoided' }).path)).toBe(0);
    expect(open(laid(low, { open: 'liked' }).path)).toBeGreaterThan(2);
    // the lowest note of the guitar is nowhere else
    expect(laid([40, 43], { open: 'avoided' }).path[0]).toMatchObject({ string: 6, fret: 0 });
  });

  test('a small hand moves where the usual one stretches, a large one stretches gladly', () => {
    const wide = [43, 45, 47, 48, 50, 52]; // three notes a string from the third fret: five frets
    const reach = (path: readonly Touch[]) => Math.max(...path.map(({ fret, finger }) => fret - finger));
    const [small, usual, large] = (['small', 'usual', 'large'] as const).map((size) => laid(wide, { size }));
    expect(small!.shifts).toBeGreaterThanOrEqual(usual!.shifts);
    expect(large!.shifts).toBe(usual!.shifts);
    expect(reach(small!.path)).toBeLessThanOrEqual(reach(usual!.path));
  });

  test('whatever it likes, the pitches are the same and the shifts are counted', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 40, max: 84 }), { minLength: 1, maxLength: 12 }),
        fc.record({
          size: fc.constantFrom<HandHabits['size']>('usual', 'large'),
          open: fc.constantFrom<HandHabits['open']>('liked', 'usual', 'avoided'),
          area: fc.constantFrom<HandHabits['area']>('low', 'middle', 'high', 'anywhere'),
        }),
        (midi, habits) => {
          const { path, shifts } = laid(midi, habits);
          expect(path.map(({ string, fret }) => STANDARD_INSTRUMENT.tuning[string - 1]! + fret)).toEqual(
            midi,
          );
          expect(shifts).toBe(laid(midi, {}).shifts);
        },
      ),
      { numRuns: 60 },
    );
  });

  test('a capo leaves the hand as it is', () => {
    const habits = { ...USUAL_HABITS, area: 'high' as const };
    expect(withCapo({ ...STANDARD_INSTRUMENT, habits }, 2).habits).toEqual(habits);
  });
});
