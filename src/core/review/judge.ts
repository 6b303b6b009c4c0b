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
import { latest, unwrap, type BeatsPerMinute, type Seconds } from '../shared';

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
  chart: chartOf(chartText),
  plan: unwrap(planFromWords(plan)),
});

/** The same take is judged again and again while its plan or its notes change. */
const chartOf = latest((text: string): Chart => unwrap(readChart(text)));

/** Its notes with their edits, and where they lie in beats. */
const notesOf = latest(
  (heard: TakeCase['heard'], edits: TakeCase['edits'], pace: Pace | BeatsPerMinute, offsetSec: Seconds) => {
    const notes = corrected(heard, edits);
    return { notes, doubts: doubtsOf(notes), played: playedFrom(notes, pace, offsetSec) };
  },
);

/** The report alone, of all notes. */
export function reportOf(one: TakeCase): Report {
  return analyse({
    ...readCase(one),
    tempo: one.tempo,
    choruses: one.choruses,
    isLatencyMeasured: one.isLatencyMeasured,
    notes: notesOf(one.heard, one.edits, one.pace ?? one.tempo, one.offsetSec).played,
  });
}

/**
 * Holds a take against its chart: the same on the server, in the browser while notes are corrected, and in
 * a test. The report is of all
 * notes, those in doubt too.
 */
export function judgeTake(one: TakeCase, { chart, plan } = readCase(one)): Judgement {
  const { notes, doubts, played } = notesOf(one.heard, one.edits, one.pace ?? one.tempo, one.offsetSec);
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

/**
 * Judges a piece of a take and keeps nothing of it: an engine that has judged often judges the whole take quicker.
 * @param from place of the first note; past the last one it begins anew
 * @param count of notes
 */
export function judgePiece({ heard, edits, ...one }: TakeCase, from: number, count: number): void {
  const { chart, plan } = readCase({ heard, edits, ...one });
  const first = heard.length > count ? from % (heard.length - count) : 0;
  const notes = corrected(heard.slice(first, first + count), []);
  const played = playedFrom(notes, one.pace ?? one.tempo, one.offsetSec);
  const report = analyse({ ...one, chart, plan, notes: played });
  marksOf(report, planOn(chart, timelineOf(chart, one.tempo), plan).plan, chart, one.tempo);
  reportPlaces(report, played);
}
