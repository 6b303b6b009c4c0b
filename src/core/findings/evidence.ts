import type { ChangeReport, Report } from '../analyse';
import { elementAt } from '../shared';
import type { Counted, FindingContext } from './finding';
import { barAt } from './bars';
import type { Rate } from './wilson';

/** The notes that counts rest on, by their indices in the report: those of what was done well and the others. */
export type RestsOn = { readonly met: readonly number[]; readonly missed: readonly number[] };

/**
 * Counts weighed by how sure the ears are of the notes they rest on: a doubtful note counts for as much as its
 * confidence. Where a kind does not name its notes, what was missed weighs as the notes of its bars do, and
 * what was met as those of the whole take. Counts of a line that was written or typed are left as they are.
 * Rule T13.1.
 */
export function evidenceOf(context: FindingContext, one: Counted<unknown>): Rate {
  const { met, of, where, rests } = one;
  const missed = of - met;
  const known = confidenceByBar(context);
  if (!known) return { met, of };
  if (rests) {
    const sure = (notes: readonly number[], cases: number) =>
      notes.reduce((sum, index) => sum + confidenceOf(context, index), Math.max(0, cases - notes.length));
    const weighed = sure(rests.met, met);
    return { met: weighed, of: weighed + sure(rests.missed, missed) };
  }
  const weighed = met * known.mean;
  return { met: weighed, of: weighed + missed * meanOver(known, where.bars) };
}

/** The landings of changes, as what the counts rest on. */
export function restingOnLandings(all: readonly ChangeReport[], missed: readonly ChangeReport[]): RestsOn {
  const isMissed = new Set(missed);
  const notesOf = (changes: readonly ChangeReport[]) =>
    changes.flatMap(({ landing: { noteIndex } }) => (noteIndex === null ? [] : [noteIndex]));
  return { met: notesOf(all.filter((change) => !isMissed.has(change))), missed: notesOf(missed) };
}

const confidenceOf = ({ report }: FindingContext, index: number): number =>
  elementAt(report.notes, index).confidence ?? 1;

type Confidences = {
  readonly mean: number;
  readonly byBar: ReadonlyMap<number, { readonly sum: number; readonly notes: number }>;
};

function meanOver({ mean, byBar }: Confidences, bars: readonly number[]): number {
  let [sum, notes] = [0, 0];
  for (const bar of new Set(bars)) {
    const here = byBar.get(bar);
    if (here) [sum, notes] = [sum + here.sum, notes + here.notes];
  }
  return notes === 0 ? mean : sum / notes;
}

/** Reports do not change once they are made. */
const kept = new WeakMap<Report, Confidences | null>();

/** @returns null where no note is in question */
function confidenceByBar(context: FindingContext): Confidences | null {
  const { report } = context;
  const known = kept.get(report);
  if (known !== undefined) return known;
  const byBar = new Map<number, { sum: number; notes: number }>();
  let [all, doubted] = [0, false];
  for (const note of report.notes) {
    const confidence = note.confidence ?? 1;
    doubted ||= confidence < 1;
    all += confidence;
    const bar = barAt(context, note.onsetBeat);
    const here = byBar.get(bar);
    if (here) [here.sum, here.notes] = [here.sum + confidence, here.notes + 1];
    else byBar.set(bar, { sum: confidence, notes: 1 });
  }
  const found = doubted ? { mean: all / report.notes.length, byBar } : null;
  kept.set(report, found);
  return found;
}
