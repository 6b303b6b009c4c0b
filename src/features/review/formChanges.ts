import type { Report } from '@/core/analyse';
import type { Timeline } from '@/core/chart';
import { BARS_A_ROW } from '@/ui/form/formRows';
import { elementAt } from '@/core/shared';

/** A change of the form folded over its choruses. */
export type FormChange = {
  readonly beat: number;
  readonly bar: number;
  readonly beatInBar: number;
  readonly to: string;
  readonly row: number;
  readonly changes: readonly number[];
};
/** The changes of the form in order, each with its landings of every chorus. */
export function formChangesOf(report: Report, timeline: Timeline): FormChange[] {
  const found = new Map<
    number,
    { beat: number; bar: number; beatInBar: number; to: string; row: number; changes: number[] }
  >();
  report.changes.forEach((change, index) => {
    const beat = Math.round((change.beat - (change.chorus - 1) * timeline.formBeats) * 1000) / 1000;
    const formChange = found.get(beat) ?? {
      beat,
      bar: change.bar,
      beatInBar: beat - elementAt(timeline.bars, change.bar - 1).start,
      to: change.to,
      row: Math.floor((change.bar - 1) / BARS_A_ROW),
      changes: [],
    };
    formChange.changes.push(index);
    found.set(beat, formChange);
  });
  return [...found.values()].sort((a, b) => a.beat - b.beat);
}
