/** @jest-environment jsdom */
import { datesIn, USUAL_LANGUAGE } from '@/presentation';
import { afterEach, expect, test } from '@jest/globals';
import { cleanup, render } from '@testing-library/react';
import { readChart } from '@/core/chart';
import { courseOf, drillFor } from '@/core/drills';
import { DAY_MS, ladderTo, progressOf, type Played } from '@/core/scheduling';
import { unwrap } from '@/core/shared';
import type { StoredDrill, StoredRun } from '@/server/drillRows';
import type { Today } from '@/server/practice';
import { Courses } from '../progress/Courses';
import { approachRows, changeRows, weekName } from '../progress/progressView';
import { sinceLastWeek, todayView } from './todayView';

afterEach(cleanup);

const NOW = Date.UTC(2026, 10, 26, 12);
const played = (
  weeksAgo: number,
  f7: readonly [number, number],
  eb7: readonly [number, number],
  tempo = 96,
): Played => ({
  id: `${weeksAgo} ${f7}`,
  at: NOW - weeksAgo * 7 * DAY_MS,
  tempo,
  seconds: 200,
  key: 'Bb major',
  measures: {
    kinds: [
      { from: 'Cm7', to: 'F7', met: f7[0], of: f7[1] },
      { from: 'Bb7', to: 'Eb7', met: eb7[0], of: eb7[1] },
    ],
    tones: [{ tone: 'third', met: 3, of: 9 }],
    approaches: [{ name: 'Enclosure', met: 1, of: 9 }],
    places: { 5: 20 },
  },
});
const TAKES = [
  played(3, [1, 18], [5, 18]),
  played(2, [2, 18], [9, 18]),
  played(1, [3, 18], [14, 18]),
  played(0, [3, 18], [17, 18]),
];
const progress = progressOf(TAKES, 0);

const CHART = unwrap(readChart('key: Bb\n| Cm7 | F7 |'));
const drill: StoredDrill = {
  id: 'd1',
  chartId: 'c1',
  title: 'Lamplight Quarry',
  drill: { ...drillFor({ kind: 'ladder-thirds', chart: CHART, tempo: 96 }), name: 'Thirds into F7' },
  origin: null,
  ladder: ladderTo({ goal: 96 }),
  memory: null,
  dueAt: NOW - DAY_MS,
  away: false,
  isMoved: false,
  createdAt: NOW,
};
const run = (met: number, tempo = 72): StoredRun => ({
  id: `${met}`,
  takeId: null,
  sitting: 's',
  tempo,
  met,
  of: 11,
  passed: met >= 9,
  seconds: 60,
  places: [],
  at: NOW,
});
const tune = {
  chart: 'c2',
  title: 'Tin Orchard',
  held: 2,
  of: 9,
  tempo: 72,
  takes: 1,
  lastPlayed: NOW - 6.5 * DAY_MS,
};
const today = (change: Partial<Today> = {}): Today => ({
  course: null,
  minutes: 30,
  goal: null,
  daysLeft: null,
  spread: [],
  steps: [
    { kind: 'drill', id: 'd1', minutes: 4, why: 'due' },
    { kind: 'rest', minutes: 3 },
    { kind: 'take', chart: 'c2', minutes: 5, why: 'goal' },
  ],
  items: [{ drill, runs: [run(11)] }],
  tunes: [tune],
  last: null,
  minutesThisWeek: 41.4,
  progress,
  now: NOW,
  ...change,
});

test('one thing first, with what the last time was and what the next has to bring', () => {
  const view = todayView(today(), datesIn(USUAL_LANGUAGE));
  expect(view.first).toMatchObject({
    href: '/drills/d1?go=1',
    name: 'Thirds into F7 at 72',
    where: 'Lamplight Quarry',
    bold: '11 of 11',
    words: 'once more at 9 or better and you go to 80',
    minutes: 4,
  });
  expect(view.also).toEqual([
    {
      href: '/record?chart=c2',
      name: 'A take of Tin Orchard at 72',
      where: 'not played for 6 days',
      words: '',
      bold: null,
      minutes: 5,
      why: 'a whole take for your goal',
    },
  ]);
  expect(view.first!.why).toBe('due for a day');
  expect([view.minutes, view.rests, view.minutesThisWeek]).toEqual([12, 1, 41]);
  expect(todayView(today({ items: [{ drill, runs: [] }] }), datesIn(USUAL_LANGUAGE)).first!.words).toBe(
    'first try',
  );
  expect(todayView(today({ items: [{ drill, runs: [run(4)] }] }), datesIn(USUAL_LANGUAGE)).first!.words).toBe(
    '9 of 11 twice in a row and you go to 80',
  );
  expect(todayView(today({ steps: [] }), datesIn(USUAL_LANGUAGE))).toMatchObject({ first: null, also: [] });
  // what is gone meanwhile is left out
  expect(todayView(today({ items: [], tunes: [] }), datesIn(USUAL_LANGUAGE)).first).toBeNull();
});

