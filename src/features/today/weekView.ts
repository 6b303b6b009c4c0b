import { startOfDay } from 'date-fns';
import { CATALOGUE } from '@/core/drills';
import { typeset } from '@/core/music';
import { DAY_MS, type SessionStep } from '@/core/scheduling';
import type { Dates } from '@/presentation';
import type { PracticeWeek } from '@/server/week';
import { aheadWhy, drillName, takeWhy } from './stepWords';

/** One thing to do on a day. */
export type WeekItem = {
  readonly key: string;
  readonly href: string;
  readonly name: string;
  readonly where: string;
  readonly why: string;
  readonly minutes: number;
  /** The drill that can be put on another day; null for what follows from the tunes. */
  readonly drillId: string | null;
};
export type WeekDay = {
  /** Days from today. */ readonly ahead: number;
  readonly name: string;
  readonly date: string;
  readonly minutes: number;
  readonly items: readonly WeekItem[];
};
export type WeekView = {
  readonly goal: string | null;
  readonly given: number;
  readonly days: readonly WeekDay[];
};

/** The coming days out of what the server knows. */
export function weekView(week: PracticeWeek, dates: Dates): WeekView {
  return {
    goal: week.goal && goalLine(week.goal.words, week.goal.date, dates),
    given: week.minutes,
    days: week.days.map(({ at, steps }, ahead) => ({
      ahead,
      name: dayName(ahead, at, dates),
      date: dates.day(at),
      minutes: steps.reduce((sum, { minutes }) => sum + minutes, 0),
      items: steps.flatMap((step) => itemOf(step, week, at) ?? []),
    })),
  };
}

const goalLine = (words: string, date: number, dates: Dates): string =>
  `${words.charAt(0).toUpperCase()}${words.slice(1)}: ${dates.whole(date)}`;

const dayName = (ahead: number, at: number, dates: Dates): string => {
  if (ahead === 0) return 'Today';
  return ahead === 1 ? 'Tomorrow' : dates.weekday(at);
};

function itemOf(step: SessionStep, week: PracticeWeek, at: number): WeekItem | null {
  switch (step.kind) {
    case 'rest':
      return null;
    case 'course':
      return courseItem(step.minutes, week);
    case 'take':
      return takeItem(step, week, at);
    case 'drill':
      return drillItem(step, week, at);
  }
}

function courseItem(minutes: number, { course }: PracticeWeek): WeekItem | null {
  if (!course) return null;
  return {
    key: 'course',
    href: `/drills?chart=${course.chart}&course=${course.step.kind}`,
    name: typeset(CATALOGUE[course.step.kind].name),
    where: course.title,
    why: 'next in the course',
    minutes,
    drillId: null,
  };
}

function takeItem(
  { chart, minutes, why }: Extract<SessionStep, { kind: 'take' }>,
  { tunes, goal }: PracticeWeek,
  at: number,
): WeekItem | null {
  const tune = tunes.find((one) => one.chart === chart);
  if (!tune) return null;
  return {
    key: `take ${chart} ${at}`,
    href: `/record?chart=${chart}`,
    name: `A take of ${tune.title}`,
    where: tune.tempo === null ? '' : `at ${tune.tempo}`,
    why: takeWhy(why, goal),
    minutes,
    drillId: null,
  };
}

function drillItem(
  { id, minutes, why }: Extract<SessionStep, { kind: 'drill' }>,
  { items, goal, days }: PracticeWeek,
  at: number,
): WeekItem | null {
  const drill = items.find((item) => item.drill.id === id)?.drill;
  if (!drill) return null;
  const isBack = days.some(
    (day) => day.at < at && day.steps.some((step) => step.kind === 'drill' && step.id === id),
  );
  if (isBack)
    return {
      key: `${id} ${at}`,
      href: `/drills/${id}`,
      name: typeset(drill.drill.name),
      where: drill.title,
      why: 'back, if it goes well',
      minutes,
      drillId: null,
    };
  return {
    key: id,
    href: `/drills/${id}?go=1`,
    name: drillName(drill),
    where: drill.title,
    why: why === 'ahead' ? aheadWhy(goal) : dueWords(drill, at),
    minutes,
    drillId: id,
  };
}

/** Why a drill stands on a day. */
function dueWords({ dueAt, isMoved, memory }: PracticeWeek['items'][number]['drill'], at: number): string {
  const isItsDay = dueAt >= startOfDay(at).getTime();
  if (isMoved) return isItsDay ? 'you put it here' : 'no room on the day you chose';
  if (memory === null) return 'new';
  const late = Math.floor((at - dueAt) / DAY_MS);
  if (isItsDay || late < 1) return 'comes back';
  return `due for ${late === 1 ? 'a day' : `${late} days`}`;
}
