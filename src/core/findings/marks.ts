import { landingMark, type LandingMark, type Report } from '../analyse';
import { timelineOf, type Chart, beatInForm } from '../chart';
import { cellAt, type Plan } from '../plan';
import { elementAt } from '../shared';

/** The five marks of a report's changes, by change. */
export function marksOf(report: Report, plan: Plan, chart: Chart, tempo: number): LandingMark[] {
  const { chordSpans: stretches, formBeats } = timelineOf(chart, tempo);
  return report.changes.map((change) => {
    const at = beatInForm({ formBeats }, change.beat);
    const stretch = stretches.findLast((one) => one.start <= at + 1e-6) ?? elementAt(stretches, 0);
    return landingMark(change.landing, (index) =>
      cellAt(plan, stretch.index, change.chorus - 1).targets.includes(
        ((Math.round(elementAt(report.notes, index).midi) % 12) + 12) % 12,
      ),
    );
  });
}