test('each thing says why it is here: due, found in a take, ahead for the goal, next in the course', () => {
  const why = (step: Today['steps'][number], change: Partial<Today> = {}) =>
    todayView(today({ steps: [step], ...change }), datesIn(USUAL_LANGUAGE)).first?.why;
  const of = (reason: 'new' | 'ahead' | 'goal') =>
    why({ kind: 'drill', id: 'd1', minutes: 4, why: reason }, { items: [{ drill: found, runs: [] }] });
  const found = { ...drill, origin: { takeId: 't', take: 7, sentence: 's' } };
  expect([of('new'), of('ahead'), of('goal')]).toEqual([
    'found in take 7',
    'not due yet, but for your goal',
    'due for a day, for your goal',
  ]);
  expect(why({ kind: 'take', chart: 'c2', minutes: 5, why: 'not-played' })).toBe('the tune you left longest');
  const { next } = courseOf(
    (kind) => (kind.startsWith('ladder') ? 'learnt' : 'new'),
    unwrap(readChart('key: C\n| Dm7 | G7 | Cmaj7 | A7 |')),
  );
  const offered = { chart: 'c2', title: 'Tin Orchard', step: next! };
  const view = todayView(
    today({ steps: [{ kind: 'course', chart: 'c2', minutes: 4 }], course: offered }),
    datesIn(USUAL_LANGUAGE),
  );
  expect(view.first).toMatchObject({
    href: '/drills?chart=c2&course=chord-tones',
    name: 'Chord tones only',
    why: 'next in the course: locked to the chords',
  });
});

test('a goal says its days, and the tunes of those to come', () => {
  const goal = {
    words: 'Thursday’s jam',
    date: NOW + 3 * DAY_MS,
    day: '2026-11-29',
    charts: ['c2'],
    minutes: 30,
  };
  const view = todayView(
    today({
      goal,
      daysLeft: 3,
      spread: [
        { day: 0, charts: ['c2'] },
        { day: 1, charts: ['c2'] },
      ],
    }),
    datesIn(USUAL_LANGUAGE),
  );
  expect(view.goal).toEqual({
    words: 'Thursday’s jam',
    days: 3,
    day: '2026-11-29',
    charts: ['c2'],
    minutes: 30,
  });
  expect(view.spread).toEqual([
    { day: 'today', titles: ['Tin Orchard'] },
    { day: 'tomorrow', titles: ['Tin Orchard'] },
  ]);
  expect(todayView(today({ goal, daysLeft: -1 }), datesIn(USUAL_LANGUAGE)).goal).toBeNull();
});

test('since last week: what is holding, what has hardly moved', () => {
  expect(sinceLastWeek(progress)).toEqual([
    { title: 'B♭7 to E♭7 is holding', words: 'third or seventh in 17 of 18 landings, was 14 of 18' },
    { title: 'Cm7 to F7 has hardly moved', words: '3 of 18, was 3 of 18; too close to call' },
  ]);
  expect(sinceLastWeek(progressOf(TAKES.slice(3), 0))).toEqual([]);
});

test('the picture of progress is a table too: counts of every week, a word, and where it is held', () => {
  const rows = changeRows(progress);
  const { getAllByRole, container } = render(
    <Courses
      rows={rows}
      thisWeek={progress.weeks[3]!.week}
      chosen={0}
      onChoose={() => undefined}
      what="Kinds of change"
    />,
  );
  const [, first, second] = getAllByRole('row');
  expect(first!.textContent).toMatch(
    /Better3 weeks ago2 weeks agolast weekthis week5 of 189 of 1814 of 1817 of 18/,
  );
  expect(first!.textContent).toContain('Better+67 points, between +36 and +83');
  expect(first!.textContent).toMatch(/96$/);
  expect(second!.textContent).toContain('4 weeks the same');
  expect(container.querySelectorAll('[data-point]')).toHaveLength(8);
  expect(approachRows(progress).map(({ name }) => name)).toEqual(['Enclosure']);
  expect([weekName(5, 5), weekName(4, 5), weekName(1, 5)]).toEqual(['this week', 'last week', '4 weeks ago']);
});
