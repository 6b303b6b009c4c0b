import { differenceInCalendarDays } from 'date-fns';
import { datesIn, USUAL_LANGUAGE, type Dates } from './dates';

/**
 * When a take was played, as a player would say it: a weekday and time this week, then days and weeks. Times
 * in ms.
 */
export function takeMoment(at: number, dates: Dates = datesIn(USUAL_LANGUAGE), now = Date.now()): string {
  const days = differenceInCalendarDays(now, at);
  if (days === 0) return `today ${dates.time(at)}`;
  if (days === 1) return `yesterday ${dates.time(at)}`;
  if (days < 7) return `${dates.weekday(at)} ${dates.time(at)}`;
  return days < 14 ? `${days} days ago` : `${Math.round(days / 7)} weeks ago`;
}

/** The same in the language of someone's dates. */
export const momentIn =
  (dates: Dates) =>
  (at: number): string =>
    takeMoment(at, dates);
