/** @jest-environment jsdom */
import { afterEach, expect, jest, test } from '@jest/globals';
import { cleanup, fireEvent, render, screen, within } from '@testing-library/react';
import { readChart } from '@/core/chart';
import { COURSE, drillFor, type DrillKind } from '@/core/drills';
import { ladderTo } from '@/core/scheduling';
import { unwrap } from '@/core/shared';
import { CourseView, courseThrough } from './CourseView';
import type { Item } from './DrillRows';

afterEach(cleanup);

const CHART_TEXT = 'key: C\n| Dm7 | G7 | Cmaj7 | A7 |';
const CHART = unwrap(readChart(CHART_TEXT));

/** A drill of a tune with attempts at these tempos, each passed. */
function itemOf(kind: DrillKind, tempos: readonly number[]): Item {
  return {
    days: 0,
    drill: {
      id: kind,
      chartId: 'c',
      title: 'Quay',
      drill: drillFor({ kind, chart: CHART, tempo: 96 }),
      origin: null,
      ladder: ladderTo({ goal: 96 }),
      memory: null,
      dueAt: 0,
      away: false,
      isMoved: false,
      createdAt: 0,
    },
    runs: tempos.map((tempo, index) => ({
      id: String(index),
      takeId: null,
      sitting: 's',
      tempo,
      met: 9,
      of: 10,
      passed: true,
      seconds: 60,
      places: [],
      at: index,
    })),
  };
}
const courseOver = (items: readonly Item[]) =>
  courseThrough(new Map(items.map((item) => [item.drill.drill.kind as string, item])), CHART_TEXT);

test('a drill is learnt once it was passed at the top of its tempo steps, begun before', () => {
  const { levels } = courseOver([itemOf('ladder-roots', [72, 96]), itemOf('ladder-thirds', [72])]);
  expect(levels[0]!.steps.slice(0, 3).map(({ standing }) => standing)).toEqual(['learnt', 'begun', 'new']);
});

test('the course shows its four levels with what is learnt, and one press starts what comes next', () => {
  const onGo = jest.fn();
  const learnt = COURSE[0]!.kinds.map((kind) => itemOf(kind, [96]));
  render(<CourseView course={courseOver(learnt)} title="Quay" onGo={onGo} />);
  const course = screen.getByRole('region', { name: 'The course through Quay' });
  const names = [
    'locked to the chords',
    'one scale over everything',
    'shapes of other chords',
    'free, and home again',
  ];
  names.forEach((name, index) => expect(course.textContent).toContain(`${index + 1}. ${name}`));
  // what is learnt is said in words too, not by its sign alone
  expect(within(course).getAllByRole('button', { name: /, learnt/ }).length).toBe(COURSE[0]!.kinds.length);
  const next = within(course).getByRole('button', { name: /next/ });
  fireEvent.click(next);
  expect(onGo).toHaveBeenCalledWith(COURSE[1]!.kinds[0]);
});

test('at the end of the course nothing comes next', () => {
  const all = COURSE.flatMap(({ kinds }) => kinds).map((kind) => itemOf(kind, [96]));
  const course = courseOver(all);
  expect([course.next, course.levels.every(({ isDone }) => isDone)]).toEqual([null, true]);
  render(<CourseView course={course} title="Quay" onGo={jest.fn()} />);
  expect(screen.queryByText('next')).toBeNull();
});
