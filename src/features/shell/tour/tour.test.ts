/** @jest-environment jsdom */
import { beforeEach, expect, test } from '@jest/globals';
import { addSource } from '../commands/registry';
import { advanceTour, endTour, noteTake, readTour, startTour, STEPS, tourNow } from './tourState';
import { detour, nextStep, TOUR } from './tourSteps';

beforeEach(() => {
  endTour();
  sessionStorage.clear();
});

test('the round goes on step by step, remembers its take and outlives a reload of the tab', () => {
  expect(tourNow()).toBeNull();
  startTour();
  for (let step = 1; step < STEPS.length; step++) {
    advanceTour();
    expect(tourNow()?.step).toBe(step);
  }
  noteTake('/record');
  noteTake('/takes/abc-1');
  noteTake('/takes/other');
  expect(readTour(sessionStorage.getItem('idle-wander-tour'))).toEqual({ step: 5, takeId: 'abc-1' });
  advanceTour();
  expect([tourNow(), sessionStorage.getItem('idle-wander-tour')]).toEqual([null, null]);
});

test.each(['', 'null', '{', '{"step":-1}', '{"step":99}', '{"step":1.5}', '[]', '{"step":"1"}'])(
  'what makes no sense as a place in the round is none: %s',
  (text) => expect(readTour(text)).toBeNull(),
);

test('every step is shown somewhere, says one thing and one way on; a new chart leads to recording over it', () => {
  const paths = ['/charts', '/charts', '/record', '/takes/a', '/drills/a', '/drills/a'];
  STEPS.forEach((id, index) => {
    const { on, title, words, next } = TOUR[id];
    expect([id, on.test(paths[index] ?? '')]).toEqual([id, true]);
    expect(words.split(/[.?] /).every((sentence) => sentence.split(' ').length <= 20)).toBe(true);
    expect([title, next].every((label) => label.length < 25)).toBe(true);
  });
  expect(detour('stand-in', '/charts/Ab-1')).toBe('/record?chart=Ab-1');
  expect([detour('stand-in', '/charts'), detour('review', '/charts/Ab-1')]).toEqual([null, null]);
});

test('next does what the screen can do; where there is nothing to drill, the round comes to its last question', () => {
  let drilled = 0;
  startTour();
  while (tourNow()?.step !== STEPS.indexOf('review')) advanceTour();
  const take = addSource(() => ({ 'review.drill': () => drilled++ }));
  nextStep('review', () => undefined);
  expect([drilled, tourNow()?.step]).toEqual([1, STEPS.indexOf('drill')]);
  take();
  startTour();
  while (tourNow()?.step !== STEPS.indexOf('review')) advanceTour();
  nextStep('review', () => undefined);
  expect(tourNow()?.step).toBe(STEPS.indexOf('end'));
});
