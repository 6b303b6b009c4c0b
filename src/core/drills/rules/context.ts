import type { ChangeReport, Phrase, Report } from '../../analyse';
import { formPositionOf, type Chart, type Harmony, type Timeline } from '../../chart';
import type { Plan } from '../../plan';
import { elementAt, type Beats } from '../../shared';
import type { RuleCheck } from '../rule';

/** An attempt as a rule looks at it: what was analysed, and the form it was played over. */
export type AttemptContext = {
  readonly report: Report;
  readonly chart: Chart;
  readonly timeline: Timeline;
  readonly plan: Plan;
  readonly harmony: Harmony;
};

/** A note this little before a bar line is meant for it (common practice, no source). */
export const NEAR: Beats = 0.2;
const ON_TIME = ['on', 'early'];

/** Is the landing of a change there when the chord is? */
export const isOnTime = ({ landing }: ChangeReport): boolean => ON_TIME.includes(landing.timing);

/** Changes of the form that somebody played at: one at rest is no place to meet anything. */
export const overChanges = (report: Report, met: (change: ChangeReport) => boolean): RuleCheck[] =>
  report.changes
    .filter(({ landing }) => !landing.rest)
    .map((change) => ({ beat: change.beat, met: met(change) }));

/** Line notes by the chord they sound over, one run of a chord after the other. */
export function overChords(
  report: Report,
  met: (notes: readonly Report['notes'][number][]) => boolean,
): RuleCheck[] {
  const runs: Report['notes'][number][][] = [];
  for (const note of report.notes) {
    if (note.function === 'grace' || note.chord === null) continue;
    const run = runs[runs.length - 1];
    if (
      run &&
      elementAt(run, 0).chord === note.chord &&
      note.onsetBeat - elementAt(run, run.length - 1).onsetBeat < 4
    )
      run.push(note);
    else runs.push([note]);
  }
  return runs.map((run) => ({ beat: elementAt(run, 0).onsetBeat, met: met(run) }));
}

/** Bars that are played in; `single`: only those of one chord. */
export function overBars(
  report: Report,
  timeline: Timeline,
  met: (indices: readonly number[]) => boolean,
  single = false,
): RuleCheck[] {
  const found = new Map<number, number[]>();
  for (const { index, onsetBeat, function: role } of report.notes) {
    if (onsetBeat < -1e-6 || role === 'grace') continue;
    const { chorus, bar } = formPositionOf(timeline, onsetBeat + NEAR);
    if (
      single &&
      timeline.chordSpans.some(
        (stretch) =>
          stretch.start > elementAt(timeline.bars, bar).start + 1e-6 &&
          stretch.start < elementAt(timeline.bars, bar).end - 1e-6,
      )
    )
      continue;
    const start = chorus * timeline.formBeats + elementAt(timeline.bars, bar).start;
    const inside = found.get(start);
    if (inside) inside.push(index);
    else found.set(start, [index]);
  }
  return [...found].map(([beat, indices]) => ({ beat, met: met(indices) }));
}

/** Phrases that begin in the form, not in the count-in. */
export const overPhrases = (report: Report, met: (phrase: Phrase, index: number) => boolean): RuleCheck[] =>
  report.phrases.flatMap((phrase, index) =>
    phrase.startBeat < -1e-6 ? [] : [{ beat: phrase.startBeat, met: met(phrase, index) }],
  );

/** The beat a bar of the take begins on; bars count from 0 through all choruses. */
export function startOfBar(timeline: Timeline, bar: number): Beats {
  const chorus = Math.floor(bar / timeline.bars.length);
  return chorus * timeline.formBeats + elementAt(timeline.bars, bar - chorus * timeline.bars.length).start;
}
