import { timelineOf } from '../chart';
import { planOn } from '../plan';
import { elementAt } from '../shared';
import { withoutSymptoms } from './causes';
import { ENOUGH, type Finding, type FindingContext, type FindingsRequest, type Measure } from './finding';
import { KINDS } from './kinds';
import { poolReports, type Pool } from './pool';
import { gotBetter, keyOf } from './praise';

/** What was found, and what there was too little of to tell. */
export type Findings = { readonly findings: readonly Finding[]; readonly tooFew: readonly Finding[] };

/** Ranked findings of one report; the first is the one to say. */
export const findingsOf = (request: FindingsRequest): Finding[] => [...findingsOver([request]).findings];

/** What the last take did better than those before it, or kept at a faster tempo; nothing of a first take. */
export const praiseOf = (takes: readonly FindingsRequest[]): Finding[] =>
  takes.length < 2 ? [] : gotBetter(takes, measuresOf(takes.slice(0, -1)), measuresOf(takes.slice(-1)));

/** Findings of the last take, each with the counts of the takes before it. */
export function heldAgainst(findings: readonly Finding[], before: readonly FindingsRequest[]): Finding[] {
  if (before.length === 0) return [...findings];
  const old = new Map(measuresOf(before).map((one) => [keyOf(one), one]));
  return findings.map((finding) => {
    const was = old.get(keyOf(finding));
    return was && was.of >= ENOUGH ? { ...finding, before: { met: was.met, of: was.of } } : finding;
  });
}

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
  const weak = withoutSymptoms(measures.filter(({ raised }) => raised));
  const unsure = measures.filter(
    (one) => !one.raised && one.met / one.of < one.limit && (one.of < ENOUGH || one.interval[1] >= one.limit),
  );
  const said = (one: Measure): Finding => overTakes(toFinding(one), pool);
  return {
    findings: [...praiseOf(takes), ...besideOthers(weak).map(said)],
    tooFew: withoutSymptoms(unsure, weak).map(said),
  };
}

/** That no idea came back is said only beside other findings (T13.7). */
const besideOthers = (weak: readonly Measure[]): readonly Measure[] =>
  weak.every(({ kind }) => kind === 'no-motif') ? [] : weak;

const toFinding = ({ limit: _limit, raised: _raised, praised: _praised, ...finding }: Measure): Finding =>
  finding;

export function measuresOf(takes: readonly FindingsRequest[], pool: Pool = poolReports(takes)): Measure[] {
  const context = contextOf(takes, pool);
  return KINDS.flatMap((kind) => kind.measures(context));
}

/** Several takes as one, held against the last one's plan. */
export function contextOf(
  takes: readonly FindingsRequest[],
  pool: Pool = poolReports(takes),
): FindingContext {
  const { chart, plan, tempo } = elementAt(takes, takes.length - 1);
  const timeline = timelineOf(chart, tempo);
  const { plan: laid, harmony } = planOn(chart, timeline, plan);
  // a plan of its own for the second chorus holds in the second chorus of every take
  const byChorus = new Map(
    pool.takes.flatMap(({ firstBar }) =>
      [...laid.byChorus].map(([chorus, cells]) => [chorus + firstBar / timeline.bars.length, cells] as const),
    ),
  );
  return {
    chart,
    tempo,
    timeline,
    harmony,
    report: pool.report,
    plan: { ...laid, byChorus },
    tempoAt: (beat) => pool.takeAt(beat).tempo,
  };
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
