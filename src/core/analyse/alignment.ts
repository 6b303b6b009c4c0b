import { analyse, type AnalysisRequest, type Report } from './report';
import { MOST_UNDECIDED_MS } from './time/lean';

/** How far a take lies behind the grid by its own notes (negative: ahead), and how much of it was taken out. */
export type GridAlignment = { readonly estimatedMs: number | null; readonly appliedMs: number };

/** More than this is never taken out undecided: it may be the player's own time. */
export const MOST_UNASKED_MS = MOST_UNDECIDED_MS;

/** A report with what was found and taken out of its lean (T1.6). */
export function analyseAligned(request: AnalysisRequest): {
  readonly report: Report;
  readonly alignment: GridAlignment;
} {
  const report = analyse(request);
  const { offsetMs, lean } = report.time;
  return { report, alignment: { estimatedMs: offsetMs, appliedMs: lean.takenMs } };
}
