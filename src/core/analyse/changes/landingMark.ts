import { type Landing } from './landings';
/** Met on time, met late, by another chord tone, not met, at rest: the five marks of a change. */
export type LandingMark = 'target' | 'target-late' | 'chord-tone' | 'not-met' | 'rest';

/** @param isTarget does this note of the report, over this change, name a target of the plan? */
export function landingMark(landing: Landing, isTarget: (noteIndex: number) => boolean): LandingMark {
  if (landing.rest || landing.excused) return 'rest';
  if (landing.verdict === 'target') return landing.delayed ? 'target-late' : 'target';
  if (landing.verdict === 'chord-tone') return 'chord-tone';
  if (landing.resolutionIndex !== undefined && isTarget(landing.resolutionIndex)) return 'target-late';
  return 'not-met';
}
