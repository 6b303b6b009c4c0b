import { soundingAt, type Timeline } from '../../chart';
import { cellAt, type Plan } from '../../plan';
import type { ChangeReport } from '../changes/landings';
import type { JudgedNote } from '../noteFunctions/noteReport';
import { defined } from '../../shared';

export type Summary = {
  readonly notes: number;
  readonly choruses: number;
  readonly changes: number;
  /**
   * Changes with something sounding near them, and how many of those landed on a target or reached one late.
   */
  readonly judgedChanges: number;
  readonly targetsMet: number;
  readonly targetsMetLate: number;
  /** Plan fit: notes that are material of the plan or members of a figure that resolved, of all but graces. */
  readonly notesInPlan: number;
  readonly notesJudged: number;
};

/** The take in numbers. Rule T6.3: plan fit also accepts members of resolved figures. */
export function summaryOf(
  timeline: Timeline,
  plan: Plan,
  notes: readonly JudgedNote[],
  changes: readonly ChangeReport[],
  figures: readonly { readonly noteIndices: readonly number[] }[],
  choruses: number,
): Summary {
  const judged = changes.filter(({ landing }) => !landing.rest);
  const late = judged.filter(({ landing, beat, chorus }) => {
    if (landing.verdict === 'target' || landing.resolutionIndex === undefined) return false;
    return cellAt(plan, soundingAt(timeline, beat).span.index, chorus - 1).targets.includes(
      defined(notes[landing.resolutionIndex]).voice.pc,
    );
  });
  const members = new Set(figures.flatMap(({ noteIndices }) => noteIndices));
  const played = notes.filter(({ note }) => note.function !== 'grace');
  return {
    notes: notes.length,
    choruses,
    changes: changes.length,
    judgedChanges: judged.length,
    targetsMet: judged.filter(({ landing }) => landing.verdict === 'target').length,
    targetsMetLate: late.length,
    notesInPlan: played.filter(({ note }) => note.inPlan || members.has(note.index)).length,
    notesJudged: played.length,
  };
}
