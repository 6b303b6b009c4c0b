import { type Beats, defined } from '../../shared';

/** A lean that grows (T1.7): by how much over the whole take, and how many onsets stayed with its beginning. */
export type Drift = {
  /** Positive: fell behind. */
  readonly ms: number;
  /** Far more than the scatter of the onsets explains. */
  readonly isSure: boolean;
  readonly steady: number;
  readonly of: number;
};

const ENOUGH = 24;
/** Standard errors away from no drift at all. */
const SURE = 4;
const STEADY_MS = 15;

/**
 * A straight line through the deviations of a take, least squares.
 * @param deviations onsets in beats, in order, each with its milliseconds off the grid
 */
export function driftOf(deviations: readonly { readonly at: Beats; readonly ms: number }[]): Drift | null {
  const of = deviations.length;
  if (of < ENOUGH) return null;
  let [meanAt, meanMs] = [0, 0];
  for (const { at, ms } of deviations) {
    meanAt += at / of;
    meanMs += ms / of;
  }
  let [along, together] = [0, 0];
  for (const { at, ms } of deviations) {
    along += (at - meanAt) ** 2;
    together += (at - meanAt) * (ms - meanMs);
  }
  if (along === 0) return null;
  const slope = together / along;
  let left = 0;
  for (const { at, ms } of deviations) left += (ms - meanMs - slope * (at - meanAt)) ** 2;
  const error = Math.sqrt(left / Math.max(1, of - 2) / along);
  const first = defined(deviations[0]).at;
  const last = defined(deviations[of - 1]).at;
  const start = meanMs + slope * (first - meanAt);
  return {
    ms: slope * (last - first),
    isSure: Math.abs(slope) >= SURE * error,
    steady: deviations.filter(({ ms }) => Math.abs(ms - start) <= STEADY_MS).length,
    of,
  };
}
