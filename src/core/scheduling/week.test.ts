import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { DAY_MS } from './due';
import type { DueDrill } from './session';
import { practiceDays } from './week';

const NOW = Date.UTC(2026, 10, 30, 18);
const drill = (id: string, inDays: number, more: Partial<DueDrill> = {}): DueDrill => ({
  id,
  chart: id.split('-')[0]!,
  dueAt: NOW + inDays * DAY_MS,
  minutes: 4,
  still: 0.9,
  ...more,
});
const moments = Array.from({ length: 7 }, (_, day) => NOW + day * DAY_MS);
const tune = (chart: string, daysAgo: number) => ({
  chart,
  lastPlayed: NOW - daysAgo * DAY_MS,
  minutes: 5,
  held: 1,
  of: 4,
});
const days = (drills: readonly DueDrill[], more: Partial<Parameters<typeof practiceDays>[0]> = {}) =>
  practiceDays({ minutes: 20, tunes: [], goal: null, restAfter: 25, drills: () => drills, moments, ...more });
const drillsOn = (all: ReturnType<typeof days>) =>
  all.map((steps) => steps.flatMap((step) => (step.kind === 'drill' ? [step.id] : [])));

test('every drill stands on the day it comes back, once', () => {
  const all = drillsOn(
    days([drill('a-1', -3), drill('a-2', 0), drill('b-1', 2), drill('b-2', 5.5), drill('c-1', 9)]),
  );
  expect(all.map((ids) => ids.sort())).toEqual([['a-1', 'a-2'], [], ['b-1'], [], [], [], ['b-2']]);
});

test('a drill that was played comes back after its days, and no goal takes it before', () => {
  const goal = { words: 'the jam', date: NOW + 6 * DAY_MS, charts: ['a'] };
  expect(drillsOn(days([drill('a-1', 0, { backAfter: 3 })], { goal }))).toEqual([
    ['a-1'],
    [],
    [],
    ['a-1'],
    [],
    [],
    ['a-1'],
  ]);
});

test('what a day has no room for waits for the next, and the goal takes nothing that was put on its day', () => {
  const many = Array.from({ length: 7 }, (_, index) => drill(`t-${index}`, 0));
  expect(drillsOn(days(many)).map(({ length }) => length)).toEqual([5, 2, 0, 0, 0, 0, 0]);
  const goal = { words: 'the jam', date: NOW + 6 * DAY_MS, charts: ['t'] };
  expect(drillsOn(days([drill('t-1', 4)], { goal }))[0]).toEqual(['t-1']);
  expect(drillsOn(days([drill('t-1', 4, { waitsForItsDay: true })], { goal }))).toEqual([
    [],
    [],
    [],
    [],
    ['t-1'],
    [],
    [],
  ]);
});

test('takes go round among the tunes, and a course is begun today alone', () => {
  const all = days([], {
    tunes: [tune('a', 3), tune('b', 9), tune('c', 5)],
    course: { chart: 'a', minutes: 4 },
  });
  expect(all.map((steps) => steps.find((step) => step.kind === 'take')?.chart).slice(0, 4)).toEqual([
    'b',
    'c',
    'a',
    'b',
  ]);
  expect(all.map((steps) => steps.some(({ kind }) => kind === 'course'))).toEqual([
    true,
    ...Array(6).fill(false),
  ]);
});

test('no day asks for more minutes than there are, whatever is due', () => {
  const anyDrill = fc.tuple(fc.integer({ min: -20, max: 12 }), fc.double({ min: 0, max: 1, noNaN: true }));
  fc.assert(
    fc.property(fc.array(anyDrill, { maxLength: 40 }), fc.integer({ min: 5, max: 90 }), (found, minutes) => {
      const drills = found.map(([inDays, still], index) =>
        drill(`t${index % 5}-${index}`, inDays, { still }),
      );
      const all = days(drills, { minutes, tunes: [tune('t1', 4)] });
      for (const steps of all)
        expect(steps.reduce((sum, step) => sum + step.minutes, 0)).toBeLessThanOrEqual(minutes);
      const ids = drillsOn(all).flat();
      expect(new Set(ids).size).toBe(ids.length);
    }),
  );
});
