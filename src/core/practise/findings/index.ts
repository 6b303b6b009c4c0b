import { harmonyOf, timelineOf } from '../../chart';
import { planOf } from '../../plan';
import { approachOneSide, approachUnresolved, noApproaches, noEnclosures } from './approaches';
import { withoutSymptoms } from './causes';
import { homeScaleOnly, narrowRange, onePosition, outlineOnly, tonesNeverPlayed } from './coverage';
import type { Context, Finding, FindingsRequest } from './finding';
import { chordHitWrong, lostPlace } from './form';
import { staysOnGround, staysOutside, stepOutLost } from './height';
import { landingLate, leapsIntoChanges, rootOnly, stillOnOldChord, targetsMissed, toneMissed, turns } from './landings';
import { leapsOnly, oneDirection, scaleRunning } from './line';
import { endsAsking, neverCrosses, noMotif, noSpace, phrasesTooShort, sameShape, startsAlike, startsOnOne } from './phrases';
import { aheadOrBehind, noUpbeats, oneRhythm, uneven } from './time';

export type { DrillSpec, Finding, FindingKind, FindingsRequest } from './finding';

const KINDS: readonly ((context: Context) => Finding[])[] = [
  targetsMissed, toneMissed, stillOnOldChord, landingLate, rootOnly, leapsIntoChanges, turns, noApproaches, approachOneSide, approachUnresolved, noEnclosures, tonesNeverPlayed, homeScaleOnly, outlineOnly,
  narrowRange, onePosition, startsOnOne, startsAlike, noSpace, phrasesTooShort, neverCrosses, endsAsking, noMotif, sameShape, aheadOrBehind, uneven, noUpbeats, oneRhythm, scaleRunning, leapsOnly, oneDirection,
  staysOutside, staysOnGround, stepOutLost, lostPlace, chordHitWrong,
];

/**
 * Ranked findings of one report; the first is the one to say.
 * Rule: 2-theory, "Findings": how often × how much it hides the harmony × how near the fix; one finding per cause.
 */
export function findingsOf(request: FindingsRequest): Finding[] {
  const { chart, tempo, report } = request;
  const timeline = timelineOf(chart, tempo);
  const harmony = harmonyOf(chart, timeline);
  const context: Context = { chart, tempo, report, timeline, harmony, plan: planOf(request.plan, harmony, timeline) };
  return withoutSymptoms(KINDS.flatMap((kind) => kind(context))).sort((a, b) => b.weight - a.weight);
}
