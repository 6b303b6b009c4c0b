import { expect, test } from '@jest/globals';
import { openingPlace, studyReducer, type StudyAction } from './studyState';

const limits = { cells: 4, highest: 18 };
const after = (actions: readonly StudyAction[], place = {}) =>
  actions.reduce((state, action) => studyReducer(state, { ...action, limits }), openingPlace(place));

test('stepping goes round the form, also from beyond its end', () => {
  const back: StudyAction = { type: 'step', by: -1 };
  const on: StudyAction = { type: 'step', by: 1 };
  expect([after([back]).selected, after([on, on, on, on]).selected]).toEqual([3, 0]);
  expect(after([on], { at: 9 }).selected).toBe(0);
});

test('the hand stays on the neck; layers go round; an address is a place', () => {
  const slide = (by: 1 | -1): StudyAction => ({ type: 'slide', by });
  expect([
    after([slide(-1)], { position: 1 }).position,
    after([slide(1)], { position: 18 }).position,
    after([slide(1)]).position,
  ]).toEqual([1, 18, 6]);
  const layers = [1, 2, 3].map((count) => after(Array<StudyAction>(count).fill({ type: 'nextLayer' })).layer);
  expect(layers).toEqual(['scale', 'plan', 'shape']);
  expect(openingPlace({ at: 2, position: 7, view: 'shapes' })).toMatchObject({
    selected: 2,
    position: 7,
    view: 'shapes',
  });
});
