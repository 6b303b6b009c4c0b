import { addDays, endOfDay } from 'date-fns';
import { practiceDays, type SessionStep } from '@/core/scheduling';
import { asDueDrill, DRILL_MINUTES, practiceState, REST_AFTER, type PracticeState } from './practiceState';

/** Days a plan looks ahead, with today. */
export const DAYS_AHEAD = 7;

export type PracticeWeek = Pick<PracticeState, 'minutes' | 'goal' | 'items' | 'tunes' | 'course'> & {
  /** From today: a moment of each day, and what there is to do on it. */
  readonly days: readonly { readonly at: number; readonly steps: readonly SessionStep[] }[];
  readonly now: number;
};

/** What the coming days would bring, today first. */
export async function weekAhead(now = Date.now()): Promise<PracticeWeek> {
  const { minutes, goal, items, tunes, dueTunes, course } = await practiceState();
  const moments = Array.from({ length: DAYS_AHEAD }, (_, day) =>
    day === 0 ? now : endOfDay(addDays(now, day)).getTime(),
  );
  const days = practiceDays({
    minutes,
    goal,
    moments,
    restAfter: REST_AFTER,
    tunes: dueTunes,
    course: course && { chart: course.chart, minutes: DRILL_MINUTES },
    drills: (at) => items.map(({ drill }) => asDueDrill(drill, at)),
  });
  return {
    minutes,
    goal,
    items,
    tunes,
    course,
    now,
    days: moments.map((at, day) => ({ at, steps: days[day] ?? [] })),
  };
}
