import type { Timestamp } from './due';
import { sessionOf, type DueDrill, type DueTune, type SessionRequest, type SessionStep } from './session';

export type DaysRequest = Omit<SessionRequest, 'drills' | 'now'> & {
  /** Every drill as it stands at a moment: what is known of it fades. */
  readonly drills: (at: Timestamp) => readonly DueDrill[];
  /** Now, and then the end of each day that follows. */ readonly moments: readonly Timestamp[];
};

/**
 * The practice of the coming days, each as `sessionOf` would choose it if all before it were done: a drill stands
 * there once, as nobody knows yet when it will come back, and a tune that was played is the longest unplayed no more.
 * @returns a list of steps for each of the moments
 */
export function practiceDays({ drills, moments, tunes, course, ...request }: DaysRequest): SessionStep[][] {
  const placed = new Set<string>();
  let known: readonly DueTune[] = tunes;
  return moments.map((now, day) => {
    const open = drills(now).filter(({ id }) => !placed.has(id));
    const steps = sessionOf({
      ...request,
      now,
      drills: open,
      tunes: known,
      course: day === 0 ? (course ?? null) : null,
    });
    for (const step of steps) {
      if (step.kind === 'drill') placed.add(step.id);
      if (step.kind === 'take')
        known = known.map((tune) => (tune.chart === step.chart ? { ...tune, lastPlayed: now } : tune));
    }
    return steps;
  });
}
