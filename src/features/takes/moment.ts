import { differenceInCalendarDays, format } from 'date-fns';

/**
 * When a take was played, as a player would say it: a weekday and time this week, then days and weeks. Times
 * in ms.
 */
export function takeMoment(at: number, now = Date.now()): string {
  const days = differenceInCalendarDays(now, at);
  if (days === 0) return format(at, "'today' H:mm");
  if (days === 1) return format(at, "'yesterday' H:mm");
  if (days < 7) return format(at, 'EEEE H:mm');
  return days < 14 ? `${days} days ago` : `${Math.round(days / 7)} weeks ago`;
}
