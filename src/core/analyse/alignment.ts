import { secondsToBeats } from '../shared';
import { analyse, type AnalysisRequest, type Report } from './report';

/** How far a take lies behind the grid by its own notes (negative: ahead), and how much of it was taken out. */
export type GridAlignment = { readonly estimatedMs: number | null; readonly appliedMs: number };

/** More than this is never taken out unasked: it may be the player's own time. */
export const MOST_UNASKED_MS = 30;

/**
 * Analyses a take whose offset nobody gave: the grid is estimated from the take, taken out up to 30 ms, and
 * reported.
 * Rule T1.5: the residual is estimated from the take itself and shown, never silently applied beyond 30 ms.
 */
export function analyseAligned(request: AnalysisRequest): {
  readonly report: Report;
  readonly alignment: GridAlignment;
} {
  const report = analyse(request);
  const estimatedMs = report.time.offsetMs;
  if (estimatedMs === null || Math.abs(estimatedMs) > MOST_UNASKED_MS || Math.abs(estimatedMs) < 1)
    return { report, alignment: { estimatedMs, appliedMs: 0 } };
  const shift = secondsToBeats(estimatedMs / 1000, request.tempo);
  return {
    report: analyse({
      ...request,
      notes: request.notes.map((note) => ({ ...note, onsetBeat: note.onsetBeat - shift })),
    }),
    alignment: { estimatedMs, appliedMs: estimatedMs },
  };
}
