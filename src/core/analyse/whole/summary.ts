import { soundingAt, type Timeline } from '../../chart';
import { cellAt, type Plan } from '../../plan';
import type { ChangeReport } from '../changes/landings';
import type { JudgedNote } from '../deeds/noteReport';

export type Summary = {
  readonly notes: number; readonly choruses: number; readonly changes: number;
  /** Changes with something sounding near them, and how many of those landed on a target or reached one late. */
  readonly judgedChanges: number; readonly targetsMet: number; readonly targetsMetLate: number;
};

/** The take in six numbers. */
export function summaryOf(timeline: Timeline, plan: Plan, notes: readonly JudgedNote[], changes: readonly ChangeReport[], choruses: number): Summary {
  const judged = changes.filter(({ landing }) => !landing.rest);
  const late = judged.filter(({ landing, beat, chorus }) => {
    if (landing.verdict === 'target' || landing.resolutionIndex === undefined) return false;
    return cellAt(plan, soundingAt(timeline, beat).stretch.index, chorus - 1).targets.includes(notes[landing.resolutionIndex]!.voice.pc);
  });
  return {
    notes: notes.length, choruses, changes: changes.length, judgedChanges: judged.length,
    targetsMet: judged.filter(({ landing }) => landing.verdict === 'target').length, targetsMetLate: late.length,
  };
}
