const DAY = 86_400_000;

/**
 * When a take was played, as a player would say it: a weekday and time this week, then days and weeks. Times
 * in ms.
 */
export function takeMoment(at: number, now = Date.now()): string {
  const date = new Date(at);
  const days = Math.round((startOfDay(now) - startOfDay(at)) / DAY);
  const time = `${date.getHours()}:${String(date.getMinutes()).padStart(2, '0')}`;
  if (days === 0) return `today ${time}`;
  if (days === 1) return `yesterday ${time}`;
  if (days < 7)
    return `${['Sunday', 'Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday'][date.getDay()]} ${time}`;
  if (days < 14) return `${days} days ago`;
  return `${Math.round(days / 7)} weeks ago`;
}

const startOfDay = (at: number): number => new Date(at).setHours(0, 0, 0, 0);
