import { beatInForm } from '../../chart';
import type { ChangeReport } from '../../analyse';
import { cellAt } from '../../plan';
import { elementAt, type PitchClass } from '../../shared';
import type { FindingContext } from '../finding';

/** A change that a note landed at. */
export type LandedChange = ChangeReport & { readonly landing: { readonly noteIndex: number } };

/** Changes with a landing, where something was playing. */
export const landedOn = ({ report }: FindingContext): LandedChange[] =>
  report.changes.filter(
    (change): change is LandedChange => !change.landing.rest && change.landing.noteIndex !== null,
  );

/** The pitch class of a note of the report. */
export const pcAt = ({ report }: FindingContext, index: number): PitchClass =>
  ((Math.round(elementAt(report.notes, index).midi) % 12) + 12) % 12;

/** What the plan asks for at a change. */
export function targetsAt({ plan, timeline }: FindingContext, change: ChangeReport): readonly PitchClass[] {
  const { chordSpans, formBeats } = timeline;
  const at = beatInForm({ formBeats }, change.beat);
  const span = chordSpans.findLast(({ start }) => start <= at + 1e-6) ?? elementAt(chordSpans, 0);
  return cellAt(plan, span.index, change.chorus - 1).targets;
}
