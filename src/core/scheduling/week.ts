import { DAY_MS, type Timestamp } from './due';
import { sessionOf, type DueDrill, type DueTune, type SessionRequest, type SessionStep } from './session';

export type DaysRequest = Omit<SessionRequest, 'drills' | 'now'> & {
  /** Every drill as it stands at a moment: what is known of it fades. */
  readonly drills: (at: Timestamp) => readonly DueDrill[];
  /** Now, and then the end of each day that follows. */ readonly moments: readonly Timestamp[];
};

/** Nine in ten still pass when they come back: see `scheduledMemory`. */
const STILL = 0.9;

/**
 * The practice of the coming days, each as `sessionOf` would choose it if all before it were done and went well: a
 * drill that was played comes back after its days, and a tune that was played is the longest unplayed no more.
 * @returns a list of steps for each of the moments
 */
export function practiceDays({ drills, moments, tunes, course, ...request }: DaysRequest): SessionStep[][] {
  const played = new Map<string, Timestamp>();
  let known: readonly DueTune[] = tunes;
  return moments.map((now, day) => {
    const steps = sessionOf({
      ...request,
      now,
      drills: drills(now).flatMap((drill) => againOf(drill, played.get(drill.id)) ?? []),
      tunes: known,
      course: day === 0 ? (course ?? null) : null,
    });
    for (const step of steps) {
      if (step.kind === 'drill') played.set(step.id, now);
      if (step.kind === 'take')
        known = known.map((tune) => (tune.chart === step.chart ? { ...tune, lastPlayed: now } : tune));
    }
    return steps;
  });
}

/** A drill after it was played at a moment; null where nobody knows when it would come back. */
function againOf(drill: DueDrill, playedAt: Timestamp | undefined): DueDrill | null {
  if (playedAt === undefined) return drill;
  const { backAfter } = drill;
  // a goal takes nothing ahead that was only just played
  return backAfter === undefined
    ? null
    : { ...drill, dueAt: playedAt + backAfter * DAY_MS, still: STILL, waitsForItsDay: true };
}
