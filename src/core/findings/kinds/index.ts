import { timelineOf } from '../../chart';
import { planOn } from '../../plan';
import { approachOneSide, approachUnresolved, noApproaches, noEnclosures } from './approaches';
import { withoutSymptoms } from './causes';
import { homeScaleOnly, narrowRange, onePosition, outlineOnly, tonesNeverPlayed } from './coverage';
import { ENOUGH, type FindingContext, type Finding, type FindingsRequest, type Measure } from './finding';
import { chordHitWrong, handoverLate, lostPlace } from './form';
import { staysOnGround, staysOutside, stepOutLost } from './height';
import {
  landingLate,
  leapsIntoChanges,
  rootOnly,
  stillOnOldChord,
  targetsMissed,
  toneMissed,
  turns,
} from './landings';
import { leapsOnly, oneDirection, scaleRunning } from './line';
import {
  endsAsking,
  neverCrosses,
  noMotif,
  noSpace,
  phrasesTooShort,
  sameShape,
  startsAlike,
  startsOnOne,
} from './phrases';
import { poolReports, type Pool } from './pool';
import { gotBetter } from './praise';
import { aheadOrBehind, noUpbeats, oneRhythm, uneven } from './time';
import { elementAt } from '../../shared';

export type { DrillSpec, Finding, FindingKind, FindingsRequest, FindingPlace, ToneName } from './finding';

const KINDS: readonly ((context: FindingContext) => Measure[])[] = [
  targetsMissed,
  toneMissed,
  (context) => stillOnOldChord(context),
  landingLate,
  rootOnly,
  leapsIntoChanges,
  turns,
  noApproaches,
  approachOneSide,
  approachUnresolved,
  noEnclosures,
  tonesNeverPlayed,
  homeScaleOnly,
  outlineOnly,
  narrowRange,
  onePosition,
  startsOnOne,
  startsAlike,
  noSpace,
  phrasesTooShort,
  neverCrosses,
  endsAsking,
  noMotif,
  sameShape,
  aheadOrBehind,
  uneven,
  noUpbeats,
  oneRhythm,
  scaleRunning,
  leapsOnly,
  oneDirection,
  staysOutside,
  staysOnGround,
  stepOutLost,
  lostPlace,
  handoverLate,
  chordHitWrong,
];

/** What was found, and what there was too little of to tell. */
export type Findings = { readonly findings: readonly Finding[]; readonly tooFew: readonly Finding[] };

/** Ranked findings of one report; the first is the one to say. */
export const findingsOf = (request: FindingsRequest): Finding[] => [...findingsOver([request]).findings];

/** What the last take did better than those before it, or kept at a faster tempo; nothing of a first take. */
export const praiseOf = (takes: readonly FindingsRequest[]): Finding[] =>
  takes.length < 2 ? [] : gotBetter(takes, measuresOf(takes.slice(0, -1)), measuresOf(takes.slice(-1)));

/**
 * Ranked findings over one take or many of the same chart, the last take the newest.
 * Rule T13.2: how often × how much it hides the harmony × how near the fix; one finding per cause. What got
 * better comes first when it is new.
 * The takes' counts are added up; all are held against the last one's plan, and drills take its tempo.
 * @returns `tooFew` holds what lies under its limit, but not surely
 */
export function findingsOver(takes: readonly FindingsRequest[]): Findings {
  if (takes.length === 0) return { findings: [], tooFew: [] };
  const pool = poolReports(takes);
  const measures = measuresOf(takes, pool);
  const said = (one: Measure): Finding => overTakes(toFinding(one), pool);
  const weak = withoutSymptoms(measures.filter(({ raised }) => raised).map(said)).sort(
    (a, b) => b.weight - a.weight,
  );
  const unsure = measures.filter(
    (one) => !one.raised && one.met / one.of < one.limit && (one.of < ENOUGH || one.interval[1] >= one.limit),
  );
  return {
    findings: [...praiseOf(takes), ...weak],
    tooFew: unsure.sort((a, b) => b.weight - a.weight).map(said),
  };
}

const toFinding = ({ limit: _limit, raised: _raised, praised: _praised, ...finding }: Measure): Finding =>
  finding;

function measuresOf(takes: readonly FindingsRequest[], pool: Pool = poolReports(takes)): Measure[] {
  const { chart, plan, tempo } = elementAt(takes, takes.length - 1);
  const timeline = timelineOf(chart, tempo);
  const { plan: laid, harmony } = planOn(chart, timeline, plan);
  // a plan of its own for the second chorus holds in the second chorus of every take
  const byChorus = new Map(
    pool.takes.flatMap(({ firstBar }) =>
      [...laid.byChorus].map(([chorus, cells]) => [chorus + firstBar / timeline.bars.length, cells] as const),
    ),
  );
  const context: FindingContext = {
    chart,
    tempo,
    timeline,
    harmony,
    report: pool.report,
    plan: { ...laid, byChorus },
    tempoAt: (beat) => pool.takeAt(beat).tempo,
  };
  return KINDS.flatMap((kind) => kind(context));
}

/** Over several takes the sentence says so, and bars are told take by take. */
function overTakes(finding: Finding, pool: Pool): Finding {
  if (pool.takes.length < 2) return finding;
  const takes = pool.takes.map(({ firstBar, bars }, index) => ({
    take: index + 1,
    bars: finding.where.bars
      .filter((bar) => bar > firstBar && bar <= firstBar + bars)
      .map((bar) => bar - firstBar),
  }));
  return {
    ...finding,
    sentence: `In ${pool.takes.length} takes: ${finding.sentence.charAt(0).toLowerCase()}${finding.sentence.slice(1)}`,
    where: {
      ...finding.where,
      bars: elementAt(takes, takes.length - 1).bars,
      takes: takes.filter(({ bars }) => bars.length > 0),
    },
  };
}
