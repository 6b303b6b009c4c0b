import { analyse, type LandingMark, type Report } from '../analyse';
import { readChart, timelineOf, type Chart, type Pace, type Timeline } from '../chart';
import {
  corrected,
  doubtsOf,
  playedFrom,
  reportPlaces,
  type CorrectedNote,
  type Doubt,
  type Edit,
  type NoteId,
  type SecondsNote,
} from '../correct';
import { planFromWords, planOn, type PlanChoice, type PlanWords } from '../plan';
import { marksOf } from '../findings';
import { unwrap, type BeatsPerMinute, type Seconds } from '../shared';

/** All that decides what is said of a take. */
export type TakeCase = {
  readonly chartText: string;
  readonly tempo: BeatsPerMinute;
  readonly pace: Pace | null;
  readonly choruses: number;
  readonly plan: PlanWords;
  /** Where beat 0 lies in the sound. */
  readonly offsetSec: Seconds;
  readonly heard: readonly SecondsNote[];
  readonly edits: readonly Edit[];
  /** Was the latency of the device measured when it was recorded? */
  readonly isLatencyMeasured: boolean;
};

/** What is said of it. `places[i]` is the note that note i of the report was heard as. */
export type Judgement = {
  readonly chart: Chart;
  readonly timeline: Timeline;
  readonly plan: PlanChoice;
  readonly notes: readonly CorrectedNote[];
  readonly report: Report;
  readonly marks: readonly LandingMark[];
  readonly places: readonly NoteId[];
  readonly doubts: readonly Doubt[];
};

/** The chart and the plan of a case, read. */
export const readCase = ({ chartText, plan }: TakeCase): { chart: Chart; plan: PlanChoice } => ({
  chart: unwrap(readChart(chartText)),
  plan: unwrap(planFromWords(plan)),
});

/** The report alone, of all notes. */
export function reportOf(one: TakeCase): Report {
  return analyse({
    ...readCase(one),
    tempo: one.tempo,
    choruses: one.choruses,
    isLatencyMeasured: one.isLatencyMeasured,
    notes: playedFrom(corrected(one.heard, one.edits), one.pace ?? one.tempo, one.offsetSec),
  });
}

/**
 * Holds a take against its chart: the same on the server, in the browser while notes are corrected, and in
 * a test. The report is of all
 * notes, those in doubt too.
 */
export function judgeTake(one: TakeCase, { chart, plan } = readCase(one)): Judgement {
  const notes = corrected(one.heard, one.edits);
  const doubts = doubtsOf(notes);
  const played = playedFrom(notes, one.pace ?? one.tempo, one.offsetSec);
  const { tempo, choruses, isLatencyMeasured } = one;
  const timeline = timelineOf(chart, tempo);
  const report = analyse({ chart, tempo, plan, choruses, isLatencyMeasured, notes: played });
  return {
    chart,
    timeline,
    plan,
    notes,
    report,
    marks: marksOf(report, planOn(chart, timeline, plan).plan, chart, tempo),
    places: reportPlaces(report, played),
    doubts,
  };
}
